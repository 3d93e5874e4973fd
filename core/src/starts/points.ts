import { AMP_LESS, TWO_DIS, BASS_SPLIT, MODELLER, LOOPER, TIMELINE } from './ampless-points.js';
import { STRAIGHT, FRONT_AND_LOOP, FOUR_CABLES, TWO_AMPS, WET_DRY } from './amp-points.js';
import { type StartingPoint } from './questions.js';

export const STARTING_POINTS: readonly StartingPoint[] = [
  STRAIGHT,
  FRONT_AND_LOOP,
  FOUR_CABLES,
  AMP_LESS,
  TWO_AMPS,
  WET_DRY,
  BASS_SPLIT,
  TWO_DIS,
  MODELLER,
  LOOPER,
  TIMELINE,
];

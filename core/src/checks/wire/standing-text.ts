import type { Standing } from '../../electric/speakers/speaker-states.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Rig } from '../../rig/rig.js';
import { listed } from '../names.js';

/** @example standingText(rig, standing) // ' as soon as S select stands at b' */
export const standingText = (rig: Rig, standing: Standing): string =>
  standing.size === 0
    ? ''
    : ` as soon as ${listed([...standing].map(([control, value]) => `${controlText(rig, control)} stands at ${valueText(rig, control, value)}`))}`;

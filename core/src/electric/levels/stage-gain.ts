import type { Block, Device, Stage } from '../../rig/device.js';
import type { Rig } from '../../rig/rig.js';
import type { RigState } from '../../signal/graph/state.js';
import { gainOf, GAIN_STAGES, USUAL_DBU } from '../gain.js';
import { isMeasured, NOMINAL_DBU, typicalOf } from '../typical.js';
import { openness } from '../volume.js';
import { decibels } from './decibels.js';
import { limited } from './limit.js';

/** A stage that clips on purpose: its gain is drive, and its level stands behind it. */
export const isDriven = (stage: Stage): boolean => stage !== 'boost' && GAIN_STAGES.includes(stage);

/** What a stage makes of a level, in dB and dBu. */
export interface StageGain {
  /** @param dbu what goes in @returns what comes out */
  readonly out: (dbu: number) => number;
  /** Gain of what is too quiet to drive it, such as noise. */
  readonly quiet: number;
  /** By how many dB it takes the peaks down against the average. */
  readonly evens: number;
  readonly noise: number;
  /** Somebody wrote its gain down. */
  readonly said: boolean;
}

/** What is left of the signal behind a volume, in dB: an audio taper (common practice, assumed). */
const openDb = (device: Device, state: RigState): number => 40 * Math.log10(Math.max(0.01, openness(device, state)));

/** By how much a preamp is louder at its output than an instrument: line level where its box has such a jack. */
const intoLine = ({ jacks }: Device, stage: Stage): number =>
  (stage === 'preamp' || stage === 'channel') && jacks.some((j) => j.poles.tip === 'out' && j.level === 'line')
    ? NOMINAL_DBU.line - NOMINAL_DBU.instrument
    : 0;

/**
 * What a stage that is in makes of a level. Where nobody measured it, its own level knob is taken to stand where people
 * leave it: a usual instrument comes out as loud as it goes in, a boost lifts by 4 dB. So a boost behind a driven stage
 * is level, and before it hardly more than drive.
 */
export const stageGain = (rig: Rig, device: Device, block: Block, state: RigState): StageGain => {
  const typical = typicalOf(block.stage);
  const noise = block.noiseDbu ?? typical.noise;
  const level = block.gain === undefined ? undefined : decibels(rig, device.id, block.gain, state);
  const said = block.gain !== undefined;
  if (isDriven(block.stage)) {
    const { db, ceiling } = gainOf(device, block);
    const drive = (dbu: number): number => limited(dbu + db, ceiling);
    const knob = typeof block.gain === 'object' ? (level ?? 0) : 0;
    const behind =
      typeof block.gain === 'number' && isMeasured(device, `${block.id}.gain`)
        ? 0
        : intoLine(device, block.stage) + typical.lift + knob - (drive(USUAL_DBU) - USUAL_DBU);
    return { out: (dbu) => drive(dbu) + behind, quiet: db + behind, evens: 0, noise, said };
  }
  const ceiling = block.maxDbu ?? typical.ceiling;
  const gain = level ?? (block.stage === 'volume' ? openDb(device, state) : typical.lift);
  return {
    out: (dbu) => Math.min(dbu + gain, ceiling),
    quiet: gain + typical.evens,
    evens: typical.evens / 2,
    noise,
    said,
  };
};

import { STAGES, type Block, type Device, type Jack, type Stage } from '../rig/device.js';
import { sourceOf } from '../rig/figure-source.js';

/** What is reckoned of a kind of stage as long as nobody wrote down a figure. From memory of the trade, assumed. */
export interface TypicalStage {
  /** Gain in dB while it does not clip. */
  readonly db: number;
  /** Level in dBu above which it clips instead of getting louder. */
  readonly ceiling: number;
  /** By how many dB it makes a sound louder when its own level knob stands where people leave it. */
  readonly lift: number;
  /** Its own noise at its output in dBu, 20 Hz to 20 kHz, with that knob there. */
  readonly noise: number;
  /** By how many dB it lifts what is quiet against what is loud. */
  readonly evens: number;
}

const usual: TypicalStage = { db: 0, ceiling: 10, lift: 0, noise: -100, evens: 0 };
const TYPICAL: Readonly<Partial<Record<Stage, Partial<TypicalStage>>>> = {
  boost: { db: 12, ceiling: 6, lift: 4, noise: -92 },
  overdrive: { db: 22, ceiling: -6, noise: -84 },
  distortion: { db: 34, ceiling: -8, noise: -70 },
  fuzz: { db: 40, ceiling: -10, noise: -70 },
  preamp: { db: 26, ceiling: 4, noise: -80 },
  channel: { db: 26, ceiling: 4, noise: -80 },
  'power amp': { db: 26, ceiling: 32, lift: 26, noise: -60 },
  compressor: { noise: -90, evens: 10 },
  cabinet: { ceiling: 40 },
  'cabinet simulation': { noise: -95 },
  microphone: { lift: -60, ceiling: 10, noise: -120 },
  DI: { lift: -20, noise: -115 },
  isolator: { noise: -115 },
  delay: { noise: -90 },
  reverb: { noise: -90 },
  modulation: { noise: -90 },
  tremolo: { noise: -95 },
  pitch: { noise: -85 },
  octave: { noise: -85 },
  looper: { noise: -92 },
  wireless: { noise: -102 },
  tuner: { noise: -110 },
  volume: { noise: -115 },
};

const whole = new Map(STAGES.map((stage): [Stage, TypicalStage] => [stage, { ...usual, ...TYPICAL[stage] }]));

/** @example typicalOf('boost').lift // 4 */
export const typicalOf = (stage: Stage): TypicalStage => whole.get(stage) ?? usual;

/** Time that a box needs which turns its direct sound into numbers and back, in ms (common practice: 1 to 3; assumed). */
export const CONVERTED_MS = 1.5;
/** Time that a stage needs although nobody wrote it down, in ms; assumed. */
export const typicalMs = ({ stage }: Pick<Block, 'stage'>): number => (stage === 'pitch' ? 10 : 0);

/** The usual level at a jack of a kind, on average, in dBu; a consumer line of −10 dBV lies at −7.8 dBu. */
export const NOMINAL_DBU = { instrument: -20, line: -8, mic: -35, speaker: 20, phones: -5 } as const;

/**
 * The strongest signal that an input takes, in dBu, where nobody wrote it down; assumed. A pedal of 9 V swings about
 * 4 V either way: 2.8 V effective are 11.2 dBu.
 */
const TAKES_DBU = { instrument: 11, line: 20, mic: 18, speaker: 60, phones: 20 } as const;

/** What an input takes, and whether somebody wrote that down. */
export const takesDbu = ({ maxDbu, level }: Jack): { readonly dbu: number; readonly said: boolean } =>
  maxDbu === undefined ? { dbu: TAKES_DBU[level ?? 'instrument'], said: false } : { dbu: maxDbu, said: true };

/** Impedance of an output that says nothing of it, in ohms; assumed. */
export const USUAL_OUTPUT_OHM = 1_000;

/** Whether a figure of a box was measured, such as `drive.gain`. */
export const isMeasured = (device: Device, of: string): boolean => sourceOf(device, of).from === 'measured';

import { BANDS_HZ } from '../../rig/sound.js';
import { theItem } from '../../known/the.js';
import { filtered, loudnessOf, type Biquad } from './loudness.js';

/** A recording: samples between −1 and 1, each channel by itself. */
export interface Recording {
  /** Samples a second. */
  readonly rate: number;
  readonly channels: readonly Float64Array[];
}

/** A sound out of a recording. Levels in dB under full scale, times in seconds. */
export interface Take {
  readonly from: number;
  readonly to: number;
  readonly lufs: number;
  readonly rms: number;
  readonly peak: number;
  /** In octaves around these frequencies, in dB under full scale. */
  readonly bands: readonly { readonly hz: number; readonly db: number }[];
  /** The longest hole in it in ms, 0 where there is none: what a change of sounds tears. */
  readonly holeMs: number;
  /** How many samples in a row stand at full scale at most: three and more are clipped. */
  readonly atFull: number;
}

/** What is softer than the loudest by so much, for so long, parts two takes. */
const APART_DB = 45;
const APART_S = 0.8;
const SHORTEST_S = 0.4;
const FRAME_S = 0.005;
/** A hole is softer by so much than what stands around it. */
const HOLE_DB = 35;
const LEAST_HOLE_MS = 10;

const db = (power: number): number => 10 * Math.log10(power);

/** Power by frames of 5 ms, the loudest channel's. */
const framesOf = ({ rate, channels }: Recording): Float64Array => {
  const length = Math.max(1, Math.round(rate * FRAME_S));
  const frames = new Float64Array(Math.floor((channels[0]?.length ?? 0) / length));
  for (const channel of channels)
    for (let k = 0; k < frames.length; k += 1) {
      let sum = 0;
      for (let i = k * length; i < (k + 1) * length; i += 1) sum += channel[i]! * channel[i]!;
      frames[k] = Math.max(theItem(frames, k), sum / length);
    }
  return frames;
};

/** Stretches of frames in which something sounds, as first and last frame. */
const sounding = (frames: Float64Array): readonly (readonly [number, number])[] => {
  const loudest = frames.reduce((a, b) => Math.max(a, b), 0);
  if (loudest === 0) return [];
  const gate = loudest * 10 ** (-APART_DB / 10);
  const apart = Math.round(APART_S / FRAME_S);
  const found: [number, number][] = [];
  for (let k = 0; k < frames.length; k += 1) {
    if (theItem(frames, k) <= gate) continue;
    const last = found.at(-1);
    if (last && k - last[1] <= apart) last[1] = k;
    else found.push([k, k]);
  }
  return found.filter(([from, to]) => (to - from + 1) * FRAME_S >= SHORTEST_S);
};

/** The longest hole between the first and the last frame, in ms. */
const holeIn = (frames: Float64Array): number => {
  const mean = frames.reduce((a, b) => a + b, 0) / frames.length;
  const gate = mean * 10 ** (-HOLE_DB / 10);
  let [longest, run] = [0, 0];
  for (const power of frames) {
    run = power < gate ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  const ms = longest * FRAME_S * 1000;
  return ms >= LEAST_HOLE_MS ? Math.round(ms) : 0;
};

/** Lets an octave pass (second order, constant peak; Bristow-Johnson's cookbook, common practice). */
const octave = (hz: number, rate: number): Biquad => {
  const w = (2 * Math.PI * hz) / rate;
  const alpha = Math.sin(w) * Math.sinh(((Math.LN2 / 2) * w) / Math.sin(w));
  return {
    b: [alpha / (1 + alpha), 0, -alpha / (1 + alpha)],
    a: [(-2 * Math.cos(w)) / (1 + alpha), (1 - alpha) / (1 + alpha)],
  };
};

const powerOf = (channels: readonly Float64Array[]): number => {
  let sum = 0;
  for (const channel of channels) for (const x of channel) sum += x * x;
  return sum / Math.max(1, channels.length * (channels[0]?.length ?? 0));
};

const fullRun = (channels: readonly Float64Array[]): number => {
  let most = 0;
  for (const channel of channels) {
    let run = 0;
    for (const x of channel) {
      run = Math.abs(x) >= 0.9999 ? run + 1 : 0;
      if (run > most) most = run;
    }
  }
  return most;
};

/** The sounds of a recording, cut apart where it is silent for most of a second; each measured by itself. */
export const takesOf = (recording: Recording): readonly Take[] => {
  const { rate, channels } = recording;
  const frames = framesOf(recording);
  const perFrame = Math.max(1, Math.round(rate * FRAME_S));
  return sounding(frames).map(([first, last]): Take => {
    const [from, to] = [first * perFrame, (last + 1) * perFrame];
    const own = channels.map((c) => c.subarray(from, to));
    let peak = 0;
    for (const channel of own) for (const x of channel) if (Math.abs(x) > peak) peak = Math.abs(x);
    return {
      from: from / rate,
      to: to / rate,
      lufs: loudnessOf(own, rate),
      rms: db(powerOf(own)),
      peak: 20 * Math.log10(peak),
      bands: BANDS_HZ.filter((hz) => hz < rate / 2.2).map((hz) => ({
        hz,
        db: db(powerOf(own.map((c) => filtered(c, octave(hz, rate))))),
      })),
      holeMs: holeIn(frames.subarray(first, last + 1)),
      atFull: fullRun(own),
    };
  });
};

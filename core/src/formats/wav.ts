import { WaveFile } from 'wavefile';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';

/** Longer recordings are refused: they would fill the memory of a page. */
const MOST_BYTES = 200_000_000;

/** Depths of sample that are read, and what full scale is in each. */
const FULL: Readonly<Record<string, number>> = {
  '8': 128,
  '16': 2 ** 15,
  '24': 2 ** 23,
  '32': 2 ** 31,
  '32f': 1,
  '64': 1,
};

/** What a WAV file holds: samples between −1 and 1, each channel by itself. */
export interface WavContents {
  /** Samples a second. */
  readonly rate: number;
  readonly channels: readonly Float64Array[];
}

/** A recording as a WAV file of 8 to 32 bits or floating point, at any rate. */
export const readWav = (bytes: Uint8Array, name: string): Result<WavContents, readonly Refusal[]> => {
  const wrong = (what: string, would = 'Save the recording as WAV with 16 or 24 bits, then open that.') =>
    refuse([{ code: 'wav', where: name, wrong: what, would }]);
  if (bytes.length > MOST_BYTES)
    return wrong(`It has ${Math.round(bytes.length / 1e6)} MB.`, 'Cut it into parts of at most 200 MB.');
  try {
    const file = new WaveFile(bytes);
    const { sampleRate, numChannels } = file.fmt as { readonly sampleRate: number; readonly numChannels: number };
    const full = FULL[file.bitDepth];
    if (full === undefined) return wrong(`Its samples have ${file.bitDepth} bits, which is not read here.`);
    const middle = file.bitDepth === '8' ? 128 : 0;
    const read = file.getSamples(false, Float64Array) as unknown;
    const channels = (numChannels === 1 ? [read] : read) as readonly Float64Array[];
    const scaled = channels.map((c) => c.map((x) => (x - middle) / full));
    if ((scaled[0]?.length ?? 0) === 0) return wrong('It holds no sound.');
    return ok({ rate: sampleRate, channels: scaled });
  } catch {
    return wrong('It is no WAV file, or a damaged one.');
  }
};

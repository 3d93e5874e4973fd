import { theItem } from '../../known/the.js';

/** A filter of second order: b0 + b1·z⁻¹ + b2·z⁻² over 1 + a1·z⁻¹ + a2·z⁻². */
export interface Biquad {
  readonly b: readonly [number, number, number];
  readonly a: readonly [number, number];
}

/**
 * The two filters of ITU-R BS.1770-4, annex 1: the head, then the low end. The recommendation gives numbers for
 * 48 kHz; for other rates the same analogue filters are taken over anew (bilinear transform).
 * @param rate samples a second
 */
export const kWeighting = (rate: number): readonly [Biquad, Biquad] => {
  const head = { hz: 1681.974450955533, db: 3.999843853973347, q: 0.7071752369554196 };
  const low = { hz: 38.13547087602444, q: 0.5003270373238773 };
  const k = Math.tan((Math.PI * head.hz) / rate);
  const high = 10 ** (head.db / 20);
  const band = high ** 0.4996667741545416;
  const over = 1 + k / head.q + k * k;
  const r = Math.tan((Math.PI * low.hz) / rate);
  const under = 1 + r / low.q + r * r;
  return [
    {
      b: [
        (high + (band * k) / head.q + k * k) / over,
        (2 * (k * k - high)) / over,
        (high - (band * k) / head.q + k * k) / over,
      ],
      a: [(2 * (k * k - 1)) / over, (1 - k / head.q + k * k) / over],
    },
    { b: [1, -2, 1], a: [(2 * (r * r - 1)) / under, (1 - r / low.q + r * r) / under] },
  ];
};

/** What a filter makes of samples. */
export const filtered = (samples: Float64Array, { b: [b0, b1, b2], a: [a1, a2] }: Biquad): Float64Array => {
  const out = new Float64Array(samples.length);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let i = 0; i < samples.length; i += 1) {
    const x = samples[i]!;
    const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    out[i] = y;
  }
  return out;
};

const BLOCK_S = 0.4;
const STEP_S = 0.1;
/** Blocks under it are not listened to, in LUFS; then those 10 LU under the rest. */
const SILENT_LUFS = -70;
const UNDER_LU = 10;
const lufsOf = (power: number): number => -0.691 + 10 * Math.log10(power);

/**
 * Integrated loudness by ITU-R BS.1770-4 in LUFS: blocks of 400 ms that overlap by three quarters, gated at −70 LUFS and
 * 10 LU under what is left. Every channel counts alike, as front channels do.
 * @param channels samples between −1 and 1, all of one length
 * @returns −∞ where nothing is louder than the gate, or there is less than one block
 */
export const loudnessOf = (channels: readonly Float64Array[], rate: number): number => {
  const [head, low] = kWeighting(rate);
  const length = channels[0]?.length ?? 0;
  const step = Math.round(STEP_S * rate);
  const count = Math.floor(length / step);
  const powers = new Float64Array(count);
  for (const channel of channels) {
    const heard = filtered(filtered(channel, head), low);
    for (let k = 0; k < count; k += 1) {
      let sum = 0;
      for (let i = k * step; i < (k + 1) * step; i += 1) sum += heard[i]! * heard[i]!;
      powers[k] = theItem(powers, k) + sum / step;
    }
  }
  const parts = Math.round(BLOCK_S / STEP_S);
  const blocks: number[] = [];
  for (let k = 0; k + parts <= count; k += 1) {
    let sum = 0;
    for (let i = k; i < k + parts; i += 1) sum += theItem(powers, i);
    blocks.push(sum / parts);
  }
  const loud = blocks.filter((p) => lufsOf(p) > SILENT_LUFS);
  if (loud.length === 0) return -Infinity;
  const mean = (of: readonly number[]): number => of.reduce((a, b) => a + b, 0) / of.length;
  const gate = lufsOf(mean(loud)) - UNDER_LU;
  return lufsOf(mean(loud.filter((p) => lufsOf(p) > gate)));
};

/** Two arms that meet again: where the sum is loudest and where it is gone. Levels against the direct arm alone. */
export interface Comb {
  readonly f0: 'peak' | 'notch';
  /** The first three of each above 0 Hz. */
  readonly peaks: readonly number[];
  readonly notches: readonly number[];
  readonly peakDb: number;
  /** −∞ where both arms are alike. */
  readonly notchDb: number;
}

/**
 * |1 + g·e^(−j2πft)| for two arms of which one is late. Phasors of one frequency, so coherent sounds only.
 * @param seconds how late, above 0
 * @param gain of the late arm against the other, negative where it is inverted
 * @example comb(0.001, 1).notches // [500, 1500, 2500]
 */
export const comb = (seconds: number, gain: number): Comb => {
  const whole = [1, 2, 3].map((n) => n / seconds);
  const odd = [1, 3, 5].map((n) => n / (2 * seconds));
  const size = Math.abs(gain);
  return {
    f0: gain < 0 ? 'notch' : 'peak',
    peaks: gain < 0 ? odd : whole,
    notches: gain < 0 ? whole : odd,
    peakDb: 20 * Math.log10(1 + size),
    notchDb: 20 * Math.log10(Math.abs(1 - size)),
  };
};

/** Level of the sum at a frequency, in dB against the direct arm alone. */
export const combAt = (seconds: number, gain: number, hz: number): number => {
  const angle = 2 * Math.PI * hz * seconds;
  return 20 * Math.log10(Math.hypot(1 + gain * Math.cos(angle), gain * Math.sin(angle)));
};

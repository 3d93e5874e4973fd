/**
 * Microseconds that one byte takes on a MIDI wire: 10 bits at 31 250 baud (MIDI 1.0 Detailed Specification, hardware).
 */
export const BYTE_US = 320;

/** @example wireUs(3) // 960 */
export const wireUs = (bytes: number): number => bytes * BYTE_US;

/** As many as any number holds. */
const EXACT_DIGITS = 15;

/**
 * A count for people: whole up to a million, then to two figures.
 * @example roundly(4_230_000_000n) // 'about 4.2 × 10^9'
 */
export const roundly = (count: bigint): string => {
  const text = count.toString();
  if (text.length <= 6) return count.toLocaleString('en');
  const [figures, power] = Number(text.slice(0, EXACT_DIGITS)).toExponential(1).split('e+');
  return `about ${figures} × 10^${Number(power) + Math.max(0, text.length - EXACT_DIGITS)}`;
};

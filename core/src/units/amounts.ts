/** Microseconds that one byte takes on a MIDI wire: 10 bits at 31 250 baud (MIDI 1.0 Detailed Specification, hardware). */
export const BYTE_US = 320;

/** @example wireUs(3) // 960 */
export const wireUs = (bytes: number): number => bytes * BYTE_US;

/** Milliseconds for people: whole ones from 10 up, one decimal below. @example msText(1280) // '1.3 ms' */
export const msText = (us: number): string => {
  const ms = us / 1000;
  return `${ms >= 10 ? Math.round(ms) : Math.round(ms * 10) / 10} ms`;
};

/**
 * What comes out of a stage that gives no more than it can: far below its ceiling what goes in, far above it the
 * ceiling, 3 dB less where both are alike. √(1/(1/in² + 1/ceiling²)) in volts; a stated curve, assumed.
 * @example limited(-6, -6) // -9.01
 */
export const limited = (dbu: number, ceiling: number): number =>
  dbu - 10 * Math.log10(1 + 10 ** ((dbu - ceiling) / 10));

/** Levels of unlike sounds or noises together: their powers add. @example together([60, 60]) // 63.01 */
export const together = (levels: readonly number[]): number =>
  10 * Math.log10(levels.reduce((sum, db) => sum + 10 ** (db / 10), 0));

/** @example signed(-2.4) // '−2.4' */
export const signed = (db: number): string => `${db < 0 ? '−' : db > 0 ? '+' : ''}${Math.abs(db)}`;
/** A level or a distance in dB as it is read. @example dbText(-20) // '−20 dB' */
export const minus = (value: number): string => String(value).replace('-', '−');
/** @example hzText(4076) // '4.08 kHz' */
export const hzText = (hz: number): string =>
  hz >= 1000 ? `${Number((hz / 1000).toPrecision(3))} kHz` : `${Math.round(hz)} Hz`;
/** Frequencies at which a scale of ratios carries a number. */
export const HZ_TICKS = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];

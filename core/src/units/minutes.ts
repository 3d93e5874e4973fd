const MINUTES = /^(?:(\d+):)?(\d{1,3}):(\d{2})$/;

/** @example minutesText(270) // '4:30'; minutesText(4210) // '1:10:10' */
export const minutesText = (seconds: number): string => {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number): string => String(n).padStart(2, '0');
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
};

/** Seconds, read from minutes and seconds, or from hours as well; undefined for what is neither. @example '4:30' // 270 */
export const readMinutes = (text: string): number | undefined => {
  const found = MINUTES.exec(text.trim());
  if (!found) return undefined;
  const [h, m, s] = [Number(found[1] ?? 0), Number(found[2]), Number(found[3])];
  const seconds = 3600 * h + 60 * m + s;
  return s < 60 ? seconds : undefined;
};

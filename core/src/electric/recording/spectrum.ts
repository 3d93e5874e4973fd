import { theItem } from '../../known/the.js';
import { BANDS_HZ } from '../../rig/sound.js';

/** A stretch of octaves in which one sound is louder than another. */
export interface BandsApart {
  readonly fromHz: number;
  readonly toHz: number;
  /** On average over them, of the first against the second, in dB. */
  readonly db: number;
}

/** Less is hardly heard as another colour. */
const HEARD_DB = 4;

/**
 * Where two sounds differ by octave although they may be as loud: neighbouring octaves with the same sign are told
 * together.
 * @param one @param other in dB by octave, as recorded
 */
export const bandsApart = (one: readonly number[], other: readonly number[]): readonly BandsApart[] => {
  const found: { from: number; to: number; sum: number }[] = [];
  BANDS_HZ.forEach((_, i) => {
    const db = theItem(one, i) - theItem(other, i);
    if (Math.abs(db) < HEARD_DB) return;
    const last = found.at(-1);
    if (last?.to === i - 1 && Math.sign(last.sum) === Math.sign(db)) {
      last.to = i;
      last.sum += db;
    } else found.push({ from: i, to: i, sum: db });
  });
  return found.map(({ from, to, sum }) => ({
    fromHz: theItem(BANDS_HZ, from),
    toHz: theItem(BANDS_HZ, to),
    db: Math.round((10 * sum) / (to - from + 1)) / 10,
  }));
};

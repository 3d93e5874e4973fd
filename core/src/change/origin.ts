import { inKeyOrder, printOf } from '../known/print.js';
import { HEAVIEST_RIG, MOST_ORIGINS } from '../rig/limits.js';
import { ABOUT, everyPart, partOf, rigOf, type Rig } from '../rig/rig.js';
import type { Origin } from '../rig/show.js';

/** All that a rig holds, but for where it comes from, as text that is equal for equal rigs. */
const textOf = (rig: Rig): string => {
  const { origins: _, ...about } = partOf(rig, ABOUT) ?? {};
  const parts = [...everyPart(rig).filter((p) => p.id !== ABOUT), { ...about, id: ABOUT }];
  parts.sort((a, b) => (a.id < b.id ? -1 : 1));
  return inKeyOrder(parts);
};

/**
 * Tells rigs apart by what they hold, whatever their name and number: two installations may call unlike rigs the same.
 * SHA-256 (FIPS 180-4), cut to 24 digits.
 */
export const fingerprint = (rig: Rig): string => printOf(textOf(rig));

export const originsOf = (rig: Rig): readonly Origin[] => partOf(rig, ABOUT)?.origins ?? [];

/** In characters: what may be added to a rig without its becoming too large to be read again. */
const ROOM_FOR_ORIGINS = 5000;

/**
 * The rig as it is handed on: it knows of which rig, and of which revision of it, it is a copy, so that it can be merged
 * back later. One that is as large as a rig may be goes without.
 * @param id by which the server keeps it
 * @param confirmed the rig as the server has it, at its revision
 */
export const withOrigin = (rig: Rig, id: string, confirmed: Rig = rig): Rig => {
  const about = partOf(rig, ABOUT);
  if (!about || textOf(rig).length > HEAVIEST_RIG - ROOM_FOR_ORIGINS) return rig;
  const { revision } = confirmed;
  const origins = [
    ...originsOf(rig).filter((o) => o.rig !== id),
    { rig: id, revision, print: fingerprint(confirmed) },
  ].slice(-MOST_ORIGINS);
  return rigOf([...everyPart(rig).filter((p) => p.id !== ABOUT), { ...about, origins }], rig.revision);
};

/**
 * Where two rigs may have parted, likeliest first: each is a revision that both come from. Whoever has it compares its
 * fingerprint before they trust it.
 */
export const partings = (mine: readonly Origin[], theirs: readonly Origin[]): readonly Origin[] =>
  theirs
    .flatMap((t) => {
      const m = mine.find((o) => o.rig === t.rig);
      return m ? [m.revision <= t.revision ? m : t] : [];
    })
    .reverse();

import type { Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { SetList, Song } from '../../rig/show.js';
import { changesBetween, type SetChange } from './set-sheet.js';

/** How often instruments are changed and tuned, and a capo is put on or off, in an order of songs. */
export interface OrderCost {
  readonly instruments: number;
  readonly retunings: number;
  readonly capos: number;
}

/** One song carried elsewhere, and what that saves. */
export interface OrderMove {
  readonly song: Id<'song'>;
  readonly title: string;
  readonly from: number;
  readonly to: number;
  readonly after: OrderCost;
}

export interface SetOrder {
  readonly now: OrderCost;
  /** An order with as few changes as can be, between breaks; undefined when there is no better one. */
  readonly best: { readonly songs: readonly Id<'song'>[]; readonly cost: OrderCost } | undefined;
  /** Single songs that may be carried instead, what saves most first. */
  readonly moves: readonly OrderMove[];
}

const countOf = (rig: Rig, songs: readonly Song[]): OrderCost => {
  const changes = songs.slice(1).flatMap((song, i) => changesBetween(rig, songs[i], song).map((c) => c.is));
  const count = (is: SetChange): number => changes.filter((c) => c === is).length;
  return { instruments: count('instrument'), retunings: count('tuning'), capos: count('capo') };
};

/** An instrument is changed in seconds with applause; a string takes longer to tune than a capo to put on. */
const compare = (a: OrderCost, b: OrderCost): number =>
  a.instruments - b.instruments || a.retunings - b.retunings || a.capos - b.capos;

/** The set in stretches between breaks: nobody carries a song over a break without being asked. */
const stretches = (list: SetList): readonly (readonly Id<'song'>[])[] => {
  const found: Id<'song'>[][] = [[]];
  for (const id of list.songs) {
    if (list.before?.some((b) => b.song === id) && found.at(-1)?.length) found.push([]);
    found.at(-1)?.push(id);
  }
  return found;
};

/** Songs with the same key together, in the order in which the keys first appear. */
const together = (songs: readonly Song[], key: (song: Song) => string): readonly (readonly Song[])[] => {
  const groups = new Map<string, Song[]>();
  for (const song of songs) groups.set(key(song), [...(groups.get(key(song)) ?? []), song]);
  return [...groups.values()];
};

/**
 * Songs of one instrument together, of these those of one tuning, of these those of one capo: no order has fewer changes of
 * instrument, and none with as few has fewer retunings. What comes first stays first.
 */
const groupedSongs = (songs: readonly Song[]): readonly Song[] =>
  together(songs, (s) => s.instrument ?? '').flatMap((one) =>
    together(one, (s) => s.tuning ?? '').flatMap((tuned) => together(tuned, (s) => String(s.capo ?? '')).flat()),
  );

const MOST_MOVES = 3;

/** In which order a set needs the fewest changes, as a whole and song by song. */
export const setOrder = (rig: Rig, list: SetList): SetOrder => {
  const songsOf = (ids: readonly Id<'song'>[]): readonly Song[] => ids.flatMap((id) => partOf(rig, id) ?? []);
  const now = countOf(rig, songsOf(list.songs));
  const songs = stretches(list).flatMap((ids) => groupedSongs(songsOf(ids)));
  const cost = countOf(rig, songs);
  const best = compare(cost, now) < 0 ? { songs: songs.map((s) => s.id), cost } : undefined;
  const moves = best ? singleMoves(rig, list, now) : [];
  return { now, best, moves };
};

const singleMoves = (rig: Rig, list: SetList, now: OrderCost): readonly OrderMove[] => {
  const parts = stretches(list);
  let begins = 0;
  const moves: OrderMove[] = [];
  for (const part of parts) {
    const end = begins + part.length;
    for (let from = begins; from < end; from += 1) {
      const better: OrderMove[] = [];
      for (let to = begins; to < end; to += 1) {
        const song = list.songs[from];
        const title = song && partOf(rig, song)?.title;
        if (to === from || !song || title === undefined) continue;
        const order = list.songs.toSpliced(from, 1).toSpliced(to, 0, song);
        const after = countOf(
          rig,
          order.flatMap((id) => partOf(rig, id) ?? []),
        );
        if (compare(after, now) < 0) better.push({ song, title, from, to, after });
      }
      // The nearest of the best places: as much as possible stays as it is.
      better.sort((a, b) => compare(a.after, b.after) || Math.abs(a.to - from) - Math.abs(b.to - from));
      moves.push(...better.slice(0, 1));
    }
    begins = end;
  }
  return moves.sort((a, b) => compare(a.after, b.after)).slice(0, MOST_MOVES);
};

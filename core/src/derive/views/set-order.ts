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

/** Songs with the same key together, in the order in which the keys first appear; songs that do not say it come last. */
const together = (songs: readonly Song[], key: (song: Song) => string | undefined): readonly (readonly Song[])[] => {
  const groups = new Map<string | undefined, Song[]>();
  for (const song of songs) groups.set(key(song), [...(groups.get(key(song)) ?? []), song]);
  const unsaid = groups.get(undefined);
  groups.delete(undefined);
  return [...groups.values(), ...(unsaid ? [unsaid] : [])];
};

/**
 * Songs of one instrument together, of these those of one tuning, of these those of one capo. No order has fewer changes
 * of instrument; where every song says its instrument and tuning, none with as few has fewer retunings. What comes first
 * stays first.
 */
const groupedSongs = (songs: readonly Song[]): readonly Song[] =>
  together(songs, (s) => s.instrument).flatMap((one) =>
    together(one, (s) => s.tuning).flatMap((tuned) => together(tuned, (s) => String(s.capo ?? 0)).flat()),
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

const NONE: OrderCost = { instruments: 0, retunings: 0, capos: 0 };
const plus = (a: OrderCost, b: OrderCost, sign: 1 | -1 = 1): OrderCost => ({
  instruments: a.instruments + sign * b.instruments,
  retunings: a.retunings + sign * b.retunings,
  capos: a.capos + sign * b.capos,
});

/** What a song costs between two others: what is between it and them, less what was between those two. */
const costBetween = (rig: Rig, song: Song, before: Song | undefined, after: Song | undefined): OrderCost => {
  const pair = (a: Song | undefined, b: Song | undefined): OrderCost => (a && b ? countOf(rig, [a, b]) : NONE);
  return plus(plus(pair(before, song), pair(song, after)), pair(before, after), -1);
};

/** The best place for one song of a part, the nearest of those that are as good: as much as possible stays as it is. */
const bestMove = (
  rig: Rig,
  songs: readonly Song[],
  from: number,
  part: Part,
  now: OrderCost,
): OrderMove | undefined => {
  const song = songs[from];
  if (!song) return undefined;
  const rest = songs.toSpliced(from, 1);
  const without = plus(now, costBetween(rig, song, songs[from - 1], songs[from + 1]), -1);
  let best: OrderMove | undefined;
  for (let to = part.begins; to < part.ends; to += 1) {
    if (to === from) continue;
    const after = plus(without, costBetween(rig, song, rest[to - 1], rest[to]));
    if (compare(after, now) >= 0) continue;
    const isBetter =
      !best ||
      compare(after, best.after) < 0 ||
      (compare(after, best.after) === 0 && Math.abs(to - from) < Math.abs(best.to - from));
    if (isBetter) best = { song: song.id, title: song.title, from, to, after };
  }
  return best;
};

/** Songs between two breaks, by their places. */
interface Part {
  readonly begins: number;
  readonly ends: number;
}

const singleMoves = (rig: Rig, list: SetList, now: OrderCost): readonly OrderMove[] => {
  const songs = list.songs.flatMap((id) => partOf(rig, id) ?? []);
  let begins = 0;
  const moves = stretches(list).flatMap((ids) => {
    const part = { begins, ends: begins + ids.length };
    begins = part.ends;
    return ids.flatMap((_, i) => bestMove(rig, songs, part.begins + i, part, now) ?? []);
  });
  return moves.sort((a, b) => compare(a.after, b.after)).slice(0, MOST_MOVES);
};

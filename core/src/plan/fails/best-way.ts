import { outcomeOf, type SoundAfter } from './after.js';

/** A way out as it is tried: so many moves of a hand, and what becomes of a sound with them done. */
export interface Way {
  readonly hands: readonly unknown[];
  readonly with: (before: SoundAfter) => SoundAfter;
}

/** Every sound with a way done. */
export interface Tried<W> {
  readonly way: W;
  readonly after: readonly SoundAfter[];
}

/** How many sounds are not heard everywhere, silent, bare, and what they miss. Less is better, in this order. */
type Lost = readonly [notEverywhere: number, silent: number, bare: number, missing: number];

const NOTHING_LOST: Lost = [0, 0, 0, 0];

const lostWith = ([notEverywhere, silent, bare, missing]: Lost, after: SoundAfter): Lost => {
  const is = outcomeOf(after);
  return [
    notEverywhere + (is === 'silent' || is === 'partly silent' ? 1 : 0),
    silent + (is === 'silent' ? 1 : 0),
    bare + (after.isBare ? 1 : 0),
    missing + after.misses.length + after.stays.length,
  ];
};

const compareLost = (a: Lost, b: Lost): number => a[0] - b[0] || a[1] - b[1] || a[2] - b[2] || a[3] - b[3];

/**
 * The best of some ways: it loses the least, then takes the fewest moves, then stands first. The one that can still become
 * it goes on by a sound, so that what falls behind is not followed to its end (best first: Dechter and Pearl, 1985).
 *
 * @param before every sound with nothing done
 * @param toBeat what has been found already; a way that is no better does not count
 * @returns undefined when none is better
 */
export const bestOf = <W extends Way>(
  ways: readonly W[],
  before: readonly SoundAfter[],
  toBeat?: Tried<W>,
): Tried<W> | undefined => {
  const lostAlready = (toBeat?.after ?? before).reduce(lostWith, NOTHING_LOST);
  const isBetter = (lost: Lost, { hands }: W): boolean => {
    const by = compareLost(lost, lostAlready);
    return by < 0 || (by === 0 && toBeat !== undefined && hands.length < toBeat.way.hands.length);
  };
  const open = [...ways]
    .sort((a, b) => a.hands.length - b.hands.length)
    .map((way) => ({ way, after: [] as SoundAfter[], lost: NOTHING_LOST }));
  for (;;) {
    const [first, ...others] = open;
    if (!first) return undefined;
    const next = others.reduce((best, one) => (compareLost(one.lost, best.lost) < 0 ? one : best), first);
    if (!isBetter(next.lost, next.way)) return undefined;
    const was = before[next.after.length];
    if (!was) return next;
    const is = next.way.with(was);
    next.after.push(is);
    next.lost = lostWith(next.lost, is);
  }
};

import { theItem } from '../../known/the.js';

/**
 * Where to listen next when one of several things in a row is dead. Each may be it with its weight; behind any of them one
 * can listen: is there sound, it lies further on. The tree of tests with the fewest on average, by looking at every place
 * to part every stretch (an alphabetic tree: Gilbert and Moore, 1959).
 */
export interface Halving {
  /** Tests on average. */
  readonly expected: number;
  /** Tests at most. */
  readonly most: number;
  /** The suspect behind which to listen first; undefined when only one is left. */
  readonly behind?: number;
}

/**
 * @param weights how likely each is, in the order of the signal, all above 0
 * @example halving([1, 1, 1, 1]) // { expected: 2, most: 2, behind: 1 }
 */
export const halving = (weights: readonly number[]): Halving => {
  const n = weights.length;
  if (n < 2) return { expected: 0, most: 0 };
  const sums = weights.reduce<readonly number[]>((all, w) => [...all, theItem(all, all.length - 1) + w], [0]);
  const total = (i: number, j: number): number => theItem(sums, j + 1) - theItem(sums, i);
  const cost = Array.from({ length: n }, () => new Float64Array(n));
  const depth = Array.from({ length: n }, () => new Int32Array(n));
  const parts = Array.from({ length: n }, () => new Int32Array(n));
  for (let length = 2; length <= n; length += 1)
    for (let i = 0; i + length <= n; i += 1) {
      const j = i + length - 1;
      let best = Infinity;
      let deep = Infinity;
      for (let k = i; k < j; k += 1) {
        const here = theItem(theItem(cost, i), k) + theItem(theItem(cost, k + 1), j);
        const down = 1 + Math.max(theItem(theItem(depth, i), k), theItem(theItem(depth, k + 1), j));
        // Of trees that are alike on average the flatter.
        if (here > best + 1e-12 || (Math.abs(here - best) <= 1e-12 && down >= deep)) continue;
        best = here;
        deep = down;
        theItem(parts, i)[j] = k;
      }
      theItem(cost, i)[j] = best + total(i, j);
      theItem(depth, i)[j] = deep;
    }
  return {
    expected: theItem(theItem(cost, 0), n - 1) / total(0, n - 1),
    most: theItem(theItem(depth, 0), n - 1),
    behind: theItem(theItem(parts, 0), n - 1),
  };
};

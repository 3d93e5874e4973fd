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
  const sums = new Float64Array(n + 1);
  weights.forEach((w, i) => (sums[i + 1] = sums[i]! + w));
  // Stretches from i to j, row by row.
  const [cost, depth, parts] = [new Float64Array(n * n), new Int32Array(n * n), new Int32Array(n * n)];
  for (let length = 2; length <= n; length += 1)
    for (let i = 0; i + length <= n; i += 1) {
      const j = i + length - 1;
      let best = Infinity;
      let deep = Infinity;
      for (let k = i; k < j; k += 1) {
        const [left, right] = [i * n + k, (k + 1) * n + j];
        const here = cost[left]! + cost[right]!;
        const down = 1 + Math.max(depth[left]!, depth[right]!);
        // Of trees that are alike on average the flatter.
        if (here > best + 1e-12 || (Math.abs(here - best) <= 1e-12 && down >= deep)) continue;
        best = here;
        deep = down;
        parts[i * n + j] = k;
      }
      cost[i * n + j] = best + sums[j + 1]! - sums[i]!;
      depth[i * n + j] = deep;
    }
  return { expected: cost[n - 1]! / sums[n]!, most: depth[n - 1]!, behind: parts[n - 1]! };
};

import fc from 'fast-check';
import { askCbc } from '../../testing/cbc.js';
import { often } from '../../testing/often.js';
import { agree, type Needed } from './fewest.js';
import { inFewMemories } from './few-memories.js';

const need = fc.record(
  { on: fc.constantFrom('on', 'off'), mix: fc.integer({ min: 0, max: 2 }) },
  { requiredKeys: [] },
) as fc.Arbitrary<Needed>;
const cases = fc.record({
  needs: fc.array(need, { minLength: 1, maxLength: 6 }),
  weights: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 6, maxLength: 6 }),
  room: fc.nat(3),
});

/** The least weight that any use of the memories leaves out, by trying each need in each memory or in none. */
const leastLeft = (needs: readonly Needed[], weights: readonly number[], room: number): number => {
  let least = Infinity;
  const place: (number | undefined)[] = [];
  const from = (i: number, weight: number): void => {
    if (weight >= least) return;
    if (i === needs.length) {
      least = weight;
      return;
    }
    for (let g = 0; g < room; g += 1) {
      if (place.slice(0, i).some((other, j) => other === g && !agree(needs[i]!, needs[j]!))) continue;
      place[i] = g;
      from(i + 1, weight);
    }
    place[i] = undefined;
    from(i + 1, weight + weights[i]!);
  };
  from(0, 0);
  return least;
};
const left = (groups: readonly (number | undefined)[], weights: readonly number[]): number =>
  groups.reduce<number>((sum, g, i) => sum + (g === undefined ? weights[i]! : 0), 0);

test('what a box of few memories leaves out weighs as little as any use of it, by trying all', () => {
  fc.assert(
    fc.property(cases, ({ needs, weights, room }) => {
      const { groups, isProved } = inFewMemories(needs, weights, room, askCbc, 20);
      expect(
        groups.every((g, i) => groups.every((h, j) => g === undefined || g !== h || agree(needs[i]!, needs[j]!))),
      ).toBe(true);
      expect(new Set(groups.filter((g) => g !== undefined)).size).toBeLessThanOrEqual(room);
      expect(left(groups, weights)).toBe(leastLeft(needs, weights, room));
      expect(isProved).toBe(true);
    }),
    { numRuns: often(120), seed: 5 },
  );
});

test('without a solver the heaviest come first, and nothing is claimed', () => {
  const needs: Needed[] = [{ mix: 0 }, { mix: 1 }, { mix: 2 }];
  expect(inFewMemories(needs, [1, 5, 3], 2, undefined, 1)).toEqual({ groups: [undefined, 0, 1], isProved: false });
});

import fc from 'fast-check';
import { agree, fewestGroups, type Needed } from './fewest.js';

/** All ways to part a list into groups, one after the other. */
function* partitions(n: number): Generator<readonly number[]> {
  const place: number[] = [];
  function* from(i: number, used: number): Generator<readonly number[]> {
    if (i === n) return yield [...place];
    for (let g = 0; g <= used; g += 1) {
      place[i] = g;
      yield* from(i + 1, Math.max(used, g + 1));
    }
    place.length = i;
  }
  yield* from(0, 0);
}

const fits = (needs: readonly Needed[], groups: readonly number[]): boolean =>
  needs.every((a, i) => needs.every((b, j) => groups[i] !== groups[j] || agree(a, b)));
const count = (groups: readonly number[]): number => new Set(groups).size;
const fewestByTrying = (needs: readonly Needed[]): number =>
  Math.min(...[...partitions(needs.length)].filter((g) => fits(needs, g)).map(count));

const need = fc.record(
  { on: fc.constantFrom('on', 'off'), mix: fc.integer({ min: 0, max: 2 }), time: fc.integer({ min: 0, max: 1 }) },
  { requiredKeys: [] },
) as fc.Arbitrary<Needed>;

describe('as few groups as possible', () => {
  test('never two that disagree, and as few as trying every way gives, for up to seven', () =>
    fc.assert(
      fc.property(fc.array(need, { maxLength: 7 }), (needs) => {
        const groups = fewestGroups(needs);
        expect(fits(needs, groups)).toBe(true);
        expect(count(groups)).toBe(needs.length ? fewestByTrying(needs) : 0);
      }),
      { numRuns: 300 },
    ));
  test('the first group is the one of the first need, and so on: the same list gives the same numbers', () =>
    fc.assert(
      fc.property(fc.array(need, { maxLength: 30 }), (needs) => {
        const groups = fewestGroups(needs);
        groups.forEach((g, i) => expect(g).toBeLessThanOrEqual(1 + Math.max(-1, ...groups.slice(0, i))));
        expect(fewestGroups(needs)).toEqual(groups);
      }),
    ));
  test('128 needs with ten different contents and loose ends are ten groups', () => {
    const needs = Array.from({ length: 128 }, (_, i): Needed => ({
      mix: i % 10,
      ...(i % 3 === 0 ? { on: 'on' } : {}),
    }));
    expect(count(fewestGroups(needs))).toBe(10);
  });
  test.each([
    [
      [{ a: 1 }, { a: 1, b: 2 }, { b: 3 }],
      [0, 0, 1],
    ],
    [
      [{ a: 1 }, { b: 2 }, { c: 3 }],
      [0, 0, 0],
    ],
    [
      [{ a: 1 }, { a: 2 }, { a: '1' }],
      [0, 1, 0],
    ],
    [[], []],
  ] as const)('%j', (needs, groups) => expect(fewestGroups(needs as readonly Needed[])).toEqual(groups));
});

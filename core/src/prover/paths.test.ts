import fc from 'fast-check';
import { Paths, START } from './paths.js';

const walk = (paths: Paths, row: readonly number[]): number =>
  row.reduce((at, number) => paths.goOn(at, number), START);

test('equal rows end at the same place, others elsewhere, however many there are', () => {
  const rows = fc.array(fc.array(fc.integer({ min: -3, max: 40 }), { maxLength: 6 }), { maxLength: 400 });
  fc.assert(
    fc.property(rows, (all) => {
      const paths = new Paths();
      const places = new Map<string, number>();
      for (const row of [...all, ...all]) {
        const at = walk(paths, row);
        expect(places.get(row.join()) ?? at).toBe(at);
        places.set(row.join(), at);
      }
      expect(new Set(places.values()).size).toBe(places.size);
    }),
    { numRuns: 100 },
  );
});

test('what ends at a place is kept there until all paths are forgotten', () => {
  const paths = new Paths();
  const here = walk(paths, [7, 8]);
  expect(paths.endAt(here)).toBe(-1);
  expect(paths.endWith(here, 5)).toBe(5);
  expect(paths.endAt(walk(paths, [7, 8]))).toBe(5);
  for (let n = 0; n < 5000; n += 1) walk(paths, [n, n]);
  expect(paths.endAt(walk(paths, [7, 8]))).toBe(5);
  paths.clear();
  expect(paths.endAt(walk(paths, [7, 8]))).toBe(-1);
  expect(paths.endAt(START)).toBe(-1);
});

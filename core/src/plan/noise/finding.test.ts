import fc from 'fast-check';
import { searchNoise, triesFor, type Suspect, type Tried } from './finding.js';

const suspects = fc
  .array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 7 })
  .map((shares) => shares.map((share, i): Suspect => ({ id: `box ${i}`, share })));

/** Levels as a meter shows them, if each box makes its part of the noise power. */
const meter = (parts: ReadonlyMap<string, number>, out: readonly string[]): number =>
  10 * Math.log10([...parts].reduce((sum, [id, part]) => sum + (out.includes(id) ? 0 : part), 1e-6));

const played = (among: readonly Suspect[], parts: ReadonlyMap<string, number>) => {
  const tried: Tried[] = [];
  for (;;) {
    const search = searchNoise(among, meter(parts, []), tried);
    if (search.is !== 'open' || tried.length > 20) return { search, tries: tried.length };
    tried.push({ out: search.next, db: meter(parts, search.next) });
  }
};

test('whoever makes most of the noise is found, within the tries that were promised and one to be sure', () => {
  fc.assert(
    fc.property(suspects, fc.nat(), fc.double({ min: 0.55, max: 0.99, noNaN: true }), (among, n, part) => {
      const maker = among[n % among.length]!.id;
      const rest = (1 - part) / Math.max(1, among.length - 1);
      const parts = new Map(among.map((s) => [s.id, s.id === maker ? part : rest]));
      const { search, tries } = played(among, parts);
      expect(search).toMatchObject({ is: 'found', by: maker });
      expect(tries).toBeLessThanOrEqual(triesFor(among).most + 1);
    }),
  );
});

test('a noise that all share alike is not put on one of them', () => {
  for (const n of [3, 4, 5, 6]) {
    const among = Array.from({ length: n }, (_, i): Suspect => ({ id: `box ${i}`, share: 1 / n }));
    const { search } = played(among, new Map(among.map((s) => [s.id, 1 / n])));
    expect(search.is).toBe('shared');
  }
});

/** The fewest tries on average over every tree of questions there is. */
const fewest = (weights: readonly number[]): number => {
  if (weights.length < 2) return 0;
  const all = weights.reduce((a, b) => a + b, 0);
  let best = Infinity;
  for (let mask = 1; mask < 2 ** (weights.length - 1); mask += 1) {
    const one = weights.filter((_, i) => mask & (1 << i));
    const other = weights.filter((_, i) => !(mask & (1 << i)));
    best = Math.min(best, fewest(one) + fewest(other) + all);
  }
  return best;
};

test('no other way of asking needs fewer tries on average', () => {
  fc.assert(
    fc.property(suspects, (among) => {
      const weights = among.map((s) => s.share + 0.01);
      const all = weights.reduce((a, b) => a + b, 0);
      expect(triesFor(among).average).toBeCloseTo(fewest(weights) / all, 9);
    }),
    { numRuns: 60 },
  );
});

test('a compressor that is expected to make most is asked first, alone', () => {
  const among = [
    { id: 'CMP', share: 0.6 },
    { id: 'LOW', share: 0.2 },
    { id: 'HED', share: 0.1 },
    { id: 'DLY', share: 0.1 },
  ];
  expect(searchNoise(among, -50, [])).toMatchObject({ is: 'open', next: ['CMP'] });
  expect(searchNoise(among, -50, [{ out: ['CMP'], db: -57 }])).toEqual({
    is: 'found',
    by: 'CMP',
    part: expect.closeTo(0.8, 2),
    db: 7,
  });
});

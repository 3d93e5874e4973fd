import fc from 'fast-check';
import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { cutCost, planCuts, type CutProblem } from './cut.js';

/** Every way to cut, looked at: the fewest pieces left, then the least cable opened. */
const byBruteForce = ({ pieces, reels }: CutProblem): readonly [number, number] => {
  let best: readonly [number, number] = [Infinity, Infinity];
  const rest = reels.map((r) => r.cm);
  const go = (i: number, uncut: number): void => {
    if (uncut > best[0]) return;
    const piece = pieces[i];
    if (!piece) {
      const opened = reels.reduce((sum, r, k) => sum + (rest[k]! < r.cm ? r.cm : 0), 0);
      if (uncut < best[0] || opened < best[1]) best = [uncut, opened];
      return;
    }
    reels.forEach((_, k) => {
      if (rest[k]! < piece.cm) return;
      rest[k]! -= piece.cm;
      go(i + 1, uncut);
      rest[k]! += piece.cm;
    });
    go(i + 1, uncut + 1);
  };
  go(0, 0);
  return best;
};

const problem: fc.Arbitrary<CutProblem> = fc
  .record({
    pieces: fc.array(fc.integer({ min: 5, max: 120 }), { maxLength: 6 }),
    reels: fc.array(fc.integer({ min: 20, max: 300 }), { maxLength: 3 }),
  })
  .map(({ pieces, reels }) => ({
    pieces: pieces.map((cm, i) => ({ id: `p${i}`, cm })),
    reels: reels.map((cm, i) => ({ id: `r${i}`, cm })),
  }));

// Reference: every way to cut, tried; asked of CBC of COIN-OR, a second opinion beside the solver that ships.
test('law: no way to cut leaves fewer pieces, or then cuts into less cable', () =>
  fc.assert(
    fc.property(problem, (p) => {
      const plan = planCuts(p, askCbc, 5)!;
      const { uncut, opened, wrong } = cutCost(p, plan.cuts);
      expect([wrong, plan.isProved, uncut, opened]).toEqual([[], true, ...byBruteForce(p)]);
      expect(plan.left).toHaveLength(uncut);
    }),
    { numRuns: often(40) },
  ));

test('30 leads of five reels: into the least cable that holds them, proved', () => {
  const pieces = Array.from({ length: 30 }, (_, i) => ({ id: `p${i}`, cm: [15, 20, 20, 30, 30, 45, 60, 90][i % 8]! }));
  const reels = [1000, 500, 300, 300, 250].map((cm, i) => ({ id: `r${i}`, cm }));
  const plan = planCuts({ pieces, reels }, askCbc, 10)!;
  const cost = cutCost({ pieces, reels }, plan.cuts);
  expect([cost.uncut, cost.wrong, plan.isProved]).toEqual([0, [], true]);
  // By hand: they are 10.9 m, and of what there is 5 + 3 + 3 m are the least that holds so much.
  expect(pieces.reduce((sum, p) => sum + p.cm, 0)).toBe(1090);
  expect(cost.opened).toBe(1100);
});

test('nothing to cut, nothing to cut of, a piece longer than any reel', () => {
  expect(planCuts({ pieces: [], reels: [{ id: 'r', cm: 100 }] }, askCbc, 1)).toMatchObject({ left: [], offcuts: 0 });
  expect(planCuts({ pieces: [{ id: 'p', cm: 10 }], reels: [] }, askCbc, 1)).toMatchObject({ left: ['p'] });
  const plan = planCuts(
    {
      pieces: [
        { id: 'p', cm: 10 },
        { id: 'q', cm: 200 },
      ],
      reels: [{ id: 'r', cm: 100 }],
    },
    askCbc,
    1,
  )!;
  expect([plan.left, [...plan.cuts], plan.offcuts]).toEqual([['q'], [['r', ['p']]], 90]);
});

test('what is cut twice, or of a reel that is too short, is told', () =>
  expect(
    cutCost(
      {
        pieces: [{ id: 'p', cm: 60 }],
        reels: [
          { id: 'r', cm: 100 },
          { id: 's', cm: 50 },
        ],
      },
      new Map([
        ['r', ['p']],
        ['s', ['p']],
      ]),
    ).wrong,
  ).toEqual(['60 cm are cut of s, which has 50.', 'p is cut twice.']));

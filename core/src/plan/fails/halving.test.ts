import fc from 'fast-check';
import { PRACTICE } from '../../../testing/practice.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { all } from '../../rig/rig.js';
import { halving } from './halving.js';
import { suspectsOf } from './suspects.js';

/** Every tree of tests, looked at: the fewest on average. */
const byEveryTree = (weights: readonly number[]): number => {
  if (weights.length < 2) return 0;
  const sum = weights.reduce((a, b) => a + b, 0);
  return (
    sum +
    Math.min(
      ...weights.slice(1).map((_, k) => byEveryTree(weights.slice(0, k + 1)) + byEveryTree(weights.slice(k + 1))),
    )
  );
};
const weights = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 9 });

// Reference: every decision tree.
test('law: no tree of tests has fewer on average', () =>
  fc.assert(
    fc.property(weights, (w) => {
      const sum = w.reduce((a, b) => a + b, 0);
      expect(halving(w).expected).toBeCloseTo(byEveryTree(w) / sum, 9);
    }),
  ));

test('law: whoever follows it finds any fault, in no more tests than it says', () =>
  fc.assert(
    fc.property(weights, fc.nat(), (w, n) => {
      const dead = n % w.length;
      let [from, to, tests] = [0, w.length, 0];
      const { most } = halving(w);
      for (;;) {
        const { behind } = halving(w.slice(from, to));
        if (behind === undefined) break;
        tests += 1;
        if (dead > from + behind) from += behind + 1;
        else to = from + behind + 1;
      }
      expect([from, to, tests <= most]).toEqual([dead, dead + 1, true]);
    }),
  ));

test('eight alike are told apart in three; what is likely is asked for first', () => {
  expect(halving(Array(8).fill(1))).toEqual({ expected: 3, most: 3, behind: 3 });
  expect(halving([8, 1, 1, 1])).toMatchObject({ behind: 0 });
  expect(halving([5])).toEqual({ expected: 0, most: 0 });
  expect(halving([])).toEqual({ expected: 0, most: 0 });
});

test.each([...DEMO_RIGS.map((r) => [r.id, r.make()] as const), ...PRACTICE.map((p) => [p.file, p.rig] as const)])(
  '%s: the way of every sound is boxes and leads in turn, each lead from the box before to the one behind',
  (_, rig) => {
    const d = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
    for (const compiled of d.compilation.sounds.values()) {
      const way = suspectsOf(rig, compiled);
      way.forEach((s, i) => {
        if (s.is === 'box') return;
        const [before, behind] = [way[i - 1], way[i + 1]];
        expect(before?.is === 'box' && s.from.startsWith(`${before.device}.`)).toBe(true);
        expect(behind?.is === 'box' && s.to.startsWith(`${behind.device}.`)).toBe(true);
      });
      if (compiled.heard.some((h) => h.as === 'sounds')) expect(way.length).toBeGreaterThan(2);
    }
  },
);

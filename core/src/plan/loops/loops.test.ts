import fc from 'fast-check';
import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { planLoops } from './plan.js';
import { keptBy, loopsNeeded, type LoopsProblem } from './problem.js';

const problem = (boxes: number, sounds: number): fc.Arbitrary<LoopsProblem> =>
  fc
    .array(fc.array(fc.boolean(), { minLength: boxes, maxLength: boxes }), { minLength: 1, maxLength: sounds })
    .map((list) => ({ boxes: Array.from({ length: boxes }, (_, i) => `B${i}`), sounds: list }));

/** Every way to put boxes into loops, on, or out: the most sounds that any of them keeps. */
const mostKept = (of: LoopsProblem, loops: number): number => {
  const places = [...Array.from({ length: loops }, (_, g) => g), 'on', 'off'] as const;
  let best = 0;
  const place = (use: readonly (typeof places)[number][]): void => {
    if (use.length === of.boxes.length) {
      const at = (where: (typeof places)[number]) => use.flatMap((u, box) => (u === where ? [box] : []));
      const kept = keptBy(of, {
        loops: Array.from({ length: loops }, (_, g) => ({ boxes: at(g) })),
        alwaysIn: at('on'),
        neverIn: at('off'),
      });
      best = Math.max(best, kept.length);
      return;
    }
    for (const where of places) place([...use, where]);
  };
  place([]);
  return best;
};

test('every box is in one place; boxes share a loop exactly when no sound tells them apart', () => {
  fc.assert(
    fc.property(problem(8, 12), (of) => {
      const { loops, alwaysIn, neverIn } = loopsNeeded(of);
      const placed = [...loops.flatMap((l) => l.boxes), ...alwaysIn, ...neverIn];
      expect([...placed].sort((a, b) => a - b)).toEqual(of.boxes.map((_, i) => i));
      const loopOf = (box: number) => loops.findIndex((l) => l.boxes.includes(box));
      for (const a of loops.flatMap((l) => l.boxes))
        for (const b of loops.flatMap((l) => l.boxes))
          expect(loopOf(a) === loopOf(b)).toBe(of.sounds.every((s) => s[a] === s[b]));
      expect(keptBy(of, { loops, alwaysIn, neverIn })).toHaveLength(of.sounds.length);
    }),
  );
});
test('against every use of one or two loops by four boxes, and no claim beyond what is proved', () => {
  fc.assert(
    fc.property(problem(4, 6), fc.integer({ min: 1, max: 2 }), (of, loops) => {
      const plan = planLoops(of, loops, askCbc, 10)!;
      expect(plan.kept).toHaveLength(mostKept(of, loops));
      expect(plan.bound).toBe(plan.kept.length);
      expect(plan.kept).toEqual(keptBy(of, plan));
      expect(plan.loops.length).toBeLessThanOrEqual(loops);
    }),
    { numRuns: often(60) },
  );
});
test('one loop more never keeps fewer sounds', () => {
  fc.assert(
    fc.property(problem(6, 10), (of) => {
      const kept = [1, 2, 3, 4].map((n) => planLoops(of, n, askCbc, 10)!.kept.length);
      expect(kept).toEqual([...kept].sort((a, b) => a - b));
    }),
    { numRuns: often(12) },
  );
});

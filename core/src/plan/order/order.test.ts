import fc from 'fast-check';
import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { contradiction, planOrder, turned, unmetBy, type OrderProblem, type OrderWant } from './order.js';

const problems = fc.integer({ min: 2, max: 5 }).chain((boxes): fc.Arbitrary<OrderProblem> => {
  const box = fc.nat(boxes - 1);
  const want = fc.record({ by: fc.nat(3), before: box, after: box }).filter(({ before, after }) => before !== after);
  return fc.record({
    boxes: fc.constant(boxes),
    now: fc.shuffledSubarray([...Array(boxes).keys()], { minLength: boxes }),
    wants: fc.array(want, { minLength: 1, maxLength: 7 }),
  });
});

const orders = (of: readonly number[]): readonly (readonly number[])[] =>
  of.length < 2 ? [of] : of.flatMap((first) => orders(of.filter((b) => b !== first)).map((rest) => [first, ...rest]));
const canAllBeMet = (problem: OrderProblem): boolean =>
  orders(problem.now).some((order) => unmetBy(problem, order).length === 0);

/** Every set of so many of these. */
const sets = <T>(of: readonly T[], size: number): readonly (readonly T[])[] =>
  size === 0 ? [[]] : of.flatMap((one, i) => sets(of.slice(i + 1), size - 1).map((rest) => [one, ...rest]));

test('as few give way as in the best of all orders, and of these it is one that turns the fewest pairs', () => {
  fc.assert(
    fc.property(problems, (problem) => {
      const plan = planOrder(problem, askCbc, 20)!;
      const costs = orders(problem.now).map((o) => [unmetBy(problem, o).length, turned(problem, o)] as const);
      const [ways, pairs] = costs.reduce((a, b) => (b[0] < a[0] || (b[0] === a[0] && b[1] < a[1]) ? b : a));
      expect([plan.giveWay.length, turned(problem, plan.order)]).toEqual([ways, pairs]);
      expect([...plan.order].sort()).toEqual([...problem.now].sort());
      expect(plan.bound).toBe(ways);
    }),
    { numRuns: often(60), seed: 11 },
  );
});

test('what contradicts cannot be met together, no smaller set contradicts, and without one all can be met', () => {
  fc.assert(
    fc.property(problems, (problem) => {
      const core = contradiction(problem);
      expect(core.length === 0).toBe(canAllBeMet(problem));
      if (core.length === 0) return;
      expect(canAllBeMet({ ...problem, wants: core })).toBe(false);
      const smaller = sets(problem.wants, core.length - 1);
      expect(smaller.every((wants) => canAllBeMet({ ...problem, wants }))).toBe(true);
    }),
    { numRuns: often(200), seed: 12 },
  );
});

test('two sounds that want two boxes each the other way round: one of them gives way', () => {
  const wants: OrderWant[] = [
    { by: 0, before: 0, after: 1 },
    { by: 1, before: 1, after: 0 },
    { by: 2, before: 1, after: 0 },
  ];
  const plan = planOrder({ boxes: 3, now: [0, 1, 2], wants }, askCbc, 20)!;
  expect(plan).toEqual({ order: [1, 0, 2], giveWay: [0], bound: 1 });
  expect(contradiction({ boxes: 3, now: [0, 1, 2], wants })).toEqual(wants.slice(0, 2));
});

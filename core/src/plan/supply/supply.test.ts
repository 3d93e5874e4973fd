import fc from 'fast-check';
import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { readSupplyCases } from './cases.js';
import { planSupply } from './plan.js';
import { judged, type SupplyAssignment, type SupplyBox, type SupplyCost, type SupplyProblem } from './problem.js';

const box = (id: string, more: Partial<SupplyBox> = {}): SupplyBox => ({
  id,
  volts: [9],
  mA: 100,
  ac: false,
  centre: 'negative',
  plug: 'barrel21',
  noise: 'none',
  ...more,
});
const output = (id: string, mA = 100, volts: readonly number[] = [9], group = id) => ({
  id,
  volts,
  mA,
  ac: false,
  group,
});
const problem = (more: Partial<SupplyProblem>): SupplyProblem => ({
  outputs: [],
  bridges: [],
  boxes: [],
  adapters: { polarity: null, plug: null },
  ...more,
});

const someVolts = fc.constantFrom<readonly number[]>([9], [9], [9, 18], [12], [9, 12, 18]);
const problems: fc.Arbitrary<SupplyProblem> = fc
  .record({
    outputs: fc.array(
      fc.record({
        volts: someVolts,
        mA: fc.constantFrom(100, 200, 500),
        ac: fc.nat(6).map((n) => n === 0),
        group: fc.constantFrom('a', 'b'),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    boxes: fc.array(
      fc.record({
        volts: someVolts,
        mA: fc.constantFrom(20, 100, 250),
        ac: fc.nat(6).map((n) => n === 0),
        centre: fc.constantFrom('negative' as const, 'negative' as const, 'positive' as const),
        plug: fc.constantFrom('barrel21', 'barrel21', 'clip9'),
        noise: fc.constantFrom('digital' as const, 'gain' as const, 'none' as const),
      }),
      { minLength: 1, maxLength: 4 },
    ),
    adds: fc.constantFrom('mA' as const, 'volts' as const),
    daisy: fc.boolean(),
    watts: fc.option(fc.constantFrom(2, 4), { nil: undefined }),
    adapters: fc.record({ polarity: fc.constantFrom(null, 0, 1), plug: fc.constantFrom(null, 0, 1) }),
  })
  .map(({ outputs, boxes, adds, daisy, watts, adapters }) => ({
    outputs: outputs.map((o, i) => ({ ...o, id: `o${i}` })),
    boxes: boxes.map((b, i) => ({ ...b, id: `b${i}` })),
    bridges: outputs.length > 1 ? [{ outputs: ['o0', 'o1'], adds }] : [],
    daisy,
    adapters,
    ...(watts === undefined ? {} : { totals: [{ outputs: outputs.map((_, i) => `o${i}`), W: watts }] }),
  }));

/** Every assignment there is, legal or not. */
const assignments = ({ boxes, outputs, bridges }: SupplyProblem): readonly SupplyAssignment[] =>
  boxes.reduce<readonly SupplyAssignment[]>(
    (made, { id }) =>
      made.flatMap((one) => [
        one,
        ...[...outputs.map((o) => [o.id]), ...bridges.map((b) => b.outputs)].map(
          (from) => new Map([...one, [id, from]]),
        ),
      ]),
    [new Map()],
  );
const isBetter = (a: SupplyCost, b: SupplyCost): boolean =>
  a.powered !== b.powered
    ? a.powered > b.powered
    : a.adapters !== b.adapters
      ? a.adapters < b.adapters
      : a.mixed < b.mixed;

test('no assignment of all that there are is better than the plan, and the plan keeps every rule', () => {
  fc.assert(
    fc.property(problems, (one) => {
      const plan = planSupply(one, askCbc, 20)!;
      const best = assignments(one)
        .map((a) => judged(one, a))
        .filter((j) => j.wrong.length === 0)
        .map((j) => j.cost)
        .reduce((a, b) => (isBetter(b, a) ? b : a));
      expect(judged(one, plan.assignment)).toEqual({ cost: best, wrong: [] });
      expect(plan.isProved).toBe(true);
    }),
    { numRuns: often(40), seed: 21 },
  );
});

test('a box that wants more than any output gives takes the bridge; with one output less it is left over', () => {
  const big = box('big', { mA: 250 });
  const bridges = [{ outputs: ['1', '2', '3'], adds: 'mA' as const }];
  const outputs = ['1', '2', '3'].map((id) => output(id));
  const plan = planSupply(problem({ outputs, bridges, boxes: [big] }), askCbc, 20)!;
  expect(plan).toEqual({
    assignment: new Map([['big', ['1', '2', '3']]]),
    cost: { powered: 1, adapters: 1, mixed: 0 },
    isProved: true,
  });
  const two = planSupply(problem({ outputs, bridges, boxes: [big, box('small')] }), askCbc, 20)!;
  expect(two.cost).toEqual({ powered: 1, adapters: 0, mixed: 0 });
  expect([...two.assignment.keys()]).toEqual(['small']);
});

test('of plans that are equally good the one is taken that leaves the leads where they are', () => {
  const outputs = ['1', '2', '3', '4'].map((id) => output(id));
  const boxes = ['a', 'b', 'c'].map((id) => box(id));
  const now = new Map([
    ['a', ['3']],
    ['b', ['1']],
  ]);
  const { assignment } = planSupply(problem({ outputs, boxes, now }), askCbc, 20)!;
  expect([assignment.get('a'), assignment.get('b'), assignment.size]).toEqual([['3'], ['1'], 3]);
});

test.each([
  ['no outputs', problem({ boxes: [box('a')] })],
  ['12 V into a box of 9 V', problem({ outputs: [output('1', 500, [12])], boxes: [box('a')] })],
  ['too little current', problem({ outputs: [output('1', 50)], boxes: [box('a')] })],
  ['direct current into an AC box', problem({ outputs: [output('1', 500)], boxes: [box('a', { ac: true })] })],
  [
    'no plug adapter',
    problem({ outputs: [output('1')], boxes: [box('a', { plug: 'clip9' })], adapters: { polarity: null, plug: 0 } }),
  ],
])('%s: nothing is fed, and that is proved', (_, one) => {
  expect(planSupply(one, askCbc, 20)).toEqual({
    assignment: new Map(),
    cost: { powered: 0, adapters: 0, mixed: 0 },
    isProved: true,
  });
});

const fed = (by: Readonly<Record<string, readonly string[]>>): SupplyAssignment => new Map(Object.entries(by));
const outputs = [output('1'), output('2', 300, [9, 18]), { ...output('ac', 1000), ac: true }];
test.each([
  ['an output that is not there', { a: ['7'] }, {}, 'There is no output 7.'],
  ['two on one output', { a: ['2'], b: ['2'] }, {}, 'a, b cannot hang on one output.'],
  ['a chain over its current', { a: ['1'], b: ['1'] }, { daisy: true }, '1 cannot feed a, b.'],
  ['centre positive in a chain', { a: ['2'], p: ['2'] }, { daisy: true }, 'One of a, p wants the other polarity.'],
  ['AC', { a: ['ac'] }, {}, 'ac cannot feed a.'],
  ['a bridge that is not there', { a: ['1', '2'] }, {}, '1 + 2 cannot feed a.'],
  ['watts', { a: ['1'], b: ['2'] }, { totals: [{ outputs: ['1', '2'], W: 1 }] }, '1.8 W of 1 W.'],
  ['no adapter', { p: ['1'] }, { adapters: { polarity: 0, plug: null } }, '1 polarity adapters, and 0 are there.'],
] as const)('%s is wrong, and it says so', (_, by, more, says) => {
  const boxes = [box('a'), box('b'), box('p', { centre: 'positive' })];
  expect(judged(problem({ outputs, boxes, ...more }), fed(by)).wrong).toEqual([says]);
});

test.each([
  ['no JSON', 'x', 'This is no JSON.'],
  ['an output of 0 mA', { cases: [{ ...problem({ outputs: [output('1', 0)] }), id: 'c' }] }, 'Too small'],
  [
    'two boxes of one name',
    { cases: [{ ...problem({ boxes: [box('a'), box('a')] }), id: 'c' }] },
    'Two things are called a.',
  ],
  [
    'a bridge to nowhere',
    { cases: [{ ...problem({ bridges: [{ outputs: ['1', '2'], adds: 'mA' }] }), id: 'c' }] },
    'A bridge joins the output 1, and there is none.',
  ],
])('%s is refused, with what is wrong', (_, content, says) => {
  const read = readSupplyCases(typeof content === 'string' ? content : JSON.stringify(content));
  expect(read.ok ? '' : read.error.wrong).toContain(says);
});

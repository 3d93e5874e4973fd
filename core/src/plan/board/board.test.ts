import fc from 'fast-check';
import { bareDemo } from '../../../testing/bare-demo.js';
import { after } from '../../../testing/after.js';
import { Random } from '../../../testing/random.js';
import { boardFaults } from '../../board/faults.js';
import { tooCloseForAShoe } from '../../board/shoe.js';
import { laidOut } from '../../board/laid-out.js';
import { overlaps, movedBy } from '../../board/shapes.js';
import { BALLROOM_ID } from '../../demo/island-run.js';
import { setBoard, standAt } from '../../edits/boards.js';
import type { Board } from '../../rig/board.js';
import type { Id } from '../../rig/ids.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import { leastLead } from './bound.js';
import { layOut, type LayoutPlan } from './layout.js';
import { layoutProblem, spotsOf, type BoardProblem } from './of-rig.js';
import { againstCost, costOf, isPossible, leadMm, type BoxToLay, type Laid, type LayoutProblem } from './problem.js';

const rigWith = (board: Board): Rig => after(bareDemo(), setBoard(bareDemo(), 'Board', board));
const FLOOR = all(bareDemo(), 'device')
  .filter((d) => d.zone === 'floor' || d.zone === 'supply')
  .map((d) => d.id);
const problemOf = (rig: Rig, devices: readonly Id<'device'>[] = FLOOR): BoardProblem =>
  layoutProblem(rig, thePart(rig, BALLROOM_ID), 'Board', devices)!;
const WIDE = rigWith({ mm: [900, 420], leave: 'left' });
/** The last plan of a search of so many moves. */
const planned = (problem: LayoutProblem, moves: number): LayoutPlan => {
  const search = layOut(problem, moves);
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
  }
};

test('the demo’s board is laid out from nothing, and can be built', () => {
  const problem = problemOf(WIDE);
  const plan = planned(problem, 20_000);
  expect([plan.without, plan.cannotFit, isPossible(problem, plan.layout)]).toEqual([[], false, true]);
  const rig = after(WIDE, standAt(thePart(WIDE, BALLROOM_ID), spotsOf(problem, plan)));
  expect(boardFaults(laidOut(rig, thePart(rig, BALLROOM_ID)))).toEqual([]);
});

test('the same question has the same answer, and each answer is no worse than the one before', () => {
  const problem = problemOf(WIDE);
  const costs = [...layOut(problem, 5000)].map((p) => costOf(problem, p.layout));
  expect(costs).toEqual([...costs].sort((a, b) => b - a));
  expect([...layOut(problem, 5000)].at(-1)).toEqual([...layOut(problem, 5000)].at(-1));
});

// Reference: random search, and a lower bound.
test('it is better than the best of 2000 random layouts, and no layout is below the bound', () => {
  const problem = problemOf(rigWith({ mm: [1400, 800] }));
  const random = new Random(5);
  const somewhere = (box: number): Laid => {
    const body = problem.boxes[box]!.turned[0]!.body;
    return { as: 0, x: random.int(0, problem.board.w - body.w), y: random.int(0, problem.board.d - body.d) };
  };
  let best = Infinity;
  let found = 0;
  for (let tries = 0; tries < 2000; tries += 1) {
    const layout: (Laid | undefined)[] = problem.boxes.map(() => undefined);
    const isWhole = problem.boxes.every((_, box) => {
      for (let n = 0; n < 200; n += 1) {
        layout[box] = somewhere(box);
        if (isPossible(problem, layout)) return true;
      }
      return false;
    });
    if (!isWhole) continue;
    found += 1;
    best = Math.min(best, costOf(problem, layout));
    const lead = problem.leads.reduce((sum, __, i) => sum + leadMm(problem, layout, i), 0);
    expect(lead).toBeGreaterThanOrEqual(leastLead(problem) - 1e-6);
  }
  expect(found).toBeGreaterThan(100);
  const plan = planned(problem, 20_000);
  expect(costOf(problem, plan.layout)).toBeLessThan(best);
  expect(plan.leadMm).toBeGreaterThanOrEqual(plan.least - 1e-6);
});

const side = fc.integer({ min: 1, max: 6 });
const where = fc.record({ x: fc.integer({ min: -1, max: 7 }), y: fc.integer({ min: -1, max: 7 }) });
/** Two boxes that are joined by some leads. */
const pair = fc.record({
  sizes: fc.tuple(side, side, side, side),
  ends: fc.array(fc.tuple(where, where), { minLength: 1, maxLength: 4 }),
});

// Reference: every place of the one beside the other.
test('law: the bound of two boxes is what every place of theirs gives at least', () =>
  fc.assert(
    fc.property(pair, ({ sizes: [aw, ad, bw, bd], ends }) => {
      const box = (w: number, d: number, at: 0 | 1): BoxToLay => ({
        id: String(at),
        isStomped: false,
        hum: 'neither',
        turned: [
          {
            turn: 0,
            body: { x: 0, y: 0, w, d },
            plugs: [],
            around: { x: 0, y: 0, w, d },
            ends: new Map(ends.map((e, i) => [i, e[at]])),
            switches: [],
          },
        ],
      });
      const problem: LayoutProblem = {
        board: { x: 0, y: 0, w: 99, d: 99 },
        boxes: [box(aw, ad, 0), box(bw, bd, 1)],
        leads: ends.map(() => ({ from: 0, to: 1 })),
        taken: [],
      };
      const [a, b] = problem.boxes.map((x) => x.turned[0]!.body);
      let least = Infinity;
      for (let x = -20; x <= 20; x += 1)
        for (let y = -20; y <= 20; y += 1) {
          if (overlaps(a!, movedBy(b!, { x, y }))) continue;
          const layout = [
            { as: 0, x: 0, y: 0 },
            { as: 0, x, y },
          ];
          least = Math.min(
            least,
            problem.leads.reduce((sum, _, i) => sum + leadMm(problem, layout, i), 0),
          );
        }
      expect(leastLead(problem)).toBe(least);
    }),
  ));

test('a board that is too small: what found no room is told, and that it cannot fit is proved by what boxes cover', () => {
  const small = problemOf(rigWith({ mm: [450, 150] }));
  const plan = planned(small, 2000);
  expect(plan.cannotFit).toBe(true);
  expect(plan.without.length).toBeGreaterThan(0);
  expect(isPossible(small, plan.layout)).toBe(true);
});

test('what stands there and is not asked about stays, and nothing is put on it', () => {
  const rig = after(WIDE, standAt(thePart(WIDE, BALLROOM_ID), { 'device:swi': { at: 'Board', x: 0, y: 0, turn: 0 } }));
  const problem = problemOf(
    rig,
    FLOOR.filter((id) => id !== 'device:swi'),
  );
  const plan = planned(problem, 5000);
  const after_ = after(rig, standAt(thePart(rig, BALLROOM_ID), spotsOf(problem, plan)));
  expect(thePart(after_, BALLROOM_ID).place!['device:swi']).toEqual({ at: 'Board', x: 0, y: 0, turn: 0 });
  expect(boardFaults(laidOut(after_, thePart(after_, BALLROOM_ID)))).toEqual([]);
});

test('stomped boxes stand in front of what no foot needs', () => {
  const problem = problemOf(WIDE);
  const { layout } = planned(problem, 40_000);
  const rows = (isStomped: boolean) =>
    problem.boxes.flatMap((b, i) => (b.isStomped === isStomped ? [layout[i]!.y] : []));
  const mean = (ys: readonly number[]): number => ys.reduce((a, b) => a + b, 0) / ys.length;
  expect(mean(rows(true))).toBeLessThan(mean(rows(false)));
});

test('where there is room no two switches stand too close for a shoe', () => {
  const problem = problemOf(rigWith({ mm: [900, 500], leave: 'left' }));
  const rig = after(
    rigWith({ mm: [900, 500] }),
    standAt(thePart(WIDE, BALLROOM_ID), spotsOf(problem, planned(problem, 40_000))),
  );
  const out = laidOut(rig, thePart(rig, BALLROOM_ID));
  expect(out.boxes.length).toBe(problem.boxes.length);
  expect(tooCloseForAShoe(out, 'Board')).toEqual([]);
});

test('with a side on which the signal comes in, boxes follow one another from there', () => {
  const against = (enters: 'left' | 'right' | undefined): number => {
    const problem = problemOf(rigWith({ mm: [900, 420], ...(enters ? { enters } : {}) }));
    const wished = problemOf(rigWith({ mm: [900, 420], enters: enters ?? 'left' }));
    const { layout } = planned(problem, 20_000);
    return wished.leads.reduce((sum, __, lead) => sum + againstCost(wished, layout, lead), 0);
  };
  const [left, right, nowhere] = [against('left'), against('right'), against(undefined)];
  expect(left).toBeLessThan(nowhere);
  const leads = problemOf(rigWith({ mm: [900, 420], enters: 'right' })).leads;
  // What comes from the hands comes in there; what goes on leaves on the other side.
  expect(new Set(leads.flatMap((l) => (typeof l.to === 'string' ? [l.to] : [])))).toEqual(new Set(['right', 'left']));
  expect(leads.some((l) => l.runs === -1)).toBe(true);
  expect(right).toBeLessThan(leads.length * 120);
});

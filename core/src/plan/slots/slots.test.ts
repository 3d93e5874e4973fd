import fc from 'fast-check';
import reference from '../../../testing/reference/slots.json' with { type: 'json' };
import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { everyPlacement, randomSlots } from '../../../testing/random-slots.js';
import { Random } from '../../../testing/random.js';
import { readSlotsCases } from './cases.js';
import { planSlots, type SlotsPlan } from './plan.js';
import { callsIn, costOf, pressesBetween, type SlotPlace, type SlotsProblem } from './problem.js';
import { slotsProgramme } from './programme.js';
import { searchSlots, type SearchEffort } from './search.js';

const placed = (problem: SlotsProblem, effort: SearchEffort): readonly SlotPlace[] => {
  const search = searchSlots(problem, effort);
  for (let step = search.next(); ; step = search.next()) if (step.done) return step.value!;
};
const planned = (problem: SlotsProblem, solver = askCbc): SlotsPlan => {
  const planning = planSlots(problem, solver, 20);
  for (let step = planning.next(); ; step = planning.next()) if (step.done) return step.value!;
};
/** A placement that anybody could store: no switch twice, nothing twice too often, what is pinned in its place. */
const isLegal = ({ banks, switches, copies, songs, pinned = [] }: SlotsProblem, places: readonly SlotPlace[]) => {
  const switched = new Set(places.map(([, b, k]) => `${b} ${k}`));
  const often = (sound: number) => places.filter(([s]) => s === sound).length;
  return (
    switched.size === places.length &&
    places.every(([, b, k]) => b >= 0 && b < banks && k >= 0 && k < switches) &&
    songs.flat().every((s) => often(s) >= 1 && often(s) <= copies) &&
    pinned.every((p) => places.some((q) => q.join() === p.join()))
  );
};
const cheapest = (problem: SlotsProblem): number => {
  let least = Infinity;
  everyPlacement(problem, (places) => {
    least = Math.min(least, costOf(problem, places).stomps);
  });
  return least;
};

const cases = reference.cases.map((c) => ({ ...c, problem: c as unknown as SlotsProblem }));
const isLarge = (id: string) => id.startsWith('slots-large');

describe('the reference placements (reference/slots.json, optima proved there by several solvers)', () => {
  test.each(cases.filter((c) => !isLarge(c.id)).map((c) => [c.id, c] as const))('%s at its optimum', (_, c) => {
    const { stomps } = c.results;
    const places = placed(c.problem, { moves: 150_000, descents: 12, floor: stomps });
    expect(isLegal(c.problem, places)).toBe(true);
    expect(costOf(c.problem, places)).toEqual({ stomps, bankPresses: stomps - callsIn(c.problem.songs) });
  });
  test.each(cases.filter((c) => isLarge(c.id)).map((c) => [c.id, c] as const))('%s within 2 %% of the best', (_, c) => {
    const goal = Math.floor(c.results.stomps * 1.02);
    const places = placed(c.problem, { moves: 400_000, descents: 30, floor: goal });
    expect(isLegal(c.problem, places)).toBe(true);
    expect(costOf(c.problem, places).stomps).toBeLessThanOrEqual(goal);
    expect(costOf(c.problem, places).stomps).toBeGreaterThanOrEqual(c.results.bound ?? 0);
  });
});

describe('against every placement there is', () => {
  test.each(Array.from({ length: 4 }, (_, i) => i))('small problems, part %i', (part) => {
    const each = often(4);
    for (let seed = part * each + 1; seed <= (part + 1) * each; seed += 1) {
      const problem = randomSlots(new Random(seed), { sounds: 5, banks: 3 });
      const plan = planned(problem);
      expect({ seed, stomps: plan.stomps, bound: plan.bound }).toEqual({
        seed,
        stomps: cheapest(problem),
        bound: plan.stomps,
      });
      expect(isLegal(problem, plan.places)).toBe(true);
    }
  });
});

describe('against CBC, a second solver', () => {
  test.each(Array.from({ length: 4 }, (_, i) => i))('generated problems, part %i', (part) => {
    const each = often(15);
    for (let seed = 1000 + part * each; seed < 1000 + (part + 1) * each; seed += 1) {
      const problem = { ...randomSlots(new Random(seed), { sounds: 9, banks: 4 }), copies: 1 };
      const { bound } = askCbc(slotsProgramme(problem), 20);
      const places = placed(problem, { moves: 60_000, descents: 6, floor: Math.round(bound) });
      expect({ seed, stomps: costOf(problem, places).stomps }).toEqual({ seed, stomps: Math.round(bound) });
    }
  });
});

test('bank keys: the shorter way round, or up alone', () => {
  const ring = { banks: 5, wrap: true, bankKeys: 'both' } as const;
  expect([pressesBetween(ring, 0, 4), pressesBetween(ring, 1, 3)]).toEqual([1, 2]);
  expect(pressesBetween({ ...ring, bankKeys: 'up' }, 3, 1)).toBe(3);
  expect(pressesBetween({ ...ring, wrap: false }, 0, 4)).toBe(4);
  expect(pressesBetween({ ...ring, wrap: false, bankKeys: 'up' }, 4, 0)).toBe(Infinity);
});
test('of two slots the player takes the one that makes the whole song cheapest, not the nearest', () => {
  const problem: SlotsProblem = {
    banks: 4,
    switches: 1,
    wrap: false,
    bankKeys: 'both',
    sounds: 3,
    copies: 2,
    songs: [[0, 1, 2]],
  };
  // From 0 in bank 1 the nearest 1 stands in bank 0, but 2 waits in bank 3.
  expect(
    costOf(problem, [
      [0, 1, 0],
      [1, 0, 0],
      [1, 2, 0],
      [2, 3, 0],
    ]),
  ).toEqual({ stomps: 4, bankPresses: 2 });
});
test('a sound called again costs nothing; one that stands nowhere is told', () => {
  const problem: SlotsProblem = {
    banks: 1,
    switches: 2,
    wrap: false,
    bankKeys: 'both',
    sounds: 2,
    copies: 1,
    songs: [[0, 0, 1, 1, 0]],
  };
  expect(
    costOf(problem, [
      [0, 0, 0],
      [1, 0, 1],
    ]),
  ).toEqual({ stomps: 2, bankPresses: 0 });
  expect(() => costOf(problem, [[0, 0, 0]])).toThrow('Sound 1 stands nowhere.');
});
test('scenes of one preset are pinned to one switch, and take one', () => {
  const problem: SlotsProblem = {
    banks: 2,
    switches: 2,
    wrap: false,
    bankKeys: 'both',
    sounds: 5,
    copies: 1,
    songs: [
      [0, 1, 2, 3],
      [3, 4],
    ],
    pinned: [
      [0, 0, 1],
      [1, 0, 1],
      [2, 0, 1],
    ],
  };
  const plan = planned(problem);
  const switched = new Set(plan.places.map(([, b, k]) => `${b} ${k}`));
  expect([plan.places.length, switched.size]).toEqual([5, 3]);
  // Either 3 joins the scenes and 4 stands apart, or both stand apart: one bank key.
  expect([plan.stomps, plan.bound]).toEqual([5, 5]);
});
test('more sounds than slots: no plan', () => {
  const problem: SlotsProblem = {
    banks: 1,
    switches: 2,
    wrap: false,
    bankKeys: 'both',
    sounds: 3,
    copies: 1,
    songs: [[0, 1, 2]],
  };
  expect(searchSlots(problem).next()).toMatchObject({ done: true, value: undefined });
});
test('any placement costs at least one stomp a change, and moving a whole bank round a ring changes nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.nat(10), (seed, by) => {
      const problem = { ...randomSlots(new Random(seed), { sounds: 8, banks: 5 }), wrap: true, pinned: [] };
      const places = placed(problem, { moves: 200, descents: 1 });
      const { stomps } = costOf(problem, places);
      expect(stomps).toBeGreaterThanOrEqual(callsIn(problem.songs));
      const turned = places.map(([s, b, k]): SlotPlace => [s, (b + by) % problem.banks, k]);
      expect(costOf(problem, turned).stomps).toBe(stomps);
    }),
    { numRuns: often(200) },
  );
});

describe('a file of cases', () => {
  const good = { id: 'a', banks: 2, switches: 2, wrap: true, bankKeys: 'up', sounds: 3, copies: 1, songs: [[0, 1, 2]] };
  const read = (change: object) => readSlotsCases(JSON.stringify({ cases: [{ ...good, ...change }] }));
  test('is read as it stands', () =>
    expect(read({})).toMatchObject({ ok: true, value: [{ id: 'a', problem: { banks: 2 } }] }));
  test.each([
    ['a song that calls what is not there', { songs: [[0, 7]] }, 'A song calls sound 7; the last is 2.'],
    ['a pin outside', { pinned: [[0, 2, 0]] }, 'There is no place for what is pinned as 0, 2, 0.'],
    [
      'two pins on one switch',
      {
        pinned: [
          [0, 0, 0],
          [1, 0, 0],
        ],
      },
      'Two sounds are pinned to switch 0 of bank 0.',
    ],
    [
      'one sound pinned twice',
      {
        pinned: [
          [0, 0, 0],
          [0, 1, 0],
        ],
      },
      'Sound 0 is pinned more often than it may stand.',
    ],
    ['up alone without a way round', { wrap: false }, 'With a key up alone and no way round, no bank comes back.'],
  ])('%s', (_, change, wrong) => expect(read(change)).toMatchObject({ ok: false, error: { wrong } }));
  test('what has another form is told where', () => {
    expect(read({ banks: 'two' })).toMatchObject({ ok: false, error: { where: 'cases.0.banks' } });
    expect(readSlotsCases('{')).toMatchObject({ ok: false, error: { wrong: 'This is no JSON.' } });
  });
});

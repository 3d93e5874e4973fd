import { askCbc } from '../../../testing/cbc.js';
import { often } from '../../../testing/often.js';
import { Random } from '../../../testing/random.js';
import { judged, planSwitches, switchesCost, type Hit, type SwitchesProblem } from './switches.js';

/** Two or three banks of three switches and a few moves on two more; some of it fixed. */
const randomSwitches = (r: Random): { readonly problem: SwitchesProblem; readonly first: readonly number[] } => {
  const first: number[] = [];
  const hits: Hit[] = [];
  for (let bank = 0; bank < r.int(1, 2); bank += 1)
    for (const k of [0, 1, 2].slice(0, r.int(1, 3))) {
      first.push(k);
      hits.push({
        may: [0, 1, 2],
        now: k,
        floors: [bank],
        ...(r.chance(70) ? { role: r.int(0, 1) } : {}),
      });
    }
  for (let move = 0; move < r.int(0, 2); move += 1) {
    first.push(3 + move);
    hits.push({ may: [3, 4], now: 3 + move, floors: [9] });
  }
  const together = hits.flatMap((_, a) =>
    hits.flatMap((__, b) => (b > a && r.chance(40) ? [{ a, b, songs: r.int(1, 3) }] : [])),
  );
  const close = [0, 1, 2, 3, 4].flatMap((a) =>
    [0, 1, 2, 3, 4].flatMap((b): (readonly [number, number])[] => (b > a && r.chance(35) ? [[a, b]] : [])),
  );
  return { problem: { hits, homes: [0, 1, 2], close, together }, first };
};

const canBe = ({ hits }: SwitchesProblem, at: readonly number[]): boolean =>
  hits.every((a, i) => hits.every((b, j) => i >= j || at[i] !== at[j] || !a.floors.some((f) => b.floors.includes(f))));

/** Every choice of switches, one after the other. */
const cheapest = (problem: SwitchesProblem): number => {
  let least = Infinity;
  const choose = (at: readonly number[]): void => {
    const hit = problem.hits[at.length];
    if (!hit) {
      if (canBe(problem, at)) least = Math.min(least, switchesCost(problem, at));
      return;
    }
    for (const k of hit.may) choose([...at, k]);
  };
  choose([]);
  return least;
};

test.each(Array.from({ length: 4 }, (_, i) => i))(
  'no choice of switches is cheaper, by trying all, part %i',
  (part) => {
    const each = often(12);
    for (let seed = part * each + 1; seed <= (part + 1) * each; seed += 1) {
      const { problem, first } = randomSwitches(new Random(seed));
      const plan = planSwitches(problem, first, askCbc, 20);
      expect(canBe(problem, plan.at)).toBe(true);
      expect({ seed, cost: switchesCost(problem, plan.at) }).toEqual({ seed, cost: cheapest(problem) });
      expect(plan.isProved).toBe(true);
    }
  },
);

test('roles come under one switch in all banks where that is possible, and what is pinned stays', () => {
  const hit = (floor: number, role: number | undefined, now: number, may = [0, 1, 2]): Hit => ({
    may,
    now,
    floors: [floor],
    ...(role === undefined ? {} : { role }),
  });
  const hits = [hit(0, 1, 0), hit(0, 2, 1), hit(1, 2, 0), hit(1, 1, 2), hit(1, undefined, 1), hit(2, 1, 2, [2])];
  const plan = planSwitches({ hits, homes: [0, 1, 2], close: [], together: [] }, [0, 1, 0, 2, 1, 2], askCbc, 20);
  expect(plan.strays).toBe(0);
  expect([plan.at[0], plan.at[3], plan.at[5]]).toEqual([2, 2, 2]);
  expect(plan.at[1]).toBe(plan.at[2]);
});

test('a solver that finds nothing leaves what stands, and claims nothing', () => {
  const { problem, first } = randomSwitches(new Random(7));
  const plan = planSwitches(problem, first, () => ({ bound: -Infinity }), 1);
  expect(plan).toEqual({ ...judged(problem, first), isProved: false });
});

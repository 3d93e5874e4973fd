import loadHighs from 'highs';
import { planLoops } from '@yunta/core/plan/loops/plan';
import type { LoopsProblem } from '@yunta/core/plan/loops/problem';
import { highsSolver } from '@yunta/core/plan/solver';
import { planSlots } from '@yunta/core/plan/slots/plan';
import type { SlotsProblem } from '@yunta/core/plan/slots/problem';
import { slotsProgramme } from '@yunta/core/plan/slots/programme';
import { askCbc } from '@yunta/core/testing/cbc';
import { Random } from '@yunta/core/testing/random';
import { print } from '../say.js';

const PROOF_SECONDS = 6;
const ALONE_SECONDS = 20;
const seconds = (since: number): string => `${((performance.now() - since) / 1000).toFixed(1)} s`;

/** 48 sounds in 24 songs on ten banks of six: a song has a handful of sounds, and goes to and fro between them. */
const night = (): SlotsProblem => {
  const r = new Random(48);
  const songs = Array.from({ length: 24 }, () => {
    const own = Array.from({ length: r.int(2, 5) }, () => r.int(0, 47));
    return Array.from({ length: r.int(4, 8) }, () => r.pick(own));
  });
  return { banks: 10, switches: 6, wrap: true, bankKeys: 'both', sounds: 48, copies: 1, songs };
};

const board = (): LoopsProblem => {
  const r = new Random(16);
  return {
    boxes: Array.from({ length: 8 }, (_, i) => `B${i}`),
    sounds: Array.from({ length: 12 }, () => Array.from({ length: 8 }, () => r.chance(40))),
  };
};

/** How soon the planners have a good answer, and how far it is proved; beside each the same by a solver alone. */
export const measurePlans = async (): Promise<void> => {
  const highs = highsSolver(await loadHighs());
  print('\nPlanners');
  const problem = night();
  const began = performance.now();
  const planning = planSlots(problem, highs, PROOF_SECONDS);
  let last: { readonly stomps: number; readonly bound: number } | undefined;
  for (let step = planning.next(); ; step = planning.next()) {
    const { value } = step;
    if (value && (value.stomps !== last?.stomps || value.bound !== last.bound))
      print(
        `slots, 48 sounds, 24 songs, 10 × 6: ${value.stomps} stomps, at least ${value.bound}, after ${seconds(began)}`,
      );
    last = value ?? last;
    if (step.done) break;
  }
  const alone = performance.now();
  const programme = slotsProgramme(problem);
  const { bound } = highs(programme, ALONE_SECONDS);
  print(`the same by HiGHS alone: at least ${Math.ceil(bound - 1e-4)} after ${seconds(alone)}`);
  for (const [name, solver] of [
    ['HiGHS', highs],
    ['CBC', askCbc],
  ] as const) {
    const since = performance.now();
    const plan = planLoops(board(), 4, solver, ALONE_SECONDS);
    print(`loops, 8 boxes, 12 sounds in 4 loops, by ${name}: keeps ${plan?.kept.length ?? 0}, after ${seconds(since)}`);
  }
};

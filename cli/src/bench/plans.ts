import loadHighs from 'highs';
import { failsOf } from '@yunta/core/derive/views/fails';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { apply } from '@yunta/core/change/apply';
import { setBoard } from '@yunta/core/edits/boards';
import { layOut, type LayoutPlan } from '@yunta/core/plan/board/layout';
import { layoutProblem } from '@yunta/core/plan/board/of-rig';
import { all } from '@yunta/core/rig/rig';
import { planCuts, type CutProblem } from '@yunta/core/plan/cut/cut';
import { giantRig } from '@yunta/core/testing/giant-rig';
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

/** 30 leads of five reels. */
const leads = (): CutProblem => ({
  pieces: Array.from({ length: 30 }, (_, i) => ({ id: `p${i}`, cm: [15, 20, 20, 30, 30, 45, 60, 90][i % 8] ?? 0 })),
  reels: [1000, 500, 300, 300, 250].map((cm, i) => ({ id: `r${i}`, cm })),
});

/** What stands before build day and on the road: a cut list, and every single failure of the giant rig. */
export const measureBuildAndRoad = async (): Promise<void> => {
  const highs = highsSolver(await loadHighs());
  print('\nBuild and road');
  const began = performance.now();
  const plan = planCuts(leads(), highs, PROOF_SECONDS);
  print(`cut list of 30 leads: ${seconds(began)}, ${plan?.isProved ? 'proved' : 'not proved'}`);
  measureBoard();
  const { rig, hookup } = giantRig();
  const d = deriveOnce(rig, hookup.id);
  if (!d) return;
  const since = performance.now();
  const fails = failsOf(d);
  print(`${fails.length} single failures of the giant rig with their ways out: ${seconds(since)}`);
};

/** Twenty boxes of the giant rig on a board: how good a layout is found by when, and what it cannot go below. */
const measureBoard = (): void => {
  const { rig, hookup } = giantRig();
  const made = apply(rig, setBoard(rig, 'Board', { mm: [1400, 700] }));
  if (!made.ok) return;
  const boxes = all(rig, 'device').filter((d) => d.zone === 'floor');
  const problem = layoutProblem(
    made.value.rig,
    hookup,
    'Board',
    boxes.slice(0, 20).map((d) => d.id),
  );
  if (!problem) return;
  const began = performance.now();
  const told = [0.25, 0.5, 1, 2, Infinity];
  let last: LayoutPlan | undefined;
  for (const plan of layOut(problem)) {
    last = plan;
    const now = (performance.now() - began) / 1000;
    if (now < (told[0] ?? Infinity)) continue;
    told.shift();
    print(
      `layout of ${problem.boxes.length} boxes after ${now.toFixed(2)} s: ${(plan.leadMm / 1000).toFixed(2)} m of lead`,
    );
  }
  if (last)
    print(
      `the search ends after ${seconds(began)} with ${(last.leadMm / 1000).toFixed(2)} m, at least ${(last.least / 1000).toFixed(2)} m`,
    );
};

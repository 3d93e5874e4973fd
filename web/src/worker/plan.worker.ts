import { expose } from 'comlink';
import { layOut, type LayoutPlan } from '@yunta/core/plan/board/layout';
import type { LayoutProblem } from '@yunta/core/plan/board/problem';
import { planLoops, type LoopsPlan } from '@yunta/core/plan/loops/plan';
import type { LoopsProblem } from '@yunta/core/plan/loops/problem';
import { planOrder, type OrderPlan, type OrderProblem } from '@yunta/core/plan/order/order';
import { planSlots, type PlanProgress, type SlotsPlan } from '@yunta/core/plan/slots/plan';
import type { SupplyProblem } from '@yunta/core/plan/supply/problem';
import { takesOf, type Take } from '@yunta/core/electric/recording/takes';
import { readWav } from '@yunta/core/formats/wav';
import { ok, type Refusal, type Result } from '@yunta/core/rig/result';
import { planAllCuts } from '@yunta/core/derive/views/leads';
import type { CutPlan, CutProblem } from '@yunta/core/plan/cut/cut';
import type { StockKind } from '@yunta/core/rig/show';
import { planPower, type PowerPlans } from '@yunta/core/derive/views/power';
import { planSwitches, type SwitchesPlan, type SwitchesProblem } from '@yunta/core/plan/slots/switches';
import type { SlotsProblem } from '@yunta/core/plan/slots/problem';
import { loadSolver } from './solver.js';

/** How long the solver may look for a proof, in seconds: the long search comes after it. */
const PROOF_SECONDS = 6;
const TOLD_EVERY_MS = 100;
const LOOPS_SECONDS = 20;
const SWITCHES_SECONDS = 5;
const ORDER_SECONDS = 10;

/** Plans in a worker of its own: whoever stops it ends the worker. */
export class Planning {
  /** @param tell is told the best so far, now and then */
  async slots(
    problem: SlotsProblem,
    tell: (progress: PlanProgress) => void,
    seconds = PROOF_SECONDS,
  ): Promise<SlotsPlan | undefined> {
    const solver = await loadSolver();
    const planning = planSlots(problem, solver, seconds);
    let told: PlanProgress | undefined;
    let since = -Infinity;
    for (;;) {
      const step = planning.next();
      if (step.done) return step.value;
      if (step.value === told || performance.now() - since < TOLD_EVERY_MS) continue;
      told = step.value;
      since = performance.now();
      tell(told);
    }
  }

  /** Which switch each sound and each move gets. @param first how they stand before */
  async switches(problem: SwitchesProblem, first: readonly number[]): Promise<SwitchesPlan> {
    return planSwitches(problem, first, await loadSolver(), SWITCHES_SECONDS);
  }

  /** One order of boxes that serves as many sounds as possible. */
  async order(problem: OrderProblem): Promise<OrderPlan | undefined> {
    return planOrder(problem, await loadSolver(), ORDER_SECONDS);
  }

  /** Which output feeds which box. */
  async power(problem: SupplyProblem): Promise<PowerPlans | undefined> {
    return planPower(problem, await loadSolver());
  }

  /** What is cut of which reel, kind by kind. */
  async cuts(asked: ReadonlyMap<StockKind, CutProblem>): Promise<ReadonlyMap<StockKind, CutPlan | undefined>> {
    return planAllCuts(asked, await loadSolver());
  }

  /** Where boxes stand on a board. @param tell is told the best so far, now and then */
  layout(problem: LayoutProblem, tell: (plan: LayoutPlan) => void): LayoutPlan {
    const search = layOut(problem);
    let told: LayoutPlan | undefined;
    let since = -Infinity;
    for (;;) {
      const step = search.next();
      if (step.done) return step.value;
      if (step.value === told || performance.now() - since < TOLD_EVERY_MS) continue;
      told = step.value;
      since = performance.now();
      tell(told);
    }
  }

  /** The sounds of a recording, cut apart and measured. */
  recording(bytes: Uint8Array, name: string): Result<readonly Take[], readonly Refusal[]> {
    const read = readWav(bytes, name);
    return read.ok ? ok(takesOf(read.value)) : read;
  }

  /** What a switcher of so few loops would keep. */
  async loops(problem: LoopsProblem, loops: number): Promise<LoopsPlan | undefined> {
    return planLoops(problem, loops, await loadSolver(), LOOPS_SECONDS);
  }
}

expose(new Planning());

import type { Solver } from '../solver.js';
import { judged, type SupplyAssignment, type SupplyCost, type SupplyProblem } from './problem.js';
import { AIMS, feedings, supplyProgramme, type Aim } from './programme.js';

export interface SupplyPlan {
  readonly assignment: SupplyAssignment;
  readonly cost: SupplyCost;
  /** Nothing is better in any of the aims, in their order. */
  readonly isProved: boolean;
}

/**
 * Who feeds whom: most boxes powered, then fewest adapters and bridges, then fewest groups in which digital boxes meet
 * high gain, then fewest boxes that share an output, then fewest leads moved. One integer programme for each aim, so that none is weighed against another.
 *
 * @param seconds for each aim
 * @returns undefined when the solver found nothing in its time
 */
export const planSupply = (problem: SupplyProblem, solver: Solver, seconds: number): SupplyPlan | undefined => {
  const ways = feedings(problem);
  const none: SupplyAssignment = new Map();
  if (ways.length === 0) return { assignment: none, cost: judged(problem, none).cost, isProved: true };
  const held = new Map<Aim, number>();
  let found: SupplyAssignment | undefined;
  let isProved = true;
  for (const aim of AIMS) {
    if ((aim === 'moved' && !problem.now) || (aim === 'shared' && !problem.daisy)) continue;
    const { bound, value } = solver(supplyProgramme(problem, ways, aim, held), seconds);
    if (!value) return found && { assignment: found, cost: judged(problem, found).cost, isProved: false };
    found = new Map(ways.filter((w) => value(w.name) > 0.5).map((w) => [w.box.id, w.outputs]));
    const is = costOf(problem, found)[aim];
    isProved &&= Math.ceil(bound - 1e-6) >= is;
    held.set(aim, is);
  }
  return found && { assignment: found, cost: judged(problem, found).cost, isProved };
};

const costOf = (problem: SupplyProblem, assignment: SupplyAssignment): Readonly<Record<Aim, number>> => {
  const { powered, adapters, mixed } = judged(problem, assignment).cost;
  const moved = [...assignment].filter(([box, from]) => problem.now?.get(box)?.join() !== from.join()).length;
  const alone = new Set([...assignment.values()].flatMap((from) => (from.length === 1 ? from : []))).size;
  return { unpowered: -powered, adapters, mixed, shared: -alone, moved };
};

import loadHighs from 'highs';
import { highsSolver } from '@yunta/core/plan/solver';
import { planSlots } from '@yunta/core/plan/slots/plan';
import { readSlotsCases, type SlotsCase } from '@yunta/core/plan/slots/cases';
import { readSupplyCases, type SupplyCase } from '@yunta/core/plan/supply/cases';
import { planSupply } from '@yunta/core/plan/supply/plan';
import type { Solver } from '@yunta/core/plan/solver';
import type { Result } from '@yunta/core/rig/result';
import { UserError, type CommandWords } from './arguments.js';
import { textOf } from './read.js';
import { json, print } from './say.js';

/** How long the solver may look for a proof in one case, in seconds. */
const PROOF_SECONDS = 5;

/** What can be planned of cases in a file. */
const PLANS = {
  slots: (text: string, solver: Solver) => answersTo(readSlotsCases(text), (one) => slotsOf(one, solver)),
  supply: (text: string, solver: Solver) => answersTo(readSupplyCases(text), (one) => supplyOf(one, solver)),
} as const;

/** Works cases of a planning problem out. @returns 0 all answered, 1 some have no answer */
export const planVerb = async ({ alone, options }: CommandWords): Promise<number> => {
  const [what = '', file] = alone;
  const plan = what === 'slots' || what === 'supply' ? PLANS[what] : undefined;
  if (!plan) throw new UserError(`"${what}" is not one of ${Object.keys(PLANS).join(', ')}.`);
  const answers = plan(textOf(file), highsSolver(await loadHighs()));
  if (options.json) json({ cases: answers.map(({ id, results }) => (results ? { id, results } : { id })) });
  else for (const { id, says } of answers) print(`${id}: ${says}`);
  return answers.every((a) => a.results) ? 0 : 1;
};

interface Answer {
  readonly id: string;
  readonly says: string;
  readonly results?: object;
}

const answersTo = <T>(cases: Result<readonly T[]>, answer: (one: T) => Answer): readonly Answer[] => {
  if (!cases.ok) throw new UserError(`${cases.error.where ?? 'The file'}: ${cases.error.wrong} ${cases.error.would}`);
  return cases.value.map(answer);
};

/** Where sounds stand so that their songs need the fewest stomps. */
const slotsOf = ({ id, problem }: SlotsCase, solver: Solver): Answer => {
  const planning = planSlots(problem, solver, PROOF_SECONDS);
  let step = planning.next();
  while (!step.done) step = planning.next();
  const plan = step.value;
  if (!plan) return { id, says: 'there are more sounds than slots' };
  const { stomps, bound, bankPresses, places } = plan;
  return {
    id,
    says: `${stomps} stomps, ${bankPresses} of them bank keys; ${bound === stomps ? 'fewer are not possible' : `at least ${bound}`}`,
    results: { stomps, bound, bankChangesInSongs: bankPresses, slots: places },
  };
};

/** Which output feeds which box. */
const supplyOf = ({ id, problem }: SupplyCase, solver: Solver): Answer => {
  const plan = planSupply(problem, solver, PROOF_SECONDS);
  if (!plan) return { id, says: 'nothing was found in time' };
  const { cost, assignment, isProved } = plan;
  const places = [...assignment].map(([box, outputs]) => [box, outputs.length === 1 ? outputs[0] : outputs]);
  return {
    id,
    says: `${cost.powered} of ${problem.boxes.length} boxes fed, ${cost.adapters} adapters or bridges, ${cost.mixed} groups mix digital and high gain; ${isProved ? 'no plan is better' : 'not proved to be the best'}`,
    results: { ...cost, assignment: Object.fromEntries(places) },
  };
};

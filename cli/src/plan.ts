import loadHighs from 'highs';
import { highsSolver } from '@yunta/core/plan/solver';
import { planSlots } from '@yunta/core/plan/slots/plan';
import { readSlotsCases, type SlotsCase } from '@yunta/core/plan/slots/cases';
import { UserError, type CommandWords } from './arguments.js';
import { textOf } from './read.js';
import { json, print } from './say.js';

/** How long the solver may look for a proof in one case, in seconds. */
const PROOF_SECONDS = 5;

/** Where sounds stand so that their songs need the fewest stomps. @returns 0 all placed, 1 some do not fit */
export const planVerb = async ({ alone, options }: CommandWords): Promise<number> => {
  const [what, file] = alone;
  if (what !== 'slots') throw new UserError(`"${what ?? ''}" is not one of slots.`);
  const cases = readSlotsCases(textOf(file));
  if (!cases.ok) throw new UserError(`${cases.error.where ?? 'The file'}: ${cases.error.wrong} ${cases.error.would}`);
  const solver = highsSolver(await loadHighs());
  const results = cases.value.map((one) => resultOf(one, solver));
  if (options.json) json({ cases: results });
  else
    for (const { id, results: found } of results)
      print(
        found
          ? `${id}: ${found.stomps} stomps, ${found.bankChangesInSongs} of them bank keys; ${found.bound === found.stomps ? 'fewer are not possible' : `at least ${found.bound}`}`
          : `${id}: there are more sounds than slots`,
      );
  return results.every((r) => r.results) ? 0 : 1;
};

const resultOf = ({ id, problem }: SlotsCase, solver: ReturnType<typeof highsSolver>) => {
  const planning = planSlots(problem, solver, PROOF_SECONDS);
  let step = planning.next();
  while (!step.done) step = planning.next();
  const plan = step.value;
  return plan
    ? {
        id,
        results: { stomps: plan.stomps, bound: plan.bound, bankChangesInSongs: plan.bankPresses, slots: plan.places },
      }
    : { id };
};

import { solveCircuits } from '@yunta/core/electric/circuit/cases';
import { UserError, type CommandWords } from './arguments.js';
import { textOf } from './read.js';
import { json, print } from './say.js';

/** What a passive front end does to the sound, circuit by circuit. @returns 0 */
export const loadVerb = ({ options }: CommandWords): number => {
  const { circuit } = options;
  const solved = solveCircuits(textOf(typeof circuit === 'string' ? circuit : undefined));
  if (!solved.ok) {
    const { where, wrong, would } = solved.error;
    throw new UserError(`${where || 'The file'}: ${wrong} ${would}`);
  }
  if (options.json) json(solved.value);
  else
    for (const { id, results } of solved.value.cases)
      print(
        `${id}: ${Object.entries(results)
          .map(([name, value]) => `${name} ${typeof value === 'object' ? JSON.stringify(value) : String(value)}`)
          .join(', ')}`,
      );
  return 0;
};

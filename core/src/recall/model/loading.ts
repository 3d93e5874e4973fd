import type { SystemAct } from '../../prover/system.js';

/** What a load does, with the acts of the program's list place by place. */
export interface Loading {
  readonly first: readonly SystemAct[];
  readonly list: readonly (readonly SystemAct[])[];
  readonly last: readonly SystemAct[];
}

/** Everything that a load does, in order. */
export const allOf = ({ first, list, last }: Loading): readonly SystemAct[] => {
  const acts = [...first];
  for (const place of list) for (const act of place) acts.push(act);
  for (const act of last) acts.push(act);
  return acts;
};

import { prove } from '../../prover/prove.js';
import type { Condition, RecallSystem, SystemAct } from '../../prover/system.js';
import type { Ref } from '../../rig/ids.js';
import type { Value } from '../../rig/value.js';
import { UNKNOWN } from '../model/domains.js';
import type { Modelled } from '../model/model.js';

const LOOK = 'look';
const variableOf = (i: number): string => `stands ${i}`;

/**
 * Which of some standings can come about, whatever is stomped, sent and switched on: each is asked of the prover as
 * something that must never be seen. Where it does not get through, a standing counts as one that can.
 * @param standings values of controls that stand together; a control that nothing moves is taken as it stands
 */
export const whichCanStand = <T extends { readonly standing: ReadonlyMap<Ref, Value> }>(
  { ground, said: { domains } }: Modelled,
  standings: readonly T[],
): readonly T[] => {
  const moved = new Set(ground.variables.map((v) => v.id));
  const seen = ({ standing }: T, i: number): SystemAct => ({
    variable: variableOf(i),
    set: 'yes',
    when: [...standing].flatMap(([control, value]): readonly Condition[] => {
      if (!moved.has(control)) return [];
      const domain = domains.of.get(control) ?? [];
      const named = [domains.named(control, value), UNKNOWN].filter((v) => domain.includes(v));
      // A value that the model does not tell apart rules nothing out.
      return named.length ? [{ variable: control, in: named }] : [];
    }),
  });
  const system: RecallSystem = {
    ...ground,
    variables: [
      ...ground.variables,
      ...standings.map((_, i) => ({ id: variableOf(i), domain: ['no', 'yes'], initial: ['no'] })),
    ],
    events: [...ground.events, { id: LOOK, acts: standings.map(seen), last: true }],
    sounds: standings.map((_, i) => ({
      id: variableOf(i),
      recall: LOOK,
      wants: [{ variable: variableOf(i), value: 'no' }],
    })),
  };
  const verdicts = prove(system);
  return standings.filter((_, i) => verdicts.get(variableOf(i))?.is !== 'proved');
};

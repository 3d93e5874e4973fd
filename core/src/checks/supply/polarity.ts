import { changeCable } from '../../edits/cables.js';
import { thePart } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { fedHere, outputText } from './fed.js';

export const polarity: Check = {
  code: 'supply.polarity',
  title: 'A supply lead of the wrong polarity',
  severities: ['danger'],
  source: 'common practice: the sign at the jack says whether the centre is negative or positive',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const { need, given, cable: id } of fedHere(inputs)) {
      if (need.centre === 'ac' || given.centre === 'ac' || need.centre === given.centre) continue;
      const cable = thePart(rig, id);
      yield {
        severity: 'danger' as const,
        evidence: [need.device, id, ...new Set(given.outputs.map((o) => o.device))],
        about: need.jack,
        why: `${boxName(rig, need.device)} wants its centre ${need.centre}, and the lead from ${given.outputs.map((o) => outputText(rig, o.jack)).join(' with ')} has it ${given.centre}: that can destroy it.`,
        remedies: () => [
          {
            id: 'turn',
            label: cable.turns ? 'Use an ordinary lead' : 'Use a lead that turns the polarity',
            promise: 'clears' as const,
            by: 'program' as const,
            edit: changeCable(cable, { turns: cable.turns ? undefined : true }),
          },
        ],
      };
    }
  },
};

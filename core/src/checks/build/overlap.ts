import { splitRef } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, endName } from '../names.js';
import { faultsHere, moveAway } from './stands.js';

export const overlap: Check = {
  code: 'build.overlap',
  title: 'Boxes on a board that are in each other’s way, or in the way of a plug',
  severities: ['broken'],
  source: 'geometry of boxes and plugs; sizes of plugs are assumed',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const fault of faultsHere(inputs, ['overlap', 'blocked', 'plugs'])) {
      const other = fault.is === 'plugs' ? splitRef(fault.other).device : fault.other;
      const why =
        fault.is === 'overlap'
          ? `${boxName(rig, fault.box)} and ${boxName(rig, fault.other)} stand on the same place.`
          : fault.is === 'blocked'
            ? `${boxName(rig, fault.other)} stands where the plug at ${endName(rig, fault.jack)} has to be.`
            : `The plugs at ${endName(rig, fault.jack)} and ${endName(rig, fault.other)} need the same place.`;
      yield {
        severity: 'broken' as const,
        evidence: [fault.box, other],
        about: fault.is === 'overlap' ? fault.is : `${fault.is} ${fault.jack}`,
        why,
        remedies: () => [...moveAway(inputs, fault.box), ...moveAway(inputs, other)],
      };
    }
  },
};

import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { faultsHere, mmText, moveAway } from './stands.js';

export const overhang: Check = {
  code: 'build.overhang',
  title: 'A box that hangs over its board, or is too high for the room above it',
  severities: ['broken'],
  source: 'geometry of boxes and boards',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const fault of faultsHere(inputs, ['overhang', 'too high'])) {
      const name = boxName(rig, fault.box);
      const board = hookup.place?.[fault.box]?.at ?? '';
      const under = fault.is === 'too high' && fault.under ? `under ${fault.under}` : `for ${board}`;
      const all = moveAway(inputs, fault.box);
      yield {
        severity: 'broken' as const,
        evidence: [fault.box],
        about: fault.is === 'too high' ? `${fault.is} ${fault.under ?? ''}` : fault.is,
        why:
          fault.is === 'overhang'
            ? `${name} hangs ${mmText(fault.mm)} over the edge of ${board}.`
            : `${name} is ${mmText(fault.mm)} too high ${under}.`,
        // Nowhere on a board is it lower; only under a tier it may stand elsewhere.
        remedies: () => (fault.is === 'overhang' ? all : all.filter((r) => r.id.startsWith('down'))),
      };
    }
  },
};

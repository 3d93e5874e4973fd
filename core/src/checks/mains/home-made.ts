import { changeCable } from '../../edits/cables.js';
import { boxName, listed } from '../names.js';
import { joined } from '../../signal/joined.js';
import type { Check, CheckInputs } from '../check.js';

export const homeMade: Check = {
  code: 'mains.home-made',
  title: 'A mains lead that is cut or plugged by hand',
  severities: ['danger'],
  source:
    'common practice, and local electrical codes: mains leads are bought whole and tested; only licensed hands shorten or re-plug them',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      const isMains = from.jack.kind === 'mains' || to.jack.kind === 'mains';
      if (!isMains || (!cable.byHand && !cable.plugs)) continue;
      const how = cable.byHand ? 'made by hand' : `to be plugged with ${listed([...(cable.plugs ?? [])])}`;
      yield {
        severity: 'danger' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `The mains lead from ${boxName(rig, from.device.id)} to ${boxName(rig, to.device.id)} is ${how}. A wrong or loose earth in it can kill. Leave mains work to licensed hands and follow local electrical codes; use residual-current protection.`,
        remedies: () => [
          {
            id: 'bought',
            label: `Use a bought, tested lead${cable.m === undefined ? '' : ` of at least ${cable.m} m`}`,
            promise: 'clears' as const,
            by: 'program' as const,
            edit: changeCable(cable, { byHand: undefined, plugs: undefined }),
          },
        ],
      };
    }
  },
};

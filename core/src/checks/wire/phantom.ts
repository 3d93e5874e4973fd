import type { Check, CheckInputs } from '../check.js';
import { joined } from '../joined.js';
import { ref } from '../../rig/ids.js';
import { elseByHand, putInto } from '../ways-out.js';

export const phantom: Check = {
  code: 'wire.phantom',
  title: 'Phantom power into an output that is not made for it',
  severities: ['doubt'],
  source: 'IEC 61938 (phantom power): it is meant for balanced sources; an unbalanced output gets half of it on its signal',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const { cable, from, to } of joined(rig, hookup)) {
      if (!to.jack.phantom || from.jack.kind !== 'audio' || from.jack.poles.tip !== 'out' || from.jack.balanced || from.jack.level === 'speaker') continue;
      yield {
        severity: 'doubt' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${to.device.name} (${to.jack.id}) can put phantom power on its input, and ${from.device.name} (${from.jack.id}) is unbalanced. Keep it switched off there, or put a DI box between them.`,
        remedies: () => elseByHand(putInto(inputs, cable, ref(from.device.id, from.jack.id), ref(to.device.id, to.jack.id), 'di', 'Put a DI box between them'), 'Put a DI box or an isolator between them'),
      };
    }
  },
};

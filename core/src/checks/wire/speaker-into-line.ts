import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { joined } from '../../signal/joined.js';
import { pull } from '../ways-out.js';

export const speakerIntoLine: Check = {
  code: 'wire.speaker-into-line',
  title: 'A speaker output into something that is no loudspeaker',
  severities: ['danger'],
  source:
    'common practice: a speaker output carries tens of volts; only a loudspeaker, a load or a line-out box takes them',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const { cable, from, to } of joined(rig, hookup)) {
      if (
        from.jack.kind !== 'audio' ||
        from.jack.level !== 'speaker' ||
        from.jack.poles.tip !== 'out' ||
        to.jack.kind !== 'audio' ||
        to.jack.level === 'speaker'
      )
        continue;
      yield {
        severity: 'danger' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${boxName(rig, from.device.id)} (${from.jack.id}) drives ${boxName(rig, to.device.id)} (${to.jack.id}) with speaker power. It can destroy the input and the amp. Switch off before you pull it; take the line signal from a line-out box or a load box.`,
        remedies: () => pull(inputs, cable, 'then give the amp its loudspeaker before it is switched on'),
      };
    }
  },
};

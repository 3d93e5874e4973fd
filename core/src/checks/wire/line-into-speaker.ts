import { unplug } from '../../edits/cables.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { joined } from '../../signal/joined.js';

export const lineIntoSpeaker: Check = {
  code: 'wire.line-into-speaker',
  title: 'A line or instrument output into a loudspeaker',
  severities: ['broken'],
  source: 'common practice: a passive loudspeaker needs a power amp',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      if (
        to.jack.load !== 'speaker' ||
        from.jack.kind !== 'audio' ||
        from.jack.poles.tip !== 'out' ||
        from.jack.level === 'speaker'
      )
        continue;
      yield {
        severity: 'broken' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${boxName(rig, from.device.id)} (${from.jack.id}) has no power to move ${boxName(rig, to.device.id)}: hardly anything is heard. A power amp belongs between them.`,
        remedies: () => [
          {
            id: 'unplug',
            label: 'Pull this cable',
            promise: 'clears' as const,
            by: 'program' as const,
            edit: unplug(cable.id),
          },
        ],
      };
    }
  },
};

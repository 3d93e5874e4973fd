import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { joined } from '../../signal/joined.js';

export const trsType: Check = {
  code: 'midi.trs-type',
  title: 'MIDI on small plugs, crossed',
  severities: ['broken'],
  source: "the MIDI Association's specification for TRS adapters (type A); type B has tip and ring the other way round",
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      const types = [from.jack.connector, to.jack.connector];
      if (from.jack.kind !== 'midi' || cable.plugs || !types.includes('3.5 TRS A') || !types.includes('3.5 TRS B'))
        continue;
      const type = (connector: string) => connector.slice(-1);
      yield {
        severity: 'broken' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${boxName(rig, from.device.id)} sends MIDI on type ${type(from.jack.connector)}, ${boxName(rig, to.device.id)} expects type ${type(to.jack.connector)}: tip and ring are crossed, and nothing is understood.`,
        remedies: () => [
          {
            id: 'adapter',
            label: 'Use a lead that crosses tip and ring, or two adapters to DIN',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

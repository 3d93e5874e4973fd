import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { joined } from '../../signal/joined.js';

/** Output impedance, in ohms, from which a source counts as high-impedance. */
const HIGH_OHM = 5_000;
/** Longest unbalanced runs, in metres. */
const LONGEST = { high: 6, buffered: 15 };

export const longUnbalanced: Check = {
  code: 'wire.long-unbalanced',
  title: 'A long unbalanced cable',
  severities: ['doubt'],
  source:
    'common practice: about 6 m from a high-impedance source, 15 to 20 m from a buffered one; balanced lines go far',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      if (
        cable.m === undefined ||
        from.jack.kind !== 'audio' ||
        from.jack.poles.tip !== 'out' ||
        from.jack.level === 'speaker' ||
        (from.jack.balanced && to.jack.balanced)
      )
        continue;
      const isHigh = (from.jack.ohm ?? 1_000) >= HIGH_OHM;
      const most = isHigh ? LONGEST.high : LONGEST.buffered;
      if (cable.m <= most) continue;
      yield {
        severity: 'doubt' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${cable.m} m of unbalanced cable from ${boxName(rig, from.device.id)} to ${boxName(rig, to.device.id)}; about ${most} m is the usual limit behind ${isHigh ? 'a high-impedance output, where treble is lost' : 'a buffered output, where hum gets in'}.`,
        remedies: () => [
          {
            id: 'shorter',
            label: isHigh ? 'Shorten it, or put a buffer first' : 'Shorten it, or go balanced over a DI box',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

import type { Connector } from '../../rig/device.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { joined, type Plugged } from '../../signal/joined.js';
import { changeCable } from '../../edits/cables.js';

/** Plugs that go into a jack, besides its own kind. */
const ALSO: Partial<Record<Connector, readonly Connector[]>> = {
  '6.35 TS': ['6.35 TRS'],
  '6.35 TRS': ['6.35 TS'],
  combo: ['XLR', '6.35 TS', '6.35 TRS'],
  '3.5 TRS A': ['3.5 TRS'],
  '3.5 TRS B': ['3.5 TRS'],
  '3.5 TRS': ['3.5 TRS A', '3.5 TRS B'],
  speaker: ['6.35 TS'],
};
const fits = (plug: Connector, jack: Connector): boolean => plug === jack || (ALSO[jack]?.includes(plug) ?? false);
const usualPlug = (jack: Connector): Connector => (jack === 'combo' ? 'XLR' : jack);

export const plug: Check = {
  code: 'wire.plug',
  title: 'A plug that does not fit',
  severities: ['broken'],
  source: 'common practice: a plug goes into its own kind of jack',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      const [first, second] = cable.ends[0] === from.ref ? [from, to] : [to, from];
      const wrong: readonly (readonly [Connector, Plugged])[] = cable.plugs
        ? (
            [
              [cable.plugs[0], first],
              [cable.plugs[1], second],
            ] as const
          ).filter(([p, at]) => !fits(p, at.jack.connector))
        : [];
      if (!wrong[0]) continue;
      const [bad, at] = wrong[0];
      yield {
        severity: 'broken' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: `${bad === 'XLR' ? 'An' : 'A'} ${bad} plug does not go into the ${at.jack.connector} jack ${at.jack.id} of ${boxName(rig, at.device.id)}.`,
        remedies: () => [
          {
            id: 'other-cable',
            label: `Use a cable with ${usualPlug(first.jack.connector)} and ${usualPlug(second.jack.connector)}`,
            promise: 'clears' as const,
            by: 'program' as const,
            edit: changeCable(cable, { plugs: [usualPlug(first.jack.connector), usualPlug(second.jack.connector)] }),
          },
        ],
      };
    }
  },
};

import type { Check, CheckInputs, Remedy } from '../check.js';
import { joined, type Joined, type Plugged } from '../../signal/joined.js';
import { boxName, listed } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { ref } from '../../rig/ids.js';
import { elseByHand, putInto } from '../ways-out.js';

export const phantom: Check = {
  code: 'wire.phantom',
  title: 'Phantom power into an output that is not made for it',
  severities: ['note'],
  source:
    'IEC 61938 (phantom power): it is meant for balanced sources; an unbalanced output gets half of it on its signal',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    const exposed = joined(rig, hookup).filter(
      ({ from, to }) =>
        to.jack.phantom &&
        from.jack.kind === 'audio' &&
        from.jack.poles.tip === 'out' &&
        from.jack.level !== 'speaker' &&
        !isBalanced(from, inputs),
    );
    /** One desk is one finding, however many of its jacks it is about. */
    for (const group of grouped(exposed, (j) => j.to.device.id).values()) {
      const { device } = group[0].to;
      const jacks = listed(group.map((j) => j.to.jack.id));
      const boxes = [...new Set(group.map((j) => j.from.device.id))];
      const outs = listed([...new Set(group.map((j) => `${boxName(rig, j.from.device.id)} (${j.from.jack.id})`))]);
      yield {
        severity: 'note' as const,
        evidence: [...group.map((j) => j.cable.id), ...boxes, device.id],
        about: group.map((j) => j.to.jack.id).join(),
        why: `${boxName(rig, device.id)} (${jacks}) can put phantom power on ${group.length === 1 ? 'its input' : 'these inputs'}, and ${outs} ${group.length === 1 ? 'is' : 'are'} unbalanced. Keep it switched off there, or put a DI box between them.`,
        remedies: () =>
          elseByHand(group.length === 1 ? diBetween(inputs, group[0]) : [], 'Put a DI box or an isolator between them'),
      };
    }
  },
};

/** An XLR output carries its signal on two wires; behind bare wire it is what feeds the wire that counts. */
const isBalanced = (from: Plugged, { rig, hookup }: CheckInputs): boolean => {
  if (from.jack.balanced || from.jack.connector === 'XLR') return true;
  const wires = from.device.chains
    .filter((c) => c.passive && c.slots.length === 0 && c.to.some((t) => t.at === from.jack.id))
    .flatMap((c) => c.from.map((t) => ref(from.device.id, t.at)));
  const fed = joined(rig, hookup).filter((j) => wires.includes(j.to.ref));
  return fed.length > 0 && fed.every((j) => j.from.jack.balanced || j.from.jack.connector === 'XLR');
};

const diBetween = (inputs: CheckInputs, { cable, from, to }: Joined): readonly Remedy[] =>
  putInto(inputs, cable, from.ref, to.ref, 'di', 'Put a DI box between them');

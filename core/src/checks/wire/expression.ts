import type { Check, CheckInputs } from '../check.js';
import { joined } from '../joined.js';

export const expression: Check = {
  code: 'wire.expression',
  title: 'A pedal that does not suit its expression input',
  severities: ['doubt'],
  source: 'common practice: some inputs take the wiper on the tip, others on the ring; a volume pedal must be passive to stand in',
  *find({ rig, hookup }: CheckInputs) {
    for (const { cable, from, to } of joined(rig, hookup)) {
      const kinds = [from.jack.kind, to.jack.kind];
      if (!kinds.includes('expression')) continue;
      const clash = from.jack.kind === to.jack.kind && from.jack.poles.tip === to.jack.poles.tip;
      const audio = [from, to].find((p) => p.jack.kind === 'audio');
      if (!clash && !audio) continue;
      const isPassive = audio?.device.chains.some((c) => c.passive);
      yield {
        severity: 'doubt' as const,
        evidence: [cable.id, from.device.id, to.device.id],
        why: clash ? `${from.device.name} has its wiper on the other pole than ${to.device.name} expects: the pedal jumps or works over a small part of its way.`
          : isPassive ? `${audio!.device.name} can serve as an expression pedal on an insert lead only: with a plain lead it has no reference.` : `${audio!.device.name} is active: it cannot stand in for an expression pedal.`,
        remedies: () => [{ id: 'lead', label: clash ? 'Use a lead that crosses tip and ring, or change the setting of the input' : 'Use an insert lead and a passive pedal', promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { bareWires } from './bare-wires.js';

export const passiveJoin: Check = {
  code: 'wire.passive-join',
  title: 'Two outputs tied together by a plain Y',
  severities: ['broken'],
  source: 'common practice: outputs drive each other when they are tied together; they need a mixer',
  *find(inputs: CheckInputs) {
    for (const { device, wires } of bareWires(inputs)) {
      const join = wires.find((w) => wires.filter((x) => x.to === w.to).length > 1);
      if (!join) continue;
      yield {
        severity: 'broken' as const,
        evidence: [device.id],
        about: join.to,
        why: `${boxName(inputs.rig, device.id)} ties two outputs together: each one has to drive the other, both get weak and distorted.`,
        remedies: () => [
          { id: 'mixer', label: 'Use a small mixer in its place', promise: 'clears' as const, by: 'hand' as const },
        ],
      };
    }
  },
};

import { ref, type Ref } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { bareWires } from './passive-split.js';

export const passiveJoin: Check = {
  code: 'wire.passive-join',
  title: 'Two outputs tied together by a plain Y',
  severities: ['broken'],
  source: 'common practice: outputs drive each other when they are tied together; they need a mixer',
  *find({ rig, compilation }: CheckInputs) {
    const { plugged } = compilation.bearings.anatomy.wiring;
    for (const device of rig.parts.device.values()) {
      const live = bareWires(device).filter((w) => plugged.has(ref(device.id, w.from) as Ref) && plugged.has(ref(device.id, w.to) as Ref));
      const join = live.find((w) => live.filter((x) => x.to === w.to).length > 1);
      if (!join) continue;
      yield {
        severity: 'broken' as const,
        evidence: [device.id],
        about: join.to,
        why: `${device.name} ties two outputs together: each one has to drive the other, both get weak and distorted.`,
        remedies: [{ id: 'mixer', label: 'Use a small mixer in its place', promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

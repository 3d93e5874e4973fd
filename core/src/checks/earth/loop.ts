import { earthGraph, isolation, nodeDevice } from '../../electric/earths.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';

export const loop: Check = {
  code: 'earth.loop',
  title: 'A loop of shields and the earth of the mains',
  severities: ['doubt'],
  source:
    'loops of the graph of chassis, shields, commons and mains earths; isolate in the signal. Never lift the protective earth: local electrical codes and a licensed electrician decide about mains',
  *find({ rig, hookup }: CheckInputs) {
    const { loops, leads } = isolation(earthGraph(rig, hookup));
    for (const { boxes, way } of loops) {
      const on = [...new Set(way.flatMap((e) => e.between.flatMap((n) => nodeDevice(rig, n) ?? [])))];
      const between = on.filter((id) => !boxes.includes(id));
      const cables = way.flatMap((e) => e.cable ?? []);
      const cut = leads?.filter((id) => cables.includes(id)) ?? [];
      yield {
        severity: 'doubt' as const,
        evidence: [...boxes, ...cables],
        why: `${boxName(rig, boxes[0])} and ${boxName(rig, boxes[1])} are both earthed by the mains and joined by shields${between.length ? ` over ${listed(between.map((id) => boxName(rig, id)))}` : ''}: a loop that can hum.`,
        remedies: () => [
          {
            id: 'isolate',
            label:
              cut.length > 0
                ? 'Put a transformer or DI with its ground lifted into the lead that is marked on the way; never lift the earth of the mains'
                : 'Put a transformer or DI with its ground lifted between them; never lift the earth of the mains',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

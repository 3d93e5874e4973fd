import { stagesOf } from '../../edits/wire.js';
import type { Id } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { elseByHand, outOfThePath } from '../ways-out.js';
import { isCabinet } from '../../rig/domain.js';
import { isElectric } from './cabinets.js';
import { inOrder, meetings, oncePerSound } from './found.js';

const twoCabinets = oncePerSound((a) =>
  isElectric(a)
    ? inOrder(
        a,
        (s) => isCabinet(s.block),
        (s) => isCabinet(s.block),
      ).map(([x, y]) => [x.device, y.device] as const)
    : [],
);

export const twoCabSims: Check = {
  code: 'order.two-cab-sims',
  title: 'Two cabinets in one path',
  severities: ['doubt'],
  source: 'common practice: each cabinet takes the top away; two in a row sound dull and boxy',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [first, second],
      sounds,
      evidence,
    } of meetings(inputs, twoCabinets)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        why: `${boxName(inputs.rig, first)} and then ${boxName(inputs.rig, second)} shape the sound as a cabinet in ${soundNames(inputs.rig, sounds)}: dull and boxy. Switch the simulation off there, or take the path before it.`,
        remedies: () =>
          elseByHand(
            [first, second].filter((d) => isSimulationOnly(inputs.rig, d)).flatMap((d) => outOfThePath(inputs, d)),
            'Switch one of the two off in these sounds',
          ),
      };
    }
  },
};

const isSimulationOnly = (rig: Rig, id: Id<'device'>): boolean =>
  stagesOf(thePart(rig, id)).every((stage) => stage === 'cabinet simulation');

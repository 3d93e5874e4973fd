import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isTime } from './audible.js';
import { inOrder, meetings, oncePerSound } from './found.js';
import { elseByHand, inFrontOf, orExchanged } from '../ways-out.js';

const gateBehindTime = oncePerSound((a) => inOrder(a, isTime, (s) => s.block.stage === 'gate').map(([time, gate]) => [gate.device, time.device]));

export const gateCutsTails: Check = {
  code: 'order.gate-cuts-tails',
  title: 'A gate that cuts the repeats',
  severities: ['doubt'],
  source: 'common practice: three placements of a gate: first, behind the drives, or keyed from the guitar',
  *find(inputs: CheckInputs) {
    for (const { boxes: [gate, time], sounds, evidence } of meetings(inputs, gateBehindTime)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        why: `${boxName(inputs.rig, gate!)} stands behind ${boxName(inputs.rig, time!)} in ${soundNames(inputs.rig, sounds)}: as soon as it closes, the tails are gone. It usually stands first, right behind the drives, or last in the loop but keyed from the guitar and before the delay.`,
        remedies: () => elseByHand(orExchanged(inputs, gate!, time!, inFrontOf(inputs, gate!, time!)), `Move ${boxName(inputs.rig, gate!)} before ${boxName(inputs.rig, time!)}`),
      };
    }
  },
};

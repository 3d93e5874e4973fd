import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDriven, isTime, type SoundingStage } from './audible.js';
import { inOrder, meetings, oncePerSound } from './found.js';
import { behind, elseByHand, intoLoopOf, orExchanged } from '../ways-out.js';

const isHot = (s: SoundingStage): boolean => s.block.stage === 'fuzz' || s.block.stage === 'distortion' || isDriven(s);

const timeIntoGain = oncePerSound((a) =>
  inOrder(a, isTime, isHot).map(([time, gain]) => [time.device, gain.device] as const),
);

export const delayIntoGain: Check = {
  code: 'order.delay-into-gain',
  title: 'Repeats that run into gain',
  severities: ['doubt'],
  source: 'common practice: gain lifts quiet repeats to the level of the notes; some players want the smear',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [time, gain],
      sounds,
      evidence,
    } of meetings(inputs, timeIntoGain)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        why: `${boxName(inputs.rig, time)} comes before the gain of ${boxName(inputs.rig, gain)} in ${soundNames(inputs.rig, sounds)}: its repeats are driven as hard as the notes and blur. One school puts it behind the gain or into the amp's loop; the other keeps it in front of a clean amp.`,
        remedies: () =>
          elseByHand(
            orExchanged(inputs, time, gain, [...intoLoopOf(inputs, time, gain), ...behind(inputs, time, gain)]),
            `Move ${boxName(inputs.rig, time)} behind the gain`,
          ),
      };
    }
  },
};

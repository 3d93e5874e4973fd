import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt, type Audible } from './audible.js';
import { inOrder, meetings, oncePerSound } from './found.js';
import { elseByHand, inFrontOf } from '../ways-out.js';

/** Drives between the preamp and the power stage of one amp. */
const inLoops = oncePerSound((a: Audible) =>
  inOrder(a, (s) => s.block.stage === 'preamp', isDirt).flatMap(([pre, dirt]) => {
    const power = a.stages.find((s) => s.device === pre.device && s.block.stage === 'power amp');
    return power && dirt.device !== pre.device && a.before(dirt, power) ? [[dirt.device, pre.device] as const] : [];
  }),
);

export const dirtInLoop: Check = {
  code: 'order.dirt-in-loop',
  title: 'A drive in the loop of an amp',
  severities: ['doubt'],
  source:
    'common practice: a drive made for instrument level meets line level there, and nothing after it shapes its edge',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [dirt, amp],
      sounds,
      evidence,
    } of meetings(inputs, inLoops)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        why: `${boxName(inputs.rig, dirt)} stands in the loop of ${boxName(inputs.rig, amp)} in ${soundNames(inputs.rig, sounds)}: it gets line level and its edge goes straight to the power stage. Usually a drive stands in front; some want just this for a raw lead.`,
        remedies: () =>
          elseByHand(inFrontOf(inputs, dirt, amp), `Move ${boxName(inputs.rig, dirt)} in front of the amp`),
      };
    }
  },
};

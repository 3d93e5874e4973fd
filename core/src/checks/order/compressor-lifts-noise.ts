import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt, isDriven } from './audible.js';
import { meetings, pairs } from './found.js';

export const compressorLiftsNoise: Check = {
  code: 'order.compressor-lifts-noise',
  title: 'A compressor that lifts the noise',
  severities: ['note'],
  source: 'common practice: a compressor raises whatever is quiet, hiss of a drive before it as well',
  *find(inputs: CheckInputs) {
    const meet = meetings(inputs, ({ stages, before }) => pairs(stages, (a, b) => b.block.stage === 'compressor' && (isDirt(a) || isDriven(a) || a.block.stage === 'compressor') && before(a, b)).map(([a, b]) => [b.device, a.device]));
    for (const { boxes: [compressor, first], sounds, evidence } of meet) {
      const two = inputs.rig.parts.device.get(first!)!.chains.some((c) => c.slots.some((s) => s.is === 'block' && s.stage === 'compressor'));
      yield {
        severity: 'note' as const,
        evidence,
        why: two ? `${boxName(inputs.rig, first!)} and ${boxName(inputs.rig, compressor!)} both compress in ${soundNames(inputs.rig, sounds)}: the second lifts the noise that the first has lifted already.`
          : `${boxName(inputs.rig, compressor!)} stands behind ${boxName(inputs.rig, first!)} in ${soundNames(inputs.rig, sounds)}: between notes it raises the hiss. In front it evens the touch; behind, it evens the level and costs quiet.`,
      };
    }
  },
};

import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt, isDriven, type SoundingStage } from './audible.js';
import { inOrder, meetings, oncePerSound } from './found.js';
import { inFrontOf, orExchanged } from '../ways-out.js';

const isCompressor = (s: SoundingStage): boolean => s.block.stage === 'compressor';

const behind = (isFirst: (s: SoundingStage) => boolean) =>
  oncePerSound((a) =>
    inOrder(a, isFirst, isCompressor).map(([first, second]) => [second.device, first.device] as const),
  );
const behindGain = behind((s) => isDirt(s) || isDriven(s));
const behindAnother = behind(isCompressor);

export const compressorLiftsNoise: Check = {
  code: 'order.compressor-lifts-noise',
  title: 'A compressor that lifts the noise',
  severities: ['note'],
  source: 'common practice: a compressor raises whatever is quiet, hiss of a drive before it as well',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const {
      boxes: [compressor, drive],
      sounds,
      evidence,
    } of meetings(inputs, behindGain)) {
      yield {
        severity: 'note' as const,
        evidence,
        why: `${boxName(rig, compressor)} stands behind ${boxName(rig, drive)} in ${soundNames(rig, sounds)}: between notes it raises the hiss. In front it evens the touch; behind, it evens the level and costs quiet.`,
        remedies: () => orExchanged(inputs, compressor, drive, inFrontOf(inputs, compressor, drive)),
      };
    }
    for (const {
      boxes: [second, first],
      sounds,
      evidence,
    } of meetings(inputs, behindAnother)) {
      yield {
        severity: 'note' as const,
        evidence,
        about: 'two',
        why: `${boxName(rig, first)} and ${boxName(rig, second)} both compress in ${soundNames(rig, sounds)}: the second lifts the noise that the first has lifted already.`,
      };
    }
  },
};

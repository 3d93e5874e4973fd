import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt, type SoundingStage } from './audible.js';
import { inOrder, meetings, oncePerSound } from './found.js';

const isWah = (s: SoundingStage): boolean => s.block.stage === 'wah';
const met = (isFirst: (s: SoundingStage) => boolean, isSecond: (s: SoundingStage) => boolean) =>
  oncePerSound((a) => inOrder(a, isFirst, isSecond).map(([first, second]) => [first.device, second.device] as const));
const wahFirst = met(isWah, isDirt);
const wahBehind = met(isDirt, isWah);

export const wahSide: Check = {
  code: 'order.wah-side',
  title: 'The wah and the drive: which comes first',
  severities: ['note'],
  source: 'common practice: both orders are in use and sound different',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const {
      boxes: [wah, drive],
      sounds,
      evidence,
    } of meetings(inputs, wahFirst)) {
      yield {
        severity: 'note' as const,
        evidence,
        about: 'before',
        why: `${boxName(rig, wah)} comes before ${boxName(rig, drive)} in ${soundNames(rig, sounds)}: the drive grabs what the wah brings forward, vocal and even.`,
      };
    }
    for (const {
      boxes: [drive, wah],
      sounds,
      evidence,
    } of meetings(inputs, wahBehind)) {
      yield {
        severity: 'note' as const,
        evidence,
        about: 'behind',
        why: `${boxName(rig, wah)} comes behind ${boxName(rig, drive)} in ${soundNames(rig, sounds)}: it sweeps through all the harmonics of the drive, wide and harsh.`,
      };
    }
  },
};

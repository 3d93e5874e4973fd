import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt } from './audible.js';
import { meetings, pairs } from './found.js';

export const wahSide: Check = {
  code: 'order.wah-side',
  title: 'The wah and the drive: which comes first',
  severities: ['note'],
  source: 'common practice: both orders are in use and sound different',
  *find(inputs: CheckInputs) {
    const meet = meetings(inputs, ({ stages, before }) => pairs(stages, (a, b) => a.block.stage === 'wah' && isDirt(b) && (before(a, b) || before(b, a))).map(([wah, dirt]) => (before(wah, dirt) ? [wah.device, dirt.device] : [dirt.device, wah.device])));
    for (const { boxes: [first, second], sounds, evidence } of meet) {
      const wahFirst = inputs.rig.parts.device.get(first!)!.chains.some((c) => c.slots.some((s) => s.is === 'block' && s.stage === 'wah'));
      yield {
        severity: 'note' as const,
        evidence,
        about: wahFirst ? 'before' : 'behind',
        why: wahFirst ? `${boxName(inputs.rig, first!)} comes before ${boxName(inputs.rig, second!)} in ${soundNames(inputs.rig, sounds)}: the drive grabs what the wah brings forward, vocal and even.`
          : `${boxName(inputs.rig, second!)} comes behind ${boxName(inputs.rig, first!)} in ${soundNames(inputs.rig, sounds)}: it sweeps through all the harmonics of the drive, wide and harsh.`,
      };
    }
  },
};

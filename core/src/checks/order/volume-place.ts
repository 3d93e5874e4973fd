import { keysOf } from '../../known/keys.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { isDirt, isTime, type Audible } from './audible.js';
import { meetings, oncePerSound } from './found.js';

const DOES = {
  'before gain': 'it cleans the gain up as it goes down',
  'before tails': 'it turns the level down while the tails ring on; with it shut, notes swell in',
  'after tails': 'it turns the tails down with everything else',
  alone: 'it turns the level down',
} as const;
type Place = keyof typeof DOES;

const placeOf = ({ stages, before }: Audible, volume: Audible['stages'][number]): Place => {
  if (stages.some((s) => (isDirt(s) || s.block.stage === 'preamp') && before(volume, s))) return 'before gain';
  if (stages.some((s) => isTime(s) && before(volume, s))) return 'before tails';
  return stages.some((s) => isTime(s) && before(s, volume)) ? 'after tails' : 'alone';
};

const placed = oncePerSound((a) =>
  a.stages.filter((s) => s.block.stage === 'volume').map((s) => ({ device: s.device, place: placeOf(a, s) })),
);

export const volumePlace: Check = {
  code: 'order.volume-place',
  title: 'What the volume pedal does where it stands',
  severities: ['note'],
  source: 'common practice: first it cleans up, after the gain it sets the level, last it fades everything',
  *find(inputs: CheckInputs) {
    for (const place of keysOf(DOES)) {
      for (const {
        boxes: [volume],
        sounds,
        evidence,
      } of meetings(inputs, (a) => placed(a).flatMap((p) => (p.place === place ? [[p.device] as const] : [])))) {
        yield {
          severity: 'note' as const,
          evidence,
          about: place,
          why: `${boxName(inputs.rig, volume)} stands where ${DOES[place]}, in ${soundNames(inputs.rig, sounds)}.`,
        };
      }
    }
  },
};

import { keysOf } from '../../known/keys.js';
import type { Check, CheckInputs } from '../check.js';
import { theItem } from '../../known/the.js';
import type { Id } from '../../rig/ids.js';
import { endsReached } from '../../signal/graph/ends-reached.js';
import type { WiredEnd } from '../../signal/graph/wiring.js';
import { boxName, listed, soundNames } from '../names.js';
import { audible, isDirt, isTime, type Audible, type SoundingStage } from './audible.js';
import { meetings, oncePerSound } from './found.js';

const DOES = {
  'before gain': 'it cleans the gain up as it goes down',
  'before tails': 'it turns the level down while the tails ring on; with it shut, notes swell in',
  'after tails': 'it turns the tails down with everything else',
  alone: 'it turns the level down',
  balance: 'it sets how much is heard of one way against another',
} as const;
type Place = keyof typeof DOES;

/** The ends that hear a sound through a stage, and those that hear it past it. */
const parted = ({ trace }: Audible, { device, block }: SoundingStage): readonly [Set<WiredEnd>, Set<WiredEnd>] => {
  const heard = trace.wiring.sources.filter((s) => trace.onPath[s.point]);
  const past = new Set(
    heard.flatMap((source) => [
      ...endsReached(trace, source, (e) => {
        const { carries } = theItem(trace.wiring.edges, e);
        return !(carries.by === 'block' && carries.device === device && carries.block === block);
      }),
    ]),
  );
  const all = new Set(heard.flatMap((source) => [...endsReached(trace, source, () => true)]));
  return [new Set([...all].filter((end) => !past.has(end))), past];
};

const placeOf = (a: Audible, volume: SoundingStage): Place => {
  const { stages, before } = a;
  const [through, past] = parted(a, volume);
  if (through.size > 0 && past.size > 0) return 'balance';
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
          why: `${boxName(inputs.rig, volume)} stands where ${does(inputs, volume, place, sounds)}, in ${soundNames(inputs.rig, sounds)}.`,
        };
      }
    }
  },
};

const does = (inputs: CheckInputs, volume: Id<'device'>, place: Place, sounds: readonly Id<'sound'>[]): string => {
  const here = place === 'balance' ? audible(inputs).find((a) => sounds.includes(a.sound)) : undefined;
  const stage = here?.stages.find((s) => s.device === volume && s.block.stage === 'volume');
  if (!here || !stage) return DOES[place];
  const names = (ends: ReadonlySet<WiredEnd>): string => listed([...ends].map((e) => boxName(inputs.rig, e.device)));
  const [through, past] = parted(here, stage);
  return `it sets how much of ${names(through)} is heard against ${names(past)}, which it does not touch`;
};

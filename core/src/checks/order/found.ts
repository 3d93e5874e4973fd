import type { Some } from '../../known/the.js';
import type { AnyId, Id } from '../../rig/ids.js';
import type { CheckInputs } from '../check.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { audible, type Audible, type SoundingStage } from './audible.js';

type Boxes = Some<Id<'device'>>;
/** A box that meets another one. */
export type TwoBoxes = readonly [first: Id<'device'>, second: Id<'device'>];

/** Boxes that meet in the same way in several sounds. */
interface Meeting<B extends Boxes> {
  readonly boxes: B;
  readonly sounds: readonly Id<'sound'>[];
  readonly evidence: readonly AnyId[];
}

/** Boxes that meet in the same way in several sounds are one finding: the boxes, then the sounds. */
export const meetings = <B extends Boxes>(
  inputs: CheckInputs,
  meet: (a: Audible) => readonly B[],
): readonly Meeting<B>[] => {
  const met = audible(inputs).flatMap((a) => meet(a).map((boxes) => ({ sound: a.sound, boxes })));
  return [...grouped(met, (m) => m.boxes.join()).values()].map((group) => {
    const sounds = [...new Set(group.map((m) => m.sound))];
    return { boxes: group[0].boxes, sounds, evidence: [...group[0].boxes, ...sounds] };
  });
};

/** What is found in a sound, found again only when it was compiled anew. */
export const oncePerSound: <T>(find: (a: Audible) => T) => (a: Audible) => T = once;

/** Every two stages of a sound of which the signal meets one before the other. */
export const inOrder = (
  { stages, before }: Audible,
  isFirst: (s: SoundingStage) => boolean,
  isSecond: (s: SoundingStage) => boolean,
): readonly (readonly [first: SoundingStage, second: SoundingStage])[] => {
  const seconds = stages.filter(isSecond);
  return seconds.length
    ? stages.filter(isFirst).flatMap((a) => seconds.filter((b) => a !== b && before(a, b)).map((b) => [a, b] as const))
    : [];
};

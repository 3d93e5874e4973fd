import type { AnyId, Id } from '../../rig/ids.js';
import type { CheckInputs } from '../check.js';
import { grouped } from '../names.js';
import { once } from '../once.js';
import { audible, type Audible } from './audible.js';

/** One thing found in one sound. */
export interface Met {
  readonly sound: Id<'sound'>;
  readonly boxes: readonly Id<'device'>[];
}

/** Boxes that meet in the same way in several sounds are one finding: the boxes, then the sounds. */
export const meetings = (inputs: CheckInputs, meet: (a: Audible) => readonly (readonly Id<'device'>[])[]): readonly { readonly boxes: readonly Id<'device'>[]; readonly sounds: readonly Id<'sound'>[]; readonly evidence: readonly AnyId[] }[] => {
  const met = audible(inputs).flatMap((a): readonly Met[] => meet(a).map((boxes) => ({ sound: a.sound, boxes })));
  return [...grouped(met, (m) => m.boxes.join()).values()].map((group) => {
    const sounds = [...new Set(group.map((m) => m.sound))];
    return { boxes: group[0]!.boxes, sounds, evidence: [...group[0]!.boxes, ...sounds] };
  });
};

/** What is found in a sound, found again only when it was compiled anew. */
export const oncePerSound: <T>(find: (a: Audible) => T) => (a: Audible) => T = once;

/** Every pair of stages of a sound for which it holds. */
export const pairs = <T>(of: readonly T[], holds: (a: T, b: T) => boolean): readonly (readonly [T, T])[] =>
  of.flatMap((a) => of.filter((b) => a !== b && holds(a, b)).map((b) => [a, b] as const));

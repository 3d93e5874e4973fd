import { callersIn } from '../../edits/calls.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Call } from '../../rig/sound.js';

/** The rig without some of its calls: what they called is left to hand and foot. Undefined when there are none. */
export const withoutCalls = (rig: Rig, isGone: (call: Call) => boolean): Rig | undefined => {
  const left = all(rig, 'sound').map((s) =>
    s.calls.some(isGone) ? { ...s, calls: s.calls.filter((c) => !isGone(c)) } : s,
  );
  return left.every((s) => partOf(rig, s.id) === s)
    ? undefined
    : { ...rig, parts: { ...rig.parts, sound: new Map(left.map((s) => [s.id, s])) } };
};

/** The rig when the computer with the timeline, or the song list, has stopped. */
export const withoutLists = (rig: Rig): Rig | undefined => {
  const lists = callersIn(rig).filter((c) => c.by !== 'slot');
  return withoutCalls(rig, (call) => lists.some((l) => l.device === call.device && l.memory === call.memory));
};

import { apply } from '../../change/apply.js';
import { callersIn } from '../../edits/calls.js';
import { all, type Rig } from '../../rig/rig.js';
import type { Call } from '../../rig/sound.js';

/** The rig when the computer with the timeline, or the song list, has stopped: what it called is left to hand and foot. */
export const withoutLists = (rig: Rig): Rig | undefined => {
  const lists = callersIn(rig).filter((c) => c.by !== 'slot');
  const isListed = (call: Call): boolean => lists.some((l) => l.device === call.device && l.memory === call.memory);
  const put = all(rig, 'sound')
    .filter((s) => s.calls.some(isListed))
    .map((s) => ({ ...s, calls: s.calls.filter((c) => !isListed(c)) }));
  if (put.length === 0) return undefined;
  const applied = apply(rig, { put, remove: [] });
  return applied.ok ? applied.value.rig : undefined;
};

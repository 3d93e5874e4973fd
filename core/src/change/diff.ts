import { nothing, type Edit } from './edit.js';
import { surely } from '../known/the.js';
import { KINDS, type AnyId } from '../rig/ids.js';
import type { Part, Rig } from '../rig/rig.js';

/** What must be put and removed to get from one rig to the other. Kinds that share their map are not looked at. */
export const difference = (before: Rig, after: Rig): Edit =>
  KINDS.reduce<Edit>((edit, kind) => {
    const [old, now] = [before.parts[kind], after.parts[kind]] as readonly ReadonlyMap<AnyId, Part>[];
    if (old === now) return edit;
    return {
      put: [...edit.put, ...[...surely(now).values()].filter((p) => surely(old).get(p.id) !== p)],
      remove: [...edit.remove, ...[...surely(old).keys()].filter((id) => !surely(now).has(id))],
    };
  }, nothing);

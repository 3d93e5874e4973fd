import { nothing, type Edit } from './edit.js';
import { KINDS } from '../rig/ids.js';
import { partsOfKind, type Rig } from '../rig/rig.js';

/** What must be put and removed to get from one rig to the other. Kinds that share their map are not looked at. */
export const difference = (before: Rig, after: Rig): Edit =>
  KINDS.reduce<Edit>((edit, kind) => {
    const [old, now] = [partsOfKind(before, kind), partsOfKind(after, kind)];
    if (old === now) return edit;
    return {
      put: [...edit.put, ...[...now.values()].filter((p) => old.get(p.id) !== p)],
      remove: [...edit.remove, ...[...old.keys()].filter((id) => !now.has(id))],
    };
  }, nothing);

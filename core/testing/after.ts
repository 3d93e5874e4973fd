import { apply } from '../src/change/apply.js';
import type { Edit } from '../src/change/edit.js';
import type { Ref } from '../src/rig/ids.js';
import { all, type Part, type Rig } from '../src/rig/rig.js';

/** The rig after an edit that must not be refused. */
export const after = (rig: Rig, edit: Edit): Rig => {
  const applied = apply(rig, edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error[0]));
  return applied.value.rig;
};

export const withParts = (rig: Rig, ...parts: readonly Part[]): Rig => after(rig, { put: parts, remove: [] });

/** The same rig, taking nothing for granted of these controls. */
export const notGranted = (rig: Rig, ...controls: readonly Ref[]): Rig =>
  after(rig, {
    put: all(rig, 'hookup').map((h) => ({ ...h, assumes: h.assumes.filter((a) => !controls.includes(a.control)) })),
    remove: [],
  });

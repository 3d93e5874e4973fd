import { apply } from '../src/change/apply.js';
import type { Edit } from '../src/change/edit.js';
import type { Part, Rig } from '../src/rig/rig.js';

/** The rig after an edit that must not be refused. */
export const after = (rig: Rig, edit: Edit): Rig => {
  const applied = apply(rig, edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error[0]));
  return applied.value.rig;
};

export const withParts = (rig: Rig, ...parts: readonly Part[]): Rig => after(rig, { put: parts, remove: [] });

import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';

/** Keeps a finding quiet, with the reason, until its evidence changes. */
export const acceptFinding = (
  id: Id<'acceptance'>,
  hookup: Id<'hookup'>,
  code: string,
  evidence: string,
  reason: string,
): Edit => ({
  put: [{ kind: 'acceptance', id, hookup, code, evidence, reason }],
  remove: [],
});

export const withdrawAcceptance = (id: Id<'acceptance'>): Edit => ({ put: [], remove: [id] });

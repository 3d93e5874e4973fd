import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import type { StandingTest } from '../rig/show.js';

/** Keeps what was played, and what must hold at its end, to be played again after every edit. */
export const keepTest = (
  id: Id<'standingTest'>,
  hookup: Id<'hookup'>,
  name: string,
  steps: readonly string[],
  expects: StandingTest['expects'],
): Edit => ({ put: [{ kind: 'standingTest', id, hookup, name, steps, expects }], remove: [] });

export const dropTest = (id: Id<'standingTest'>): Edit => ({ put: [], remove: [id] });

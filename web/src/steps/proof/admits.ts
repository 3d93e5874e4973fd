import type { Disturbances } from '@yunta/core/rig/hookup';

/** What the proof can reckon with, as a player says it. */
export const ADMITS: readonly { readonly key: keyof Disturbances; readonly says: string }[] = [
  { key: 'moves', says: 'moves are pressed and left on' },
  { key: 'feet', says: 'somebody steps on a box itself' },
  { key: 'powerCycle', says: 'a plug is kicked and one box comes on again' },
  { key: 'knobs', says: 'somebody turns a knob of a box' },
];

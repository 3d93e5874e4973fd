/** The rooms that exist, in the order of the job, and which findings belong to each. */
export const ROOMS = [
  { path: 'kit', name: 'Kit', codes: ['wire.unused'] },
  { path: 'routing', name: 'Routing', codes: ['wire.silent', 'wire.ring', 'wire.direction', 'wire.spare-return'] },
  { path: 'sounds', name: 'Sounds', codes: ['order.conflict', 'recall.hand-move'] },
  { path: 'proof', name: 'Proof', codes: ['recall.unpinned', 'recall.toggle', 'recall.move-left-on', 'midi.number-shift', 'midi.crosstalk'] },
  { path: 'bench', name: 'Bench', codes: [] },
] as const;

export type RoomPath = (typeof ROOMS)[number]['path'];

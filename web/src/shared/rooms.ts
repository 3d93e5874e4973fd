/** The rooms that exist, in the order of the job. */
export const ROOMS = [
  { path: 'kit', name: 'Kit' },
  { path: 'routing', name: 'Routing' },
  { path: 'sounds', name: 'Sounds' },
  { path: 'program', name: 'Program' },
  { path: 'proof', name: 'Proof' },
  { path: 'bench', name: 'Bench' },
] as const;

export type RoomPath = (typeof ROOMS)[number]['path'];

/** Codes that belong elsewhere than their family. */
const ELSEWHERE: Readonly<Record<string, RoomPath>> = {
  'wire.unused': 'kit',
  'order.conflict': 'sounds',
  'recall.hand-move': 'sounds',
};
const FAMILIES: Readonly<Record<string, RoomPath>> = {
  wire: 'routing',
  order: 'routing',
  recall: 'proof',
  midi: 'proof',
};

/** The room in which a finding is seen to. */
export const roomOf = (code: string): RoomPath | undefined =>
  ELSEWHERE[code] ?? FAMILIES[code.slice(0, code.indexOf('.'))];

/** The rooms that exist, in the order of the job. */
export const ROOMS = [
  { path: 'kit', name: 'Kit' },
  { path: 'power', name: 'Power' },
  { path: 'routing', name: 'Routing' },
  { path: 'sounds', name: 'Sounds' },
  { path: 'levels', name: 'Levels' },
  { path: 'set', name: 'Set' },
  { path: 'program', name: 'Program' },
  { path: 'proof', name: 'Proof' },
  { path: 'bench', name: 'Bench' },
  { path: 'build', name: 'Build' },
  { path: 'road', name: 'Road' },
] as const;

/** The keys that lead to rooms, with Alt, in their order. */
export const ROOM_KEYS = '1234567890-';

/** What a room shows besides its first view: found by name, and kept in the address. */
export const VIEWS = [
  { to: 'kit?show=gig', name: 'The gig', what: 'Kit: what a kind of gig asks, and what each box is good for' },
  { to: 'routing?show=map', name: 'Map', what: 'Routing: boxes and cables, drawn' },
  { to: 'routing?show=cables', name: 'Cables', what: 'Routing: the list, and wire it for me' },
  { to: 'routing?show=hookups', name: 'Hook-ups', what: 'Routing: copies, what holds in each, rewiring, settings' },
  { to: 'routing?show=house', name: 'Input list for the house', what: 'Routing: what the engineer needs' },
  { to: 'routing?show=start', name: 'Starting points', what: 'Routing: eleven ways to begin' },
  { to: 'sounds?show=moves', name: 'Moves', what: 'Sounds: what a switch adds to a sound' },
  { to: 'levels?show=steps', name: 'Levels of sounds', what: 'Levels: how loud each sound is, and what evens them' },
  { to: 'levels?show=treble', name: 'Treble', what: 'Levels: what leads and bypassed boxes do to a coil' },
  { to: 'levels?show=noise', name: 'Noise', what: 'Levels: what hisses, and how much' },
  { to: 'levels?show=speakers', name: 'Loudspeakers', what: 'Levels: what each amp drives, and how hard' },
  { to: 'levels?show=meet', name: 'Ways that meet', what: 'Levels: late or upside-down copies, earths' },
  { to: 'set?show=list', name: 'Set list', what: 'Set: songs in the order of the night' },
  { to: 'set?show=songs', name: 'Songs', what: 'Set: tempo, length, tuning and cues' },
  { to: 'set?show=slots', name: 'Slots', what: 'Set: where sounds stand, for the fewest stomps' },
  { to: 'set?show=dance', name: 'Dance', what: 'Set: what the feet do, and a drill for them' },
  {
    to: 'set?show=papers',
    name: 'Papers for the stage',
    what: 'Set: floor card, labels, song to memory, the rig told',
  },
  { to: 'set?show=times', name: 'Times', what: 'Set: tempo and delay times, there and back' },
  { to: 'build?show=leads', name: 'Leads to make and to buy', what: 'Build: lengths, plugs, cut list, what to buy' },
  { to: 'build?show=board', name: 'Board', what: 'Build: boxes to scale, lay it out, weight' },
  { to: 'build?show=labels', name: 'Labels', what: 'Build: flags for leads, tags for boxes' },
  { to: 'build?show=order', name: 'Build in order', what: 'Build: layer by layer, power on and listen, ticked' },
  { to: 'road?show=dies', name: 'When something dies', what: 'Road: what a failure silences, and the way out' },
  { to: 'road?show=find', name: 'Find the fault', what: 'Road: what is dead, in the fewest tests' },
  { to: 'road?show=check', name: 'Line check', what: 'Road: what is taped, lines into the house, sounds' },
  { to: 'road?show=open', name: 'Open points', what: 'Road: what is still to be done or decided, and by when' },
  { to: 'road?show=log', name: 'Logbook', what: 'Road: what happened, what failed, photographs, two days compared' },
  { to: 'road?show=houses', name: 'Houses', what: 'Road: what was found where you play, ground lift, EQ, sockets' },
  { to: 'road?show=mix', name: 'Monitors', what: 'Road: who wants to hear what, on what, and wishes per song' },
  { to: 'road?show=pack', name: 'Packing', what: 'Road: cases, what is in them, out and back' },
  { to: 'program?show=plan', name: 'Plan programs', what: 'Program: what needs a program, and which' },
  { to: 'program?show=type', name: 'Type it in', what: 'Program: box by box, ticked off' },
  { to: 'program?show=write', name: 'As it stands', what: 'Program: what stands in a box already' },
  { to: 'program?show=check', name: 'Check the wire', what: 'Program: a capture held against the rig' },
] as const;

export type RoomPath = (typeof ROOMS)[number]['path'];

/** Codes that belong elsewhere than their family. */
const ELSEWHERE: Readonly<Record<string, RoomPath>> = {
  'build.weight': 'road',
  'wire.unused': 'kit',
  'order.conflict': 'sounds',
  'order.odd-one-out': 'sounds',
  'recall.hand-move': 'sounds',
  'recall.unsaid': 'sounds',
  'recall.knob-left': 'program',
};
const FAMILIES: Readonly<Record<string, RoomPath>> = {
  wire: 'routing',
  order: 'routing',
  recall: 'proof',
  midi: 'proof',
  set: 'set',
  supply: 'power',
  mains: 'power',
  level: 'levels',
  noise: 'levels',
  load: 'levels',
  comb: 'levels',
  latency: 'levels',
  earth: 'levels',
  build: 'build',
  fail: 'road',
};

/** The room in which a finding is seen to. */
export const roomOf = (code: string): RoomPath | undefined =>
  ELSEWHERE[code] ?? FAMILIES[code.slice(0, code.indexOf('.'))];

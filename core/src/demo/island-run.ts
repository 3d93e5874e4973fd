import { makeDevice, type GivenTraits } from '../catalogue/make.js';
import { surely } from '../known/the.js';
import type { Device } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, type Id } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { ABOUT, rigOf, type Part, type Rig } from '../rig/rig.js';
import type { Cue, SetList, Song } from '../rig/show.js';
import type { Move, Role, Sound, Want } from '../rig/sound.js';
import { cablesOf, IN_THE_DRAWER, inKitOrder, setBeforeTheShow, type DemoLead } from './leads.js';

/**
 * The rig that ships with Yunta: the guitarist of a nine-piece dance orchestra that tours small islands by ferry. All
 * of it is
 * made up. Two hook-ups, with the backline and without. It has honest faults: one sound leaves its delay to a toggle,
 * one stored slot sends a program number that is one off, one lead lifts by 9 dB, a lead of much capacitance dulls the
 * second guitar, and the wireless hangs on an output that is too weak for it.
 */
const dev = (name: string): Id<'device'> => `device:${name}`;

const box = (name: string, key: string, chosen: GivenTraits = {}): Device => makeDevice(key, dev(name), chosen);

/** This delay's bypass answers to a toggle only; its programs hold on/off, so a sound that calls one is safe. */
const delay = (): Device => {
  const made = box('dly', 'stereo-delay', { channel: 3 });
  return {
    ...made,
    actuators: made.actuators.map((a) =>
      a.id === 'on/off' ? { ...a, acts: [{ control: 'on', toggle: ['off', 'on'] }] } : a,
    ),
  };
};

/** This switcher's output trim reaches further than most. */
const switcher = (): Device => {
  const made = box('swi', 'switcher-8');
  return {
    ...made,
    controls: made.controls.map((c) => (c.id === 'trim' ? { ...c, domain: { min: -12, max: 12, unit: 'dB' } } : c)),
  };
};

const devices = (): readonly Device[] =>
  inKitOrder([
    box('gsc', 'single-coil'),
    box('ghb', 'humbucker'),
    box('wls', 'wireless'),
    box('sel', 'ab-in'),
    box('tun', 'tuner'),
    box('vol', 'volume'),
    switcher(),
    box('cmp', 'compressor'),
    box('ofz', 'octave-fuzz'),
    box('low', 'low-drive'),
    box('hig', 'high-drive'),
    box('gat', 'gate'),
    box('hed', 'valve-head'),
    box('mod', 'stereo-modulation', { channel: 2 }),
    delay(),
    box('rev', 'stereo-reverb', { channel: 4 }),
    box('cab', 'cab-212'),
    box('mcb', 'cab-mic'),
    box('pre', 'preamp-cab', { code: 'PRE', name: 'Preamp with cabinet simulation' }),
    box('dis', 'di-stereo', { code: 'DI' }),
    box('foh', 'desk'),
    box('sup', 'supply'),
    box('suh', 'supply-high-current'),
  ]);

const BALLROOM: Id<'hookup'> = 'hookup:ballroom';

const FERRY: Id<'hookup'> = 'hookup:ferry-deck';

const hookupNamed = (id: Id<'hookup'>, name: string): Hookup => ({
  kind: 'hookup',
  id,
  name,
  settings: {},
  hears: [{ from: 'the instrument in hand', at: ref(dev('foh'), '#house'), as: 'sounds' }],
  assumes: setBeforeTheShow(
    ['vol.amount', 100, 'the volume pedal stands at full'],
    ['tun.mute', 'off', 'the tuner lets the signal through'],
    ['sel.select', 'a', 'the first guitar is on'],
    ...['cmp', 'ofz', 'low', 'hig', 'gat', ...(id === FERRY ? ['pre'] : [])].map(
      (box) => [`${box}.on`, 'on', IN_THE_DRAWER] as const,
    ),
  ),
});

const BOARD = 'Floor board';
/** Where boxes stand on it in the ballroom, in mm from the left and from the front. */
const STANDS: readonly (readonly [box: string, x: number, y: number])[] = [
  ['sel', 785, 5],
  ['tun', 770, 80],
  ['vol', 630, 5],
  ['swi', 185, 30],
  ['cmp', 580, 290],
  ['ofz', 535, 170],
  ['low', 425, 170],
  ['hig', 380, 290],
  ['gat', 305, 210],
  ['mod', 45, 30],
  ['dly', 5, 210],
  ['rev', 165, 210],
];

/** What feeds the board hangs beneath its back half. */
const SHELF = 'Shelf beneath';
const HANGS: typeof STANDS = [
  ['sup', 0, 105],
  ['suh', 0, 0],
];

/** From the hands through what stands in front of the gain: the same on every stage. */
const FRONT: readonly DemoLead[] = [
  ['gsc.out', 'wls.in'],
  ['wls.out', 'sel.a', 0.3],
  ['ghb.out', 'sel.b', 6],
  ['sel.out', 'tun.in', 0.3],
  ['tun.out', 'vol.in', 0.3],
  ['vol.out', 'swi.in', 0.6],
  ['swi.send1', 'cmp.in', 0.5],
  ['cmp.out', 'swi.return1', 0.5],
  ['swi.send2', 'ofz.in', 0.5],
  ['ofz.out', 'swi.return2', 0.5],
  ['swi.send3', 'low.in', 0.5],
  ['low.out', 'swi.return3', 0.5],
  ['swi.send4', 'hig.in', 0.5],
  ['hig.out', 'swi.return4', 0.5],
  ['swi.send5', 'gat.in', 0.5],
  ['gat.out', 'swi.return5', 0.5],
];

/** Who hangs on which output: the wireless on one that is too weak for it. */
const SUPPLY: readonly DemoLead[] = [
  ['sup.out1', 'wls.dc'],
  ['sup.out2', 'tun.dc'],
  ['sup.out3', 'cmp.dc'],
  ['sup.out4', 'ofz.dc'],
  ['sup.out5', 'low.dc'],
  ['sup.out6', 'hig.dc'],
  ['sup.out7', 'gat.dc'],
  ['suh.out1', 'mod.dc'],
  ['suh.out2', 'dly.dc'],
  ['suh.out3', 'rev.dc'],
  ['suh.out4', 'swi.dc'],
];

/**
 * Full backline: the amp in the sixth loop, modulation and reverb behind its preamp, the delay on the way to its power
 * stage.
 */
const BALLROOM_LEADS: readonly DemoLead[] = [
  ...FRONT,
  ['swi.send6', 'hed.in', 5],
  ['hed.send', 'swi.return6', 5],
  ['swi.send7', 'mod.in-l', 0.5],
  ['mod.out-l', 'swi.return7', 0.5],
  ['swi.send8', 'rev.in-l', 0.5],
  ['rev.out-l', 'swi.return8', 0.5],
  ['swi.out', 'dly.in-l', 0.75],
  ['dly.out-l', 'hed.return', 5],
  ['hed.speaker', 'cab.in', 1.5],
  ['cab.air', 'mcb.air'],
  ['mcb.out', 'foh.ch1', 20],
  ['swi.midi-out', 'mod.midi-in', 0.5],
  ['mod.midi-thru', 'dly.midi-in', 0.5],
  ['dly.midi-thru', 'rev.midi-in', 0.5],
  ['swi.ctl1', 'hed.channel-switch', 5],
  ...SUPPLY,
];

/**
 * Without an amp: the preamp with its cabinet in the sixth loop, delay and reverb in stereo behind the switcher, two
 * ways to the desk.
 */
const FERRY_LEADS: readonly DemoLead[] = [
  ...FRONT,
  ['swi.send6', 'pre.in', 0.5],
  ['pre.out', 'swi.return6', 0.5],
  ['swi.send7', 'mod.in-l', 0.5],
  ['mod.out-l', 'swi.return7', 0.5],
  ['swi.out', 'dly.in-l', 0.5],
  ['dly.out-l', 'rev.in-l', 0.3],
  ['dly.out-r', 'rev.in-r', 0.3],
  ['rev.out-l', 'dis.in-l', 0.5],
  ['rev.out-r', 'dis.in-r', 0.5],
  ['dis.out-l', 'foh.ch2', 20],
  ['dis.out-r', 'foh.ch3', 20],
  ['swi.midi-out', 'mod.midi-in', 0.5],
  ['mod.midi-thru', 'dly.midi-in', 0.5],
  ['dly.midi-thru', 'rev.midi-in', 0.5],
  ...SUPPLY,
  ['sup.out9', 'pre.dc'],
];

/** The second guitar hangs on a coiled lead, with more capacitance than others. */
const coiled = (cable: Cable): Cable => (cable.ends[0] === 'device:ghb.out' ? { ...cable, pFPerM: 160 } : cable);

const program = (device: string, number: number, name: string, on: 'on' | 'off', mix: number): Program => ({
  kind: 'program',
  id: `program:${device}-${number}`,
  device: dev(device),
  memory: 'programs',
  number,
  name,
  contents: { on, mix },
  acts: [],
  assigns: [],
});

const programs: readonly Program[] = [
  program('mod', 11, 'Slow rotor', 'on', 45),
  program('mod', 12, 'Wide chorus', 'on', 50),
  program('mod', 13, 'Deep vibrato', 'on', 100),
  program('mod', 20, 'Waltz shimmer', 'on', 35),
  program('dly', 0, 'Delay out', 'off', 0),
  program('dly', 4, 'Slap', 'on', 22),
  program('dly', 6, 'Half time', 'on', 34),
  program('dly', 11, 'Dotted eighth', 'on', 40),
  program('rev', 3, 'Small room', 'on', 18),
  program('rev', 4, 'Plate', 'on', 26),
  program('rev', 8, 'Long hall', 'on', 42),
];

interface Says {
  readonly name: string;
  readonly role: Role;
  /** Codes of what is in, besides the amp's channel. */
  readonly in: string;
  readonly channel: 'clean' | 'lead';
  readonly mod?: number;
  readonly dly?: number;
  readonly rev?: number;
  readonly trim?: number;
}

/** One row a slot; each role stands on the same switch in every bank: A clean, B crunch, C ambience or fuzz, D lead. */
const SHEET: readonly Says[] = [
  { name: 'Verse clean', role: 'clean', in: 'cmp', channel: 'clean', dly: 0, rev: 3 },
  { name: 'Chorus crunch', role: 'crunch', in: 'cmp low', channel: 'clean', dly: 4, rev: 4 },
  { name: 'Chorus wide', role: 'ambience', in: 'cmp low mod dly', channel: 'clean', mod: 12, rev: 8 },
  { name: 'Lead', role: 'lead', in: 'cmp low hig', channel: 'lead', dly: 4, rev: 4, trim: 3 },
  { name: 'Waltz clean', role: 'clean', in: 'cmp mod', channel: 'clean', mod: 20, dly: 11, rev: 3 },
  { name: 'Waltz grit', role: 'crunch', in: 'low mod', channel: 'clean', mod: 12, dly: 0, rev: 3 },
  { name: 'Storm fuzz', role: 'fuzz', in: 'ofz gat', channel: 'clean', dly: 0, rev: 4, trim: -3 },
  { name: 'Waltz lead', role: 'lead', in: 'cmp hig', channel: 'lead', dly: 11, rev: 8, trim: 3 },
  { name: 'Ferry talk', role: 'clean', in: 'cmp', channel: 'clean', dly: 0, rev: 8 },
  { name: 'Low tide', role: 'crunch', in: 'low', channel: 'clean', dly: 4, rev: 3 },
  { name: 'Quay swell', role: 'ambience', in: 'cmp mod', channel: 'clean', mod: 11, dly: 6, rev: 8 },
  { name: 'Pilot lead', role: 'lead', in: 'low hig gat', channel: 'lead', dly: 6, rev: 4, trim: 4 },
  { name: 'Lantern', role: 'clean', in: 'cmp mod', channel: 'clean', mod: 11, dly: 0, rev: 4 },
  { name: 'Nine knots', role: 'crunch', in: 'cmp low gat', channel: 'lead', dly: 0, rev: 3 },
  { name: 'Fog fuzz', role: 'fuzz', in: 'ofz mod gat', channel: 'clean', mod: 13, dly: 6, rev: 8, trim: -2 },
  { name: 'Last boat', role: 'lead', in: 'cmp low hig', channel: 'lead', dly: 11, rev: 8, trim: 9 },
];

const STAGES: Readonly<Record<string, string>> = {
  cmp: 'compressor',
  ofz: 'fuzz',
  low: 'overdrive',
  hig: 'overdrive',
  gat: 'gate',
  mod: 'modulation',
  dly: 'delay',
  rev: 'reverb',
};
const stage = (code: string): Want => ({ stage: ref(dev(code), surely(STAGES[code])), is: 'in' });
const soundId = (i: number): Id<'sound'> => `sound:${String(i + 1).padStart(2, '0')}`;

const sounds: readonly Sound[] = SHEET.map((row, i) => {
  const named = (code: string, number: number | undefined): Want[] =>
    number === undefined ? [] : [{ control: ref(dev(code), 'program'), is: number }];
  const delayed = row.dly !== undefined && row.dly !== 0;
  return {
    kind: 'sound',
    id: soundId(i),
    name: row.name,
    role: row.role,
    at: i + 1,
    wants: [
      ...row.in.split(' ').map(stage),
      ...(delayed ? [stage('dly')] : []),
      stage('rev'),
      { stage: ref(dev('hed'), row.channel), is: 'in' },
      { stage: ref(dev('pre'), 'preamp'), is: 'in' },
      ...named('mod', row.mod),
      ...named('dly', row.dly),
      ...named('rev', row.rev),
      { control: ref(dev('swi'), 'trim'), is: row.trim ?? 0 },
    ],
    calls: [{ device: dev('swi'), memory: 'slots', slot: i }],
  };
});

/** Slot 2B as it was typed into the switcher: the modulation shows 13 for what the wire calls 12, and 13 was typed. */
const typedSlot: Program = {
  kind: 'program',
  id: 'program:swi-5',
  device: dev('swi'),
  memory: 'slots',
  number: 5,
  name: 'Waltz grit',
  contents: {
    loop1: 'off',
    loop2: 'off',
    loop3: 'on',
    loop4: 'off',
    loop5: 'off',
    loop6: 'on',
    loop7: 'on',
    loop8: 'on',
    order: 'loop1 loop2 loop3 loop4 loop5 loop6 loop7 loop8',
    ctl1: 'open',
    ctl2: 'open',
    output: 'open',
    trim: 0,
  },
  acts: [
    { send: { pc: 13, channel: 2 }, at: 'midi-out' },
    { send: { pc: 0, channel: 3 }, at: 'midi-out' },
    { send: { pc: 3, channel: 4 }, at: 'midi-out' },
  ],
  assigns: [],
};

const moves: readonly Move[] = [
  {
    kind: 'move',
    id: 'move:lift',
    name: 'Lift',
    sounds: 'all',
    latch: false,
    at: [{ device: dev('swi'), switch: 'E' }],
    on: [
      { stage: ref(dev('hig'), 'overdrive'), is: 'in' },
      { control: ref(dev('swi'), 'trim'), is: 4 },
    ],
    off: [],
  },
  {
    kind: 'move',
    id: 'move:throw',
    name: 'Delay throw',
    sounds: [soundId(2), soundId(3), soundId(10), soundId(11)],
    latch: true,
    at: [{ device: dev('swi'), switch: 'F' }],
    on: [{ control: ref(dev('dly'), 'mix'), is: 60 }],
    off: [{ control: ref(dev('dly'), 'mix'), is: 34 }],
  },
];

/** @param bar where it comes; a beat of it may be said as a fraction: 16.4 is beat 4 of bar 16 */
const cue = (name: string, i: number, bar: number, ...hands: readonly string[]): Cue => ({
  name,
  at: { bar: Math.floor(bar), beat: Math.round((bar % 1) * 10) || 1 },
  call: { sound: soundId(i) },
  ...(hands.length ? { hands } : {}),
});
const lift = (name: string, bar: number, to: 'on' | 'off'): Cue => ({
  name,
  at: { bar, beat: 1 },
  call: { move: 'move:lift', to },
});
const song = (n: number, title: string, bpm: number, seconds: number, cues: readonly Cue[]): Song => ({
  kind: 'song',
  at: n,
  id: `song:${String(n).padStart(2, '0')}`,
  title,
  bpm,
  seconds,
  cues,
});

const ROPE_WORDS = `Verse:
[Am]Rope and tide, the [F]harbour sleeps
[C]nobody counts what the [G]water keeps

Chorus:
[F]Pull away, [C]pull away
[G]lights go out be[Am]hind the bay

▸ bridge
[Dm]Slower now, the engine's low
[E]let it ring and let it go

▸ solo
(sixteen bars, then out)`;
const WALTZ_WORDS = `Verse:
[Em]One for the salt and [Am]two for the sand
[B7]three for the girl with a [Em]ring on her hand

Refrain:
[G]Turn, turn, [D]turn with the tide
[C]nobody [B7]asks on the [Em]other side`;

const songs: readonly Song[] = [
  {
    ...song(1, 'Rope and tide', 96, 245, [
      cue('verse', 0, 1),
      cue('chorus', 1, 25),
      cue('bridge', 2, 49, 'heel down, swell in'),
      cue('solo', 3, 64.4),
    ]),
    key: 'Am',
    words: ROPE_WORDS,
  },
  {
    ...song(2, 'Salt waltz', 132, 212, [cue('verse', 4, 1), cue('refrain', 5, 33), cue('solo', 7, 97)]),
    metre: { beats: 3, unit: 4 },
    key: 'Em',
    capo: 2,
    words: WALTZ_WORDS,
  },
  song(3, 'Tin roof', 144, 178, [cue('riff', 6, 1), cue('verse', 4, 9), cue('solo', 7, 57.3)]),
  song(4, 'Two ferries', 88, 301, [cue('talk', 8, 1), cue('verse', 9, 17), cue('swell', 10, 73, 'volume to 7')]),
  song(5, 'Ninth bell', 104, 236, [cue('verse', 8, 1), cue('chorus', 9, 33), cue('solo', 11, 65)]),
  song(6, 'Gangway', 120, 194, [
    cue('verse', 12, 1),
    cue('chorus', 13, 25),
    cue('solo', 15, 57),
    lift('higher', 65, 'on'),
    lift('back', 73, 'off'),
  ]),
  song(7, 'Old ballast', 76, 268, [cue('verse', 12, 1), cue('middle', 14, 41)]),
  song(8, 'Kelp and copper', 110, 221, [cue('verse', 0, 1), cue('chorus', 1, 33), cue('solo', 3, 73)]),
  song(9, 'Lamp oil', 92, 205, [cue('verse', 12, 1), cue('chorus', 13, 29)]),
  song(10, 'Fog signal', 126, 187, [cue('riff', 14, 1), cue('chorus', 13, 17), cue('solo', 15, 65)]),
  song(11, 'Late crossing', 84, 290, [cue('verse', 8, 1), cue('swell', 10, 41), cue('solo', 11, 73)]),
  song(12, 'Last boat home', 138, 231, [cue('verse', 12, 1), cue('chorus', 13, 33), cue('solo', 15, 97.2)]),
];

const set: SetList = {
  kind: 'setList',
  id: 'setList:ferry',
  name: 'Ferry season',
  songs: songs.map((s) => s.id),
  before: [
    { song: 'song:07', comes: 'break' },
    { song: 'song:12', comes: 'encore' },
  ],
};

/** The demo rig at revision 0. */
export const islandRun = (): Rig =>
  rigOf([
    {
      kind: 'about',
      id: ABOUT,
      name: 'Island run',
      notes: 'Nine-piece dance orchestra, small islands, by ferry.',
      boards: {
        [BOARD]: { mm: [900, 420], kg: 4.2 },
        [SHELF]: { mm: [450, 200], kg: 0.6, on: { board: BOARD, x: 0, y: 215, z: -55 } },
      },
    },
    ...devices(),
    ...programs,
    {
      ...hookupNamed(BALLROOM, 'Ballroom'),
      place: Object.fromEntries([
        ...STANDS.map(([box, x, y]) => [dev(box), { at: BOARD, x, y, turn: 0 }]),
        ...HANGS.map(([box, x, y]) => [dev(box), { at: SHELF, x, y, turn: 0 }]),
      ]),
    },
    hookupNamed(FERRY, 'Ferry deck'),
    ...cablesOf(BALLROOM, 'b', BALLROOM_LEADS).map(coiled),
    ...cablesOf(FERRY, 'f', FERRY_LEADS).map(coiled),
    ...sounds,
    typedSlot,
    ...moves,
    ...songs,
    set,
  ] satisfies readonly Part[]);

export const BALLROOM_ID = BALLROOM;
export const FERRY_ID = FERRY;

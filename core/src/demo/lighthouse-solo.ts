import { makeDevice } from '../catalogue/make.js';
import type { Hookup } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';
import { ABOUT, rigOf, type Part, type Rig } from '../rig/rig.js';
import type { Cue, LooperAct, Song } from '../rig/show.js';
import type { Role, Sound } from '../rig/sound.js';
import { SOLO_MIXES, LIGHTHOUSE_ROAD } from './lighthouse-road.js';
import { cablesOf, inKitOrder, setBeforeTheShow, type DemoLead } from './leads.js';

/**
 * One person with two guitars, a looper station in the loop of the amp, percussion under the foot and a microphone. A
 * song list calls the looper's memory; nothing is stomped but the looper itself. With the click a timeline calls it bar by
 * bar, and nothing is stomped at all. All of it is made up.
 */
export const LIGHTHOUSE_ID: Id<'hookup'> = 'hookup:solo';
export const CLICK_ID: Id<'hookup'> = 'hookup:click';

const devices = inKitOrder([
  makeDevice('single-coil', 'device:gsc'),
  makeDevice('humbucker', 'device:ghb'),
  makeDevice('percussion', 'device:prc'),
  makeDevice('microphone', 'device:mic'),
  makeDevice('song-list', 'device:lst', { code: 'LIST' }),
  makeDevice('timeline', 'device:tml', { code: 'TML' }),
  makeDevice('ab-in', 'device:sel'),
  makeDevice('tuner', 'device:tun'),
  makeDevice('looper-station', 'device:lop', { code: 'LOP' }),
  makeDevice('one-channel-amp', 'device:amp'),
  makeDevice('cab-112', 'device:cab'),
  makeDevice('cab-mic', 'device:mcb'),
  makeDevice('di', 'device:dip', { code: 'DIP', name: 'DI box, percussion' }),
  makeDevice('desk', 'device:foh'),
  makeDevice('in-ears', 'device:iem'),
]);

const LEADS: readonly DemoLead[] = [
  ['gsc.out', 'sel.a', 3],
  ['ghb.out', 'sel.b', 3],
  ['sel.out', 'tun.in', 0.3],
  ['tun.out', 'amp.in', 4],
  ['amp.send', 'lop.in1', 4],
  ['lop.main-l', 'amp.return', 4],
  ['amp.speaker', 'cab.in', 1],
  ['cab.air', 'mcb.air'],
  ['mcb.out', 'foh.ch1', 15],
  ['prc.out', 'lop.in2', 2],
  ['lop.sub', 'dip.in', 0.5],
  ['dip.out', 'foh.ch2', 15],
  ['mic.out', 'foh.ch3', 15],
];
const BY_LIST: DemoLead = ['lst.midi-out', 'lop.midi-in', 3];
const BY_TIMELINE: DemoLead = ['tml.midi-out', 'lop.midi-in', 3];

const SHEET: readonly (readonly [name: string, role: Role, memory: number, bpm: number])[] = [
  ['Lamp room', 'clean', 0, 88],
  ['Spiral stair', 'crunch', 1, 104],
  ['Fog horn', 'ambience', 2, 72],
  ['Keeper', 'clean', 3, 96],
  ['Oil and brass', 'crunch', 4, 120],
  ['Long beam', 'ambience', 5, 66],
];

const soundId = (i: number): Id<'sound'> => `sound:${String(i + 1).padStart(2, '0')}`;

const sounds: readonly Sound[] = SHEET.map(([name, role, memory], i) => ({
  kind: 'sound',
  id: soundId(i),
  name,
  role,
  at: i + 1,
  wants: [{ control: 'device:lop.memory', is: memory }],
  calls: [
    { device: 'device:lst', memory: 'entries', slot: i, in: { hookup: LIGHTHOUSE_ID } },
    { device: 'device:tml', memory: 'entries', slot: i, in: { hookup: CLICK_ID } },
  ],
}));

type Track = readonly [bar: number, name: string, track: 1 | 2, act: LooperAct];
/** What the foot does with the looper: bass line on the first track, percussion on the second. */
const LOOPS: readonly (readonly Track[])[] = [
  [
    [5, 'line', 1, 'record'],
    [13, 'line goes on', 1, 'play'],
    [45, 'out', 1, 'stop'],
  ],
  [
    [1, 'beat', 2, 'record'],
    [5, 'beat goes on', 2, 'play'],
    [9, 'line', 1, 'record'],
    [17, 'second voice', 1, 'overdub'],
    [57, 'line out', 1, 'stop'],
    [61, 'beat out', 2, 'stop'],
  ],
  [
    [9, 'drone', 1, 'record'],
    [17, 'over it', 1, 'overdub'],
    [41, 'out', 1, 'clear'],
  ],
  [
    [5, 'line', 1, 'record'],
    [53, 'out', 1, 'stop'],
  ],
  [
    [1, 'beat', 2, 'record'],
    [9, 'line', 1, 'record'],
    [49, 'both out', 1, 'stop'],
    [49, 'beat out', 2, 'stop'],
  ],
  [
    [1, 'drone', 1, 'record'],
    [33, 'out', 1, 'stop'],
  ],
];
const loopCue = ([bar, name, track, act]: Track): Cue => ({
  name,
  at: { bar, beat: 1 },
  call: { track: `device:lop.track${track}`, act },
});

const songs: readonly Song[] = SHEET.map(([title, , , bpm], i) => ({
  kind: 'song',
  at: i + 1,
  id: `song:${String(i + 1).padStart(2, '0')}`,
  title,
  bpm,
  seconds: 180 + 15 * i,
  cues: [
    { name: 'all through', at: { bar: 1, beat: 1 }, call: { sound: soundId(i) } },
    ...(LOOPS[i] ?? []).map(loopCue),
  ],
}));

/** Which memory comes at which bar, called by the timeline: its loops were recorded at home. */
type Called = readonly [bar: number, name: string, sound: number];
const MATINEE: readonly (readonly [title: string, bpm: number, seconds: number, cues: readonly Called[]])[] = [
  [
    'Noon signal',
    100,
    192,
    [
      [1, 'verse', 0],
      [17, 'chorus', 1],
      [33, 'verse', 0],
      [49, 'out', 2],
    ],
  ],
  [
    'Paper boats',
    92,
    215,
    [
      [1, 'intro', 5],
      [9, 'verse', 3],
      [41, 'chorus', 4],
    ],
  ],
  [
    'Ferry children',
    118,
    168,
    [
      [1, 'all through', 4],
      [57, 'end', 2],
    ],
  ],
];
const matinee: readonly Song[] = MATINEE.map(([title, bpm, seconds, cues], i) => ({
  kind: 'song',
  at: songs.length + i + 1,
  id: `song:m${i + 1}`,
  title,
  bpm,
  seconds,
  cues: cues.map(([bar, name, sound]) => ({ name, at: { bar, beat: 1 }, call: { sound: soundId(sound) } })),
}));

const wired = (id: Id<'hookup'>, name: string): Hookup => ({
  kind: 'hookup',
  id,
  name,
  settings: { 'device:lop.out2': 'sub' },
  mixes: SOLO_MIXES,
  assumes: setBeforeTheShow(
    ['tun.mute', 'off', 'the tuner lets the signal through'],
    ['sel.select', 'a', 'the first guitar is on'],
  ),
  hears: [
    { from: 'the instrument in hand', at: 'device:foh.#house', as: 'sounds' },
    { from: 'device:prc.out', at: 'device:foh.#house', as: 'sounds' },
    { from: 'device:mic.out', at: 'device:foh.#house', as: 'sounds' },
  ],
});

export const lighthouseSolo = (): Rig =>
  rigOf([
    { kind: 'about', id: ABOUT, name: 'Lighthouse solo set', notes: 'One person, two guitars, a looper station.' },
    ...devices,
    wired(LIGHTHOUSE_ID, 'Solo'),
    wired(CLICK_ID, 'Solo with the click'),
    ...cablesOf(LIGHTHOUSE_ID, 's', [...LEADS, BY_LIST]),
    ...cablesOf(CLICK_ID, 'k', [...LEADS, BY_TIMELINE]),
    ...sounds,
    ...songs,
    ...matinee,
    { kind: 'engagement', id: 'engagement:evening', name: 'Evenings alone', hookup: LIGHTHOUSE_ID },
    { kind: 'engagement', id: 'engagement:matinee', name: 'Matinees with the click', hookup: CLICK_ID },
    {
      kind: 'setList',
      id: 'setList:lighthouse',
      name: 'Evening',
      songs: songs.map((s) => s.id),
      engagement: 'engagement:evening',
    },
    {
      kind: 'setList',
      id: 'setList:matinee',
      name: 'Matinee',
      songs: matinee.map((s) => s.id),
      engagement: 'engagement:matinee',
    },
    ...LIGHTHOUSE_ROAD,
  ] satisfies readonly Part[]);

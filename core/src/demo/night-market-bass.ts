import { makeDevice } from '../catalogue/make.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { ABOUT, rigOf, type Part, type Rig } from '../rig/rig.js';
import type { Song } from '../rig/show.js';
import type { Role, Sound, Want } from '../rig/sound.js';
import { cablesOf, IN_THE_DRAWER, inKitOrder, setBeforeTheShow, type DemoLead } from './leads.js';

/**
 * A bass for fly dates, without an amp: a clean way to the desk that is always there, and a driven one that is split
 * by frequency,
 * with fuzz and preamp in the high arm and a compressor in the low one. All of it is made up. It is proved as it
 * stands.
 */
export const FLY_DATE_ID: Id<'hookup'> = 'hookup:fly-date';

const devices = inKitOrder([
  makeDevice('bass', 'device:bas'),
  makeDevice('wireless-tuner', 'device:wlt'),
  makeDevice('splitter-transformer', 'device:spl', { code: 'SPL' }),
  makeDevice('splitter-frequency', 'device:xov'),
  makeDevice('switcher-4', 'device:swi'),
  makeDevice('bass-fuzz', 'device:fuz', { code: 'FUZ' }),
  makeDevice('preamp-cab', 'device:pre', { code: 'PRE', name: 'Preamp with cabinet simulation' }),
  makeDevice('bass-compressor', 'device:cmp', { code: 'CMP' }),
  makeDevice('di', 'device:dic', { code: 'DIC', name: 'DI box, clean' }),
  makeDevice('di', 'device:did', { code: 'DID', name: 'DI box, driven' }),
  makeDevice('desk', 'device:foh'),
]);

const LEADS: readonly DemoLead[] = [
  ['bas.out', 'wlt.in', 3],
  ['wlt.out', 'spl.in', 0.5],
  ['spl.out2', 'dic.in', 0.5],
  ['dic.out', 'foh.ch1', 25],
  ['spl.out1', 'xov.in', 0.5],
  ['xov.low-send', 'cmp.in', 0.3],
  ['cmp.out', 'xov.low-return', 0.3],
  ['xov.high-send', 'swi.in', 0.3],
  ['swi.send1', 'fuz.in', 0.3],
  ['fuz.out', 'swi.return1', 0.3],
  ['swi.send2', 'pre.in', 0.3],
  ['pre.out', 'swi.return2', 0.3],
  ['swi.out', 'xov.high-return', 0.3],
  ['xov.out', 'did.in', 0.5],
  ['did.out', 'foh.ch2', 25],
];

const SHEET: readonly (readonly [name: string, role: Role, stages: readonly Ref[], trim: number])[] = [
  ['Round', 'clean', [], 0],
  ['Stall lights', 'crunch', ['device:pre.preamp'], 0],
  ['Neon', 'fuzz', ['device:fuz.fuzz', 'device:pre.preamp'], -2],
  ['Bare wire', 'fuzz', ['device:fuz.fuzz'], -3],
  ['Awning', 'clean', [], -1],
  ['Steam', 'crunch', ['device:pre.preamp'], 1],
  ['Last tram', 'lead', ['device:fuz.fuzz', 'device:pre.preamp'], 2],
];

const sounds: readonly Sound[] = SHEET.map(([name, role, stages, trim], i) => ({
  kind: 'sound',
  id: `sound:${String(i + 1).padStart(2, '0')}`,
  name,
  role,
  at: i + 1,
  wants: [
    ...[...stages, ref('device:cmp', 'compressor')].map((stage): Want => ({ stage, is: 'in' })),
    { control: 'device:swi.trim', is: trim },
  ],
  calls: [{ device: 'device:swi', memory: 'slots', slot: i }],
}));

/** Which sound comes at which bar. */
type Called = readonly [bar: number, name: string, sound: number];
const SONGS: readonly (readonly [title: string, bpm: number, seconds: number, cues: readonly Called[]])[] = [
  [
    'Paper lanterns',
    112,
    204,
    [
      [1, 'verse', 0],
      [17, 'chorus', 1],
      [49, 'break', 2],
      [57, 'chorus', 1],
    ],
  ],
  [
    'Noodle steam',
    98,
    231,
    [
      [1, 'verse', 4],
      [25, 'chorus', 5],
    ],
  ],
  [
    'Rain on canvas',
    84,
    262,
    [
      [1, 'all through', 0],
      [41, 'end', 3],
    ],
  ],
  [
    'Neon puddle',
    126,
    193,
    [
      [1, 'riff', 2],
      [17, 'verse', 0],
      [33, 'riff', 2],
    ],
  ],
  [
    'Closing time',
    140,
    215,
    [
      [1, 'verse', 1],
      [33, 'solo', 3],
      [49, 'verse', 1],
    ],
  ],
];
const songs: readonly Song[] = SONGS.map(([title, bpm, seconds, cues], i) => ({
  kind: 'song',
  at: i + 1,
  id: `song:${String(i + 1).padStart(2, '0')}`,
  title,
  bpm,
  seconds,
  cues: cues.map(([bar, name, sound]) => ({
    name,
    at: { bar, beat: 1 },
    call: { sound: `sound:${String(sound + 1).padStart(2, '0')}` as const },
  })),
}));

export const nightMarketBass = (): Rig =>
  rigOf([
    { kind: 'about', id: ABOUT, name: 'Night market bass', notes: 'Bass without an amp, for fly dates.' },
    ...devices,
    {
      kind: 'hookup',
      id: FLY_DATE_ID,
      name: 'Fly date',
      settings: {},
      hears: [{ from: 'the instrument in hand', at: 'device:foh.#house', as: 'sounds' }],
      assumes: setBeforeTheShow(
        ['wlt.mute', 'off', 'the tuner lets the signal through'],
        ...['cmp', 'pre', 'fuz'].map((box) => [`${box}.on`, 'on', IN_THE_DRAWER] as const),
      ),
    },
    ...cablesOf(FLY_DATE_ID, 'n', LEADS),
    ...sounds,
    ...songs,
    { kind: 'setList', id: 'setList:market', name: 'Market square', songs: songs.map((s) => s.id) },
  ] satisfies readonly Part[]);

import type { MonitorMix } from '../rig/hookup.js';
import type { House } from '../rig/house.js';
import type { PackCase } from '../rig/packing.js';
import type { LogEntry } from '../rig/show.js';

/** What the solo set has on the road: bags, houses, what happened, who wants to hear what. All of it is made up. */
const cases: readonly PackCase[] = [
  {
    kind: 'packCase',
    id: 'packCase:bag',
    name: 'Pedal bag',
    kg: 1.8,
    mostKg: 12,
    travels: 'on the back',
    side: 'left',
    colour: 'yellow',
    holds: {
      'Looper station': { device: 'device:lop', kg: 2.4 },
      Tuner: { device: 'device:tun', kg: 0.4 },
      'DI box, percussion': { device: 'device:dip', kg: 0.7 },
      'Memories of the looper': {
        device: 'device:lop',
        is: 'digital',
        asOf: '2026-04-11',
        files: { '1': 'Lamp room', '2': 'Spiral stair', '3': 'Fog horn' },
      },
      Shaker: { kg: 0.1 },
      'Set of strings': { many: 2, kg: 0.03, is: 'spare' },
      'In-ear pack': { is: 'to charge', kg: 0.2 },
    },
  },
  {
    kind: 'packCase',
    id: 'packCase:guitars',
    name: 'Guitar case',
    kg: 5.5,
    travels: 'van',
    side: 'left',
    colour: 'blue',
    holds: {
      'Single-coil guitar': { device: 'device:gsc', kg: 3.4 },
      'Humbucker guitar': { device: 'device:ghb', kg: 3.8 },
      Capo: { kg: 0.1 },
      'Borrowed stand': { whose: 'the harbour hall', kg: 1.2 },
    },
  },
];

const houses: readonly House[] = [
  {
    kind: 'house',
    id: 'house:harbour',
    name: 'Harbour hall',
    sound: 'mono',
    sockets: 4,
    lift: 'the DI of the percussion',
    eq: '-3 dB at 160 Hz',
    room: 'Low ceiling, booms at the back wall.',
    nights: {
      '2026-04-12': 'Percussion hummed until the DI was lifted.',
      '2026-05-30': 'Sounded best with the doors open.',
    },
  },
  {
    kind: 'house',
    id: 'house:boat',
    name: 'Boat shed',
    sound: 'mono',
    sockets: 2,
    room: 'Tin roof: rain is heard in quiet songs.',
    nights: { '2026-05-16': 'Two sockets only: the lamp came out.' },
  },
];

const log: readonly LogEntry[] = [
  {
    kind: 'logEntry',
    id: 'logEntry:lead',
    when: '2026-05-16T20:10:00Z',
    text: 'Lead to the looper crackled in the second song; another one is in for now.',
    about: ['device:lop'],
    broke: 'lead',
    by: 'Player',
    point: {},
  },
  {
    kind: 'logEntry',
    id: 'logEntry:strings',
    when: '2026-05-29T16:00:00Z',
    text: 'New strings, intonation checked.',
    about: ['device:gsc'],
    by: 'Player',
    point: { everyDays: 30, done: { by: 'Player', when: '2026-05-29T16:00:00Z' } },
  },
  {
    kind: 'logEntry',
    id: 'logEntry:amp',
    when: '2026-05-30T23:15:00Z',
    text: 'Amp turned to 4 for the low ceiling; 5 is its place.',
    about: ['device:amp', 'house:harbour'],
    by: 'Player',
  },
];

/** Who hears what. */
export const SOLO_MIXES: Readonly<Record<string, MonitorMix>> = {
  Player: { at: 'device:iem', hears: { voice: 'most of all', guitar: 'well', percussion: 'a little' } },
};

export const LIGHTHOUSE_ROAD = [...cases, ...houses, ...log];

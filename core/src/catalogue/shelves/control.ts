import { theFirst } from '../../known/the.js';
import type { Act } from '../../rig/act.js';
import type { Actuator, Device, Jack } from '../../rig/device.js';
import {
  chain,
  choice,
  contactOut,
  doubleContactIn,
  doubleContactOut,
  expressionIn,
  foot,
  midiIn,
  midiOut,
  plain,
  power,
  usb,
  type Generic,
} from '../parts.js';
import { controllerFloor } from '../switcher.js';

const midiFoot = (
  key: string,
  says: readonly string[],
  code: string,
  contacts: number,
  expressions: number,
): Generic => {
  const floor = controllerFloor();
  const ctl = Array.from({ length: contacts }, (_, i) => `ctl${i + 1}`);
  return {
    key,
    says,
    box: {
      code,
      name: theFirst(says),
      zone: 'floor',
      jacks: [
        midiIn,
        midiOut,
        ...ctl.map(contactOut),
        ...Array.from({ length: expressions }, (_, i) => expressionIn(`exp${i + 1}`)),
        power(150),
      ],
      chains: [chain('merge', 'midi-in', [], 'midi-out')],
      controls: [
        ...floor.controls,
        ...ctl.map((id, i) => choice(id, ['open', 'closed'], { powerUp: 'loaded', name: `contact ${i + 1}` })),
      ],
      actuators: floor.actuators,
      memories: [{ ...floor.memory, stores: ctl }],
      figures: { origin: 'assumed', mm: [330, 120, 60], kg: 1.4 },
    },
  };
};

/** Four switches in two banks; each place holds its own messages and says which contacts are closed. */
const smallController = (key: string, says: readonly string[]): Generic => {
  const floor = controllerFloor({ banks: 2, assignable: [], messages: 4 });
  const contacts = ['ctl1', 'ctl2'];
  return {
    key,
    says,
    box: {
      code: 'SMC',
      name: theFirst(says),
      zone: 'floor',
      jacks: [midiIn, midiOut, ...contacts.map(contactOut), power(60)],
      chains: [chain('merge', 'midi-in', [], 'midi-out')],
      controls: [
        ...floor.controls,
        ...contacts.map((id, i) => choice(id, ['open', 'closed'], { powerUp: 'loaded', name: `contact ${i + 1}` })),
      ],
      actuators: floor.actuators,
      memories: [{ ...floor.memory, stores: contacts }],
      figures: { origin: 'assumed', mm: [180, 70, 50], kg: 0.6 },
    },
  };
};

/** A few switches, each of which sends one fixed message. */
const miniController = (key: string, says: readonly string[], code: string, acts: readonly Act[]): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [midiOut, power(30)],
    chains: [],
    controls: [],
    actuators: acts.map((act, i): Actuator => foot(`switch ${i + 1}`, act)),
    memories: [],
    figures: { origin: 'assumed', mm: [120, 60, 40], kg: 0.3 },
  },
});

/** A list of numbered entries that is stepped through or scrubbed, each of which sends what it holds. */
const list = (
  key: string,
  says: readonly string[],
  code: string,
  zone: Device['zone'],
  by: 'song' | 'cue',
  size: number,
): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone,
    jacks: [midiOut, usb()],
    chains: [],
    controls: [{ id: 'entry', domain: { min: 0, max: size - 1, unit: '' }, powerUp: { at: 0 }, use: 'sound' }],
    actuators: [],
    memories: [
      {
        id: 'entries',
        control: 'entry',
        stores: [],
        by,
        size,
        shows: { first: 1 },
        gapMs: 0,
        mutesMs: 0,
        again: 'reloads',
        limits: { messages: 16 },
      },
    ],
    figures: { origin: 'assumed', kg: 0.6 },
  },
});

/** MIDI in, relays out: channels of amps that know no MIDI. */
const midiRelays: Generic = {
  key: 'midi-relays',
  says: ['MIDI relay box', 'midi to contacts', 'midi amp switcher', 'relay box'],
  box: {
    code: 'RLY',
    name: 'MIDI relay box',
    zone: 'amp',
    jacks: [
      midiIn,
      { ...midiOut, id: 'midi-thru' },
      ...['relay1', 'relay2', 'relay3', 'relay4'].map(contactOut),
      power(80),
    ],
    chains: [chain('thru', 'midi-in', [], 'midi-thru')],
    controls: [
      { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
      ...[1, 2, 3, 4].map((i) => choice(`relay${i}`, ['open', 'closed'], { powerUp: 'loaded', name: `relay ${i}` })),
    ],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] },
      ...[1, 2, 3, 4].map((i): Actuator => ({
        id: `relay ${i}`,
        by: { midi: 'cc', number: 79 + i },
        acts: [
          {
            control: `relay${i}`,
            map: [
              [0, 63, 'open'],
              [64, 127, 'closed'],
            ],
          },
        ],
      })),
    ],
    memories: [
      {
        id: 'programs',
        control: 'program',
        stores: ['relay1', 'relay2', 'relay3', 'relay4'],
        size: 128,
        shows: { first: 1 },
        gapMs: 2,
        mutesMs: 0,
        again: 'reloads',
      },
    ],
    midi: { channel: 14, messages: 'queued' },
    figures: { origin: 'assumed', mm: [120, 90, 45], kg: 0.4 },
  },
};

/** The same with two relays on each of two stereo jacks. */
const doubleRelays: Generic = {
  key: 'midi-relays-double',
  says: ['MIDI relay box with two stereo jacks', 'midi relay box stereo', 'stereo amp switcher'],
  box: {
    ...midiRelays.box,
    code: 'RL2',
    name: 'MIDI relay box with two stereo jacks',
    jacks: [
      ...midiRelays.box.jacks.filter((j) => j.kind !== 'contact'),
      doubleContactOut('pair1', ['relay1', 'relay2']),
      doubleContactOut('pair2', ['relay3', 'relay4']),
    ],
  },
};

/** The end of a lead that carries a contact on. */
const contactEnd = (id: string): Jack => ({ id, kind: 'contact', connector: '6.35 TS', poles: { tip: 'out' } });

export const contactPedal = (key: string, says: readonly string[], code: string, switches: number): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: Array.from({ length: switches }, (_, i) => contactOut(`contact${i + 1}`)),
    chains: [],
    controls: Array.from({ length: switches }, (_, i) =>
      choice(`contact${i + 1}`, ['open', 'closed'], { name: `contact ${i + 1}` }),
    ),
    actuators: Array.from({ length: switches }, (_, i) =>
      foot(`switch ${i + 1}`, { control: `contact${i + 1}`, toggle: ['open', 'closed'] }),
    ),
    memories: [],
    figures: { origin: 'assumed', mm: [70 * switches, 70, 45], kg: 0.3 },
  },
});

const ways = (n: number): readonly Jack[] =>
  Array.from({ length: n }, (_, i): Jack => ({ ...midiOut, id: `thru${i + 1}` }));

export const thruBox = (key: string, says: readonly string[], n: number): Generic =>
  plain(
    key,
    says,
    'THR',
    'floor',
    [midiIn, ...ways(n), power(20)],
    [{ id: 'thru', from: [{ at: 'midi-in' }], slots: [], to: ways(n).map((j) => ({ at: j.id })) }],
  );

/** What tells other boxes what to do. */
export const CONTROL: readonly Generic[] = [
  midiFoot('midi-controller', ['MIDI foot controller', 'foot controller', 'midi floor'], 'MFC', 2, 0),
  midiFoot(
    'midi-controller-exp',
    ['Large MIDI foot controller', 'foot controller with expression', 'large midi floor'],
    'MFL',
    4,
    2,
  ),
  smallController('small-controller', [
    'Small controller with four switches and two contacts',
    'small midi foot controller',
    'small programmable controller',
  ]),
  miniController(
    'mini-pc',
    ['Small controller for program changes', 'small midi controller', 'mini program changer'],
    'MPC',
    [0, 1, 2, 3].map((pc) => ({ send: { pc, channel: 1 }, at: 'midi-out' })),
  ),
  miniController(
    'mini-cc',
    ['Small controller for control changes', 'mini control changer'],
    'MCC',
    [80, 81].map((cc) => ({ send: { cc, value: 127, channel: 1 }, at: 'midi-out' })),
  ),
  midiRelays,
  doubleRelays,
  contactPedal('contact-1', ['Latching foot switch', 'foot switch', 'channel foot switch'], 'FSW', 1),
  contactPedal('contact-2', ['Double foot switch', 'two-button foot switch'], 'FS2', 2),
  miniController('tempo', ['Tempo source', 'tap tempo', 'midi clock', 'click sender'], 'TMP', [
    { send: { bpm: 120 }, at: 'midi-out' },
  ]),
  list('song-list', ['Song-list tablet', 'song list', 'tablet'], 'LST', 'hands', 'song', 128),
  list('timeline', ['Timeline on a computer', 'timeline', 'show computer', 'sequencer'], 'TML', 'outputs', 'cue', 1000),
  plain(
    'contact-y',
    ['Y lead for two contacts', 'stereo contact lead', 'contact splitter lead'],
    'YCT',
    'floor',
    [doubleContactIn('stereo'), contactEnd('tip'), contactEnd('ring')],
    [chain('tip', 'stereo', [], 'tip', { passive: true }), chain('ring', 'stereo:ring', [], 'ring', { passive: true })],
  ),
  thruBox('midi-thru', ['MIDI thru box', 'midi thru', 'midi splitter'], 4),
  plain(
    'midi-merge',
    ['MIDI merge box', 'midi merge', 'midi merger'],
    'MRG',
    'floor',
    [{ ...midiIn, id: 'in1' }, { ...midiIn, id: 'in2' }, midiOut, power(20)],
    [{ id: 'merge', from: [{ at: 'in1' }, { at: 'in2' }], slots: [], to: [{ at: 'midi-out' }] }],
  ),
  plain('midi-interface', ['USB MIDI interface', 'midi interface'], 'MIF', 'outputs', [midiIn, midiOut, usb()], []),
  plain(
    'midi-adapter',
    ['Adapter from DIN to 3.5 mm type A', 'midi adapter', 'din to trs adapter'],
    'ADP',
    'floor',
    [midiIn, { id: 'midi-out', kind: 'midi', connector: '3.5 TRS A', poles: { tip: 'out' } }],
    [chain('wire', 'midi-in', [], 'midi-out', { passive: true })],
  ),
];

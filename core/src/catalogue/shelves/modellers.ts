import {
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  foot,
  is,
  midiIn,
  midiThru,
  ON,
  onOff,
  power,
  stereoTo,
  thru,
  toggles,
  type Generic,
} from '../parts.js';
import { presetBox, type Inside } from '../preset-box.js';
import type { Stage } from '../../rig/device.js';

const loop = (id: string): Inside => ({ loop: id });
const part = (id: string, stage: Stage): Inside => ({ block: id, stage });
const either = (id: string, stage: Stage): Inside => ({ eitherOf: id, stage, names: [`${id}-a`, `${id}-b`] });
const [DRIVE, CAB, DELAY, REVERB, MOD, COMP, EQ, AMP] = [
  part('drive', 'overdrive'),
  part('cab', 'cabinet simulation'),
  part('delay', 'delay'),
  part('reverb', 'reverb'),
  part('mod', 'modulation'),
  part('comp', 'compressor'),
  part('eq', 'eq'),
  part('amp', 'preamp'),
];

/** What a large modeller holds, on the floor or in a rack. */
const LARGE: readonly Inside[] = [
  part('gate', 'gate'),
  DRIVE,
  loop('loop1'),
  either('amp', 'preamp'),
  loop('loop2'),
  either('cab', 'cabinet simulation'),
  EQ,
  MOD,
  DELAY,
  REVERB,
];

/** Boxes that are rigs in themselves, the plainest first. Common practice as to what they hold; figures are assumed. */
export const PRESET_BOXES: readonly Generic[] = [
  presetBox({
    key: 'modeller',
    says: ['Modeller with one loop', 'modeller', 'multi-effect', 'digital modeller'],
    code: 'MDL',
    channel: 5,
    inside: [DRIVE, loop('loop'), CAB, DELAY, REVERB],
    xlr: false,
    gapMs: 40,
    letters: 'ABCD',
    commands: true,
  }),
  presetBox({
    key: 'modeller-two-loops',
    says: ['Modeller with two loops', 'two-loop modeller', 'large modeller'],
    code: 'MD2',
    channel: 5,
    inside: LARGE,
    xlr: true,
    gapMs: 60,
    letters: 'ABCD',
    scenes: 4,
    assigns: { switches: ['E', 'F'], things: 8 },
    commands: true,
    pedal: true,
    orders: true,
  }),
  presetBox({
    key: 'modeller-rack',
    says: ['Modeller in a rack', 'rack modeller', 'rackmount modeller'],
    code: 'MDR',
    channel: 5,
    inside: LARGE,
    xlr: true,
    gapMs: 60,
    letters: '',
    commands: true,
    pedal: true,
    orders: true,
    zone: 'amp',
    figures: { origin: 'assumed', mm: [483, 300, 88], kg: 6, mainsEarth: true, direct: 'converted' },
  }),
  presetBox({
    key: 'multi-two-loops',
    says: ['Multi-effect with two loops', 'two-loop multi-effect'],
    code: 'MX2',
    channel: 5,
    inside: [COMP, loop('loop1'), loop('loop2'), MOD, DELAY, REVERB],
    xlr: false,
    gapMs: 60,
    letters: 'ABCD',
    assigns: { switches: ['E'], things: 8 },
    pedal: true,
  }),
  presetBox({
    key: 'amp-modeller',
    says: ['Amp modeller without loops', 'amp simulator', 'amp sim', 'pedal modeller'],
    code: 'AMS',
    channel: 5,
    inside: [DRIVE, AMP, CAB, REVERB],
    xlr: false,
    gapMs: 40,
    letters: 'AB',
  }),
  presetBox({
    key: 'amp-sim-loop',
    says: ['Amp simulation with a loop', 'amp simulator with a loop', 'amp sim with loop'],
    code: 'ASL',
    channel: 5,
    inside: [DRIVE, AMP, loop('loop'), CAB, REVERB],
    xlr: true,
    gapMs: 40,
    letters: 'ABC',
  }),
  presetBox({
    key: 'acoustic-multi',
    says: ['Multi-effect for acoustic', 'acoustic multi-effect'],
    code: 'AMX',
    channel: 5,
    inside: [COMP, EQ, MOD, REVERB],
    xlr: true,
    gapMs: 40,
    letters: 'ABCD',
  }),
];

/** An effect that holds presets and calls them by two switches of its own; program changes call them as well. */
const presetEffect = (key: string, says: readonly string[], code: string, channel: number, inside: readonly Inside[]) =>
  presetBox({
    key,
    says,
    code,
    channel,
    inside,
    xlr: false,
    gapMs: 60,
    letters: 'AB',
    sides: true,
    withoutTuner: true,
    milliamps: 300,
    figures: { origin: 'assumed', mm: [170, 120, 60], kg: 0.9 },
  });

/** Effects with presets on their own switches. */
export const PRESET_EFFECTS: readonly Generic[] = [
  presetEffect(
    'preset-delay',
    ['Delay with presets on its own switches', 'delay with its own preset switches'],
    'PDL',
    3,
    [DELAY],
  ),
  presetEffect(
    'preset-reverb',
    ['Reverb with presets on its own switches', 'reverb with its own preset switches'],
    'PRV',
    4,
    [REVERB],
  ),
  presetEffect(
    'preset-modulation',
    ['Modulation with presets on its own switches', 'modulation with its own preset switches'],
    'PMD',
    2,
    [MOD],
  ),
  presetEffect(
    'preset-delay-reverb',
    ['Delay and reverb with presets on their own switches', 'delay and reverb with presets'],
    'PDR',
    7,
    [DELAY, REVERB],
  ),
];

/** A generator of rhythm that lets the guitar out to other boxes and back in, and joins it to what it makes. */
export const bandGenerator: Generic = {
  key: 'band-generator',
  says: ['Band generator', 'rhythm generator with a loop', 'accompaniment pedal'],
  box: {
    code: 'BND',
    name: 'Band generator',
    zone: 'floor',
    jacks: [
      audioIn('in'),
      audioOut('send'),
      audioIn('return'),
      audioOut('out-l'),
      audioOut('out-r'),
      midiIn,
      power(300),
    ],
    chains: [
      chain(
        'guitar',
        'in',
        [{ is: 'insert', id: 'loop', send: [{ at: 'send' }], return: [{ at: 'return' }], unpatched: 'through' }],
        '#mix',
      ),
      chain('band', '#band', [block('generator', 'generator', { on: ON, width: 'spread' })], '#mix'),
      { id: 'mix', from: [{ at: '#mix' }], slots: [], to: stereoTo('out-l', 'out-r') },
    ],
    controls: [onOff(), { id: 'pattern', domain: { min: 0, max: 99, unit: '' }, powerUp: 'left', use: 'sound' }],
    actuators: [
      foot('start', toggles('on')),
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'patterns', slot: 'value' }] },
    ],
    memories: [
      {
        id: 'patterns',
        control: 'pattern',
        stores: [],
        size: 100,
        shows: { first: 1 },
        gapMs: 50,
        mutesMs: 0,
        again: 'nothing',
      },
    ],
    midi: { channel: 10, messages: 'lost' },
    ends: [{ at: '#band', is: 'source', name: 'Band', what: 'band', dbu: { average: -12, peak: 2 } }],
    figures: { origin: 'assumed', kg: 1.1 },
  },
};

/** Several inputs; the second goes to the main outputs or to one of its own. */
export const looperStation: Generic = {
  key: 'looper-station',
  says: ['Looper station', 'two-track looper', 'multi-track looper'],
  box: {
    code: 'LST',
    name: 'Looper station',
    zone: 'floor',
    jacks: [
      audioIn('in1'),
      audioIn('in2'),
      audioOut('main-l'),
      audioOut('main-r'),
      audioOut('sub'),
      midiIn,
      midiThru,
      power(250),
    ],
    chains: [
      chain('one', 'in1', [block('track1', 'looper')], '#main'),
      chain('two', 'in2', [block('track2', 'looper')], '#two'),
      chain('two to main', '#two', [], '#main', { when: is('out2', 'main') }),
      chain('two to sub', '#two', [], 'sub', { when: is('out2', 'sub') }),
      { id: 'main', from: [{ at: '#main' }], slots: [], to: stereoTo('main-l', 'main-r') },
      thru,
    ],
    controls: [
      { id: 'memory', domain: { min: 0, max: 98, unit: '' }, powerUp: 'left', use: 'sound' },
      choice('out2', ['main', 'sub'], { use: 'setting', name: 'second input goes to' }),
      ...['track1', 'track2'].map((id, i) =>
        choice(id, ['stopped', 'plays'], {
          powerUp: { at: 'stopped' },
          use: 'play',
          latches: true,
          name: `track ${i + 1}`,
        }),
      ),
    ],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'memories', slot: 'value' }] },
      ...['track1', 'track2'].map((control, i) => foot(`track ${i + 1}`, { control, toggle: ['stopped', 'plays'] })),
    ],
    memories: [
      {
        id: 'memories',
        control: 'memory',
        stores: [],
        size: 99,
        shows: { first: 1 },
        gapMs: 200,
        mutesMs: 0,
        again: 'nothing',
      },
    ],
    midi: { channel: 8, messages: 'lost' },
    figures: { origin: 'assumed', mm: [210, 150, 65], kg: 1.4 },
  },
};

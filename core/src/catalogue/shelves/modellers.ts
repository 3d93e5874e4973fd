import {
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  expressionIn,
  foot,
  is,
  lineOut,
  midiIn,
  midiThru,
  ON,
  onOff,
  power,
  stereoTo,
  thru,
  toggles,
  xlrOut,
  type Generic,
} from '../parts.js';
import type { Actuator, Insert, Slot, Stage } from '../../rig/device.js';
import { theFirst } from '../../known/the.js';

export const insert = (id: string, on?: ReturnType<typeof is>): Insert => ({
  is: 'insert',
  id,
  send: [{ at: `send${id.slice(4)}` }],
  return: [{ at: `return${id.slice(4)}` }],
  unpatched: 'through',
  ...(on ? { on } : {}),
});

interface ModellerOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly channel: number;
  readonly loops: readonly string[];
  /** Blocks before the first loop, between the loops, after the last. */
  readonly blocks: readonly (readonly (readonly [id: string, stage: Stage])[])[];
  readonly xlr: boolean;
  readonly gapMs: number;
}

const WIDE: readonly Stage[] = ['modulation', 'delay', 'reverb'];

/** A multi-effect or modeller: blocks with loops between them, everything held in presets. */
// eslint-disable-next-line max-lines-per-function -- a box is said in one piece, from its jacks to its memories
export const manyEffects = ({ key, says, code, channel, loops, blocks, xlr, gapMs }: ModellerOf): Generic => {
  const names = [...blocks.flat().map(([id]) => id), ...loops];
  const slots: Slot[] = blocks.flatMap((group, i): Slot[] => [
    ...group.map(([id, stage]) =>
      block(id, stage, {
        on: is(id, 'on'),
        ...(WIDE.includes(stage) ? { width: 'spread' as const, tails: true } : {}),
      }),
    ),
    ...(loops[i] ? [insert(loops[i], is(loops[i], 'on'))] : []),
  ]);
  const outs = xlr
    ? [lineOut('out-l'), lineOut('out-r'), xlrOut('xlr-l'), xlrOut('xlr-r')]
    : [lineOut('out-l'), lineOut('out-r')];
  return {
    key,
    says,
    box: {
      code,
      name: theFirst(says),
      zone: 'floor',
      jacks: [
        audioIn('in'),
        ...loops.flatMap((l) => [audioOut(`send${l.slice(4)}`), audioIn(`return${l.slice(4)}`)]),
        ...outs,
        expressionIn(),
        midiIn,
        midiThru,
        power(1200),
      ],
      chains: [
        {
          id: 'path',
          from: [{ at: 'in' }],
          slots,
          to: [
            ...stereoTo('out-l', 'out-r'),
            ...(xlr
              ? [
                  { at: 'xlr-l', leg: 'left' as const },
                  { at: 'xlr-r', leg: 'right' as const },
                ]
              : []),
          ],
        },
        thru,
      ],
      controls: [
        { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
        ...names.map((id) => choice(id, ['off', 'on'], { powerUp: 'loaded' })),
      ],
      actuators: [
        { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'presets', slot: 'value' }] },
        ...names.map((id, i): Actuator => ({
          id,
          by: { midi: 'cc', number: 80 + i },
          acts: [
            {
              control: id,
              map: [
                [0, 63, 'off'],
                [64, 127, 'on'],
              ],
            },
          ],
        })),
      ],
      memories: [
        {
          id: 'presets',
          control: 'program',
          stores: names,
          size: 128,
          shows: { first: 0, bank: { size: 4, first: 1, letters: 'ABCD' } },
          gapMs,
          mutesMs: 30,
          again: 'reloads',
        },
      ],
      midi: { channel, messages: 'lost' },
      figures: { origin: 'assumed', mm: [300, 180, 70], kg: 2.6 },
    },
  };
};

/** One loop on jacks named send and return. */
export const modeller: Generic = (() => {
  const made = manyEffects({
    key: 'modeller',
    says: ['Modeller with one loop', 'modeller', 'multi-effect', 'digital modeller'],
    code: 'MDL',
    channel: 5,
    loops: ['loop'],
    blocks: [
      [['drive', 'overdrive']],
      [
        ['cab', 'cabinet simulation'],
        ['delay', 'delay'],
        ['reverb', 'reverb'],
      ],
    ],
    xlr: false,
    gapMs: 40,
  });
  return { ...made, box: { ...made.box, jacks: made.box.jacks.filter((j) => j.kind !== 'expression') } };
})();

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
    ],
    actuators: [{ id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'memories', slot: 'value' }] }],
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

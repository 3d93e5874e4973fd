import { theFirst } from '../../known/the.js';
import type { Insert } from '../../rig/device.js';
import {
  amount,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  expressionOut,
  foot,
  is,
  ON,
  onOff,
  plain,
  power,
  stereoFrom,
  stereoTo,
  toggles,
  type Generic,
} from '../parts.js';
import { largeSwitcher, loopRack, switcher } from '../switcher.js';
import { SELECTORS } from './selectors.js';

/** A switcher with a jack pair between two loops: an insert that closes by itself while nothing is plugged in. */
const withInsert = (made: Generic, after: string, key: string, says: readonly string[]): Generic => ({
  key,
  says,
  box: {
    ...made.box,
    name: theFirst(says),
    jacks: [...made.box.jacks, audioOut('insert-send'), audioIn('insert-return')],
    chains: made.box.chains.map((c) =>
      c.id !== 'path'
        ? c
        : {
            ...c,
            slots: c.slots.flatMap((s) =>
              s.id === after
                ? [
                    s,
                    {
                      is: 'insert',
                      id: 'insert',
                      send: [{ at: 'insert-send' }],
                      return: [{ at: 'insert-return' }],
                      unpatched: 'through',
                    } satisfies Insert,
                  ]
                : [s],
            ),
          },
    ),
  },
});

/** The last loops have two sides; the output as well. */
const withStereoLoops = (made: Generic, stereo: readonly string[], key: string, says: readonly string[]): Generic => {
  const numbers = stereo.map((s) => s.slice(4));
  return {
    key,
    says,
    box: {
      ...made.box,
      name: theFirst(says),
      jacks: [
        ...made.box.jacks.map((j) => (j.id === 'out' ? { ...j, id: 'out-l' } : j)),
        audioOut('out-r'),
        ...numbers.flatMap((n) => [audioOut(`send${n}-r`), audioIn(`return${n}-r`)]),
      ],
      chains: made.box.chains.map((c) =>
        c.id !== 'path'
          ? c
          : {
              ...c,
              slots: c.slots.map((s) =>
                s.is === 'insert' && stereo.includes(s.id)
                  ? {
                      ...s,
                      send: stereoTo(`send${s.id.slice(4)}`, `send${s.id.slice(4)}-r`),
                      return: stereoFrom(`return${s.id.slice(4)}`, `return${s.id.slice(4)}-r`),
                    }
                  : s,
              ),
              to: stereoTo('out-l', 'out-r').map((t) => ({
                ...t,
                when: [...(t.when ?? []), { control: 'output', in: ['open'] }],
                gain: { control: 'trim' },
              })),
            },
      ),
    },
  };
};

const loopBox = (key: string, says: readonly string[], loops: number): Generic => {
  const names = Array.from({ length: loops }, (_, i) => `loop${i + 1}`);
  return {
    key,
    says,
    box: {
      code: loops === 1 ? 'TBL' : 'TB2',
      name: theFirst(says),
      zone: 'floor',
      jacks: [
        audioIn('in'),
        audioOut('out'),
        ...names.flatMap((_, i) => [audioOut(`send${i + 1}`), audioIn(`return${i + 1}`)]),
      ],
      chains: [
        chain(
          'path',
          'in',
          names.map((id, i): Insert => ({
            is: 'insert',
            id,
            send: [{ at: `send${i + 1}` }],
            return: [{ at: `return${i + 1}` }],
            on: is(id, 'on'),
            unpatched: 'through',
          })),
          'out',
        ),
      ],
      controls: names.map((id, i) => choice(id, ['off', 'on'], { name: `loop ${i + 1}` })),
      actuators: names.map((id, i) => foot(`switch ${i + 1}`, toggles(id))),
      memories: [],
      figures: { origin: 'assumed', mm: [90, 60, 50], kg: 0.3 },
    },
  };
};

/** The dry signal goes on beside the loop. */
const blendLoop: Generic = {
  key: 'blend-loop',
  says: ['Blend box with a parallel loop', 'parallel loop', 'blend box', 'parallel mixer'],
  box: {
    code: 'BLD',
    name: 'Blend box with a parallel loop',
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('send'), audioIn('return'), audioOut('out'), power(20)],
    chains: [
      chain(
        'path',
        'in',
        [
          {
            is: 'insert',
            id: 'loop',
            send: [{ at: 'send' }],
            return: [{ at: 'return' }],
            on: ON,
            direct: true,
            unpatched: 'through',
          },
        ],
        'out',
      ),
    ],
    controls: [
      onOff(),
      amount('mix', 0, 100, '%', { use: 'setting' }),
      choice('phase', ['normal', 'inverted'], { use: 'setting' }),
    ],
    actuators: [foot('switch', toggles('on'))],
    memories: [],
    figures: { origin: 'assumed', mm: [110, 60, 50], kg: 0.4 },
  },
};

const tuner = (key: string, says: readonly string[], code: string, bypass: 'buffered' | 'true'): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [audioIn('in'), audioOut('out'), power(40)],
    chains: [chain('path', 'in', [block('tuner', 'tuner', { mutes: is('mute', 'on'), bypass })], 'out')],
    controls: [choice('mute', ['off', 'on'], { powerUp: { at: 'off' }, use: 'play' })],
    actuators: [foot('switch', toggles('mute'))],
    memories: [],
    figures: { origin: 'assumed', mm: [70, 120, 55], kg: 0.3 },
  },
});

const volume = (key: string, says: readonly string[], code: string, active: boolean): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [
      audioIn('in', active ? {} : { ohm: 250_000 }),
      audioOut('out', active ? { ohm: 100 } : {}),
      audioOut('tuner'),
      ...(active ? [power(20)] : []),
    ],
    chains: [
      chain(
        'path',
        'in',
        [block('volume', 'volume', active ? { bypass: 'buffered' } : {})],
        'out',
        active ? {} : { passive: true },
      ),
      chain('tap', 'in', [], 'tuner', active ? {} : { passive: true }),
    ],
    controls: [amount('amount', 0, 100, '%', { use: 'play', powerUp: 'left' })],
    actuators: [],
    memories: [],
    figures: { origin: 'assumed', mm: [100, 260, 70], kg: 1.2 },
  },
});

const expression = (key: string, says: readonly string[], code: string, wiper: 'tip' | 'ring'): Generic => ({
  key,
  says,
  box: {
    code,
    name: theFirst(says),
    zone: 'floor',
    jacks: [expressionOut('exp', wiper)],
    chains: [],
    controls: [amount('position', 0, 100, '%', { use: 'play' })],
    actuators: [],
    memories: [],
    figures: { origin: 'assumed', mm: [100, 260, 70], kg: 1.1 },
  },
});

const eight = switcher({
  key: 'switcher-8',
  says: ['Eight-loop switcher', '8-loop switcher', '8 loop switcher', 'switcher', 'loop switcher'],
  loops: 8,
  orders: true,
  midi: true,
});
const fixedEight = switcher({
  key: 'switcher-8-fixed',
  says: ['Eight-loop switcher with a fixed order', '8-loop switcher fixed order'],
  loops: 8,
  orders: false,
  midi: true,
});

/** What sends the signal this way or that, mutes it, or rides it under the foot. */
export const SWITCHING: readonly Generic[] = [
  eight,
  fixedEight,
  switcher({
    key: 'switcher-8-parallel',
    says: [
      'Eight-loop switcher with parallel loops',
      '8-loop parallel switcher',
      '8-loop switcher with parallel loops',
      'parallel loop switcher',
    ],
    loops: 8,
    orders: true,
    ways: 4,
    midi: true,
  }),
  withInsert(fixedEight, 'loop4', 'switcher-8-insert', [
    'Eight-loop switcher with an insert after the fourth loop',
    '8-loop switcher with insert',
    'switcher with volume insert',
  ]),
  withStereoLoops(fixedEight, ['loop7', 'loop8'], 'switcher-8-stereo', [
    'Eight-loop switcher with two stereo loops',
    '8-loop stereo switcher',
    'stereo switcher',
  ]),
  switcher({
    key: 'switcher-10',
    says: ['Ten-loop switcher', '10-loop switcher', '10 loop switcher'],
    loops: 10,
    orders: true,
    midi: true,
  }),
  switcher({
    key: 'switcher-6',
    says: ['Six-loop switcher', '6-loop switcher', '6 loop switcher'],
    loops: 6,
    orders: false,
    midi: true,
  }),
  switcher({
    key: 'switcher-4',
    says: ['Four-loop switcher', '4-loop switcher', '4 loop switcher', 'small switcher'],
    loops: 4,
    orders: false,
    midi: true,
  }),
  switcher({
    key: 'switcher-5-plain',
    says: ['Five-loop switcher without MIDI', '5-loop switcher', 'plain switcher'],
    loops: 5,
    orders: false,
    midi: false,
  }),
  largeSwitcher(
    'switcher-8-two-ins',
    [
      'Eight-loop switcher with two inputs and two outputs',
      '8-loop switcher with two inputs',
      'switcher with two inputs and two outputs',
      'large loop switcher',
    ],
    8,
  ),
  loopRack('loop-rack-4', ['Four loops in a rack', 'four-loop rack switcher'], 4),
  loopRack('loop-rack-8', ['Eight loops in a rack', 'loop rack', 'eight-loop rack switcher'], 8),
  loopBox('loop-1', ['Single true-bypass loop', 'one-loop box', 'bypass looper', 'test loop'], 1),
  loopBox('loop-2', ['Two true-bypass loops', 'two-loop box'], 2),
  blendLoop,
  ...SELECTORS,
  tuner('tuner', ['Tuner', 'tuner pedal', 'stage tuner'], 'TUN', 'buffered'),
  tuner('tuner-true', ['True-bypass tuner', 'tuner true bypass'], 'TUT', 'true'),
  plain(
    'tuner-tap',
    ['Tuner on a tap', 'rack tuner', 'always-on tuner'],
    'TNT',
    'floor',
    [audioIn('in'), power(60)],
    [],
    [{ at: 'in', is: 'tuner', name: 'Tuner' }],
  ),
  volume('volume', ['Volume pedal', 'volume', 'passive volume pedal'], 'VOL', false),
  volume('volume-active', ['Active volume pedal', 'buffered volume pedal'], 'VOA', true),
  {
    key: 'volume-stereo',
    says: ['Stereo volume pedal', 'stereo volume'],
    box: {
      code: 'VOS',
      name: 'Stereo volume pedal',
      zone: 'floor',
      jacks: [audioIn('in-l', { ohm: 25_000 }), audioIn('in-r', { ohm: 25_000 }), audioOut('out-l'), audioOut('out-r')],
      chains: [
        { id: 'left', from: [{ at: 'in-l' }], slots: [block('left', 'volume')], to: [{ at: 'out-l' }], passive: true },
        {
          id: 'right',
          from: [{ at: 'in-r' }],
          slots: [block('right', 'volume')],
          to: [{ at: 'out-r' }],
          passive: true,
        },
      ],
      controls: [amount('amount', 0, 100, '%', { use: 'play' })],
      actuators: [],
      memories: [],
      figures: { origin: 'assumed', mm: [100, 260, 70], kg: 1.2 },
    },
  },
  expression('expression', ['Expression pedal', 'expression pedal with the wiper on the tip'], 'EXP', 'tip'),
  expression(
    'expression-reversed',
    ['Expression pedal with the wiper on the ring', 'reversed expression pedal'],
    'EXR',
    'ring',
  ),
];

import type { Act, Message } from '../src/rig/act.js';
import type { Actuator, Chain, Control, Device, Memory } from '../src/rig/device.js';
import { type Id } from '../src/rig/ids.js';
import type { Value, When } from '../src/rig/value.js';
import { amount, values, DELAY_ON, MIX, MODE, FLIP, BANKISH, SWAP, audio, midi } from './random-boxes.js';
import { type Random } from './random.js';

/**
 * A box with everything that can be said of one, each thing with some chance: what it stores, how it wakes, what sets
 * it off, what it misses.
 */
export const echo = (r: Random, n: number): Device => {
  const id: Id<'device'> = `device:e${n}`;
  const size = r.pick([4, 8, 8, 300]);
  const channel = r.pick([3, 3, 4]);
  const menu = r.chance(20);
  const menuUse = r.pick(['setting', 'sound', 'play'] as const);
  const wakes = (...at: readonly Value[]): Control['powerUp'] =>
    r.pick<Control['powerUp']>(['left', 'unknown', 'loaded', { at: r.pick(at) }]);
  const stores = ['on', 'mix', ...(r.chance(50) ? ['mode'] : []), ...(menu && r.chance(50) ? ['channel'] : [])].filter(
    () => r.chance(80),
  );
  const scenes = r.chance(25);
  const kept = (control: string, ...at: readonly Value[]): Control['powerUp'] => {
    const woken = wakes(...at);
    return woken === 'loaded' && !stores.includes(control) ? 'left' : woken;
  };
  const controls: Control[] = [
    {
      id: 'program',
      domain: amount(size - 1),
      powerUp: r.pick<Control['powerUp']>(['left', { at: 0 }, 'unknown']),
      use: 'sound',
    },
    { id: 'on', domain: values('off', 'on'), powerUp: kept('on', 'off', 'on'), use: 'sound' },
    {
      id: 'mix',
      domain: { min: 0, max: 10, unit: '', ...(r.chance(20) ? { step: 0.5 } : {}) },
      powerUp: kept('mix', 0, 3),
      use: 'sound',
    },
    {
      id: 'mode',
      domain: values('a', 'b', 'c'),
      powerUp: kept('mode', 'a', 'b'),
      use: r.pick(['sound', 'sound', 'setting', 'play'] as const),
    },
    { id: 'gain', domain: amount(10), powerUp: 'left', use: 'sound' },
    ...(menu
      ? [
          {
            id: 'channel',
            domain: values(...Array.from({ length: 16 }, (_, i) => i + 1)),
            powerUp: kept('channel', channel),
            use: menuUse,
          } satisfies Control,
        ]
      : []),
    ...(scenes
      ? [
          {
            id: 'scene',
            domain: amount(2),
            powerUp: r.pick<Control['powerUp']>(['left', { at: 0 }]),
            use: 'sound',
          } satisfies Control,
        ]
      : []),
    ...(r.chance(20)
      ? [{ id: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: 'left', use: 'sound' } satisfies Control]
      : []),
  ];
  const has = (control: string) => controls.some((c) => c.id === control);
  const whenever = (): When | undefined => {
    if (!r.chance(25)) return undefined;
    return r.pick<When>([
      [{ control: 'mode', in: [r.pick(['a', 'b', 'c'])] }],
      [{ control: 'mix', from: r.int(0, 5), to: r.int(5, 10) }],
      [{ control: 'on', in: [r.pick(['on', 'off'])] }],
      [{ control: 'gain', from: 3, to: 10 }],
      [{ jack: 'tap', plugged: r.chance(50) }],
    ]);
  };
  const under = () => {
    const when = whenever();
    return when ? { when } : {};
  };
  const onAct = (): Act =>
    r.pick<Act>([
      {
        control: 'on',
        map: [
          [0, 63, 'off'],
          [64, 127, 'on'],
        ],
      },
      { control: 'on', set: 'on' },
      { control: 'on', toggle: ['off', 'on'] },
      { control: 'on', step: ['off', 'on'] },
    ]);
  const out = r.chance(30);
  const send = (): Message =>
    r.pick<Message>([
      { cc: DELAY_ON, value: r.pick([0, 127]), channel: r.int(3, 4) },
      { pc: r.int(0, 5), channel: r.int(3, 4) },
      { cc: MIX, value: r.int(0, 127), channel: 3 },
    ]);
  const actuators: Actuator[] = [
    { id: 'pc', by: { midi: 'pc' }, ...under(), acts: [{ load: 'programs', slot: 'value' }] },
    {
      id: 'on/off',
      by: { midi: 'cc', number: DELAY_ON, ...(r.chance(15) ? { channel: r.int(3, 4) } : {}) },
      ...under(),
      acts: [onAct(), ...(r.chance(15) ? [{ control: 'mode', step: ['a', 'b', 'c'], ...under() } satisfies Act] : [])],
    },
    { id: 'mix', by: { midi: 'cc', number: MIX }, ...under(), acts: [{ control: 'mix', scale: [0, 10] }] },
    ...(r.chance(40)
      ? [
          {
            id: 'mode',
            by: { midi: 'cc', number: MODE },
            ...under(),
            acts: [
              {
                control: 'mode',
                map: [
                  [0, 40, 'a'],
                  [41, 80, 'b'],
                ],
              },
            ],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(30)
      ? [
          {
            id: 'flip',
            by: { midi: 'cc', number: FLIP },
            ...under(),
            acts: [{ control: 'on', toggle: ['off', 'on'] }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(15)
      ? [
          {
            id: 'bankish',
            by: { midi: 'cc', number: BANKISH },
            acts: [{ control: 'on', set: 'off' }],
          } satisfies Actuator,
        ]
      : []),
    ...(has('channel') && r.chance(50)
      ? [
          {
            id: 'tune',
            by: { midi: 'cc', number: SWAP },
            acts: [{ control: 'channel', set: r.int(3, 4) }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(40)
      ? [
          {
            id: 'tap',
            by: { contact: 'tap', edge: r.pick(['closing', 'opening'] as const) },
            ...under(),
            acts: [{ control: 'on', toggle: ['off', 'on'] }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(30)
      ? [
          {
            id: 'closed',
            by: { contact: 'tap', level: 'closed' },
            acts: [{ control: 'mode', set: 'b' }],
          } satisfies Actuator,
          {
            id: 'open',
            by: { contact: 'tap', level: 'open' },
            acts: [{ control: 'mode', set: 'a' }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(40)
      ? [
          {
            id: 'switch',
            by: { foot: 'switch', gesture: r.pick(['press', 'hold', 'twice', 'release'] as const) },
            ...under(),
            acts: [onAct()],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(20)
      ? [{ id: 'knob', by: { hand: 'knob' }, acts: [{ control: 'mode', step: ['a', 'b', 'c'] }] } satisfies Actuator]
      : []),
    ...(r.chance(20)
      ? [
          {
            id: 'preset',
            by: { foot: 'preset', gesture: 'press' },
            acts: [{ load: 'programs', slot: r.int(0, 3) }],
          } satisfies Actuator,
        ]
      : []),
    ...(out
      ? [
          {
            id: 'talk',
            by: { foot: 'talk', gesture: 'press' },
            ...under(),
            acts: [{ send: send(), at: 'midi-out' }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(20)
      ? [
          {
            id: 'start',
            by: { power: 'on' },
            ...under(),
            acts: [
              r.pick<Act>([
                { control: 'on', set: r.pick(['on', 'off']) },
                { control: 'on', toggle: ['off', 'on'] },
                ...(out ? [{ send: send(), at: 'midi-out' } satisfies Act] : []),
              ]),
            ],
          } satisfies Actuator,
        ]
      : []),
    ...(has('tempo')
      ? [{ id: 'clock', by: { midi: 'clock' }, acts: [{ control: 'tempo', take: 'value' }] } satisfies Actuator]
      : []),
    ...(has('scene')
      ? [
          {
            id: 'scene',
            by: { midi: 'cc', number: 22 },
            acts: [0, 1, 2].map((slot): Act => ({
              load: 'scenes',
              slot,
              when: [{ control: 'mode', in: [['a'], ['b'], ['c']][slot]! }],
            })),
          } satisfies Actuator,
          {
            id: 'scene 1',
            by: { foot: 'scene', gesture: 'press' },
            acts: [{ load: 'scenes', slot: 1 }],
          } satisfies Actuator,
        ]
      : []),
    ...(r.chance(25)
      ? [
          {
            id: 'rocker',
            by: { expression: 'exp' },
            ...under(),
            acts: [
              r.chance(50)
                ? { control: 'mix', scale: [0, 10] }
                : {
                    control: 'mode',
                    map: [
                      [30, 50, 'c'],
                      [90, 110, 'b'],
                    ],
                  },
            ],
          } satisfies Actuator,
        ]
      : []),
  ];
  const memory: Memory = {
    id: 'programs',
    control: 'program',
    stores,
    size,
    shows: { first: 0 },
    gapMs: r.pick([0, 30, 80]),
    mutesMs: 0,
    again: r.pick(['reloads', 'nothing'] as const),
  };
  const inner: Memory = {
    id: 'scenes',
    control: 'scene',
    stores: ['mode'],
    size: 3,
    shows: { first: 1 },
    inside: 'programs',
    gapMs: 0,
    mutesMs: 0,
    again: r.pick(['reloads', 'nothing'] as const),
  };
  const chains: Chain[] = [
    {
      id: 'path',
      from: [{ at: 'in' }],
      slots: [
        {
          is: 'block',
          id: 'delay',
          stage: 'delay',
          on: r.chance(75)
            ? [{ control: 'on', in: ['on'] }]
            : [
                { control: 'on', in: ['on'] },
                { control: 'mix', from: 1, to: 10 },
              ],
        },
      ],
      to: [{ at: 'out' }],
    },
    {
      id: 'thru',
      from: [{ at: 'midi-in' }],
      slots: [],
      to: [{ at: 'midi-thru' }, ...(out ? [{ at: 'midi-out' }] : [])],
    },
  ];
  return {
    kind: 'device',
    id,
    code: `E${n}`,
    name: `Echo ${n}`,
    at: 20 + n,
    zone: 'floor',
    jacks: [
      audio('in', 'in'),
      audio('out', 'out'),
      midi('midi-in', 'in'),
      midi('midi-thru', 'out'),
      ...(out ? [midi('midi-out', 'out')] : []),
      { id: 'tap', kind: 'contact', connector: '6.35 TS', poles: { tip: 'in' } },
      { id: 'exp', kind: 'expression', connector: '6.35 TRS', poles: { tip: 'in' } },
    ],
    chains,
    controls,
    actuators,
    memories: [
      memory,
      ...(scenes && stores.includes('mode') === false ? [inner] : scenes ? [{ ...inner, stores: ['mode'] }] : []),
    ],
    midi: {
      channel: menu ? 'channel' : channel,
      ...(r.chance(10) ? { omni: true } : {}),
      messages: r.pick(['lost', 'queued'] as const),
    },
    figures: { origin: 'assumed' },
  };
};

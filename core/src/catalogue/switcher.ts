import { theFirst } from '../known/the.js';
import type { Actuator, Chain, Control, Device, Insert, Memory } from '../rig/device.js';
import {
  amount,
  ASSUMED,
  audioIn,
  audioOut,
  block,
  chain,
  choice,
  contactOut,
  expressionIn,
  foot,
  is,
  midiIn,
  midiOut,
  midiThru,
  power,
  thru,
  toggles,
  type Generic,
} from './parts.js';

const ASSIGNABLE = ['E', 'F', 'G', 'H'];
const LETTERS = 'ABCD';
const loaded = { powerUp: 'loaded' as const };

interface FloorOf {
  readonly banks?: number;
  readonly letters?: string;
  readonly assignable?: readonly string[];
  /** How many messages a slot can hold. */
  readonly messages?: number;
}

/** The floor of a controller with stored slots: switches in banks, bank up and down, switches that programs assign. */
export const controllerFloor = ({
  banks: count = 32,
  letters = LETTERS,
  assignable = ASSIGNABLE,
  messages = 12,
}: FloorOf = {}): Pick<Device, 'controls' | 'actuators'> & { readonly memory: Omit<Memory, 'stores'> } => {
  const banks = Array.from({ length: count }, (_, i) => i + 1);
  const size = count * letters.length;
  return {
    controls: [
      { id: 'slot', domain: { min: 0, max: size - 1, unit: '' }, powerUp: { at: 0 }, use: 'sound' },
      choice('bank', banks, { powerUp: { at: 1 }, use: 'play' }),
      ...assignable.flatMap((s) => [
        choice(`latch-${s}`, ['off', 'on'], { powerUp: { at: 'off' } }),
        choice(`held-${s}`, ['off', 'on'], { powerUp: { at: 'off' } }),
      ]),
    ],
    actuators: [
      ...[...letters].map((s, plus) =>
        foot(s, { load: 'slots', slot: { bank: 'bank', banks, plus, size: letters.length } }),
      ),
      foot('up', { control: 'bank', step: banks }),
      foot('down', { control: 'bank', step: [...banks].reverse() }),
      ...assignable.flatMap((s): Actuator[] => [
        { id: `${s} press`, by: { foot: s, gesture: 'press' }, acts: [{ follow: s, gesture: 'press' }] },
        { id: `${s} release`, by: { foot: s, gesture: 'release' }, acts: [{ follow: s, gesture: 'release' }] },
      ]),
    ],
    memory: {
      id: 'slots',
      control: 'slot',
      by: 'slot',
      size,
      shows: { first: 1, bank: { size: letters.length, first: 1, letters } },
      gapMs: 2,
      mutesMs: 2,
      again: 'reloads',
      limits: { messages, assigns: assignable.length, nameLength: 12 },
      switches: [...letters],
      bank: { control: 'bank', up: 'up', down: 'down' },
      assignable: assignable.map((s) => ({ switch: s, latch: `latch-${s}`, held: `held-${s}` })),
    },
  };
};

const loopNames = (loops: number): readonly string[] => Array.from({ length: loops }, (_, i) => `loop${i + 1}`);
const numbered = (word: string, n: number): readonly string[] => Array.from({ length: n }, (_, i) => `${word}${i + 1}`);
const loopJacks = (loops: number) =>
  loopNames(loops).flatMap((_, i) => [audioOut(`send${i + 1}`), audioIn(`return${i + 1}`)]);
const loopSlots = (loops: number, more: Partial<Insert> = {}): readonly Insert[] =>
  loopNames(loops).map((id, i) => ({
    is: 'insert',
    id,
    send: [{ at: `send${i + 1}` }],
    return: [{ at: `return${i + 1}` }],
    on: is(id, 'on'),
    unpatched: 'through',
    ...more,
  }));
const loopControls = (loops: number): readonly Control[] =>
  loopNames(loops).map((id, i) => choice(id, ['off', 'on'], { ...loaded, name: `loop ${i + 1}` }));
const contactControls = (contacts: number): readonly Control[] =>
  numbered('ctl', contacts).map((id, i) => choice(id, ['open', 'closed'], { ...loaded, name: `contact ${i + 1}` }));
const loopOrder = (loops: number, branches: number): Control => ({
  id: 'order',
  name: 'loop order',
  domain: { arrange: loopNames(loops), branches },
  use: 'sound',
  ...loaded,
});

interface SwitcherOf {
  readonly key: string;
  readonly says: readonly string[];
  readonly loops: number;
  readonly orders: boolean;
  /** How many ways it can lead beside each other, where it can. */
  readonly ways?: number;
  readonly midi: boolean;
}

/** A loop switcher: a chain of inserts whose relays are stored in slots. */
export const switcher = ({ key, says, loops, orders, ways = 0, midi }: SwitcherOf): Generic => {
  const floor = controllerFloor();
  const own = [
    ...loopControls(loops),
    ...(orders ? [loopOrder(loops, ways)] : []),
    ...contactControls(2),
    choice('output', ['open', 'muted'], loaded),
    amount('trim', -6, 6, 'dB', loaded),
  ];
  return {
    key,
    says,
    box: {
      code: 'SWI',
      name: theFirst(says),
      zone: 'floor',
      jacks: [
        audioIn('in'),
        audioOut('out'),
        ...loopJacks(loops),
        contactOut('ctl1'),
        contactOut('ctl2'),
        ...(midi ? [midiIn, midiOut] : []),
        power(500),
      ],
      chains: [
        chain('path', 'in', loopSlots(loops), 'out', {
          to: [{ at: 'out', when: is('output', 'open'), gain: { control: 'trim' } }],
          ...(orders ? { order: 'order' } : {}),
        }),
        ...(midi ? [chain('merge', 'midi-in', [], 'midi-out')] : []),
      ],
      controls: [...floor.controls, ...own],
      actuators: floor.actuators,
      memories: [{ ...floor.memory, stores: own.map((c) => c.id) }],
      figures: { ...ASSUMED, mm: [430, 120, 60], kg: 1.9 },
    },
  };
};

const SIDES = ['A', 'B'] as const;
const sideJack = (what: 'in' | 'out', side: string): string => `${what}-${side.toLowerCase()}`;
const goesTo = (control: string, side: string) => is(control, side, 'both');

/** What a large switcher has besides its loops: common practice; the figures are assumed. */
const LARGE = { contacts: 6, pedals: 2, ways: 2 };

/**
 * A loop switcher for two instruments and two ways out: each slot says which input and which outputs, with a trim for
 * each; a mute that leaves the tuner; loops that let what is in them ring on.
 */
export const largeSwitcher = (key: string, says: readonly string[], loops: number): Generic => {
  const floor = controllerFloor();
  const own = [
    ...loopControls(loops),
    loopOrder(loops, LARGE.ways),
    choice('input', [...SIDES, 'both'], loaded),
    choice('output', [...SIDES, 'both', 'muted'], loaded),
    ...SIDES.map((side) => amount(`trim-${side.toLowerCase()}`, -6, 6, 'dB', { ...loaded, name: `trim ${side}` })),
    choice('carry-over', ['off', 'on'], { ...loaded, name: 'carry-over' }),
    ...contactControls(LARGE.contacts),
  ];
  const chains: readonly Chain[] = [
    {
      id: 'inputs',
      from: SIDES.map((side) => ({ at: sideJack('in', side), when: goesTo('input', side) })),
      slots: [],
      to: [{ at: '#in' }],
    },
    chain('tap', '#in', [], 'tuner'),
    chain('mute', '#in', [block('mute', 'buffer', { mutes: is('mute', 'on') })], '#loops'),
    {
      id: 'path',
      from: [{ at: '#loops' }],
      slots: loopSlots(loops, { off: { sendOnlyWhen: is('carry-over', 'on') } }),
      to: SIDES.map((side) => ({
        at: sideJack('out', side),
        when: goesTo('output', side),
        gain: { control: `trim-${side.toLowerCase()}` },
      })),
      order: 'order',
    },
    chain('merge', 'midi-in', [], 'midi-out'),
  ];
  return {
    key,
    says,
    box: {
      code: 'SWI',
      name: theFirst(says),
      zone: 'floor',
      jacks: [
        ...SIDES.map((side) => audioIn(sideJack('in', side))),
        ...SIDES.map((side) => audioOut(sideJack('out', side))),
        audioOut('tuner'),
        ...loopJacks(loops),
        ...numbered('ctl', LARGE.contacts).map(contactOut),
        ...numbered('exp', LARGE.pedals).map((id) => expressionIn(id)),
        midiIn,
        midiOut,
        power(700),
      ],
      chains,
      controls: [...floor.controls, ...own, choice('mute', ['off', 'on'], { powerUp: { at: 'off' }, use: 'play' })],
      actuators: [...floor.actuators, foot('mute', toggles('mute'))],
      memories: [{ ...floor.memory, stores: own.map((c) => c.id) }],
      figures: { ...ASSUMED, mm: [480, 140, 65], kg: 2.6 },
    },
  };
};

/** Loops in a rack: no switches of its own, programs come over MIDI. */
export const loopRack = (key: string, says: readonly string[], loops: number): Generic => {
  const own = [...loopControls(loops), ...contactControls(2)];
  return {
    key,
    says,
    box: {
      code: 'LRK',
      name: theFirst(says),
      zone: 'amp',
      jacks: [
        audioIn('in'),
        audioOut('out'),
        ...loopJacks(loops),
        contactOut('ctl1'),
        contactOut('ctl2'),
        midiIn,
        midiThru,
        power(400),
      ],
      chains: [chain('path', 'in', loopSlots(loops), 'out'), thru],
      controls: [{ id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' }, ...own],
      actuators: [{ id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] }],
      memories: [
        {
          id: 'programs',
          control: 'program',
          stores: own.map((c) => c.id),
          size: 128,
          shows: { first: 1 },
          gapMs: 5,
          mutesMs: 2,
          again: 'reloads',
        },
      ],
      midi: { channel: 15, messages: 'queued' },
      figures: { ...ASSUMED, mm: [483, 200, 44], kg: 2.4 },
    },
  };
};

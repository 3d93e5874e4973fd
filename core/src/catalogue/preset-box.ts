import { theFirst } from '../known/the.js';
import type { Actuator, Arm, Chain, Control, Device, Fork, Insert, Jack, Memory, Slot, Stage } from '../rig/device.js';
import type { When } from '../rig/value.js';
import {
  amount,
  audioIn,
  audioOut,
  block,
  choice,
  contactOut,
  expressionIn,
  foot,
  is,
  lineOut,
  midiIn,
  midiOut,
  midiThru,
  power,
  stereoFrom,
  stereoTo,
  thru,
  toggles,
  xlrOut,
  type Generic,
} from './parts.js';

/** Amounts by what they do; ranges are typical of the trade, assumed. */
const AMOUNTS = {
  gain: [0, 100, '%'],
  level: [-12, 12, 'dB'],
  low: [-12, 12, 'dB'],
  mid: [-12, 12, 'dB'],
  high: [-12, 12, 'dB'],
  mix: [0, 100, '%'],
  time: [20, 2000, 'ms'],
  feedback: [0, 100, '%'],
  decay: [0, 100, '%'],
  rate: [0, 100, '%'],
  depth: [0, 100, '%'],
  threshold: [0, 100, '%'],
  sustain: [0, 100, '%'],
} as const;
type Amount = keyof typeof AMOUNTS;

/** What of a stage can be set, besides whether it is on. */
const SET_OF: Partial<Record<Stage, readonly Amount[]>> = {
  gate: ['threshold'],
  compressor: ['sustain', 'level'],
  overdrive: ['gain', 'level'],
  preamp: ['gain', 'level'],
  eq: ['low', 'mid', 'high'],
  modulation: ['rate', 'depth', 'mix'],
  delay: ['mix', 'time', 'feedback'],
  reverb: ['mix', 'decay'],
};
const WIDE: readonly Stage[] = ['modulation', 'delay', 'reverb'];

/** A block of the box: its name and what it does; a loop for other boxes; or two of a kind of which one or both sound. */
export type Inside =
  | { readonly block: string; readonly stage: Stage }
  | { readonly loop: string }
  | { readonly eitherOf: string; readonly stage: Stage; readonly names: readonly [string, string] };

export interface PresetBox {
  readonly key: string;
  readonly says: readonly string[];
  readonly code: string;
  readonly channel: number;
  readonly inside: readonly Inside[];
  readonly xlr: boolean;
  readonly gapMs: number;
  /** The switches that call presets, within the bank that shows; none for a box in a rack. */
  readonly letters: string;
  /** How many scenes stand in a preset, each on a switch of its own. */
  readonly scenes?: number;
  /** Switches that a preset may assign, and to how many things together. */
  readonly assigns?: { readonly switches: readonly string[]; readonly things: number };
  /** Whether presets send messages to other boxes and close contacts. */
  readonly commands?: boolean;
  /** An input for an expression pedal. */
  readonly pedal?: boolean;
  /** Whether a preset says in which order its blocks and loops come. */
  readonly orders?: boolean;
  /** Takes in two sides. */
  readonly sides?: boolean;
  /** Has no tuner that mutes it. */
  readonly withoutTuner?: boolean;
  readonly milliamps?: number;
  readonly zone?: Device['zone'];
  readonly figures?: Device['figures'];
}

/** What two of a kind are called on the box. */
const SIDES = ['A', 'B'] as const;
const PROGRAMS = 128;
const ON_OFF_CC = 80;
const AMOUNT_CC = 20;
/** Control changes that mean something else by the standard: bank select. Source: MIDI 1.0, "Bank Select". */
const BANK_FINE = 32;
/** Calls a scene of the loaded preset, counted from 0 (assumed; boxes differ). */
const SCENE_CC = 19;

const amountId = (of: string, what: Amount): string => `${of}-${what}`;
const loaded = { powerUp: 'loaded' as const };

/** @example said('amp-a') // 'amp A' */
const said = (id: string): string => id.replace(/-([a-z])$/, (_, letter: string) => ` ${letter.toUpperCase()}`);

/** What can be set of a stage, as controls that a program holds. */
export const amountsOf = (id: string, stage: Stage): readonly Control[] =>
  (SET_OF[stage] ?? []).map((what) => {
    const [min, max, unit] = AMOUNTS[what];
    return amount(amountId(id, what), min, max, unit, { ...loaded, name: `${said(id)} ${what}` });
  });

const controlsOf = (part: Inside): readonly Control[] => {
  if ('loop' in part) return [choice(part.loop, ['off', 'on'], { ...loaded, name: part.loop.replace(/(\d)/, ' $1') })];
  if ('block' in part) return [choice(part.block, ['off', 'on'], loaded), ...amountsOf(part.block, part.stage)];
  return [
    choice(part.eitherOf, [...SIDES, 'both'], loaded),
    ...part.names.flatMap((name) => amountsOf(name, part.stage)),
  ];
};

const blockOf = (id: string, stage: Stage, on?: When): Slot => {
  const set = SET_OF[stage] ?? [];
  return block(id, stage, {
    ...(on ? { on } : {}),
    ...(set.includes('level') ? { gain: { control: amountId(id, 'level') } } : {}),
    ...(stage === 'delay' || stage === 'reverb'
      ? { wetOnly: [{ control: amountId(id, 'mix'), from: 100, to: 100 }], tails: true }
      : {}),
    ...(WIDE.includes(stage) ? { width: 'spread' as const, tails: true } : {}),
  });
};

export const insert = (id: string, on?: When): Insert => ({
  is: 'insert',
  id,
  send: [{ at: `send${id.slice('loop'.length)}` }],
  return: [{ at: `return${id.slice('loop'.length)}` }],
  unpatched: 'through',
  ...(on ? { on } : {}),
});

const slotOf = (part: Inside): Slot => {
  if ('loop' in part) return insert(part.loop, is(part.loop, 'on'));
  if ('block' in part) return blockOf(part.block, part.stage, is(part.block, 'on'));
  const arms = part.names.map((name, i): Arm => ({
    id: name,
    slots: [blockOf(name, part.stage)],
    when: is(part.eitherOf, i ? SIDES[1] : SIDES[0], 'both'),
  }));
  return { is: 'fork', id: part.eitherOf, arms } satisfies Fork;
};

/** Every control that a message can set: on/off by its half, an amount over its range. */
export const byMessage = (controls: readonly Control[]): readonly Actuator[] => {
  const [switched, amounts] = [controls.filter((c) => 'values' in c.domain), controls.filter((c) => 'min' in c.domain)];
  const amountNumbers = Array.from({ length: ON_OFF_CC - AMOUNT_CC }, (_, i) => AMOUNT_CC + i).filter(
    (n) => n !== BANK_FINE,
  );
  return [
    ...switched.map(({ id, domain }, i): Actuator => {
      const values = 'values' in domain ? domain.values : [];
      const size = 128 / values.length;
      return {
        id,
        by: { midi: 'cc', number: ON_OFF_CC + i },
        acts: [
          {
            control: id,
            map: values.map((value, n): readonly [number, number, typeof value] => [
              Math.ceil(n * size),
              Math.ceil((n + 1) * size) - 1,
              value,
            ]),
          },
        ],
      };
    }),
    ...amounts.flatMap(({ id, domain }, i): readonly Actuator[] => {
      const number = amountNumbers[i];
      return number !== undefined && 'min' in domain
        ? [{ id, by: { midi: 'cc', number }, acts: [{ control: id, scale: [domain.min, domain.max] }] }]
        : [];
    }),
  ];
};

type Floor = Pick<Device, 'controls' | 'actuators'> & { readonly memories: readonly Memory[] };

const isContact = (id: string): boolean => /^ctl\d$/.test(id);
const ORDER = 'order';
/** A scene sets what is on, and how much of it; what else was turned stays as it stands (assumed; boxes differ). */
const isInScene = (id: string): boolean =>
  !isContact(id) && id !== ORDER && (!id.includes('-') || /-(gain|level|mix)$/.test(id));

const sceneSwitches = (scenes: number): readonly string[] => Array.from({ length: scenes }, (_, i) => `scene ${i + 1}`);

/** What stands in the way of an assigned switch in front of such a box. Common practice; boxes differ. */
const ASSIGN_REMINDERS = [
  'the assign is armed in this preset',
  'its source is this switch, not the one it starts with',
];

/** Presets, and scenes in them. */
const memoriesOf = (
  { letters, scenes = 0, assigns, commands, gapMs }: PresetBox,
  stores: readonly string[],
): readonly Memory[] => [
  {
    id: 'presets',
    control: 'program',
    ...(letters ? { by: 'slot' as const } : {}),
    stores,
    size: PROGRAMS,
    shows: letters ? { first: 0, bank: { size: letters.length, first: 1, letters } } : { first: 0 },
    gapMs,
    mutesMs: 30,
    again: 'reloads',
    limits: {
      messages: commands ? 8 : 0,
      nameLength: 16,
      ...(assigns ? { assigns: assigns.switches.length, assignments: assigns.things } : { assigns: 0 }),
    },
    ...(assigns ? { reminders: { assign: ASSIGN_REMINDERS } } : {}),
    ...(letters ? { switches: [...letters], bank: { control: 'bank', up: 'up', down: 'down' } } : {}),
    assignable: (assigns?.switches ?? []).map((s) => ({ switch: s, latch: `latch-${s}`, held: `held-${s}` })),
  },
  ...(scenes
    ? [
        {
          id: 'scenes',
          control: 'scene',
          by: 'slot',
          inside: 'presets',
          stores: stores.filter(isInScene),
          mayStore: stores.filter((id) => !isInScene(id) && !isContact(id) && id !== ORDER),
          size: scenes,
          shows: { first: 1 },
          gapMs: 2,
          mutesMs: 0,
          again: 'reloads',
          limits: { messages: 0, nameLength: 16 },
          switches: sceneSwitches(scenes),
        } satisfies Memory,
      ]
    : []),
];

/** The box's own switches: presets in banks, bank up and down, scenes, and what a preset assigns. */
const ownFloor = (of: PresetBox, stores: readonly string[]): Floor => {
  const { letters, scenes = 0, assigns } = of;
  const banks = letters ? Array.from({ length: Math.ceil(PROGRAMS / letters.length) }, (_, i) => i + 1) : [];
  const scene = sceneSwitches(scenes);
  const assignable = assigns?.switches ?? [];
  return {
    controls: [
      { id: 'program', domain: { min: 0, max: PROGRAMS - 1, unit: '' }, powerUp: 'left', use: 'sound' },
      ...(letters ? [choice('bank', banks, { powerUp: { at: 1 }, use: 'play' })] : []),
      ...(scenes
        ? [
            {
              id: 'scene',
              domain: { min: 0, max: scenes - 1, unit: '' },
              powerUp: { at: 0 },
              use: 'sound',
            } satisfies Control,
          ]
        : []),
      ...assignable.flatMap((s) => [
        choice(`latch-${s}`, ['off', 'on'], { powerUp: { at: 'off' } }),
        choice(`held-${s}`, ['off', 'on'], { powerUp: { at: 'off' } }),
      ]),
    ],
    actuators: [
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'presets', slot: 'value' }] },
      ...[...letters].map((s, plus) =>
        foot(s, { load: 'presets', slot: { bank: 'bank', banks, plus, size: letters.length } }),
      ),
      ...(letters
        ? [foot('up', { control: 'bank', step: banks }), foot('down', { control: 'bank', step: [...banks].reverse() })]
        : []),
      ...(scenes
        ? [
            {
              id: 'scene change',
              by: { midi: 'cc', number: SCENE_CC },
              acts: [{ load: 'scenes', slot: 'value' }],
            } as const,
          ]
        : []),
      ...scene.map((id, slot) => foot(id, { load: 'scenes', slot })),
      ...assignable.flatMap((s): readonly Actuator[] => [
        { id: `${s} press`, by: { foot: s, gesture: 'press' }, acts: [{ follow: s, gesture: 'press' }] },
        { id: `${s} release`, by: { foot: s, gesture: 'release' }, acts: [{ follow: s, gesture: 'release' }] },
      ]),
    ],
    memories: memoriesOf(of, stores),
  };
};

const jacksOf = ({ inside, xlr, commands, pedal, sides, milliamps = 1200 }: PresetBox): readonly Jack[] => [
  ...(sides ? [audioIn('in-l'), audioIn('in-r')] : [audioIn('in')]),
  ...inside.flatMap((part) =>
    'loop' in part
      ? [audioOut(`send${part.loop.slice('loop'.length)}`), audioIn(`return${part.loop.slice('loop'.length)}`)]
      : [],
  ),
  lineOut('out-l'),
  lineOut('out-r'),
  ...(xlr ? [xlrOut('xlr-l'), xlrOut('xlr-r')] : []),
  ...(pedal ? [expressionIn()] : []),
  midiIn,
  ...(commands ? [midiOut, contactOut('ctl1'), contactOut('ctl2')] : [midiThru]),
  power(milliamps),
];

const STEREO = is('outputs', 'stereo');
const MONO = is('outputs', 'mono');
const NOT_RIGHT: When = [{ jack: 'out-r', plugged: false }];

/**
 * A setting for all presets, which no preset stores: both sides apart, or their sum at every output (common practice).
 */
const outputsOf = (xlr: boolean): Chain['to'] => [
  { at: 'out-l', leg: 'left', when: [...STEREO, { jack: 'out-r', plugged: true }] },
  { at: 'out-l', when: [...STEREO, ...NOT_RIGHT] },
  { at: 'out-r', leg: 'right', when: STEREO },
  ...['out-l', 'out-r'].map((at) => ({ at, when: MONO })),
  ...(xlr
    ? [
        { at: 'xlr-l', leg: 'left' as const, when: STEREO },
        { at: 'xlr-r', leg: 'right' as const, when: STEREO },
        ...['xlr-l', 'xlr-r'].map((at) => ({ at, when: MONO })),
      ]
    : []),
];

/**
 * A box that is a rig in itself: blocks with amounts, loops for other boxes, and presets that hold all of it, called by
 * its own switches and by program change alike; scenes inside a preset; switches that a preset assigns; and, where it
 * commands, messages and contacts that go out with a preset.
 */
export const presetBox = (of: PresetBox): Generic => {
  const { key, says, code, channel, inside, xlr, commands, orders, sides, withoutTuner, zone = 'floor' } = of;
  const slots = [
    ...(withoutTuner ? [] : [block('tuner', 'tuner', { mutes: is('mute', 'on') })]),
    ...inside.map(slotOf),
  ];
  const order: readonly Control[] = orders
    ? [{ id: ORDER, name: 'order', domain: { arrange: slots.map((s) => s.id), branches: 1 }, use: 'sound', ...loaded }]
    : [];
  const own = [...inside.flatMap(controlsOf), ...order];
  const contacts = commands
    ? [1, 2].map((n) => choice(`ctl${n}`, ['open', 'closed'], { ...loaded, name: `contact ${n}` }))
    : [];
  const floor = ownFloor(
    of,
    [...own, ...contacts].map((c) => c.id),
  );
  return {
    key,
    says,
    box: {
      code,
      name: theFirst(says),
      zone,
      jacks: jacksOf(of),
      chains: [
        {
          id: 'path',
          from: sides ? stereoFrom('in-l', 'in-r') : [{ at: 'in' }],
          ...(orders ? { order: ORDER } : {}),
          slots,
          to: withoutTuner ? stereoTo('out-l', 'out-r') : outputsOf(xlr),
        },
        commands ? { id: 'merge', from: [{ at: 'midi-in' }], slots: [], to: [{ at: 'midi-out' }] } : thru,
      ],
      controls: [
        ...floor.controls,
        ...(withoutTuner
          ? []
          : [
              choice('mute', ['off', 'on'], { powerUp: { at: 'off' }, use: 'play' }),
              choice('outputs', ['stereo', 'mono'], {
                powerUp: 'left',
                use: 'setting',
                name: 'outputs, for all presets',
              }),
            ]),
        ...own,
        ...contacts,
      ],
      actuators: [...floor.actuators, ...(withoutTuner ? [] : [foot('tuner', toggles('mute'))]), ...byMessage(own)],
      memories: floor.memories,
      midi: { channel, messages: 'lost' },
      figures: of.figures ?? { origin: 'assumed', mm: [300, 180, 70], kg: 2.6, direct: 'converted' },
    },
  };
};

import { DAY } from './dial-card.js';
import { z } from 'zod';
import { SIDES } from './board.js';
import {
  CONNECTORS,
  END_KINDS,
  JACK_KINDS,
  SOURCE_KINDS,
  STAGES,
  SUPPLY_NOISES,
  SUPPLY_PLUGS,
  ZONES,
  type Actuator,
  type Arm,
  type Chain,
  type Control,
  type Device,
  type Domain,
  type End,
  type Figures,
  type Insert,
  type Jack,
  type Memory,
  type Slot,
  type Stimulus,
  type Tap,
} from './device.js';
import { FIGURE_ORIGINS } from './figure-source.js';
import { LONGEST } from './limits.js';
import { act, byte, channel, id, list, name, pair, value, when, word } from './shape-parts.js';

const gain = z.union([z.number(), z.strictObject({ control: word, scale: pair(z.number()).optional() })]);
export const leg = z.enum(['left', 'right']);
export const tap: z.ZodType<Tap> = z.strictObject({
  at: word,
  leg: leg.optional(),
  when: when.optional(),
  gain: gain.optional(),
});
export const polarity = z.strictObject({ invertedWhen: when });
const block = z.strictObject({
  is: z.literal('block'),
  id: word,
  stage: z.enum(STAGES),
  on: when.optional(),
  wetOnly: when.optional(),
  mutes: when.optional(),
  width: z.enum(['mono', 'each', 'spread', 'sum']).optional(),
  gain: gain.optional(),
  polarity: polarity.optional(),
  ms: z.number().optional(),
  key: word.optional(),
  bypass: z.enum(['true', 'buffered', 'relay']).optional(),
  tails: z.union([z.boolean(), when]).optional(),
  inputOhm: z.number().optional(),
  noiseDbu: z.number().optional(),
  maxDbu: z.number().optional(),
});
const insert: z.ZodType<Insert> = z.strictObject({
  is: z.literal('insert'),
  id: word,
  send: list(tap),
  return: list(tap),
  on: when.optional(),
  direct: z.union([z.boolean(), when]).optional(),
  off: z.union([z.enum(['both', 'send', 'return']), z.strictObject({ sendOnlyWhen: when })]).optional(),
  unpatched: z.enum(['through', 'broken']),
  breaks: z.enum(['return', 'send', 'either']).optional(),
});
const slot: z.ZodType<Slot> = z.union([
  block,
  insert,
  z.strictObject({
    is: z.literal('fork'),
    id: word,
    arms: z.array(z.lazy(() => arm)),
    crossoverHz: z.union([z.number(), word]).optional(),
  }),
]);
const arm: z.ZodType<Arm> = z.strictObject({
  id: word,
  slots: z.array(z.lazy(() => slot)),
  when: when.optional(),
  gain: gain.optional(),
  band: z.enum(['low', 'high']).optional(),
  polarity: polarity.optional(),
  leg: leg.optional(),
});
const chain: z.ZodType<Chain> = z.strictObject({
  id: word,
  from: list(tap),
  slots: list(slot),
  to: list(tap),
  when: when.optional(),
  order: word.optional(),
  passive: z.literal(true).optional(),
  adds: z.enum(['current', 'volts']).optional(),
  unpowered: z.enum(['through', 'dead']).optional(),
});
const jack: z.ZodType<Jack> = z.strictObject({
  id: word,
  kind: z.enum(JACK_KINDS),
  connector: z.enum(CONNECTORS),
  poles: z.strictObject({ tip: z.enum(['in', 'out']).optional(), ring: z.enum(['in', 'out']).optional() }),
  level: z.enum(['instrument', 'line', 'mic', 'speaker', 'phones']).optional(),
  balanced: z.boolean().optional(),
  ohm: z.number().optional(),
  phantom: z.boolean().optional(),
  maxDbu: z.number().optional(),
  watts: z.number().positive().optional(),
  shield: z.union([z.enum(['chassis', 'isolated']), z.strictObject({ liftedWhen: when })]).optional(),
  side: z.enum(SIDES).optional(),
  load: z.enum(['amplifier', 'speaker', 'none']).optional(),
  closedWhen: when.optional(),
  ringClosedWhen: when.optional(),
  supply: z
    .strictObject({
      volts: list(z.number()),
      milliamps: z.number().min(0),
      centre: z.enum(['negative', 'positive', 'ac']),
      plug: z.enum(SUPPLY_PLUGS).optional(),
      isolated: z.boolean().optional(),
    })
    .optional(),
});
const domain: z.ZodType<Domain> = z.union([
  z.strictObject({ values: list(value) }),
  z.strictObject({ min: z.number(), max: z.number(), unit: z.string().max(20), step: z.number().optional() }),
  z.strictObject({ arrange: list(word), branches: z.number().int().min(0) }),
]);
const control: z.ZodType<Control> = z.strictObject({
  id: word,
  name: name.optional(),
  domain,
  powerUp: z.union([z.strictObject({ at: value }), z.enum(['left', 'unknown', 'loaded'])]),
  use: z.enum(['sound', 'setting', 'play']),
  latches: z.literal(true).optional(),
});
const stimulus: z.ZodType<Stimulus> = z.union([
  z.strictObject({ midi: z.literal('pc') }),
  z.strictObject({ midi: z.literal('cc'), number: byte, channel: channel.optional() }),
  z.strictObject({ midi: z.literal('clock') }),
  z.strictObject({ midi: z.literal('note'), number: byte }),
  z.strictObject({ contact: word, edge: z.enum(['closing', 'opening']) }),
  z.strictObject({ contact: word, level: z.enum(['closed', 'open']) }),
  z.strictObject({ expression: word }),
  z.strictObject({ foot: word, gesture: z.enum(['press', 'release', 'hold', 'twice']) }),
  z.strictObject({ hand: word }),
  z.strictObject({ position: word }),
  z.strictObject({ power: z.literal('on') }),
]);
const actuator: z.ZodType<Actuator> = z.strictObject({
  id: word,
  by: stimulus,
  when: when.optional(),
  acts: list(act),
});
const numbering = z.strictObject({
  first: z.union([z.literal(0), z.literal(1)]),
  bank: z
    .strictObject({
      size: z.number().int().min(1).max(128),
      first: z.number().int().min(0).max(999),
      letters: z.string().max(128).optional(),
    })
    .optional(),
});
const memory: z.ZodType<Memory> = z.strictObject({
  id: word,
  control: word,
  stores: list(word),
  mayStore: list(word).optional(),
  by: z.enum(['slot', 'song', 'cue']).optional(),
  size: z.number().int().min(1).max(16_384),
  shows: numbering,
  inside: word.optional(),
  gapMs: z.number().min(0),
  mutesMs: z.number().min(0),
  again: z.enum(['reloads', 'nothing']),
  limits: z
    .strictObject({
      messages: z.number().optional(),
      assigns: z.number().optional(),
      assignments: z.number().optional(),
      nameLength: z.number().optional(),
      waits: z.boolean().optional(),
      clock: z.boolean().optional(),
    })
    .optional(),
  reminders: z
    .strictObject({
      program: list(z.string().min(1).max(LONGEST.remark), 20).optional(),
      assign: list(z.string().min(1).max(LONGEST.remark), 20).optional(),
    })
    .optional(),
  switches: list(word).optional(),
  bank: z.strictObject({ control: word, up: word, down: word }).optional(),
  assignable: list(z.strictObject({ switch: word, latch: word, held: word })).optional(),
});
export const end: z.ZodType<End> = z.strictObject({
  at: word,
  is: z.enum(END_KINDS),
  name,
  what: z.enum(SOURCE_KINDS).optional(),
  dbu: z.strictObject({ average: z.number(), peak: z.number() }).optional(),
  pickup: z
    .strictObject({
      henry: z.number().positive(),
      ohm: z.number().positive(),
      pF: z.number().nonnegative(),
      volumeOhm: z.number().positive().optional(),
      tone: z.strictObject({ ohm: z.number().positive(), nF: z.number().positive() }).optional(),
      bleedPF: z.number().positive().optional(),
    })
    .optional(),
});
export /** Where a figure comes from. */
const figureSource = z.strictObject({
  from: z.enum(FIGURE_ORIGINS),
  on: z.string().regex(DAY).optional(),
  with: z.string().max(LONGEST.remark).optional(),
});
const figures: z.ZodType<Figures> = z.strictObject({
  mm: z.tuple([z.number(), z.number(), z.number()]).optional(),
  kg: z.number().optional(),
  price: z.number().nonnegative().optional(),
  mainsEarth: z.boolean().optional(),
  metres: z.number().positive().max(1000).optional(),
  watts: z.number().optional(),
  powerStage: z.enum(['valve', 'solid state']).optional(),
  switches: list(z.strictObject({ id: word, x: z.number(), y: z.number() })).optional(),
  direct: z.enum(['analogue', 'converted']).optional(),
  battery: z
    .strictObject({ mAh: z.number(), volts: z.number(), milliamps: z.number().positive().optional() })
    .optional(),
  givesWatts: z.number().positive().optional(),
  onSupply: z.enum(SUPPLY_NOISES).optional(),
  origin: z.enum(FIGURE_ORIGINS).optional(),
  sources: list(z.strictObject({ of: z.string().max(LONGEST.name), ...figureSource.shape })).optional(),
});

export const device: z.ZodType<Device> = z.strictObject({
  kind: z.literal('device'),
  id: id('device'),
  code: z.string().min(1).max(LONGEST.code),
  name,
  at: z.number().optional(),
  zone: z.enum(ZONES),
  trial: z.strictObject({ since: z.string().regex(DAY), borrowed: z.literal(true).optional() }).optional(),
  made: word.optional(),
  jacks: list(jack),
  chains: list(chain),
  controls: list(control),
  actuators: list(actuator),
  memories: list(memory),
  midi: z
    .strictObject({
      channel: z.union([channel, word]),
      omni: z.boolean().optional(),
      messages: z.enum(['lost', 'queued']),
    })
    .optional(),
  ends: list(end).optional(),
  figures,
});

import { z } from 'zod';
import type { Act, Message } from './act.js';
import { CONNECTORS, END_KINDS, JACK_KINDS, SOURCE_KINDS, STAGES, ZONES, type Actuator, type Arm, type Chain, type Control, type Device, type Domain, type End, type Figures, type Insert, type Jack, type Memory, type Slot, type Stimulus, type Tap } from './device.js';
import type { Cable, Heard, Hookup } from './hookup.js';
import { ID_TAIL, KINDS, type Id, type Kind, type Ref } from './ids.js';
import { isTakenName } from './keepable.js';
import { LONGEST, TEMPO } from './limits.js';
import type { Assign, Program, Sweep } from './program.js';
import type { Part } from './rig.js';
import type { About, Acceptance, LogEntry, SetList, Song, StandingTest, Tick } from './show.js';
import { ROLES, type Call, type ControlWant, type Move, type Sound, type Want } from './sound.js';
import type { Case, Fact, Value, When } from './value.js';

/**
 * The shape of every part as data from outside must have it. Each schema is typed by the interface that the product uses,
 * so the two cannot drift apart without the type check saying so; the JSON Schema of the rig file is made from it.
 */
const name = z.string().min(1).max(LONGEST.name);
const word = z.string().min(1).max(LONGEST.word).refine((w) => !isTakenName(w), { error: 'this name stands for something else already' });
const id = <K extends Kind>(kind: K): z.ZodType<Id<K>> =>
  z.string().regex(new RegExp(`^${kind}:${ID_TAIL.source.slice(1)}`)) as unknown as z.ZodType<Id<K>>;
const anyId = z.union(KINDS.map((kind) => id(kind))) as unknown as z.ZodType<Id>;
const refShape = z.string().regex(/^device:[a-z0-9][a-z0-9-]{0,63}\..{1,64}$/) as unknown as z.ZodType<Ref>;
const value: z.ZodType<Value> = z.union([z.string().max(LONGEST.value), z.number()]);
const record = <T>(of: z.ZodType<T>) => z.record(z.string().max(130), of);
const refRecord = <T>(of: z.ZodType<T>) => z.record(refShape as unknown as z.ZodType<string> & z.core.$ZodRecordKey, of) as unknown as z.ZodType<Readonly<Record<Ref, T>>>;
const pair = <T>(of: z.ZodType<T>) => z.tuple([of, of]);
const list = <T>(of: z.ZodType<T>, most = 2000) => z.array(of).max(most);

const fact: z.ZodType<Fact> = z.union([
  z.strictObject({ control: word, in: list(value) }),
  z.strictObject({ control: word, from: z.number(), to: z.number() }),
  z.strictObject({ jack: word, plugged: z.boolean() }),
]);
const when: z.ZodType<When> = list(fact);
const inCase: z.ZodType<Case> = z.strictObject({ hookup: id('hookup').optional(), instrument: id('device').optional(), song: id('song').optional() });

const channel = z.number().int().min(1).max(16);
const byte = z.number().int().min(0).max(127);
const message: z.ZodType<Message> = z.union([
  z.strictObject({ pc: byte, channel, bank: z.number().int().min(0).max(16_383).optional() }),
  z.strictObject({ cc: byte, value: byte, channel }),
  z.strictObject({ bpm: z.number().min(TEMPO.min).max(TEMPO.max) }),
]);
const guarded = { when: when.optional() };
const act: z.ZodType<Act> = z.union([
  z.strictObject({ ...guarded, control: word, set: value }),
  z.strictObject({ ...guarded, control: word, toggle: pair(value) }),
  z.strictObject({ ...guarded, control: word, step: list(value) }),
  z.strictObject({ ...guarded, control: word, map: list(z.tuple([z.number(), z.number(), value])) }),
  z.strictObject({ ...guarded, control: word, scale: pair(z.number()) }),
  z.strictObject({ ...guarded, control: word, take: z.literal('value') }),
  z.strictObject({
    ...guarded, load: word,
    slot: z.union([z.number().int().min(0), z.literal('value'), z.strictObject({ bank: word, banks: list(value), plus: z.number().int(), size: z.number().int() })]),
  }),
  z.strictObject({ ...guarded, send: message, at: word, afterMs: z.number().optional() }),
  z.strictObject({ ...guarded, pulse: word }),
  z.strictObject({ ...guarded, follow: word, gesture: z.enum(['press', 'release']) }),
]);

const gain = z.union([z.number(), z.strictObject({ control: word, scale: pair(z.number()).optional() })]);
const leg = z.enum(['left', 'right']);
const tap: z.ZodType<Tap> = z.strictObject({ at: word, leg: leg.optional(), when: when.optional(), gain: gain.optional() });
const polarity = z.strictObject({ invertedWhen: when });
const block = z.strictObject({
  is: z.literal('block'), id: word, stage: z.enum(STAGES), on: when.optional(), wetOnly: when.optional(), mutes: when.optional(),
  width: z.enum(['mono', 'each', 'spread', 'sum']).optional(), gain: gain.optional(), polarity: polarity.optional(), ms: z.number().optional(),
  key: word.optional(), bypass: z.enum(['true', 'buffered', 'relay']).optional(), tails: z.union([z.boolean(), when]).optional(),
  inputOhm: z.number().optional(), noiseDbu: z.number().optional(), maxDbu: z.number().optional(),
});
const insert: z.ZodType<Insert> = z.strictObject({
  is: z.literal('insert'), id: word, send: list(tap), return: list(tap), on: when.optional(), direct: z.union([z.boolean(), when]).optional(),
  off: z.union([z.enum(['both', 'send', 'return']), z.strictObject({ sendOnlyWhen: when })]).optional(),
  unpatched: z.enum(['through', 'broken']), breaks: z.enum(['return', 'send', 'either']).optional(),
});
const slot: z.ZodType<Slot> = z.union([
  block, insert,
  z.strictObject({ is: z.literal('fork'), id: word, arms: z.array(z.lazy(() => arm)), crossoverHz: z.union([z.number(), word]).optional() }),
]) as unknown as z.ZodType<Slot>;
const arm: z.ZodType<Arm> = z.strictObject({
  id: word, slots: z.array(z.lazy(() => slot)), when: when.optional(), gain: gain.optional(), band: z.enum(['low', 'high']).optional(),
  polarity: polarity.optional(), leg: leg.optional(),
});
const chain: z.ZodType<Chain> = z.strictObject({
  id: word, from: list(tap), slots: list(slot), to: list(tap), when: when.optional(), order: word.optional(), passive: z.literal(true).optional(),
  adds: z.enum(['current', 'volts']).optional(), unpowered: z.enum(['through', 'dead']).optional(),
});
const jack: z.ZodType<Jack> = z.strictObject({
  id: word, kind: z.enum(JACK_KINDS), connector: z.enum(CONNECTORS),
  poles: z.strictObject({ tip: z.enum(['in', 'out']).optional(), ring: z.enum(['in', 'out']).optional() }),
  level: z.enum(['instrument', 'line', 'mic', 'speaker', 'phones']).optional(), balanced: z.boolean().optional(), ohm: z.number().optional(),
  phantom: z.boolean().optional(), maxDbu: z.number().optional(),
  shield: z.union([z.enum(['chassis', 'isolated']), z.strictObject({ liftedWhen: when })]).optional(),
  load: z.enum(['amplifier', 'speaker', 'none']).optional(), closedWhen: when.optional(), ringClosedWhen: when.optional(),
  supply: z.strictObject({ volts: list(z.number()), milliamps: z.number().min(0), centre: z.enum(['negative', 'positive', 'ac']), isolated: z.boolean().optional() }).optional(),
});
const domain: z.ZodType<Domain> = z.union([
  z.strictObject({ values: list(value) }),
  z.strictObject({ min: z.number(), max: z.number(), unit: z.string().max(20), step: z.number().optional() }),
  z.strictObject({ arrange: list(word), branches: z.number().int().min(0) }),
]);
const control: z.ZodType<Control> = z.strictObject({
  id: word, name: name.optional(), domain, powerUp: z.union([z.strictObject({ at: value }), z.enum(['left', 'unknown', 'loaded'])]),
  use: z.enum(['sound', 'setting', 'play']),
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
const actuator: z.ZodType<Actuator> = z.strictObject({ id: word, by: stimulus, when: when.optional(), acts: list(act) });
const numbering = z.strictObject({
  first: z.union([z.literal(0), z.literal(1)]),
  bank: z.strictObject({ size: z.number().int().min(1).max(128), first: z.number().int().min(0).max(999), letters: z.string().max(128).optional() }).optional(),
});
const memory: z.ZodType<Memory> = z.strictObject({
  id: word, control: word, stores: list(word), mayStore: list(word).optional(), by: z.enum(['slot', 'song', 'cue']).optional(),
  size: z.number().int().min(1).max(16_384), shows: numbering, inside: word.optional(), gapMs: z.number().min(0), mutesMs: z.number().min(0),
  again: z.enum(['reloads', 'nothing']),
  limits: z.strictObject({ messages: z.number().optional(), assigns: z.number().optional(), nameLength: z.number().optional(), waits: z.boolean().optional(), clock: z.boolean().optional() }).optional(),
  switches: list(word).optional(), bank: z.strictObject({ control: word, up: word, down: word }).optional(),
  assignable: list(z.strictObject({ switch: word, latch: word, held: word })).optional(),
});
const end: z.ZodType<End> = z.strictObject({
  at: word, is: z.enum(END_KINDS), name,
  what: z.enum(SOURCE_KINDS).optional(),
  dbu: z.strictObject({ average: z.number(), peak: z.number() }).optional(),
});
const figures: z.ZodType<Figures> = z.strictObject({
  mm: z.tuple([z.number(), z.number(), z.number()]).optional(), kg: z.number().optional(), mainsEarth: z.boolean().optional(), watts: z.number().optional(), powerStage: z.enum(['valve', 'solid state']).optional(),
  switches: list(z.strictObject({ id: word, x: z.number(), y: z.number() })).optional(),
  battery: z.strictObject({ mAh: z.number(), volts: z.number() }).optional(), origin: z.enum(['measured', 'maker', 'assumed']).optional(),
});

const device: z.ZodType<Device> = z.strictObject({
  kind: z.literal('device'), id: id('device'), code: z.string().min(1).max(LONGEST.code), name, at: z.number().optional(), zone: z.enum(ZONES), made: word.optional(),
  jacks: list(jack), chains: list(chain), controls: list(control), actuators: list(actuator), memories: list(memory),
  midi: z.strictObject({ channel: z.union([channel, word]), omni: z.boolean().optional(), messages: z.enum(['lost', 'queued']) }).optional(),
  ends: list(end).optional(), figures,
});
const assign: z.ZodType<Assign> = z.strictObject({ switch: word, latch: z.boolean(), on: list(act), off: list(act), afterLoad: z.enum(['off', 'on', 'kept']) });
const swept = { jack: word, heel: z.number(), toe: z.number(), curve: z.enum(['line', 'slow', 'fast']).optional() };
const sweep: z.ZodType<Sweep> = z.union([
  z.strictObject({ ...swept, control: word, step: z.number().positive().optional() }), z.strictObject({ ...swept, cc: z.number().int().min(0).max(127), channel, at: word }),
]);
const program: z.ZodType<Program> = z.strictObject({
  kind: z.literal('program'), id: id('program'), device: id('device'), memory: word, number: z.number().int().min(0).max(16_383), name,
  of: z.number().int().min(0).optional(), contents: z.union([z.literal('unplanned'), record(value)]), acts: list(act), assigns: list(assign), sweeps: list(sweep).optional(), planned: z.literal(true).optional(),
});
const heard: z.ZodType<Heard> = z.strictObject({
  from: z.union([refShape, z.literal('the instrument in hand')]), at: refShape, as: z.enum(['sounds', 'silent', 'either', 'stereo']),
});
const hookup: z.ZodType<Hookup> = z.strictObject({
  kind: z.literal('hookup'), id: id('hookup'), name, settings: refRecord(value), hears: list(heard),
  assumes: list(z.strictObject({ control: refShape, value, why: z.string().max(LONGEST.remark) })),
  admits: z.strictObject({ moves: z.boolean(), feet: z.boolean(), powerCycle: z.boolean(), knobs: z.boolean().optional() }).optional(),
  place: record(z.strictObject({ x: z.number(), y: z.number(), turn: z.number(), at: word })).optional(),
});
const cable: z.ZodType<Cable> = z.strictObject({
  kind: z.literal('cable'), id: id('cable'), hookup: id('hookup'), ends: pair(refShape), m: z.number().positive().max(1000).optional(),
  plugs: pair(z.enum(CONNECTORS)).optional(), label: z.string().max(LONGEST.label).optional(), colour: z.string().max(LONGEST.label).optional(), have: z.boolean().optional(),
});
const forCase = { control: refShape, in: inCase.optional() };
const controlWant: z.ZodType<ControlWant> = z.union([
  z.strictObject({ ...forCase, is: value }),
  z.strictObject({ ...forCase, between: pair(z.number()) }),
  z.strictObject({ ...forCase, any: z.literal(true) }),
  z.strictObject({ ...forCase, hand: z.literal(true) }),
  z.strictObject({ ...forCase, more: z.number() }),
  z.strictObject({ ...forCase, note: z.number() }),
  z.strictObject({ ...forCase, pedal: refShape, heel: z.number(), toe: z.number(), curve: z.enum(['line', 'slow', 'fast']).optional(), at: value.optional() }),
]);
const want: z.ZodType<Want> = z.union([z.strictObject({ stage: refShape, is: z.enum(['in', 'out', 'any']), in: inCase.optional() }), controlWant]);
const call: z.ZodType<Call> = z.strictObject({ device: id('device'), memory: word, slot: z.number().int().min(0).max(16_383), in: inCase.optional() });
const sound: z.ZodType<Sound> = z.strictObject({
  kind: z.literal('sound'), id: id('sound'), name, role: z.enum(ROLES), at: z.number(), parent: id('sound').optional(), wants: list(want),
  hears: list(heard).optional(), order: list(refShape).optional(), level: z.strictObject({ than: id('sound'), db: z.number() }).optional(),
  leaving: z.enum(['ring', 'cut']).optional(), calls: list(call),
});
const move: z.ZodType<Move> = z.strictObject({
  kind: z.literal('move'), id: id('move'), name, sounds: z.union([z.literal('all'), list(id('sound'))]), latch: z.boolean(),
  at: list(z.strictObject({ device: id('device'), switch: word })), on: list(want), off: list(want),
});
const song: z.ZodType<Song> = z.strictObject({
  kind: z.literal('song'), id: id('song'), title: name, bpm: z.number().min(TEMPO.min).max(TEMPO.max).optional(), instrument: id('device').optional(), tuning: z.string().max(LONGEST.tuning).optional(),
  cues: list(z.strictObject({
    name, at: z.number().min(0).optional(),
    call: z.union([z.strictObject({ sound: id('sound') }), z.strictObject({ move: id('move'), to: z.enum(['on', 'off']) }), z.strictObject({ note: z.string().max(LONGEST.remark) })]),
  })),
});
const setList: z.ZodType<SetList> = z.strictObject({ kind: z.literal('setList'), id: id('setList'), name, songs: list(id('song')) });
const logEntry: z.ZodType<LogEntry> = z.strictObject({ kind: z.literal('logEntry'), id: id('logEntry'), when: z.string().max(40), text: z.string().max(LONGEST.text), about: list(anyId) });
const standingTest: z.ZodType<StandingTest> = z.strictObject({
  kind: z.literal('standingTest'), id: id('standingTest'), name, hookup: id('hookup'), steps: list(z.string().max(LONGEST.value)),
  expects: list(z.strictObject({ control: z.string().max(140), value: z.string().max(LONGEST.value) })),
});
const acceptance: z.ZodType<Acceptance> = z.strictObject({
  kind: z.literal('acceptance'), id: id('acceptance'), code: word, hookup: id('hookup'), evidence: z.string().max(2000), reason: z.string().min(1).max(LONGEST.reason),
});
const tick: z.ZodType<Tick> = z.strictObject({
  kind: z.literal('tick'), id: id('tick'), device: id('device'), memory: word, number: z.number().int().min(0).max(1_000_000),
  lines: z.record(z.string().max(400), z.strictObject({ by: z.string().max(LONGEST.name), revision: z.number().int().min(0), when: z.string().max(40) })),
});
const about: z.ZodType<About> = z.strictObject({ kind: z.literal('about'), id: id('about'), name, notes: z.string().max(LONGEST.text) });

export const SHAPES = { about, device, program, hookup, cable, sound, move, song, setList, logEntry, standingTest, acceptance, tick } satisfies Record<Kind, z.ZodType<Part>>;

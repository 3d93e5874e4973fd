import { z } from 'zod';
import { SIDES, WIDEST_BOARD } from './board.js';
import { CONNECTORS } from './device.js';
import { DAY, type DialCard } from './dial-card.js';
import { HOW_MUCH, type Cable, type HeardWish, type Hookup } from './hookup.js';
import type { House } from './house.js';
import { type Kind } from './ids.js';
import { LONGEST, LONGEST_SONG_SECONDS, MOST_FRETS, MOST_ORIGINS, TEMPO } from './limits.js';
import { PACKED_AS, STAGE_SIDES, TRAVELS, type PackCase, type Packed, type Packing } from './packing.js';
import { HEAVIEST_PHOTO, WIDEST_PHOTO, type Photo } from './photo.js';
import type { Assign, Program, Sweep } from './program.js';
import type { Part } from './rig.js';
import { MOST_BARS, MOST_BEATS, type Place } from '../units/metre.js';
import {
  LOOPER_ACTS,
  SET_MARKS,
  STOCK_KINDS,
  type About,
  type Acceptance,
  type Engagement,
  type LogEntry,
  type SetList,
  type Song,
  type StandingTest,
  type Tick,
  AMPS,
  HOUSES,
  type GigLimits,
} from './show.js';
import {
  BANDS_HZ,
  LEVEL_UNITS,
  ROLES,
  type Call,
  type ControlWant,
  type Move,
  type Sound,
  type Want,
} from './sound.js';
import { device, figureSource } from './box-shape.js';
import {
  act,
  anyId,
  channel,
  id,
  inCase,
  list,
  name,
  pair,
  record,
  refRecord,
  refShape,
  value,
  word,
} from './shape-parts.js';
const assign: z.ZodType<Assign> = z.strictObject({
  switch: word,
  latch: z.boolean(),
  on: list(act),
  off: list(act),
  afterLoad: z.enum(['off', 'on', 'kept']),
});
const swept = { jack: word, heel: z.number(), toe: z.number(), curve: z.enum(['line', 'slow', 'fast']).optional() };
const sweep: z.ZodType<Sweep> = z.union([
  z.strictObject({ ...swept, control: word, step: z.number().positive().optional() }),
  z.strictObject({ ...swept, cc: z.number().int().min(0).max(127), channel, at: word }),
]);
const program: z.ZodType<Program> = z.strictObject({
  kind: z.literal('program'),
  id: id('program'),
  device: id('device'),
  memory: word,
  number: z.number().int().min(0).max(16_383),
  name,
  of: z.number().int().min(0).optional(),
  contents: z.union([z.literal('unplanned'), record(value)]),
  acts: list(act),
  assigns: list(assign),
  sweeps: list(sweep).optional(),
  planned: z.literal(true).optional(),
});
const heard: z.ZodType<HeardWish> = z.strictObject({
  from: z.union([refShape, z.literal('the instrument in hand')]),
  at: refShape,
  as: z.enum(['sounds', 'silent', 'either', 'stereo']),
});
const remark = z.string().min(1).max(LONGEST.remark);
const person = z.string().min(1).max(LONGEST.word);
const hookup: z.ZodType<Hookup> = z.strictObject({
  kind: z.literal('hookup'),
  id: id('hookup'),
  name,
  settings: refRecord(value),
  hears: list(heard),
  assumes: list(z.strictObject({ control: refShape, value, why: z.string().max(LONGEST.remark) })),
  admits: z
    .strictObject({ moves: z.boolean(), feet: z.boolean(), powerCycle: z.boolean(), knobs: z.boolean().optional() })
    .optional(),
  lineChecks: list(
    z.strictObject({
      on: z.string().regex(DAY),
      ticked: z.record(
        z.string().max(LONGEST.line),
        z.strictObject({ by: z.string().max(LONGEST.word), when: z.string().max(LONGEST.name) }),
      ),
    }),
  ).optional(),
  mixes: z
    .record(person, z.strictObject({ at: id('device').optional(), hears: z.record(person, z.enum(HOW_MUCH)) }))
    .optional(),
  place: z
    .record(id('device'), z.strictObject({ x: z.number(), y: z.number(), turn: z.number(), at: word }))
    .optional(),
});
const cable: z.ZodType<Cable> = z.strictObject({
  kind: z.literal('cable'),
  id: id('cable'),
  hookup: id('hookup'),
  ends: pair(refShape),
  m: z.number().positive().max(1000).optional(),
  pFPerM: z.number().positive().max(10_000).optional(),
  pFFrom: figureSource.optional(),
  awg: z.number().int().min(0).max(40).optional(),
  byHand: z.literal(true).optional(),
  plugs: pair(z.enum(CONNECTORS)).optional(),
  angled: pair(z.boolean()).optional(),
  label: z.string().max(LONGEST.label).optional(),
  colour: z.string().max(LONGEST.label).optional(),
  have: z.boolean().optional(),
  forNow: z.literal(true).optional(),
  loom: z.string().min(1).max(LONGEST.label).optional(),
  turns: z.literal(true).optional(),
});
const why = z.string().min(1).max(LONGEST.remark).optional();
const forCase = { control: refShape, in: inCase.optional(), why };
const controlWant: z.ZodType<ControlWant> = z.union([
  z.strictObject({ ...forCase, is: value }),
  z.strictObject({ ...forCase, between: pair(z.number()) }),
  z.strictObject({ ...forCase, any: z.literal(true) }),
  z.strictObject({ ...forCase, hand: z.literal(true) }),
  z.strictObject({ ...forCase, more: z.number() }),
  z.strictObject({ ...forCase, note: z.number() }),
  z.strictObject({
    ...forCase,
    pedal: refShape,
    heel: z.number(),
    toe: z.number(),
    curve: z.enum(['line', 'slow', 'fast']).optional(),
    at: value.optional(),
  }),
]);
const want: z.ZodType<Want> = z.union([
  z.strictObject({ stage: refShape, is: z.enum(['in', 'out', 'any']), in: inCase.optional(), why }),
  controlWant,
]);
const call: z.ZodType<Call> = z.strictObject({
  device: id('device'),
  memory: word,
  slot: z.number().int().min(0).max(16_383),
  in: inCase.optional(),
});
const sound: z.ZodType<Sound> = z.strictObject({
  kind: z.literal('sound'),
  id: id('sound'),
  name,
  display: name.optional(),
  role: z.enum(ROLES),
  at: z.number(),
  parent: id('sound').optional(),
  mirror: z.literal(true).optional(),
  wants: list(want),
  hears: list(heard).optional(),
  order: list(refShape).optional(),
  orderWhy: why,
  level: z.strictObject({ than: id('sound'), db: z.number() }).optional(),
  measured: list(
    z.strictObject({
      hookup: id('hookup'),
      db: z.number().min(-200).max(200),
      unit: z.enum(LEVEL_UNITS),
      on: z.iso.date().optional(),
      with: z.string().max(LONGEST.remark).optional(),
      bands: z.array(z.number().min(-200).max(200)).length(BANDS_HZ.length).optional(),
      hole: z.strictObject({ after: id('sound'), ms: z.number().positive().max(60_000) }).optional(),
    }),
  ).optional(),
  leaving: z.enum(['ring', 'cut']).optional(),
  calls: list(call),
});
const move: z.ZodType<Move> = z.strictObject({
  kind: z.literal('move'),
  id: id('move'),
  name,
  sounds: z.union([z.literal('all'), list(id('sound'))]),
  latch: z.boolean(),
  at: list(z.strictObject({ device: id('device'), switch: word })),
  on: list(want),
  off: list(want),
});
const place: z.ZodType<Place> = z.union([
  z.number().min(0).max(LONGEST_SONG_SECONDS),
  z.strictObject({
    bar: z.number().int().min(1).max(MOST_BARS),
    beat: z
      .number()
      .min(1)
      .lt(MOST_BEATS + 1),
  }),
]);
const song: z.ZodType<Song> = z.strictObject({
  kind: z.literal('song'),
  id: id('song'),
  title: name,
  at: z.number().optional(),
  bpm: z.number().min(TEMPO.min).max(TEMPO.max).optional(),
  metre: z
    .strictObject({
      beats: z.number().int().min(1).max(MOST_BEATS),
      unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
    })
    .optional(),
  instrument: id('device').optional(),
  tuning: z.string().max(LONGEST.tuning).optional(),
  capo: z.number().int().min(1).max(MOST_FRETS).optional(),
  key: z.string().max(LONGEST.tuning).optional(),
  seconds: z.number().min(1).max(LONGEST_SONG_SECONDS).optional(),
  notes: z.string().max(LONGEST.reason).optional(),
  words: z.string().max(LONGEST.text).optional(),
  wishes: z.record(person, remark).optional(),
  cues: list(
    z.strictObject({
      name,
      at: place.optional(),
      call: z.union([
        z.strictObject({ sound: id('sound') }),
        z.strictObject({ move: id('move'), to: z.enum(['on', 'off']) }),
        z.strictObject({ track: refShape, act: z.enum(LOOPER_ACTS) }),
        z.strictObject({ note: z.string().max(LONGEST.remark) }),
      ]),
      hands: list(z.string().max(LONGEST.remark)).optional(),
    }),
  ),
});
const limits: z.ZodType<GigLimits> = z.strictObject({
  silent: z.literal(true).optional(),
  house: z.enum(HOUSES).optional(),
  amp: z.enum(AMPS).optional(),
  outputs: z.number().int().min(0).max(1000).optional(),
  board: pair(z.number().positive().max(WIDEST_BOARD)).optional(),
  mostKg: z.number().positive().max(10_000).optional(),
  sockets: z.number().int().min(0).max(1000).optional(),
});
const engagement: z.ZodType<Engagement> = z.strictObject({
  kind: z.literal('engagement'),
  id: id('engagement'),
  name,
  hookup: id('hookup').optional(),
  limits: limits.optional(),
  banks: list(
    z.strictObject({
      device: id('device'),
      memory: word,
      from: z.number().int().min(0).max(1_000_000),
      to: z.number().int().min(0).max(1_000_000),
    }),
  ).optional(),
});
const setList: z.ZodType<SetList> = z.strictObject({
  kind: z.literal('setList'),
  id: id('setList'),
  name,
  at: z.number().optional(),
  songs: list(id('song')),
  engagement: id('engagement').optional(),
  reserve: list(id('sound')).optional(),
  before: list(z.strictObject({ song: id('song'), comes: z.enum(SET_MARKS) })).optional(),
});
const logEntry: z.ZodType<LogEntry> = z.strictObject({
  kind: z.literal('logEntry'),
  id: id('logEntry'),
  when: z.string().max(40),
  text: z.string().max(LONGEST.text),
  about: list(anyId),
  by: z.string().min(1).max(LONGEST.word).optional(),
  point: z
    .strictObject({
      due: z.string().regex(DAY).optional(),
      everyDays: z.number().int().positive().max(3650).optional(),
      done: z.strictObject({ by: z.string().max(LONGEST.word), when: z.string().max(40) }).optional(),
    })
    .optional(),
  broke: word.optional(),
});
const standingTest: z.ZodType<StandingTest> = z.strictObject({
  kind: z.literal('standingTest'),
  id: id('standingTest'),
  name,
  hookup: id('hookup'),
  steps: list(z.string().max(LONGEST.value)),
  expects: list(z.strictObject({ control: z.string().max(140), value: z.string().max(LONGEST.value) })),
});
const acceptance: z.ZodType<Acceptance> = z.strictObject({
  kind: z.literal('acceptance'),
  id: id('acceptance'),
  code: word,
  hookup: id('hookup'),
  evidence: z.string().max(2000),
  reason: z.string().min(1).max(LONGEST.reason),
});
const tick: z.ZodType<Tick> = z.strictObject({
  kind: z.literal('tick'),
  id: id('tick'),
  device: id('device'),
  memory: word,
  number: z.number().int().min(0).max(1_000_000),
  of: z.number().int().min(0).max(1_000_000).optional(),
  lines: z.record(
    z.string().max(LONGEST.line),
    z.strictObject({
      by: z.string().max(LONGEST.name),
      revision: z.number().int().min(0),
      when: z.string().max(40),
      is: z.string().max(LONGEST.line).optional(),
    }),
  ),
});
const stands = z.record(z.string().min(1).max(LONGEST.word), z.string().min(1).max(LONGEST.word));
const dialCard: z.ZodType<DialCard> = z.strictObject({
  kind: z.literal('dialCard'),
  id: id('dialCard'),
  device: id('device').optional(),
  in: z
    .strictObject({
      hookup: id('hookup').optional(),
      instrument: id('device').optional(),
      song: id('song').optional(),
      sound: id('sound').optional(),
    })
    .optional(),
  readings: z.record(z.string().regex(DAY), stands),
});
const thing: z.ZodType<Packed> = z.strictObject({
  device: id('device').optional(),
  board: word.optional(),
  many: z.number().int().positive().max(9999).optional(),
  kg: z.number().nonnegative().max(500).optional(),
  in: word.optional(),
  whose: z.string().min(1).max(LONGEST.name).optional(),
  is: z.enum(PACKED_AS).optional(),
  asOf: z.string().regex(DAY).optional(),
  files: record(z.string().min(1).max(LONGEST.name)).optional(),
});
const packCase: z.ZodType<PackCase> = z.strictObject({
  kind: z.literal('packCase'),
  id: id('packCase'),
  name,
  mm: z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]).optional(),
  kg: z.number().nonnegative().max(500).optional(),
  mostKg: z.number().positive().max(500).optional(),
  travels: z.enum(TRAVELS).optional(),
  side: z.enum(STAGE_SIDES).optional(),
  owner: z.string().min(1).max(LONGEST.name).optional(),
  colour: z.string().min(1).max(LONGEST.label).optional(),
  holds: z.record(z.string().min(1).max(LONGEST.name), thing),
});
const packedBy = z.record(
  z.string().min(1).max(LONGEST.name),
  z.strictObject({ by: z.string().max(LONGEST.word), when: z.string().max(40) }),
);
const packing: z.ZodType<Packing> = z.strictObject({
  kind: z.literal('packing'),
  id: id('packing'),
  on: z.string().regex(DAY),
  out: packedBy,
  back: packedBy,
});
const house: z.ZodType<House> = z.strictObject({
  kind: z.literal('house'),
  id: id('house'),
  name,
  sound: z.enum(HOUSES).optional(),
  sockets: z.number().int().nonnegative().max(100).optional(),
  lift: remark.optional(),
  eq: remark.optional(),
  room: remark.optional(),
  nights: z.record(z.string().regex(DAY), z.string().max(LONGEST.remark)),
});
const photo: z.ZodType<Photo> = z.strictObject({
  kind: z.literal('photo'),
  id: id('photo'),
  when: z.string().max(40),
  text: z.string().max(LONGEST.remark),
  by: z.string().min(1).max(LONGEST.word).optional(),
  about: list(anyId),
  px: pair(z.number().int().positive().max(WIDEST_PHOTO)),
  jpeg: z.string().max(HEAVIEST_PHOTO),
});
const about: z.ZodType<About> = z.strictObject({
  kind: z.literal('about'),
  id: id('about'),
  name,
  notes: z.string().max(LONGEST.text),
  stock: list(z.strictObject({ of: z.enum(STOCK_KINDS), m: z.number().positive().max(1000) })).optional(),
  boards: record(
    z.strictObject({
      mm: pair(z.number().positive().max(WIDEST_BOARD)),
      high: z.number().positive().max(WIDEST_BOARD).optional(),
      kg: z.number().nonnegative().max(500).optional(),
      on: z.strictObject({ board: word, x: z.number(), y: z.number(), z: z.number() }).optional(),
      slotted: z.literal(true).optional(),
      leave: z.enum(SIDES).optional(),
      enters: z.enum(['left', 'right']).optional(),
    }),
  ).optional(),
  origins: z
    .array(
      z.strictObject({
        rig: z.string().max(LONGEST.name),
        revision: z.number().int().min(0),
        print: z.string().max(40),
      }),
    )
    .max(MOST_ORIGINS)
    .optional(),
});

export const SHAPES = {
  about,
  device,
  program,
  hookup,
  cable,
  sound,
  move,
  song,
  engagement,
  setList,
  logEntry,
  standingTest,
  acceptance,
  tick,
  dialCard,
  packCase,
  packing,
  house,
  photo,
} satisfies Record<Kind, z.ZodType<Part>>;

import { z } from 'zod';
import type { Act, Message } from './act.js';
import { ID_TAIL, KINDS, type Id, type Kind, type Ref } from './ids.js';
import { isTakenName } from './keepable.js';
import { LONGEST, TEMPO } from './limits.js';
import type { Case, Fact, Value, When } from './value.js';

/**
 * The shape of every part as data from outside must have it. Each schema is typed by the interface that the product
 * uses,
 * so the two cannot drift apart without the type check saying so; the JSON Schema of the rig file is made from it.
 */
/** A schema of what is text or a plain object outside, and has a narrower type inside once it was read. */
const said = <T>(schema: z.ZodType): z.ZodType<T> => schema as z.ZodType<T>;

export const name = z.string().min(1).max(LONGEST.name);
export const word = z
  .string()
  .min(1)
  .max(LONGEST.word)
  .refine((w) => !isTakenName(w), { error: 'this name stands for something else already' });
export const id = <K extends Kind>(kind: K): z.ZodType<Id<K>> =>
  said<Id<K>>(z.string().regex(new RegExp(`^${kind}:${ID_TAIL.source.slice(1)}`)));
export const anyId = said<Id>(z.union(KINDS.map((kind) => id(kind))));
const refText = z.string().regex(/^device:[a-z0-9][a-z0-9-]{0,63}\..{1,64}$/);
export const refShape = said<Ref>(refText);
export const value: z.ZodType<Value> = z.union([z.string().max(LONGEST.value), z.number()]);
export const record = <T>(of: z.ZodType<T>) => z.record(z.string().max(130), of);
export const refRecord = <T>(of: z.ZodType<T>) => said<Readonly<Record<Ref, T>>>(z.record(refText, of));
export const pair = <T>(of: z.ZodType<T>) => z.tuple([of, of]);
export const list = <T>(of: z.ZodType<T>, most = 2000) => z.array(of).max(most);

export const fact: z.ZodType<Fact> = z.union([
  z.strictObject({ control: word, in: list(value) }),
  z.strictObject({ control: word, from: z.number(), to: z.number() }),
  z.strictObject({ jack: word, plugged: z.boolean() }),
]);
export const when: z.ZodType<When> = list(fact);
export const inCase: z.ZodType<Case> = z.strictObject({
  hookup: id('hookup').optional(),
  instrument: id('device').optional(),
  song: id('song').optional(),
});

export const channel = z.number().int().min(1).max(16);
export const byte = z.number().int().min(0).max(127);
export const message: z.ZodType<Message> = z.union([
  z.strictObject({ pc: byte, channel, bank: z.number().int().min(0).max(16_383).optional() }),
  z.strictObject({ cc: byte, value: byte, channel }),
  z.strictObject({ bpm: z.number().min(TEMPO.min).max(TEMPO.max) }),
]);
export const guarded = { when: when.optional() };
export const act: z.ZodType<Act> = z.union([
  z.strictObject({ ...guarded, control: word, set: value }),
  z.strictObject({ ...guarded, control: word, toggle: pair(value) }),
  z.strictObject({ ...guarded, control: word, step: list(value) }),
  z.strictObject({ ...guarded, control: word, map: list(z.tuple([z.number(), z.number(), value])) }),
  z.strictObject({ ...guarded, control: word, scale: pair(z.number()) }),
  z.strictObject({ ...guarded, control: word, take: z.literal('value') }),
  z.strictObject({
    ...guarded,
    load: word,
    slot: z.union([
      z.number().int().min(0),
      z.literal('value'),
      z.strictObject({ bank: word, banks: list(value), plus: z.number().int(), size: z.number().int() }),
    ]),
  }),
  z.strictObject({ ...guarded, send: message, at: word, afterMs: z.number().optional() }),
  z.strictObject({ ...guarded, pulse: word }),
  z.strictObject({ ...guarded, follow: word, gesture: z.enum(['press', 'release']) }),
]);

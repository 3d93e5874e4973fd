import { isOneOf } from '../known/keys.js';

/** Kinds of part in the order in which they may be put: a later kind may refer to an earlier one. */
export const KINDS = [
  'about',
  'device',
  'program',
  'hookup',
  'cable',
  'sound',
  'move',
  'song',
  'engagement',
  'setList',
  'logEntry',
  'standingTest',
  'acceptance',
  'tick',
  'dialCard',
  'packCase',
  'packing',
  'house',
  'photo',
] as const;

export type Kind = (typeof KINDS)[number];
export type Id<K extends string = Kind> = `${K}:${string}`;
export type AnyId = Id<Kind>;

/** `device.control` or `device.jack`, seen from the rig; the device's id comes first. */
export type Ref = `device:${string}.${string}`;

/** What stands behind the colon of an id. */
export const ID_TAIL = /^[a-z0-9][a-z0-9-]{0,63}$/;

export const kindOf = (id: AnyId): Kind => id.slice(0, id.indexOf(':')) as Kind;

/** What stands behind the colon of an id. @example tailOf('hookup:ballroom') // 'ballroom' */
export const tailOf = (id: AnyId): string => id.slice(id.indexOf(':') + 1);

export const isId = (text: string): text is AnyId => {
  const colon = text.indexOf(':');
  return colon > 0 && isOneOf(KINDS, text.slice(0, colon)) && ID_TAIL.test(text.slice(colon + 1));
};

/** Refs are looked up all the time: the very same text each time is found faster than an equal one. */
const refs = new Map<string, Map<string, Ref>>();
const parts = new Map<string, RefParts>();
const MOST_REFS = 200_000;

interface RefParts {
  readonly device: Id<'device'>;
  readonly name: string;
}

/** @example ref('device:dly', 'on') // 'device:dly.on' */
export const ref = (device: Id<'device'>, name: string): Ref => {
  let names = refs.get(device);
  if (!names) refs.set(device, (names = new Map()));
  let known = names.get(name);
  if (known === undefined) {
    known = `${device}.${name}`;
    names.set(name, known);
    splitRef(known);
  }
  return known;
};

/** @example splitRef('device:dly.on') // { device: 'device:dly', name: 'on' } */
export const splitRef = (r: string): RefParts => {
  let split = parts.get(r);
  if (!split) {
    if (parts.size > MOST_REFS) {
      parts.clear();
      refs.clear();
    }
    const dot = r.indexOf('.');
    parts.set(r, (split = { device: r.slice(0, dot) as Id<'device'>, name: r.slice(dot + 1) }));
  }
  return split;
};

const isRef = (text: string): text is Ref => text.startsWith('device:') && text.includes('.');

/**
 * A text that is known to name a control or jack of a box.
 * @throws when it does not
 */
export const theRef = (text: string | undefined): Ref => {
  if (text === undefined || !isRef(text)) throw new Error(`"${text}" is no control or jack, though it was known to be`);
  return text;
};

const isIdOf = <K extends Kind>(kind: K, text: string): text is Id<K> => text.startsWith(`${kind}:`);

/**
 * A text that is known to be the id of a kind of part.
 * @throws when it is not
 */
export const theId = <K extends Kind>(kind: K, text: string | undefined): Id<K> => {
  if (text === undefined || !isIdOf(kind, text)) throw new Error(`"${text}" is no ${kind}, though it was known to be`);
  return text;
};

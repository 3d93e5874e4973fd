import { cutTo, LONGEST } from '../rig/limits.js';
import { isId, type AnyId } from '../rig/ids.js';
import type { Part } from '../rig/rig.js';
import type { Delta } from './delta.js';
import type { Trouble } from './session.js';
import { hasFields } from '../known/keys.js';

/** The one text in a change at which it failed. */
export interface Mendable {
  readonly part: AnyId;
  /** Way to it inside the part. */
  readonly path: readonly string[];
  readonly text: string;
}

/** The way inside a part, without where the part stood in a request. */
const stepsOf = (where: string): readonly string[] => where.replace(/^put\[\d+\]\.?/, '').match(/[^.[\]]+/g) ?? [];

const at = (value: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((v, key) => (hasFields(v) ? v[key] : undefined), value);

/** The text that was refused, when the reason names one: typed otherwise, the change may be kept after all. */
export const mendable = ({ delta, refusals }: Pick<Trouble, 'delta' | 'refusals'>): Mendable | undefined => {
  for (const { part, where } of refusals) {
    if (!part || !where || !isId(part)) continue;
    const path = stepsOf(where);
    const text = at(delta.get(part)?.after, path);
    if (path.length && typeof text === 'string') return { part, path, text };
  }
  return undefined;
};

const replaced = (value: unknown, [key, ...rest]: readonly string[], text: string): unknown => {
  if (key === undefined) return text;
  if (Array.isArray(value))
    return value.map((one: unknown, i) => (String(i) === key ? replaced(one, rest, text) : one));
  return hasFields(value) ? { ...value, [key]: replaced(value[key], rest, text) } : value;
};

/** The change with that text typed otherwise. */
export const mended = (delta: Delta, { part, path }: Mendable, text: string): Delta =>
  new Map(
    [...delta].map(([id, change]) =>
      id === part && change.after
        ? [id, { ...change, after: replaced(change.after, path, text) as Part }]
        : [id, change],
    ),
  );

/**
 * What a change meant, as an entry of the rig's log, so that it can be done again by hand. Text that could not be kept
 * as it was is made whole.
 */
export const asNote = (id: `logEntry:${string}`, when: string, text: string): Part => ({
  kind: 'logEntry',
  id,
  when,
  text: cutTo(text.toWellFormed(), LONGEST.text),
  about: [],
});

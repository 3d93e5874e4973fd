/**
 * The keys of a record that has just the keys its type says: one that this program writes, never one that was read.
 * @example keysOf({ in: 1, out: 2 }) // ['in', 'out']
 */
export const keysOf = <K extends string>(record: Readonly<Partial<Record<K, unknown>>>): readonly K[] =>
  Object.keys(record) as K[];

/**
 * A record with an entry for each of some keys.
 * @example recordOf(['in', 'out'], (key) => key.length) // { in: 2, out: 3 }
 */
export const recordOf = <K extends string, V>(keys: readonly K[], of: (key: K) => V): Record<K, V> =>
  Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<K, V>;

/** Whether a text is one of a few that are known. */
export const isOneOf = <T extends string>(all: readonly T[], text: unknown): text is T =>
  all.some((one) => one === text);

/**
 * A text that is known to be one of a few, such as what was chosen from a list.
 * @throws when it is none of them
 */
export const theOneOf = <T extends string>(all: readonly T[], text: unknown): T => {
  if (!isOneOf(all, text)) throw new Error(`"${String(text)}" is none of ${all.join(', ')}`);
  return text;
};

/** Whether something that was read is an object with named fields, not a list. */
export const isRecord = (data: unknown): data is Readonly<Record<string, unknown>> =>
  typeof data === 'object' && data !== null && !Array.isArray(data);

/** Whether something that was read has fields that can be asked for. */
export const hasFields = (data: unknown): data is Readonly<Record<PropertyKey, unknown>> =>
  typeof data === 'object' && data !== null;

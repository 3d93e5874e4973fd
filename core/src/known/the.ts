/** A list with at least one item. */
export type Some<T> = readonly [T, ...T[]];

/** Something that the program itself makes sure of is not so: a fault of the program, never of a rig. */
const missing = (what: string): Error => new Error(`${what} is not there, though it was known to be`);

/**
 * The value under a key that is known to have one.
 * @throws when it has none
 */
export const theEntry = <K, V>(map: { get(key: K): V | undefined }, key: K): V => {
  const found = map.get(key);
  if (found === undefined) throw missing(`What belongs to ${String(key)}`);
  return found;
};

/**
 * The item at a place that is known to be one of a list, counted from 0.
 * @throws when the list is shorter
 */
export const theItem = <T>(items: ArrayLike<T>, place: number): T => {
  const found = items[place];
  if (found === undefined) throw missing(`Item ${place} of ${items.length}`);
  return found;
};

/**
 * The first item of a list that is known not to be empty.
 * @throws when it is empty
 */
export const theFirst = <T>(items: readonly T[]): T => theItem(items, 0);

/**
 * The first item of a kind that is known to be there.
 * @throws when there is none
 */
export const theOne = <T>(items: readonly T[], isIt: (item: T) => boolean): T => {
  const found = items.find(isIt);
  if (found === undefined) throw missing(`The one of ${items.length}`);
  return found;
};

/**
 * A value that is known to be there.
 * @throws when it is not
 */
export const surely = <T>(value: T | null | undefined): T => {
  if (value === null || value === undefined) throw missing('A value');
  return value;
};

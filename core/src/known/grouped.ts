import type { Some } from './the.js';

/** Things grouped by a key, in the order in which the keys first appear. */
export const grouped = <T, K extends string>(things: Iterable<T>, key: (thing: T) => K): ReadonlyMap<K, Some<T>> => {
  const groups = new Map<K, [T, ...T[]]>();
  for (const thing of things) {
    const k = key(thing);
    const group = groups.get(k);
    if (group) group.push(thing);
    else groups.set(k, [thing]);
  }
  return groups;
};

interface Known<K, T> {
  get(key: K): T | undefined;
  set(key: K, found: T): unknown;
}

/** What is known under a key; made and kept when it is not known yet. */
export const keptIn = <K, T>(known: Known<K, T>, key: K, make: () => T): T => {
  let found = known.get(key);
  if (found === undefined) known.set(key, found = make());
  return found;
};

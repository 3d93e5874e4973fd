interface Known<K, T> {
  get(key: K): T | undefined;
  set(key: K, found: T): unknown;
}

/** What is known under a key; made and kept when it is not known yet. */
export const keptIn = <K, T>(known: Known<K, T>, key: K, make: () => T): T => {
  let found = known.get(key);
  if (found === undefined) known.set(key, (found = make()));
  return found;
};

/**
 * Works something out once for each thing it is worked out from: an edit leaves most sounds as they were.
 * @param work what else it is given must be the same whenever the first is; a sound is compiled anew when the ground
 * it stands on changes
 */
export const once = <K extends object, A extends readonly unknown[], T>(
  work: (of: K, ...along: A) => T,
): ((of: K, ...along: A) => T) => {
  const known = new WeakMap<K, { readonly result: T }>();
  return (of, ...along) => {
    const before = known.get(of);
    if (before) return before.result;
    const result = work(of, ...along);
    known.set(of, { result });
    return result;
  };
};

/** Made when it is asked for, and once. */
export const lazily = <T>(make: () => T): (() => T) => {
  let made: T | undefined;
  return () => (made ??= make());
};

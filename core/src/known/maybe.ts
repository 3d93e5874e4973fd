/**
 * The same with a field that may be absent: no value takes it away.
 * @example withMaybe({ id: 'a', on: 1 }, 'on', undefined) // { id: 'a' }
 */
export const withMaybe = <T extends object, K extends keyof T>(of: T, key: K, value: T[K] | undefined): T => {
  const { [key]: _old, ...rest } = of;
  return (value === undefined ? rest : { ...of, [key]: value }) as T;
};

/**
 * The first of many things as a text, and how many more there are: a list that a person reads never runs on.
 * @example someOf(['a', 'b', 'c', 'd'], 2) // 'a, b and 2 more'
 */
export const someOf = (things: readonly string[], most: number, between = ', '): string =>
  things.length > most
    ? `${things.slice(0, most).join(between)} and ${things.length - most} more`
    : things.join(between);

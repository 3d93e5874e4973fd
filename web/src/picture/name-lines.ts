export const short = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

/**
 * A name in at most two lines under a tag, broken between words.
 * @param most letters in a line
 * @example nameLines('Two-channel valve head', 13) // ['Two-channel', 'valve head']
 */
export const nameLines = (name: string, most: number): readonly [string, string?] => {
  if (name.length <= most) return [name];
  const space = name.lastIndexOf(' ', most);
  return space > 2 ? [name.slice(0, space), short(name.slice(space + 1), most)] : [short(name, most)];
};

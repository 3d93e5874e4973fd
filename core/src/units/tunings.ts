/** Six strings from the lowest up, in semitones above the C below them. */
export type Strings = readonly number[];

const NOTES: Readonly<Record<string, number>> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 };
const SEMITONES = 12;

const STANDARD: Strings = [4, 9, 14, 19, 23, 28];
const lowered = (by: number): Strings => STANDARD.map((s) => s - by);
const dropped = (by: number): Strings => lowered(by).map((s, i) => (i === 0 ? s - 2 : s));

/** Tunings by the names that are in use (common practice). */
const NAMED: Readonly<Record<string, Strings>> = {
  standard: STANDARD,
  'drop d': dropped(0),
  'drop db': dropped(1),
  'drop c': dropped(2),
  'half step down': lowered(1),
  eb: lowered(1),
  'whole step down': lowered(2),
  dadgad: [2, 9, 14, 19, 21, 26],
  'open g': [2, 7, 14, 19, 23, 26],
  'open d': [2, 9, 14, 18, 21, 26],
  'open e': [4, 11, 16, 20, 23, 28],
};

/** A tuning by its name; undefined for one whose strings nobody knows here. @example stringsOf('Drop D')?.[0] // 2 */
export const stringsOf = (tuning: string): Strings | undefined => {
  const name = tuning.trim().toLowerCase().replaceAll('♭', 'b').replaceAll(/\s+/g, ' ');
  return Object.hasOwn(NAMED, name) ? NAMED[name] : lettered(name);
};

/** Strings by their letters, each the note nearest to the string of the standard tuning. @example lettered('dadgbe') */
const lettered = (name: string): Strings | undefined => {
  const letters = name.match(/[a-g](?:#|b(?![a-g]))?/g);
  if (letters?.length !== STANDARD.length || letters.join('') !== name.replaceAll(' ', '')) return undefined;
  return letters.map((letter, i) => {
    const note = (NOTES[letter.charAt(0)] ?? 0) + (letter.endsWith('#') ? 1 : letter.length > 1 ? -1 : 0);
    const usual = STANDARD[i] ?? 0;
    return usual + ((((note - usual + SEMITONES / 2) % SEMITONES) + SEMITONES) % SEMITONES) - SEMITONES / 2;
  });
};

/** How many strings are turned from one tuning to another; undefined where one of the two is not known. */
export const stringsTurned = (from: string, to: string): number | undefined => {
  const [a, b] = [stringsOf(from), stringsOf(to)];
  return a && b && a.filter((string, i) => string !== b[i]).length;
};

import distance from 'damerau-levenshtein';

/** Shorter words are too near to one another: of them only letters that changed places are put right. */
const SHORTEST = 5;
const LONG = 8;
const SWAPPED = 4;

/** Without letters that stand several times in a row. */
const unrepeated = (word: string): string => word.replaceAll(/(.)\1+/g, '$1');
const sorted = (word: string): string => [...word].sort().join('');

/**
 * A word as it was meant, when it was mistyped: those words of a vocabulary that differ least, by one letter, by two in
 * long words, by letters that were held too long. The first letter is taken to be right.
 * @returns none when none is near enough; several when they are equally near
 */
export const meant = (word: string, vocabulary: Iterable<string>): readonly string[] => {
  if (word.length < SWAPPED || /\d/.test(word)) return [];
  const most = word.length >= LONG ? 2 : 1;
  let nearest: string[] = [];
  let steps = most;
  for (const known of vocabulary) {
    if (known[0] !== word[0] || Math.abs(known.length - word.length) > most || known.length < 3) continue;
    const isShort = Math.min(word.length, known.length) < SHORTEST;
    const isHeld = unrepeated(known) === unrepeated(word);
    if (isShort && !isHeld && sorted(word) !== sorted(known)) continue;
    const found = isHeld ? 0 : distance(word, known).steps;
    if (found > steps) continue;
    nearest = found < steps ? [known] : [...nearest, known];
    steps = found;
  }
  return nearest;
};

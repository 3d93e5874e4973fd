import distance from 'damerau-levenshtein';

/** Shorter words are too near to one another: of them only letters that changed places are put right. */
const SHORTEST = 5;
const LONG = 8;
const SWAPPED = 4;

/**
 * A word as it was meant, when it was mistyped: the one word of a vocabulary that differs least, by one letter, by two
 * in long words. The first letter is taken to be right.
 * @returns undefined when none is near enough, or two are equally near
 */
export const meant = (word: string, vocabulary: Iterable<string>): string | undefined => {
  if (word.length < SWAPPED || /\d/.test(word)) return undefined;
  const most = word.length >= LONG ? 2 : 1;
  let best: string | undefined;
  let steps = most + 1;
  let isAlone = true;
  for (const known of vocabulary) {
    if (known[0] !== word[0] || Math.abs(known.length - word.length) > most || known.length < SWAPPED) continue;
    const found = distance(word, known).steps;
    const isSwap = [...word].sort().join('') === [...known].sort().join('');
    if (found > Math.min(steps, most)) continue;
    if (Math.min(word.length, known.length) < SHORTEST && !isSwap) continue;
    isAlone = found < steps;
    if (isAlone) [best, steps] = [known, found];
  }
  return isAlone ? best : undefined;
};

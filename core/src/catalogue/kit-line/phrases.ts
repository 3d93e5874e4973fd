import { CATALOGUE } from '../boxes.js';
import { FAMILIES, STACKS } from './families.js';
import type { Family } from './family.js';
import { isWord, tokensOf } from './words-of.js';
import {
  ASIDE,
  DOINGS,
  DOUBTS,
  EACH,
  FILLERS,
  listOf,
  MISSING,
  ONWARD,
  PURPOSES,
  QUALITIES,
  UNITS,
  COUNTS,
  DENIALS,
  JOINTS,
} from './words.js';

/** What a phrase can mean in a kit line. */
export type Meaning =
  | { readonly is: 'kind'; readonly family: Family; readonly key?: string }
  | { readonly is: 'stack'; readonly of: readonly string[] }
  | { readonly is: 'quality'; readonly quality: string }
  | { readonly is: 'missing' | 'aside' | 'doubt' | 'each' | 'onward' | 'filler' };

const familyOf = new Map<string, Family>();
for (const family of [...FAMILIES].reverse()) for (const [key] of family.boxes) familyOf.set(key, family);

const raw = new Set<string>();
const meanings = new Map<string, Meaning[]>();
/** Phrases are kept the way that what is said is read, so both are met alike. */
const plainOf = (phrase: string): string =>
  tokensOf(phrase, (word) => raw.has(word))
    .filter(isWord)
    .map((w) => w.plain)
    .join(' ');

const everyPhrase = [
  ...FAMILIES.flatMap((f) => listOf(f.says)),
  ...CATALOGUE.flatMap((g) => g.says),
  ...Object.values(QUALITIES).flatMap(listOf),
  ...Object.keys(QUALITIES),
  ...Object.keys(STACKS),
  ...MISSING,
  ...ASIDE,
  ...DOUBTS,
  ...EACH,
  ...ONWARD,
  ...FILLERS,
  ...PURPOSES,
  ...DOINGS,
  ...Object.keys(UNITS),
  ...Object.keys(COUNTS),
  ...DENIALS,
  ...JOINTS,
];
for (const phrase of everyPhrase)
  for (const token of tokensOf(phrase, () => true))
    if (isWord(token)) for (const w of token.plain.split(' ')) raw.add(w);

// A plural whose singular is known is read as that.
for (const word of [...raw]) if (word.length > 3 && word.endsWith('s') && raw.has(word.slice(0, -1))) raw.delete(word);

const note = (phrase: string, meaning: Meaning): void => {
  const plain = plainOf(phrase);
  const known = meanings.get(plain) ?? [];
  if (!known.some((m) => m.is === meaning.is)) meanings.set(plain, [...known, meaning]);
};
for (const family of FAMILIES) for (const says of listOf(family.says)) note(says, { is: 'kind', family });
for (const { key, says } of CATALOGUE) {
  const family = familyOf.get(key) ?? { says: '', boxes: [[key]] };
  for (const phrase of says) note(phrase, { is: 'kind', family, key });
}
for (const [phrase, of] of Object.entries(STACKS)) note(phrase, { is: 'stack', of });
for (const [quality, says] of Object.entries(QUALITIES))
  for (const phrase of [quality, ...listOf(says)]) note(phrase, { is: 'quality', quality });
for (const phrase of MISSING) note(phrase, { is: 'missing' });
for (const phrase of EACH) note(phrase, { is: 'each' });
for (const phrase of DOUBTS) note(phrase, { is: 'doubt' });
for (const phrase of ONWARD) note(phrase, { is: 'onward' });
for (const phrase of ASIDE) note(phrase, { is: 'aside' });
for (const phrase of FILLERS) note(phrase, { is: 'filler' });

const LONGEST = Math.max(...[...meanings.keys()].map((phrase) => phrase.split(' ').length));

export const isKnownWord = (word: string): boolean => raw.has(word);
export const knownWords = (): Iterable<string> => raw;

/** The longest phrase that begins at a word, with what it can mean. */
export const phraseAt = (
  words: readonly string[],
  at: number,
): { readonly length: number; readonly means: readonly Meaning[] } | undefined => {
  for (let length = Math.min(LONGEST, words.length - at); length > 0; length -= 1) {
    const means = meanings.get(words.slice(at, at + length).join(' '));
    if (means) return { length, means };
  }
  return undefined;
};

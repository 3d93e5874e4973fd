import { NUMBERS, SHORT, UNITS } from './words.js';

/** A word of what was said: as it is understood, and where it stands. */
export interface Word {
  readonly plain: string;
  readonly from: number;
  readonly to: number;
}

/** Marks between the words: what separates, what leads on. */
export interface Mark {
  readonly mark: string;
  readonly from: number;
  readonly to: number;
}

/** A stroke between two words without a space: one thing, or one of two. */
export const SLASH = 'slash';

export type Token = Word | Mark;
export const isWord = (token: Token): token is Word => 'plain' in token;

const SIZE = String.raw`\d+\s?[x×]\s?(?:8|10|12|15|18)(?:["”]|s\b|\b)(?!\s?[x×]|[\s-]*(?:loop|output|out|channel|way|button|string|ch)\b)`;
const TIMES = String.raw`[x×]\s?\d+\b|\b\d+\s?[x×](?=\s|$)`;
const AMOUNT = String.raw`\d+(?:[.,]\d+)?\s?(?:v(?:dc|ac)?|ma|kg|w|u|k|ohms?|watts?|volts?|Ω|mm|cm|m|hz|khz|db|lb|g)\b`;
const JOINED = String.raw`a\s?\/\s?b(?:\s?\/\s?[yc])?\b|w\/o\b|w\/|f\/x\b|fx\b`;
const LETTERS = String.raw`[\p{L}\p{N}]+(?:['’]\p{L}+)?`;
const BREAK = String.raw`\r?\n|;|,|\||\t|->|=>|→|⟶|>|\+|&|\.{2,}|…|[.:!?](?=\s|$)|[()[\]]|\s[-–—]\s|\s\/\s?|\/|#|@`;
const TOKENS = new RegExp(
  `(?<size>${SIZE})|(?<times>${TIMES})|(?<amount>${AMOUNT})|(?<joined>${JOINED})|(?<mark>${BREAK})|${LETTERS}`,
  'giu',
);

const JOINT_WORDS: Readonly<Record<string, string>> = { 'w/': 'with', 'w/o': 'without', 'f/x': 'effect', fx: 'effect' };

const joinedWord = (text: string): string => {
  const low = text.toLowerCase().replaceAll(/\s/g, '');
  return JOINT_WORDS[low] ?? low.replaceAll('/', '');
};

/** A single word as the phrases of the kit line have it; its plural is taken off when only the singular is known. */
const plainWord = (text: string, isKnown: (word: string) => boolean): string => {
  const low = text.toLowerCase().replaceAll('’', "'").replace(/'s$/, '');
  const short = SHORT[low];
  if (short !== undefined) return short;
  if (isKnown(low) || /\d/.test(low)) return low;
  for (const single of [low.replace(/ies$/, 'y'), low.replace(/es$/, ''), low.replace(/s$/, '')])
    if (single !== low && single.length > 1) {
      const known = SHORT[single] ?? single;
      if (isKnown(known)) return known;
    }
  return low;
};

/**
 * What was said, word by word, with the marks between. Sizes such as 2x12 and counts such as x2 are words of their own.
 * A word that counts something inside a box is a digit: eight loops → 8 loop.
 */
export const tokensOf = (text: string, isKnown: (word: string) => boolean): readonly Token[] => {
  const tokens: Token[] = [];
  const quoted = [...text.matchAll(/"[^"\n]*"/g)].map((q) => [q.index, q.index + q[0].length] as const);
  for (const found of text.matchAll(TOKENS)) {
    const [said] = found;
    const [from, to] = [found.index, found.index + said.length];
    const { size, times, amount, joined, mark } = found.groups ?? {};
    // A comma within quotation marks parts a name from its quality, not two boxes.
    const isQuoted = mark === ',' && quoted.some(([begin, end]) => from > begin && to < end);
    // A dot that ends a short form, such as "2 no. heads" or "ch. 3", is no end of a sentence.
    if (mark === '.' && /\b(?:no|ch|vol|chan)$/i.test(text.slice(0, from))) continue;
    if (isQuoted) tokens.push({ plain: 'with', from, to });
    else if (mark !== undefined)
      tokens.push({ mark: mark === '/' ? SLASH : mark.trim() === '' ? mark : mark.trim(), from, to });
    else if (size !== undefined)
      tokens.push({
        plain: size
          .toLowerCase()
          .replaceAll(/[\s"”s]/g, '')
          .replace('×', 'x'),
        from,
        to,
      });
    else if (times !== undefined) tokens.push({ plain: `x${/\d+/.exec(times)?.[0] ?? '1'}`, from, to });
    else if (amount !== undefined) tokens.push({ plain: amount.toLowerCase().replaceAll(/\s/g, ''), from, to });
    else if (joined !== undefined) tokens.push({ plain: joinedWord(joined), from, to });
    else for (const plain of plainWord(said, isKnown).split(' ')) tokens.push({ plain, from, to });
  }
  return tokens.map((token, i) => {
    const next = tokens[i + 1];
    if (!isWord(token) || !next || !isWord(next)) return token;
    const number = NUMBERS[token.plain];
    return number !== undefined && Object.hasOwn(UNITS, next.plain) ? { ...token, plain: String(number) } : token;
  });
};

import type { Family } from './family.js';
import { knownWords, phraseAt, isKnownWord, type Meaning } from './phrases.js';
import { meant } from './spelling.js';
import { isWord, SLASH, tokensOf, type Token, type Word } from './words-of.js';
import { COUNTS, DENIALS, DOINGS, PURPOSES, UNITS } from './words.js';

export interface Place {
  readonly from: number;
  readonly to: number;
}

/** What a stretch of the text says, before it is known what belongs together. */
type Said =
  | {
      readonly is: 'kind';
      readonly family: Family;
      readonly key?: string;
      /** The same word as a quality of another box. */
      readonly qualities: readonly string[];
      readonly phrase: string;
    }
  | { readonly is: 'stack'; readonly of: readonly string[] }
  | { readonly is: 'quality'; readonly qualities: readonly string[] }
  | { readonly is: 'size'; readonly size: string }
  | { readonly is: 'count'; readonly count: number; readonly sure: boolean }
  | { readonly is: 'channels'; readonly channels: readonly number[]; readonly midi: boolean }
  | { readonly is: 'break'; readonly mark: string }
  /** `besides`: a box that was only said as what another is for. */
  | { readonly is: 'missing' | 'aside' | 'doubt' | 'each' | 'no' | 'instead' | 'purpose' | 'besides' | 'filler' }
  | { readonly is: 'place'; readonly word: 'after' | 'before' | 'first' | 'last' }
  | { readonly is: 'unknown'; readonly word: string };
export type Item = Place & Said;

const MOST_CHANNEL = 16;
const numberOf = (word: string | undefined): number | undefined =>
  word !== undefined && /^\d{1,3}$/.test(word) ? Number(word) : undefined;

/** A word that is not known: what it was meant for, one word or two that were run together; else as it stands. */
export const asMeant = (word: string): readonly string[] => {
  for (let cut = 3; cut <= word.length - 3; cut += 1)
    if (phraseAt([word.slice(0, cut), word.slice(cut)], 0)?.length === 2) return [word.slice(0, cut), word.slice(cut)];
  const near = meant(word, knownWords());
  const families = new Set(near.map((one) => phraseAt([one], 0)?.means.find((m) => m.is === 'kind')?.family));
  const [only] = near;
  return [only !== undefined && (near.length === 1 || (families.size === 1 && !families.has(undefined))) ? only : word];
};

const isOneName = (before: Token | undefined, after: Token | undefined): boolean =>
  before !== undefined &&
  after !== undefined &&
  isWord(before) &&
  isWord(after) &&
  phraseAt([before.plain, after.plain], 0)?.length === 2;

/** Reads the words of a text from left to right, longest phrase first. */
export class Reader {
  readonly items: Item[] = [];
  private at = 0;
  private readonly tokens: readonly Token[];

  constructor(text: string) {
    const read = tokensOf(text, isKnownWord).flatMap((token): readonly Token[] => {
      if (!isWord(token) || isKnownWord(token.plain)) return [token];
      return asMeant(token.plain).map((plain) => ({ ...token, plain }));
    });
    // "send/return" is one name.
    this.tokens = read.filter(
      (token, i) => isWord(token) || token.mark !== SLASH || !isOneName(read[i - 1], read[i + 1]),
    );
  }

  read(): readonly Item[] {
    while (this.at < this.tokens.length) this.step();
    return this.items;
  }

  private word(k: number): Word | undefined {
    const token = this.tokens[this.at + k];
    return token && isWord(token) ? token : undefined;
  }
  private plain(k: number): string | undefined {
    return this.word(k)?.plain;
  }

  private add(length: number, item: Said): void {
    const first = this.tokens[this.at];
    const last = this.tokens[this.at + length - 1];
    if (first && last) this.items.push({ ...item, from: first.from, to: last.to });
    this.at += length;
  }

  private step(): void {
    const token = this.tokens[this.at];
    if (!token) return;
    if (!isWord(token)) return this.mark(token.mark);
    const words: string[] = [];
    for (let plain = this.plain(0); plain !== undefined; plain = this.plain(words.length)) words.push(plain);
    const found = phraseAt(words, 0);
    const take = (): void => {
      if (found) this.phrase(found.length, found.means, words.slice(0, found.length).join(' '));
    };
    // A name that begins with a number is one: "8 loop switcher".
    if (found && found.length > 2 && found.means.some((m) => m.is === 'kind')) return take();
    if (this.channels() || this.number() || this.turn()) return;
    if (found) return take();
    this.add(1, { is: 'unknown', word: token.plain });
  }

  private mark(mark: string): void {
    const number = numberOf(this.plain(1));
    if ((mark === '#' || mark === '@') && number !== undefined && number >= 1 && number <= MOST_CHANNEL)
      return this.add(2, { is: 'channels', channels: [number], midi: false });
    if (mark === '#' || mark === '@') return this.add(1, { is: 'filler' });
    this.add(1, { is: 'break', mark });
  }

  /** `ch 3`, `midi channel 3 and 4`, `midi 3`; a number before "ch" counts channels. */
  private channels(): boolean {
    let k = 0;
    const skip = new Set(['midi', 'rx', 'receive', 'receives', 'on', 'receiving']);
    while (skip.has(this.plain(k) ?? '')) k += 1;
    const glued = /^(?:ch|chan|channel)(\d{1,2})$/.exec(this.plain(k) ?? '');
    const isMidi = this.plain(k - 1) === 'midi';
    if (this.plain(k) === 'channel') k += 1;
    else if (!isMidi && !glued) return false;
    const numbers: number[] = [];
    for (;;) {
      const number = glued && numbers.length === 0 ? Number(glued[1]) : numberOf(this.plain(k));
      if (number === undefined || number < 1 || (!glued && Object.hasOwn(UNITS, this.plain(k + 1) ?? ''))) break;
      if (this.plain(k + 1) !== undefined && Object.hasOwn(UNITS, this.plain(k + 1) ?? '') && numbers.length > 0) break;
      numbers.push(number);
      k += 1;
      const joint = this.tokens[this.at + k];
      const isJoined =
        joint &&
        (isWord(joint) ? joint.plain === 'and' || joint.plain === 'or' : ['&', '/', '+', ','].includes(joint.mark));
      if (
        !isJoined ||
        numberOf(this.plain(k + 1)) === undefined ||
        (this.tokens[this.at + k + 2] !== undefined && isWordAfter(this.tokens[this.at + k + 2], this.plain(k + 1)))
      )
        break;
      k += 1;
    }
    if (numbers.length === 0) return false;
    this.add(k, { is: 'channels', channels: numbers, midi: isMidi });
    return true;
  }

  /** `8 loop`, `2x12`, `x2`, `two`, `a pair of`, `qty 3`, `4 off`. */
  private number(): boolean {
    const plain = this.plain(0) ?? '';
    if (/^\d+x\d+$/.test(plain)) {
      this.add(1, { is: 'size', size: `${plain} speaker` });
      return true;
    }
    const times = /^x(\d+)$/.exec(plain);
    if (times) {
      this.add(1, { is: 'count', count: Number(times[1]), sure: true });
      return true;
    }
    const number = numberOf(plain);
    const next = this.plain(1) ?? '';
    const isKind = next === 'amp' && this.plain(2) === undefined;
    if (number !== undefined && Object.hasOwn(UNITS, next) && !isKind) {
      this.add(2, { is: 'quality', qualities: [`${number} ${UNITS[next] ?? ''}`] });
      return true;
    }
    const count = number ?? (Object.hasOwn(COUNTS, plain) ? COUNTS[plain] : undefined);
    if (count === undefined) {
      if (!/^\d/.test(plain)) return false;
      this.add(1, { is: 'filler' });
      return true;
    }
    const words = [plain, next, this.plain(2) ?? ''];
    const isNoun = number === undefined && phraseAt(words, 0) !== undefined && (phraseAt(words, 0)?.length ?? 0) > 1;
    if (isNoun || (plain === 'one' && next === 'of')) return false;
    const more = ['of', 'off', 'no', 'pcs', 'pc', 'times'].includes(next) ? 2 : 1;
    this.add(more, { is: 'count', count, sure: more === 2 || number === undefined });
    return true;
  }

  /** Words that turn what follows: joints, negations, what a thing is for. */
  private turn(): boolean {
    const [plain, next] = [this.plain(0) ?? '', this.plain(1) ?? ''];
    if (plain === 'instead' && next === 'of') return this.put(2, { is: 'instead' });
    if (plain === 'rather' && next === 'than') return this.put(2, { is: 'instead' });
    if (plain === 'in' && ['that', 'this', 'signal', 'chain'].includes(next) && this.plain(2) === 'order')
      return this.put(3, { is: 'break', mark: 'in order' });
    if (plain === 'in' && next === 'order') return this.put(2, { is: 'break', mark: 'in order' });
    if (DENIALS.has(plain)) return this.put(1, { is: 'no' });
    const phrase = phraseAt([plain, next, this.plain(2) ?? '', this.plain(3) ?? ''], 0);
    const named = plain === 'with' ? phraseAt([next, this.plain(2) ?? '', this.plain(3) ?? ''], 0) : undefined;
    // "With MIDI" is a quality, "with MIDI foot controller" names another box.
    const isCut = named !== undefined && named.length > 1 && named.means.some((m) => m.is === 'kind');
    if (isCut) return this.put(1, { is: 'break', mark: 'with' });
    if (phrase && phrase.means.some((m) => m.is !== 'onward' && m.is !== 'filler') && phrase.length > 1) return false;
    if (plain === 'to' && DOINGS.has(next)) return this.put(2, { is: 'purpose' });
    if (plain === 'qty' || plain === 'quantity') return this.put(1, { is: 'filler' });
    if (PURPOSES.has(plain)) return this.put(1, { is: 'purpose' });
    if (plain === 'and' || plain === 'plus') return this.put(1, { is: 'break', mark: 'and' });
    if (plain === 'or') return this.put(1, { is: 'break', mark: 'or' });
    if (plain === 'with' || plain === 'incl' || plain === 'including' || plain === 'but')
      return this.put(1, { is: 'break', mark: 'with' });
    if ((plain === 'after' || plain === 'before') && this.items.length)
      this.items.push({ is: 'break', mark: 'and', from: this.word(0)?.from ?? 0, to: this.word(0)?.from ?? 0 });
    if (plain === 'after' || plain === 'before' || plain === 'first' || plain === 'last')
      return this.put(1, { is: 'place', word: plain });
    return false;
  }

  private put(length: number, item: Said): true {
    this.add(length, item);
    return true;
  }

  private phrase(length: number, means: readonly Meaning[], phrase: string): void {
    const quality = means.flatMap((m) => (m.is === 'quality' ? [m.quality] : []));
    const missing = means.find((m) => m.is === 'missing');
    if (missing) return this.add(length, { is: 'missing' });
    const kind = means.find((m) => m.is === 'kind');
    if (kind)
      return this.add(length, {
        is: 'kind',
        family: kind.family,
        ...(kind.key ? { key: kind.key } : {}),
        qualities: quality,
        phrase,
      });
    const stack = means.find((m) => m.is === 'stack');
    if (stack) return this.add(length, { is: 'stack', of: stack.of });
    if (quality.length) return this.add(length, { is: 'quality', qualities: quality });
    if (means.some((m) => m.is === 'onward')) return this.add(length, { is: 'break', mark: '>' });
    if (means.some((m) => m.is === 'each')) return this.add(length, { is: 'each' });
    if (means.some((m) => m.is === 'doubt')) return this.add(length, { is: 'doubt' });
    if (means.some((m) => m.is === 'aside')) return this.add(length, { is: 'aside' });
    this.add(length, { is: 'filler' });
  }
}

/** "ch 3 and 4 delays": the four counts delays, and is no channel. */
const isWordAfter = (token: Token | undefined, number: string | undefined): boolean =>
  token !== undefined && isWord(token) && number !== undefined && Object.hasOwn(UNITS, token.plain);

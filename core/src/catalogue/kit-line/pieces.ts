import { BESIDE, CELL, CHAIN, cut, isNaming, NEWLINE, SENTENCE, type Cut } from './cuts.js';
import type { Family } from './family.js';
import { Reader, type Item } from './items.js';
import { FEATURES, HEADINGS } from './words.js';
import { SLASH } from './words-of.js';

/** What was said of one thing, or of several that stand side by side. */
export interface Piece {
  readonly items: readonly Item[];
  /** What was said as one, before qualities from behind a comma were put to it. */
  readonly own: { readonly from: number; readonly to: number };
  readonly heading?: string;
  /** Stands before the one that was said before it: "looper, after the reverb". */
  readonly after: boolean;
  readonly at?: 'first' | 'last';
  /** Begins what is said, or a sentence of it. */
  readonly opens: boolean;
  /** What it was said to be with. */
  readonly beside?: Family;
  /** An arrow, or "into", leads to it. */
  readonly isLed: boolean;
}

/** Whether a piece behind "with" says a quality of what was said before it: a head with a boost. */
const isQualityOf = (piece: Cut, before: Cut): boolean => {
  const family = familiesIn(before).at(-1);
  const named = piece.items.filter((i) => i.is === 'kind' || i.is === 'size');
  if (!family || piece.items.some((i) => i.is === 'unknown' || i.is === 'missing' || i.is === 'stack')) return false;
  return named.every(
    (item) =>
      (item.is === 'size' && family.boxes.some(([key]) => /^cab-|combo/.test(key))) ||
      (item.is === 'kind' &&
        item.qualities.some(
          (q) => FEATURES.has(q) || family.boxes.some(([, has]) => (has ?? '').split('; ').includes(q)),
        )),
  );
};

const asQualities = (items: readonly Item[]): readonly Item[] =>
  items.map((i): Item => (i.is === 'kind' ? { is: 'quality', qualities: i.qualities, from: i.from, to: i.to } : i));

/** "An amp with four tone memories" is one amp: what is counted behind "with" is not the box. */
const uncounted = (items: readonly Item[]): readonly Item[] =>
  items.some((i) => i.is === 'quality') ? items.filter((i) => i.is !== 'count') : items;

/** What is said of a thing before the thing itself: "ch 2: stereo delay", a column of counts before that of names. */
const aheadOf = (piece: Cut, next: Cut | undefined): readonly Item[] => {
  const isCell = next !== undefined && CELL.has(next.mark) && next.line === piece.line;
  return piece.items.filter((item) => item.is === 'channels' || item.is === 'doubt' || (isCell && item.is === 'count'));
};

interface Growing extends Piece {
  readonly cut: Cut;
  /** It was said with "with": what is joined by "and" may say more of it. */
  readonly inWith: boolean;
}

/** Puts together what belongs to one thing, cut by cut. */
class Gathering {
  readonly pieces: Growing[] = [];
  /** Qualities that belong to nothing that was named. */
  readonly loose: Cut[] = [];
  isChain = false;
  private heading: { readonly text: string; readonly line: number } | undefined;
  /** What was said ahead of the thing that it belongs to. */
  private carried: readonly Item[] = [];

  constructor(
    private readonly text: string,
    private readonly cuts: readonly Cut[],
  ) {
    cuts.forEach((one, i) => this.take(one, cuts[i + 1]));
  }

  private take(one: Cut, next: Cut | undefined): void {
    if (CHAIN.has(one.mark)) this.isChain = true;
    if (this.heading && (one.line !== this.heading.line || one.mark === '.')) this.heading = undefined;
    if (this.isHeading(one, next)) return this.head(one);
    if (this.isTableHead(one)) return;
    if (one.items.some((item) => item.is === 'place')) this.isChain = true;
    if (one.items.every((item) => item.is === 'each' || item.is === 'filler')) {
      this.carried = [...this.carried, ...one.items.filter((item) => item.is === 'each')];
      return;
    }
    const before = this.pieces[this.pieces.length - 1];
    if (before && this.belongs(one, before)) return this.join(one, before);
    if (isNaming(one)) return this.begin(one, before);
    this.carried = [...this.carried, ...aheadOf(one, next)];
    if (this.carried.length === 0 && one.items.some((item) => item.is === 'quality')) this.loose.push(one);
  }

  /** "Rhythm: …", "ch 2: …", "Loop 1: …" */
  private isHeading(one: Cut, next: Cut | undefined): boolean {
    const opens = NEWLINE.test(one.mark) || SENTENCE.has(one.mark) || one.mark === ',';
    return opens && next?.mark === ':' && next.line === one.line && isNaming(next);
  }

  private head(one: Cut): void {
    this.carried = one.items.filter((item) => item.is === 'channels');
    const [first, last] = [one.items[0], one.items[one.items.length - 1]];
    const said = first && last ? this.text.slice(first.from, last.to).trim() : '';
    const saysNothing = this.carried.length > 0 || HEADINGS.has(said.toLowerCase()) || /\d/.test(said);
    this.heading = saysNothing ? undefined : { text: said, line: one.line };
  }

  private isTableHead(one: Cut): boolean {
    const row = this.cuts.filter((c) => c.line === one.line);
    const isTitle = (item: Item): boolean => HEADINGS.has(this.text.slice(item.from, item.to).toLowerCase());
    return row.length > 1 && this.cuts.some((c) => c.line > one.line) && row.every((c) => c.items.every(isTitle));
  }

  private belongs(one: Cut, before: Growing): boolean {
    if (before.cut.line !== one.line || SENTENCE.has(one.mark)) return false;
    if (isEither(one) || !isNaming(one)) return true;
    if (!isBeside(one, before) || this.isNext(one)) return false;
    return isQualityOf(one, before.cut) || isSameAgain(one, before.cut);
  }

  /**
   * Whether a thing behind a comma is the next on the list: "a preamp with cab sim, di". It goes on with what was
   * begun by "with" only where "and" comes after it: "a head with boost, reverb and a loop".
   */
  private isNext(one: Cut): boolean {
    if (one.mark !== ',') return false;
    if (one.items.some((item) => item.is === 'count')) return true;
    const later = this.cuts.slice(this.cuts.indexOf(one) + 1);
    const ends = later.findIndex((c) => c.line !== one.line || !(JOINED.has(c.mark) || BESIDE.has(c.mark)));
    return !later.slice(0, ends < 0 ? undefined : ends).some(({ mark }) => mark === 'and' || mark === '&');
  }

  private join(one: Cut, before: Growing): void {
    const place = placeOf(one);
    const more = isBeside(one, before) ? uncounted(asQualities(one.items)) : asQualities(one.items);
    before.cut.items.push(...more);
    this.pieces[this.pieces.length - 1] = {
      ...before,
      ...(place === 'first' || place === 'last' ? { at: place } : {}),
      items: [...before.items, ...behind(one), ...(isEither(one) ? one.items : more)],
      inWith: isBeside(one, before) || before.inWith,
    };
  }

  private begin(one: Cut, before: Growing | undefined): void {
    const [first, last] = [one.items[0], one.items[one.items.length - 1]];
    const place = placeOf(one);
    const beside = before && familiesIn(before.cut).at(-1);
    this.pieces.push({
      items: [
        ...this.carried,
        ...behind(one),
        ...(before && isBeside(one, before) ? eachOf(before) : []),
        ...one.items,
      ],
      own: { from: first?.from ?? 0, to: last?.to ?? 0 },
      ...(this.heading ? { heading: this.heading.text } : {}),
      after: place === 'after' && before?.cut.line === one.line,
      ...(place === 'first' || place === 'last' ? { at: place } : {}),
      opens: before === undefined || NEWLINE.test(one.mark) || SENTENCE.has(one.mark) || one.mark === ';',
      ...(isBeside(one, before) && beside ? { beside } : {}),
      isLed: CHAIN.has(one.mark),
      cut: one,
      inWith: BESIDE.has(one.mark) || one.items.some(saysWith),
    });
    this.carried = [];
  }
}

/** What was said, thing by thing, and whether the order of the signal was said with it. */
export const piecesOf = (text: string): { readonly pieces: readonly Piece[]; readonly isChain: boolean } => {
  const { pieces, loose, isChain } = new Gathering(text, cut(new Reader(text).read()));
  return { pieces: [...inOrder(pieces), ...loose.map(alone)], isChain };
};

/** One thing or another, or two in one. */
const isEither = ({ mark }: Cut): boolean => mark === 'or' || mark === SLASH;

const JOINED = new Set(['and', '&', '+', ',', SLASH]);
const isBeside = ({ mark }: Cut, before: Growing | undefined): boolean =>
  before !== undefined && (BESIDE.has(mark) || (JOINED.has(mark) && before.inWith));

const eachOf = ({ items }: Piece): readonly Item[] => items.filter((item) => item.is === 'each');
const familiesIn = ({ items }: Cut): readonly Family[] => items.flatMap((i) => (i.is === 'kind' ? [i.family] : []));

/** "A tablet with the song list": the same thing, said twice. */
const isSameAgain = (one: Cut, before: Cut): boolean => {
  const [family, ...more] = familiesIn(one);
  const isCounted = one.items.some((item) => item.is === 'count');
  return family !== undefined && more.length === 0 && !isCounted && familiesIn(before).at(-1) === family;
};

/** A name that says itself what the box comes with. */
const saysWith = (item: Item): boolean => item.is === 'kind' && item.phrase.includes(' with ');

const placeOf = ({ items }: Cut) => items.flatMap((item) => (item.is === 'place' ? [item.word] : []))[0];

/** Qualities that belong to nothing that was named. */
const alone = ({ items }: Cut): Piece => ({
  items,
  own: { from: items[0]?.from ?? 0, to: items[items.length - 1]?.to ?? 0 },
  after: false,
  opens: false,
  isLed: false,
});

/** "A or B" is a doubt of both. */
const behind = (piece: Cut): readonly Item[] => {
  const first = piece.items[0];
  return piece.mark === 'or' && first ? [{ is: 'doubt', from: first.from, to: first.from }] : [];
};

/** What is said to come first, last or before another stands there. */
const inOrder = (pieces: readonly Piece[]): readonly Piece[] => {
  const placed: Piece[] = [];
  for (const piece of pieces) {
    if (piece.after) placed.splice(placed.length - 1, 0, piece);
    else placed.push(piece);
  }
  return [
    ...placed.filter((p) => p.at === 'first'),
    ...placed.filter((p) => p.at === undefined),
    ...placed.filter((p) => p.at === 'last'),
  ];
};

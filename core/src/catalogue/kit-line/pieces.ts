import { Reader, type Item } from './items.js';
import { HEADINGS } from './words.js';

/** What was said of one thing, or of several that stand side by side. */
export interface Piece {
  readonly items: readonly Item[];
  /** What was said as one, before qualities from behind a comma were put to it. */
  readonly own: { readonly from: number; readonly to: number };
  readonly heading?: string;
  /** Stands before the one that was said before it: "looper, after the reverb". */
  readonly after: boolean;
  readonly at?: 'first' | 'last';
}

interface Open {
  items: Item[];
  line: number;
  mark: string;
}

const NEWLINE = /^\r?\n$/;
const SENTENCE = new Set(['.', '!', '?', ';']);
const CHAIN = new Set(['>', '->', '=>', '→', '⟶', 'in order']);
const VOICES = new Set(['bass', 'acoustic', 'vocal']);

/** Says what a thing is, by itself. */
const names = (item: Item): boolean => ['kind', 'size', 'stack', 'missing', 'aside', 'unknown'].includes(item.is);
const isNaming = (piece: Open): boolean => piece.items.some(names);

/** What a thing is for says at most whether it is for a bass, an acoustic guitar or a voice. */
const withoutPurpose = (items: readonly Item[]): Item[] => {
  const kept: Item[] = [];
  let skipping: 'purpose' | 'instead' | undefined;
  for (const item of items) {
    if (item.is === 'purpose' || item.is === 'instead') {
      if (kept.some(names)) skipping = item.is;
      continue;
    }
    if (!skipping) kept.push(item);
    else if (skipping === 'purpose' && (item.is === 'kind' || item.is === 'quality')) {
      const qualities = item.qualities.filter((q) => VOICES.has(q));
      if (qualities.length) kept.push({ is: 'quality', qualities, from: item.from, to: item.to });
    } else if (item.is === 'channels' || item.is === 'doubt') kept.push(item);
  }
  return kept;
};

/** Cuts what was said at its breaks. */
const cut = (items: readonly Item[]): readonly Open[] => {
  const found: Open[] = [{ items: [], line: 0, mark: '\n' }];
  let line = 0;
  for (const item of items) {
    const last = found[found.length - 1];
    if (item.is !== 'break') last?.items.push(item);
    else {
      if (NEWLINE.test(item.mark)) line += 1;
      const isHeading = item.mark === ':';
      if (last && last.items.length === 0 && !isHeading && !(NEWLINE.test(last.mark) || SENTENCE.has(last.mark))) {
        // Of two breaks in a row the stronger counts.
        if (NEWLINE.test(item.mark) || SENTENCE.has(item.mark) || CHAIN.has(item.mark))
          Object.assign(last, { mark: item.mark, line });
        continue;
      }
      found.push({ items: [], line, mark: item.mark });
    }
  }
  return found
    .map((piece) => ({ ...piece, items: withoutPurpose(piece.items) }))
    .filter((p) => p.items.length > 0 || p.mark === ':');
};

const textOf = (text: string, items: readonly Item[]): string => {
  const [first, last] = [items[0], items[items.length - 1]];
  return first && last ? text.slice(first.from, last.to).trim() : '';
};

/** Whether a piece behind "with" says a quality of what was said before it: a head with a boost. */
const isQualityOf = (piece: Open, before: Open): boolean => {
  const kinds = before.items.flatMap((i) => (i.is === 'kind' ? [i.family] : []));
  const family = kinds[kinds.length - 1];
  const named = piece.items.filter((i) => i.is === 'kind' || i.is === 'size');
  if (!family || piece.items.some((i) => i.is === 'unknown' || i.is === 'missing' || i.is === 'stack')) return false;
  return named.every(
    (item) =>
      item.is === 'kind' &&
      item.qualities.some((q) => family.boxes.some(([, has]) => (has ?? '').split('; ').includes(q))),
  );
};

const asQualities = (items: readonly Item[]): readonly Item[] =>
  items.map((i): Item => (i.is === 'kind' ? { is: 'quality', qualities: i.qualities, from: i.from, to: i.to } : i));

/** What was said, thing by thing, and whether the order of the signal was said with it. */
export const piecesOf = (text: string): { readonly pieces: readonly Piece[]; readonly isChain: boolean } => {
  const cuts = cut(new Reader(text).read());
  const pieces: (Piece & { readonly open: Open; inWith: boolean })[] = [];
  let isChain = false;
  let heading: { readonly text: string; readonly line: number } | undefined;
  let carried: Item[] = [];
  cuts.forEach((piece, i) => {
    const next = cuts[i + 1];
    const before = pieces[pieces.length - 1];
    if (CHAIN.has(piece.mark)) isChain = true;
    if (heading && (piece.line !== heading.line || piece.mark === '.')) heading = undefined;
    const opensClause = NEWLINE.test(piece.mark) || SENTENCE.has(piece.mark) || piece.mark === ',';
    if (next?.mark === ':' && opensClause && next.line === piece.line) {
      if (isNaming(next)) {
        carried = piece.items.filter((item) => item.is === 'channels' || item.is === 'count');
        const said = textOf(text, piece.items);
        heading =
          carried.length || HEADINGS.has(said.toLowerCase()) || /\d/.test(said)
            ? undefined
            : { text: said, line: piece.line };
        return;
      }
    }
    const isLineOfHeadings = piece.items.every((item) => HEADINGS.has(text.slice(item.from, item.to).toLowerCase()));
    const isTableHead =
      isLineOfHeadings &&
      cuts.some((c) => c.line > piece.line) &&
      cuts.filter((c) => c.line === piece.line).length > 1 &&
      cuts
        .filter((c) => c.line === piece.line)
        .every((c) => c.items.every((item) => HEADINGS.has(text.slice(item.from, item.to).toLowerCase())));
    if (isTableHead) return;
    const place = piece.items.find((item) => item.is === 'place');
    if (place) isChain = true;
    const isWith = piece.mark === 'with' || ((piece.mark === 'and' || piece.mark === ',') && before?.inWith === true);
    const joins = before !== undefined && before.open.line === piece.line && !SENTENCE.has(piece.mark);
    if (joins && (!isNaming(piece) || (isWith && isQualityOf(piece, before.open)))) {
      if (place?.is === 'place' && (place.word === 'first' || place.word === 'last'))
        Object.assign(before, { at: place.word });
      Object.assign(before, {
        items: [...before.items, ...behind(piece), ...asQualities(piece.items)],
        inWith: isWith || before.inWith,
      });
      before.open.items.push(...asQualities(piece.items));
      return;
    }
    if (!isNaming(piece)) {
      if (piece.items.some((item) => item.is === 'channels' || item.is === 'doubt'))
        carried = [...carried, ...piece.items.filter((item) => item.is === 'channels' || item.is === 'doubt')];
      return;
    }
    const [first, last] = [piece.items[0], piece.items[piece.items.length - 1]];
    const word = place?.is === 'place' ? place.word : undefined;
    pieces.push({
      items: [...carried, ...behind(piece), ...piece.items],
      own: { from: first?.from ?? 0, to: last?.to ?? 0 },
      ...(heading ? { heading: heading.text } : {}),
      after: word === 'after' && before !== undefined && before.open.line === piece.line,
      ...(word === 'first' || word === 'last' ? { at: word } : {}),
      open: piece,
      inWith: piece.mark === 'with',
    });
    carried = [];
  });
  return { pieces: inOrder(pieces), isChain };
};

/** "A or B" is a doubt of both. */
const behind = (piece: Open): readonly Item[] => {
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

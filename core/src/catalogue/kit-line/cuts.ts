import type { Item } from './items.js';
import { SLASH } from './words-of.js';

/** What was said between two breaks, and the break before it. */
export interface Cut {
  readonly items: Item[];
  readonly line: number;
  readonly mark: string;
}

export const NEWLINE = /^\r?\n$/;
export const SENTENCE = new Set(['.', '!', '?']);
export const CELL = new Set([',', ';', '\t', '|']);
export const CHAIN = new Set(['>', '->', '=>', '→', '⟶', 'in order']);
/** What follows these says more of what stands before them. */
export const BESIDE = new Set(['with', '(', '[']);
const VOICES = new Set(['bass', 'acoustic', 'vocal']);

/** Says what a thing is, by itself. */
const names = (item: Item): boolean => ['kind', 'size', 'stack', 'missing', 'aside', 'unknown'].includes(item.is);
export const isNaming = (piece: Cut): boolean => piece.items.some(names);

/** What a thing is for says at most whether it is for a bass, an acoustic guitar or a voice. */
const withoutPurpose = (items: readonly Item[]): Item[] => {
  const kept: Item[] = [];
  let skipping: 'purpose' | 'instead' | undefined;
  for (const [i, item] of items.entries()) {
    if (item.is === 'purpose' || item.is === 'instead') {
      if (kept.some(names)) skipping = item.is;
      continue;
    }
    if (!skipping) kept.push(item);
    else if (skipping === 'purpose' && (item.is === 'kind' || item.is === 'quality')) {
      const qualities = item.qualities.filter((q) => VOICES.has(q));
      if (qualities.length) kept.push({ is: 'quality', qualities, from: item.from, to: item.to });
      const before = items[i - 1];
      const count = before?.is === 'count' ? before : undefined;
      // "For two basses" speaks of two that are there; "for bass" of none.
      if (item.is === 'kind' && (count || !qualities.length))
        kept.push({ is: 'besides', from: (count ?? item).from, to: item.to });
    } else if (item.is === 'channels' || item.is === 'doubt') kept.push(item);
  }
  return kept;
};

const isInPurpose = (items: readonly Item[]): boolean => items.some((item) => item.is === 'purpose');
/** "For channel/boost", "for guitar and bass": what a thing is for goes on behind the joint. */
const goesOn = (mark: string, next: Item | undefined): boolean =>
  mark === '/' ||
  mark === SLASH ||
  mark === 'or' ||
  ((mark === 'and' || mark === '&') && next?.is === 'kind' && next.qualities.some((q) => VOICES.has(q)));

/** Cuts what was said at its breaks. */
export const cut = (items: readonly Item[]): readonly Cut[] => {
  const found: Cut[] = [{ items: [], line: 0, mark: '\n' }];
  let line = 0;
  for (const [at, item] of items.entries()) {
    const last = found[found.length - 1];
    if (item.is !== 'break') last?.items.push(item);
    else if (last && isInPurpose(last.items) && goesOn(item.mark, items[at + 1])) continue;
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

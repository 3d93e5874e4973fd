import Fuse from 'fuse.js';
import { CATALOGUE } from './boxes.js';
import type { Generic } from './parts.js';
import { theOneOf } from '../known/keys.js';

/** What one piece of a kit line was taken for. */
export interface Understood {
  readonly said: string;
  readonly count: number;
  readonly channel?: number;
  readonly box?: Generic;
  /** Nearest names when nothing fits well enough. */
  readonly maybe: readonly Generic[];
}

const searched = CATALOGUE.flatMap((box) => box.says.map((says) => ({ box, says })));
const fuse = new Fuse(searched, { keys: ['says'], includeScore: true, threshold: 0.5, ignoreLocation: true });

const LONGEST_PIECE = 120;
const MOST_PIECES = 200;
const MOST_OF_ONE = 20;

const plainText = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll('×', 'x')
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const exact = new Map(searched.map(({ box, says }) => [plainText(says), box]));

/**
 * Boxes as people say them, one per line or between commas: "2 x low-gain drive, stereo delay midi ch 3".
 * @returns one entry for each piece, in order; pieces beyond 200 are left out
 */
export const understand = (line: string): readonly Understood[] =>
  line
    .split(/[,;\n\r\t]+/)
    .map((s) => s.trim())
    .filter(Boolean)
    .slice(0, MOST_PIECES)
    .map(understandOne);

const understandOne = (whole: string): Understood => {
  const said = whole.slice(0, LONGEST_PIECE);
  const channel = /\b(?:midi\s*)?(?:ch(?:annel)?)\.?\s*(\d{1,2})\b/i.exec(said);
  const count = /^(?:(\d{1,2})\s*[x×*]\s+|(two|three|four)\s+(?!channel|loop))/i.exec(said);
  const name = plainText(said.replace(channel?.[0] ?? '', ' ').replace(count?.[0] ?? '', ' '));
  const number = count?.[1]
    ? Number(count[1])
    : count?.[2]
      ? { two: 2, three: 3, four: 4 }[theOneOf(['two', 'three', 'four'], count[2].toLowerCase())]
      : 1;
  const onChannel =
    channel && Number(channel[1]) >= 1 && Number(channel[1]) <= 16 ? { channel: Number(channel[1]) } : {};
  const base = { said, count: Math.min(MOST_OF_ONE, Math.max(1, number)), ...onChannel };
  const known =
    exact.get(name) ?? exact.get(name.replace(/s$/, '')) ?? exact.get(plainText(name.replace(/\bmidi\b/, '')));
  if (known) return { ...base, box: known, maybe: [] };
  const found = fuse.search(name || said).slice(0, 12);
  const best = found[0];
  const others = [...new Set(found.map((f) => f.item.box))].slice(0, 3);
  return best && (best.score ?? 1) <= 0.3
    ? { ...base, box: best.item.box, maybe: others.slice(1) }
    : { ...base, maybe: others };
};

import { CUE_MARK, LABEL } from '../../formats/chordpro.js';

/** A line of a song's words as it is shown. */
export interface WordsLine {
  readonly text: string;
  /** It says which part of the song begins. */
  readonly isLabel: boolean;
  /** The cue that comes there, by its place in the song. */
  readonly cue?: number;
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
const markIn = (line: string): string | undefined =>
  line.startsWith(CUE_MARK) || line.startsWith('> ') ? line.slice(1).trim() : undefined;
/** What a reader of ChordPro needs and a player does not. */
const isForReaders = (line: string): boolean => /^\s*(?:#|\{.*\}\s*$)/.test(line);

/**
 * The words of a song with its cues at their lines. A mark belongs to the cue of its name, the second one to the second;
 * a part of the song that is called like a cue marks it too, unless a mark of its own does.
 */
export const wordsLines = (words: string, cues: readonly { readonly name: string }[]): readonly WordsLine[] => {
  const lines = words.split('\n').filter((line) => !isForReaders(line));
  const marked = new Set(lines.flatMap((line) => markIn(line)?.toLowerCase() ?? []));
  const used = new Map<string, number>();
  const nextOf = (name: string): number | undefined => {
    const places = cues.flatMap((c, i) => (same(c.name, name) ? [i] : []));
    const n = used.get(name.toLowerCase()) ?? 0;
    used.set(name.toLowerCase(), n + 1);
    return places[Math.min(n, places.length - 1)];
  };
  const shown: WordsLine[] = [];
  let waiting: number | undefined;
  for (const line of lines) {
    const mark = markIn(line);
    if (mark !== undefined) {
      const cue = nextOf(mark);
      if (cue === undefined) shown.push({ text: mark, isLabel: true });
      else if (waiting !== undefined) shown.push({ text: '', isLabel: false, cue: waiting });
      waiting = cue ?? waiting;
      continue;
    }
    const label = LABEL.exec(line.trim())?.[1];
    const own = label !== undefined && !marked.has(label.toLowerCase()) ? nextOf(label) : undefined;
    const cue = waiting ?? own;
    // A mark belongs to the first line behind it that says something.
    if (line.trim() === '' && waiting !== undefined) {
      shown.push({ text: '', isLabel: false });
      continue;
    }
    shown.push({ text: label ?? line, isLabel: label !== undefined, ...(cue === undefined ? {} : { cue }) });
    waiting = undefined;
  }
  if (waiting !== undefined) shown.push({ text: '', isLabel: false, cue: waiting });
  return shown;
};

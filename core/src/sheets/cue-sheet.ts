import type { Edit } from '../change/edit.js';
import { withMaybe } from '../known/maybe.js';
import { theItem } from '../known/the.js';
import { LONGEST } from '../rig/limits.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import type { Rig } from '../rig/rig.js';
import type { Cue, Song } from '../rig/show.js';
import { COMMON_TIME, placeQuarters, placeSeconds, placeText, readPlace } from '../units/metre.js';
import { callText, readCues } from './cue-words.js';
import type { Cell, Typed } from './sound-sheet.js';

/** A column of the sheet of a song's cues. What the foot hits follows from the rig and is not typed. */
export interface CueColumn {
  readonly id: 'at' | 'call' | 'feet' | 'hands';
  readonly device: string;
  readonly is: 'text' | 'told';
  readonly title: string;
  readonly says: string;
  readonly most?: number;
}

export const CUE_COLUMNS: readonly CueColumn[] = [
  { id: 'at', device: 'at', is: 'text', title: 'bar', says: 'Bar, or bar.beat, or minutes:seconds' },
  { id: 'call', device: 'call', is: 'text', title: 'calls', says: 'The sound, move or looper that it calls' },
  { id: 'feet', device: 'feet', is: 'told', title: 'the foot hits', says: 'What the foot hits, after the cue before' },
  { id: 'hands', device: 'hands', is: 'text', title: 'hands and feet', says: 'What else they do, in your own words' },
];

/** @param hits what the foot hits */
export const cueCell = (rig: Rig, cue: Cue, { id }: CueColumn, hits: string): Cell => {
  const said: Readonly<Record<CueColumn['id'], () => string>> = {
    at: () => (cue.at === undefined ? '' : placeText(cue.at)),
    call: () => callText(rig, cue),
    feet: () => hits,
    hands: () => (cue.hands ?? []).join('; '),
  };
  return { text: said[id](), own: true };
};

/** A cue's own words keep no quotation marks: these part words from names where a whole row of cues is typed. */
const handsIn = (text: string): readonly string[] | undefined => {
  const hands = text
    .replaceAll(/[“”"]/g, '')
    .split(/;|\n/)
    .map((one) => one.trim().slice(0, LONGEST.remark))
    .filter(Boolean);
  return hands.length ? hands : undefined;
};

const typeIntoCue = (rig: Rig, song: Song, cue: Cue, column: CueColumn, text: string): Result<Cue> => {
  const typed = text.trim();
  const refused = (wrong: string, would: string): Result<Cue> =>
    refuse({ code: 'cell', where: column.title, wrong, would });
  const metre = song.metre ?? COMMON_TIME;
  if (column.id === 'feet')
    return refused(
      'This follows from the rig and is not typed.',
      'Type what the cue calls, or say it in your own words.',
    );
  if (column.id === 'hands') return ok(withMaybe(cue, 'hands', handsIn(typed)));
  if (column.id === 'at') {
    if (typed === '') return ok(withMaybe(cue, 'at', undefined));
    const at = readPlace(typed.replace(/^@/, ''), metre);
    return at === undefined
      ? refused(
          `"${typed}" is no place in a song of ${metre.beats} beats a bar.`,
          'Type a bar such as 12, a bar and a beat such as 12.3, or minutes and seconds such as 1:04.',
        )
      : ok({ ...cue, at });
  }
  const read = readCues(rig, typed, metre);
  if ('unread' in read) return refused(read.unread.wrong, read.unread.would);
  const [one, ...more] = read.cues;
  if (!one || more.length)
    return refused('A cue calls one thing.', 'Type one sound, move or looper; add a cue for the next.');
  const isNamedSo = cue.name === callText(rig, cue);
  return ok({ ...cue, call: one.call, ...(isNamedSo ? { name: one.name } : {}) });
};

const withCues = (song: Song, cues: readonly Cue[]): Edit => ({ put: [{ ...song, cues }], remove: [] });

/** Several cells typed at once: all of them fit or nothing is changed. */
export const typeCues = (rig: Rig, song: Song, typed: readonly Typed[]): Result<Edit, readonly Refusal[]> => {
  const cues = [...song.cues];
  const refused: Refusal[] = [];
  for (const { row, column, text } of typed) {
    const one = typeIntoCue(rig, song, theItem(cues, row), theItem(CUE_COLUMNS, column), text);
    if (one.ok) cues[row] = one.value;
    else refused.push({ ...one.error, where: `${theItem(cues, row).name}, ${one.error.where}` });
  }
  return refused.length ? refuse(refused) : ok(withCues(song, cues));
};

/** When a cue comes, told in whatever the song can tell it. */
const timeOf = (song: Song, { at }: Cue): number | undefined => {
  const metre = song.metre ?? COMMON_TIME;
  return at === undefined ? undefined : (placeSeconds(at, song.bpm, metre) ?? placeQuarters(at, song.bpm, metre));
};

/** A cue that says when it comes stands before the first of those that come later; any other stands where it was put. */
const inTime = (song: Song, cues: readonly Cue[], cue: Cue, at: number): number => {
  const time = timeOf(song, cue);
  if (time === undefined) return at;
  const later = cues.findIndex((other) => (timeOf(song, other) ?? -Infinity) > time);
  if (later >= 0 && later < at) return later;
  const earlier = cues.findLastIndex((other) => (timeOf(song, other) ?? Infinity) <= time);
  return Math.max(at, earlier + 1);
};

/**
 * Cues behind the one at a place, typed as people write them; one that says when it comes finds its own place.
 * @param after -1 puts them first
 */
export const addCues = (rig: Rig, song: Song, after: number, text: string): Result<Edit, readonly Refusal[]> => {
  const read = readCues(rig, text, song.metre ?? COMMON_TIME, song.cues.slice(0, after + 1));
  if ('unread' in read)
    return refuse([{ code: 'cell', where: song.title, wrong: read.unread.wrong, would: read.unread.would }]);
  let at = after + 1;
  let cues: readonly Cue[] = song.cues;
  for (const cue of read.cues) {
    at = inTime(song, cues, cue, at);
    cues = cues.toSpliced(at, 0, cue);
    at += 1;
  }
  return ok(withCues(song, cues));
};

export const nameCue = (song: Song, at: number, name: string): Edit =>
  withCues(
    song,
    song.cues.map((cue, i) => (i === at ? { ...cue, name } : cue)),
  );

export const removeCue = (song: Song, at: number): Edit => withCues(song, song.cues.toSpliced(at, 1));

/** One cue carried to another place; beyond an end it stays at it. */
export const carryCue = (song: Song, from: number, to: number): Edit => {
  const cue = song.cues[from];
  if (!cue) return withCues(song, song.cues);
  const at = Math.max(0, Math.min(song.cues.length - 1, to));
  return withCues(song, song.cues.toSpliced(from, 1).toSpliced(at, 0, cue));
};

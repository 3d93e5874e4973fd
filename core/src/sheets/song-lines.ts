import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { LONGEST, LONGEST_SONG_SECONDS, MOST_FRETS, TEMPO } from '../rig/limits.js';
import type { Refusal } from '../rig/result.js';
import { all, placeBehind, type Rig } from '../rig/rig.js';
import type { Song } from '../rig/show.js';
import { readMinutes } from '../units/minutes.js';

export interface SongLines {
  readonly edit: Edit;
  readonly songs: readonly Song[];
  /** Lines that were left out, and why. */
  readonly refused: readonly Refusal[];
}

const NUMBER = /^\s*\d{1,3}\s*[.):]\s+/;
const FIELD = /\s*[\t;|]\s*|\s+[–-]\s+|,\s+/;
const BPM = /^(\d{2,3}(?:[.,]\d+)?)\s*bpm$/i;
const TRAILING_BPM = /\s+(\d{2,3}(?:[.,]\d+)?)\s*bpm$/i;
const TRAILING_LENGTH = /\s+(\d{1,3}:\d{2})$/;
const CAPO = /^capo\s*(\d{1,2})$/i;
const KEY = /^[A-G][#b♯♭]?\s*(?:m|min|minor|major|maj)?$/;

type Facts = Pick<Song, 'bpm' | 'seconds' | 'capo' | 'key'>;

/** What one stretch behind a title says; undefined when it says none of it. */
const factIn = (text: string): Facts | undefined => {
  const bpm = Number(BPM.exec(text)?.[1]?.replace(',', '.'));
  if (bpm >= TEMPO.min && bpm <= TEMPO.max) return { bpm };
  const seconds = readMinutes(text);
  if (seconds !== undefined && seconds > 0 && seconds <= LONGEST_SONG_SECONDS) return { seconds };
  const capo = Number(CAPO.exec(text)?.[1]);
  if (capo > 0 && capo <= MOST_FRETS) return { capo };
  return KEY.test(text) ? { key: text } : undefined;
};

/** A title with what is said behind it; a stretch that says nothing known belongs to the title. */
const readLine = (line: string): Facts & { readonly title: string } => {
  const [first = '', ...stretches] = line.replace(NUMBER, '').trim().split(FIELD);
  let title = first;
  let facts: Facts = {};
  for (const stretch of stretches) {
    const fact = factIn(stretch);
    if (fact) facts = { ...facts, ...fact };
    else if (stretch) title += `, ${stretch}`;
  }
  for (const trailing of [TRAILING_LENGTH, TRAILING_BPM, TRAILING_LENGTH]) {
    const found = trailing.exec(title);
    const fact = found && factIn(found[0].trim());
    if (!fact) continue;
    facts = { ...fact, ...facts };
    title = title.slice(0, -found[0].length);
  }
  return { title: title.trim(), ...facts };
};

/**
 * Songs as a list of titles says them, one a line: "3. Salt waltz, 132 bpm, 3:32, capo 2". Numbers before titles are left
 * out. Of two songs of one name only the first is taken.
 */
export const readSongLines = (rig: Rig, text: string, newId: () => Id<'song'>): SongLines => {
  const known = new Set(all(rig, 'song').map((s) => s.title.toLowerCase()));
  const songs: Song[] = [];
  const refused: Refusal[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() === '') return;
    const { title, ...facts } = readLine(line);
    const refuse = (wrong: string, would: string) =>
      refused.push({ code: 'song', where: `line ${i + 1}`, wrong, would });
    if (title === '') return refuse('There is no title.', 'Write the title first.');
    if ([...title].length > LONGEST.name)
      return refuse('The title is too long.', `At most ${LONGEST.name} letters fit.`);
    if (known.has(title.toLowerCase()))
      return refuse(`There is a song “${title}” already.`, 'Call one of them otherwise.');
    known.add(title.toLowerCase());
    songs.push({ kind: 'song', id: newId(), title, at: placeBehind(rig, 'song') + songs.length, ...facts, cues: [] });
  });
  return { edit: { put: songs, remove: [] }, songs, refused };
};

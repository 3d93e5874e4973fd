import { apply } from '../../change/apply.js';
import { together, type Edit } from '../../change/edit.js';
import { readCells, writeCells } from '../../formats/cells.js';
import { readChordPro, writeChordPro, type SongText } from '../../formats/chordpro.js';
import { readScore } from '../../formats/midi-score.js';
import { theFirst } from '../../known/the.js';
import type { Id } from '../../rig/ids.js';
import { LONGEST } from '../../rig/limits.js';
import { ok, refuse, type Refusal, type Result } from '../../rig/result.js';
import { all, placeBehind, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { SONG_COLUMNS, songCell, typeSongs } from '../../sheets/song-sheet.js';
import type { Derived } from '../steps/deriver.js';
import { songsOfScore } from './score-songs.js';

/** Songs that a file brings. */
export interface SongsIn {
  readonly edit: Edit;
  /** Titles that are new, and titles that were there and are changed. */
  readonly added: readonly string[];
  readonly changed: readonly string[];
  /** What could not be taken, and where; all else is taken. */
  readonly refused: readonly Refusal[];
  /** What one should know of it besides. */
  readonly notes: readonly string[];
}

const TYPED = SONG_COLUMNS.filter((c) => c.is !== 'told');
const TABLE_HEAD = ['title', ...TYPED.map((c) => c.title), 'notes'] as const;

/** Songs as a table (RFC 4180), a row each, with cues as they are typed. */
export const songTable = (rig: Rig, songs: readonly Song[]): string =>
  `${writeCells([
    TABLE_HEAD,
    ...songs.map((song) => [song.title, ...TYPED.map((c) => songCell(rig, song, c, '').text), song.notes ?? '']),
  ])}\n`;

/** Songs as ChordPro, one behind the other. */
export const songsChordPro = (songs: readonly Song[]): string => songs.map(writeChordPro).join('{new_song}\n');

interface Known {
  readonly at: (title: string) => Song | undefined;
  readonly put: (song: Song) => void;
  readonly edit: () => Edit;
}

/** Songs by title while a file is read: of two of one name the second changes the first. */
const knownSongs = (rig: Rig): Known => {
  const songs = new Map(all(rig, 'song').map((s) => [s.title.toLowerCase(), s]));
  const put = new Map<string, Song>();
  return {
    at: (title) => songs.get(title.toLowerCase()),
    put: (song) => {
      const isNew = !rig.parts.song.has(song.id) && song.at === undefined;
      const placed = isNew ? { ...song, at: placeBehind(rig, 'song') + put.size } : song;
      songs.set(song.title.toLowerCase(), placed);
      put.set(song.id, placed);
    },
    edit: () => ({ put: [...put.values()], remove: [] }),
  };
};

const wrongAt = (where: string, wrong: string, would: string): Refusal => ({ code: 'song', where, wrong, would });

/** Songs from a table with a heading; what one cell cannot say is told, and the rest of its row is taken. */
export const readSongTable = (rig: Rig, text: string, newId: () => Id<'song'>): Result<SongsIn, readonly Refusal[]> => {
  const cells = readCells(text.trim());
  if (!cells.ok) return cells;
  const heading = (cells.value[0] ?? []).map((h) => h.trim().toLowerCase());
  const titleAt = heading.findIndex((h) => h === 'title' || h === 'song');
  if (titleAt < 0)
    return refuse([wrongAt('row 1', 'No column is called title.', `Head the columns ${TABLE_HEAD.join(', ')}.`)]);
  const known = knownSongs(rig);
  const [added, changed]: [string[], string[]] = [[], []];
  const refused: Refusal[] = [];
  cells.value.slice(1).forEach((row, i) => {
    const where = `row ${i + 2}`;
    const title = (row[titleAt] ?? '').trim();
    if (!title) return void refused.push(wrongAt(where, 'There is no title.', 'Write one into the column title.'));
    if (title.length > LONGEST.name)
      return void refused.push(wrongAt(where, 'The title is too long.', `At most ${LONGEST.name} letters fit.`));
    const before = known.at(title);
    (before ? changed : added).push(title);
    let song: Song = before ?? { kind: 'song', id: newId(), title, cues: [] };
    heading.forEach((name, k) => {
      const typed = (row[k] ?? '').trim();
      const column = SONG_COLUMNS.findIndex((c) => c.is !== 'told' && (c.title === name || c.id === name));
      if (name === 'notes' && typed) song = { ...song, notes: typed.slice(0, LONGEST.reason) };
      if (column < 0 || !typed) return;
      const done = typeSongs(rig, [song], [{ row: 0, column, text: typed }]);
      if (done.ok) song = theFirst(done.value.put) as Song;
      else refused.push(...done.error.map((e) => ({ ...e, where: `${where}, ${e.where}` })));
    });
    known.put(song);
  });
  return ok({ edit: known.edit(), added, changed, refused, notes: [] });
};

/** Songs from texts: facts and words are taken over, cues and all else stay as they are. */
export const songsOfTexts = (
  rig: Rig,
  texts: readonly SongText[],
  newId: () => Id<'song'>,
): Omit<SongsIn, 'refused'> => {
  const known = knownSongs(rig);
  const [added, changed]: [string[], string[]] = [[], []];
  for (const text of texts) {
    const before = known.at(text.title);
    (before ? changed : added).push(text.title);
    known.put({ ...(before ?? { kind: 'song', id: newId(), cues: [] }), ...text, title: before?.title ?? text.title });
  }
  return { edit: known.edit(), added, changed, notes: [] };
};

const LARGEST_SONG_FILE = 2_000_000;
const withoutEnding = (name: string): string => name.replace(/\.[^.]+$/, '');

const fromMidi = (
  d: Derived,
  name: string,
  bytes: Uint8Array,
  newId: () => Id<'song'>,
): Result<SongsIn, readonly Refusal[]> => {
  const read = readScore(bytes, withoutEnding(name));
  if (!read.ok) return read;
  const { edit, added, changed, open } = songsOfScore(d, read.value.score, newId);
  const left = open.map(
    ([song, cue]) => `${song}, “${cue}”: nothing there calls a sound of this rig, so it stays as a note.`,
  );
  return ok({ edit, added, changed, refused: [], notes: [...read.value.notes, ...left] });
};

/**
 * Songs from a file, whatever of these it is: a Standard MIDI File, a table with a heading, or ChordPro.
 * @param name of the file, with its ending
 */
export const readSongFile = (
  d: Derived,
  name: string,
  bytes: Uint8Array,
  newId: () => Id<'song'>,
): Result<SongsIn, readonly Refusal[]> => {
  const refused = (wrong: string, would: string) => refuse([wrongAt(name, wrong, would)]);
  if (String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd' || /\.midi?$/i.test(name))
    return checked(d.rig, fromMidi(d, name, bytes, newId));
  if (bytes.length > LARGEST_SONG_FILE)
    return refused('The file is too large for songs.', `At most ${LARGEST_SONG_FILE / 1e6} million bytes are read.`);
  const text = new TextDecoder('utf-8').decode(bytes);
  if (text.includes('\u0000'))
    return refused('This is neither a MIDI file nor text.', 'Choose a file that ends in .mid, .csv, .cho or .txt.');
  if (text.trim() === '') return refused('There is nothing in it.', 'Choose another file.');
  if (/\.(?:csv|tsv)$/i.test(name)) return checked(d.rig, readSongTable(d.rig, text, newId));
  const { songs, refused: lines } = readChordPro(text, withoutEnding(name));
  return checked(d.rig, ok({ ...songsOfTexts(d.rig, songs, newId), refused: lines }));
};

/** What a rig cannot hold is refused as a whole, in the words of the rig. */
const checked = (rig: Rig, read: Result<SongsIn, readonly Refusal[]>): Result<SongsIn, readonly Refusal[]> => {
  if (!read.ok) return read;
  const applied = apply(rig, together(read.value.edit));
  return applied.ok ? read : refuse(applied.error);
};

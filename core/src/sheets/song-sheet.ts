import { boxText } from '../recall/words/part-words.js';
import { instrumentsOf } from '../edits/variant.js';
import { dialCardsAbout } from '../edits/dial-cards.js';
import type { Edit } from '../change/edit.js';
import { theFirst, theItem } from '../known/the.js';
import type { Id } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { LONGEST_SONG_SECONDS, MOST_FRETS, TEMPO } from '../rig/limits.js';
import { withoutSong } from '../edits/set-list.js';
import { minutesText, readMinutes } from '../units/minutes.js';
import { all, placeBehind, type Rig } from '../rig/rig.js';
import type { Song } from '../rig/show.js';
import { COMMON_TIME, metreText, MOST_BEATS, readMetre } from '../units/metre.js';
import { cueText, readCues } from './cue-words.js';
import type { Cell, Typed } from './sound-sheet.js';

/** A column of the sheet of songs. `by hand` follows from the rig and is not typed. */
export interface SongColumn {
  readonly id: 'bpm' | 'metre' | 'seconds' | 'key' | 'tuning' | 'capo' | 'instrument' | 'cues' | 'by hand';
  /** No box: each stands by itself. */
  readonly device: string;
  readonly is: string;
  readonly title: string;
  readonly says: string;
  readonly most?: number;
}

export const SONG_COLUMNS: readonly SongColumn[] = [
  { id: 'bpm', device: 'bpm', is: 'number', title: 'bpm', says: 'Tempo in quarters a minute' },
  { id: 'metre', device: 'metre', is: 'text', title: 'time', says: 'Time signature, 4/4 when none is said' },
  { id: 'seconds', device: 'seconds', is: 'text', title: 'length', says: 'How long it takes, as minutes:seconds' },
  { id: 'key', device: 'key', is: 'text', title: 'key', says: 'Key' },
  { id: 'tuning', device: 'tuning', is: 'text', title: 'tuning', says: 'Tuning' },
  { id: 'capo', device: 'capo', is: 'number', title: 'capo', says: 'Capo, at which fret' },
  { id: 'instrument', device: 'instrument', is: 'text', title: 'with', says: 'The instrument in hand' },
  { id: 'by hand', device: 'by hand', is: 'told', title: 'by hand', says: 'What has to be moved by hand or foot' },
  { id: 'cues', device: 'cues', is: 'text', title: 'cues', says: 'Cues in order, each with its sound', most: 760 },
];

/** A song's cell. @param byHand what has to be moved by hand in it */
export const songCell = (rig: Rig, song: Song, column: SongColumn, byHand: string): Cell => {
  const said: Readonly<Record<SongColumn['id'], () => string>> = {
    bpm: () => String(song.bpm ?? ''),
    metre: () => (song.metre ? metreText(song.metre) : ''),
    seconds: () => (song.seconds === undefined ? '' : minutesText(song.seconds)),
    key: () => song.key ?? '',
    capo: () => String(song.capo ?? ''),
    tuning: () => song.tuning ?? '',
    'by hand': () => byHand,
    cues: () => song.cues.map((c) => cueText(rig, c)).join('; '),
    instrument: () => (song.instrument ? boxText(rig, song.instrument) : ''),
  };
  return { text: said[column.id](), own: true };
};

const typeIntoSong = (rig: Rig, song: Song, column: SongColumn, text: string): Result<Song> => {
  const typed = text.trim();
  const refused = (wrong: string, would: string): Result<Song> =>
    refuse({ code: 'cell', where: column.title, wrong, would });
  if (column.id === 'by hand')
    return refused('This follows from the rig and is not typed.', 'Type tempo, tuning or cues.');
  if (column.id === 'tuning' || column.id === 'key') {
    const { [column.id]: _, ...rest } = song;
    return ok(typed ? { ...rest, [column.id]: typed } : rest);
  }
  if (column.id === 'seconds' || column.id === 'capo') return typeNumber(song, column.id, typed, refused);
  if (column.id === 'instrument') {
    const { instrument: _, ...rest } = song;
    if (typed === '') return ok(rest);
    const instruments = instrumentsOf(rig);
    const found = instruments.find((d) =>
      [boxText(rig, d.id), d.code].some((word) => word.toLowerCase() === typed.toLowerCase()),
    );
    return found
      ? ok({ ...rest, instrument: found.id })
      : refused(
          `"${typed}" is no instrument of this rig.`,
          instruments.length
            ? `Type ${instruments.map((d) => boxText(rig, d.id)).join(' or ')}.`
            : 'Put an instrument into the kit first.',
        );
  }
  if (column.id === 'bpm') {
    const { bpm: _, ...rest } = song;
    if (typed === '') return ok(rest);
    const bpm = Number(typed.replace(',', '.').replace(/\s*bpm$/i, ''));
    return bpm >= TEMPO.min && bpm <= TEMPO.max
      ? ok({ ...rest, bpm })
      : refused(`"${typed}" is no tempo.`, `Type ${TEMPO.min} to ${TEMPO.max} beats a minute.`);
  }
  if (column.id === 'metre') {
    const { metre: _, ...rest } = song;
    const metre = readMetre(typed);
    if (typed === '' || metre) return ok(metre ? { ...rest, metre } : rest);
    return refused(`"${typed}" is no time signature.`, `Type one such as 3/4 or 6/8, of at most ${MOST_BEATS} beats.`);
  }
  const read = readCues(rig, typed, song.metre ?? COMMON_TIME);
  if ('unread' in read) return refused(read.unread.wrong, read.unread.would);
  const left = [...song.cues];
  const cues = read.cues.map((cue) => {
    const before = left.findIndex((c) => cueText(rig, c) === cueText(rig, cue));
    return before < 0 ? cue : theFirst(left.splice(before, 1));
  });
  return ok({ ...song, cues });
};

const typeNumber = (
  song: Song,
  what: 'seconds' | 'capo',
  typed: string,
  refused: (wrong: string, would: string) => Result<Song>,
): Result<Song> => {
  const { [what]: _, ...rest } = song;
  if (typed === '' || (what === 'capo' && typed === '0')) return ok(rest);
  if (what === 'capo') {
    const capo = Number(typed);
    return Number.isInteger(capo) && capo > 0 && capo <= MOST_FRETS
      ? ok({ ...rest, capo })
      : refused(`"${typed}" is no fret.`, `Type 1 to ${MOST_FRETS}.`);
  }
  const seconds = readMinutes(typed);
  return seconds !== undefined && seconds > 0 && seconds <= LONGEST_SONG_SECONDS
    ? ok({ ...rest, seconds })
    : refused(`"${typed}" is no length.`, 'Type minutes and seconds, such as 4:30.');
};

/** Several cells typed at once: all of them fit or nothing is changed. */
export const typeSongs = (
  rig: Rig,
  songs: readonly Song[],
  typed: readonly Typed[],
): Result<Edit, readonly Refusal[]> => {
  const changed = new Map<number, Song>();
  const refused: Refusal[] = [];
  for (const { row, column, text } of typed) {
    const one = typeIntoSong(rig, changed.get(row) ?? theItem(songs, row), theItem(SONG_COLUMNS, column), text);
    if (one.ok) changed.set(row, one.value);
    else refused.push({ ...one.error, where: `${theItem(songs, row).title}, ${one.error.where}` });
  }
  return refused.length ? refuse(refused) : ok({ put: [...changed.values()], remove: [] });
};

export const addSong = (rig: Rig, id: Id<'song'>, title: string): Edit => ({
  put: [{ kind: 'song', id, title, at: placeBehind(rig, 'song'), cues: [] }],
  remove: [],
});

/** Takes a song away; set lists let go of it. */
export const removeSong = (rig: Rig, id: Id<'song'>): Edit => ({
  put: all(rig, 'setList').flatMap((s) => (s.songs.includes(id) ? [withoutSong(s, id)] : [])),
  remove: [id, ...dialCardsAbout(rig, id)],
});

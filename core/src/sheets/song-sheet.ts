import { instrumentsOf } from '../edits/variant.js';
import { dialCardsAbout } from '../edits/dial-cards.js';
import type { Edit } from '../change/edit.js';
import { theFirst, theItem } from '../known/the.js';
import type { Id } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { LONGEST_SONG_SECONDS, MOST_FRETS, TEMPO } from '../rig/limits.js';
import { withoutSong } from '../edits/set-list.js';
import { minutesText, readMinutes } from '../units/minutes.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import type { Cue, Song } from '../rig/show.js';
import type { Cell, Typed } from './sound-sheet.js';

/** A column of the sheet of songs. `by hand` follows from the rig and is not typed. */
export interface SongColumn {
  readonly id: 'bpm' | 'seconds' | 'key' | 'tuning' | 'capo' | 'instrument' | 'cues' | 'by hand';
  /** No box: each stands by itself. */
  readonly device: string;
  readonly is: string;
  readonly title: string;
  readonly says: string;
  readonly most?: number;
}

export const SONG_COLUMNS: readonly SongColumn[] = [
  { id: 'bpm', device: 'bpm', is: 'number', title: 'bpm', says: 'Tempo in beats a minute' },
  { id: 'seconds', device: 'seconds', is: 'text', title: 'length', says: 'How long it takes, as minutes:seconds' },
  { id: 'key', device: 'key', is: 'text', title: 'key', says: 'Key' },
  { id: 'tuning', device: 'tuning', is: 'text', title: 'tuning', says: 'Tuning' },
  { id: 'capo', device: 'capo', is: 'number', title: 'capo', says: 'Capo, at which fret' },
  { id: 'instrument', device: 'instrument', is: 'text', title: 'with', says: 'The instrument in hand' },
  { id: 'by hand', device: 'by hand', is: 'told', title: 'by hand', says: 'What has to be moved by hand or foot' },
  { id: 'cues', device: 'cues', is: 'text', title: 'cues', says: 'Cues in order, each with its sound', most: 760 },
];

const cueText = (rig: Rig, { name, call }: Cue): string => {
  if ('note' in call) return `${name}: “${call.note}”`;
  const target =
    'sound' in call
      ? (partOf(rig, call.sound)?.name ?? call.sound)
      : `${call.to === 'on' ? '+' : '−'}${partOf(rig, call.move)?.name ?? call.move}`;
  return name === target ? target : `${name}: ${target}`;
};

/** A song's cell. @param byHand what has to be moved by hand in it */
export const songCell = (rig: Rig, song: Song, column: SongColumn, byHand: string): Cell => {
  const said: Readonly<Record<SongColumn['id'], () => string>> = {
    bpm: () => String(song.bpm ?? ''),
    seconds: () => (song.seconds === undefined ? '' : minutesText(song.seconds)),
    key: () => song.key ?? '',
    capo: () => String(song.capo ?? ''),
    tuning: () => song.tuning ?? '',
    'by hand': () => byHand,
    cues: () => song.cues.map((c) => cueText(rig, c)).join('; '),
    instrument: () => (song.instrument ? (partOf(rig, song.instrument)?.name ?? '') : ''),
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
    const found = instruments.find((d) => [d.name, d.code].some((word) => word.toLowerCase() === typed.toLowerCase()));
    return found
      ? ok({ ...rest, instrument: found.id })
      : refused(
          `"${typed}" is no instrument of this rig.`,
          instruments.length
            ? `Type ${instruments.map((d) => d.name).join(' or ')}.`
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
  const read = cuesIn(rig, typed);
  if ('unread' in read)
    return refused(
      `"${read.unread}" names no sound of this rig.`,
      'Type names of sounds with ; or , between them, such as "verse: Verse clean; Lead". A move is +Lift or −Lift, a note “in quotes”.',
    );
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

/** Stretches between semicolons, new lines, tabs and slashes with room around; a note in quotes stays whole. */
const STRETCH = /(?:“[^”]*”|"[^"]*"|(?!\s\/\s)[^;\n\t])+/g;
/** Commas that stand in no note. */
const COMMA = /,(?=(?:[^“”"]|“[^”]*”|"[^"]*")*$)/;

/**
 * Cues as people write them in a row. A comma parts them too, but where a name has one in it the name counts.
 * @returns the cues, or the first stretch that says none
 */
const cuesIn = (rig: Rig, text: string): { readonly cues: readonly Cue[] } | { readonly unread: string } => {
  const cues: Cue[] = [];
  for (const [stretch] of text.matchAll(STRETCH)) {
    let parts = stretch.replace(/^\s*\/\s/, '').split(COMMA);
    while (parts.length) {
      const lengths = Array.from({ length: parts.length }, (_, i) => parts.length - i);
      const found = lengths
        .map((length) => ({ length, said: parts.slice(0, length).join(',').trim() }))
        .map(({ length, said }) => ({ length, cue: said ? readCue(rig, said, length === 1) : undefined }))
        .find(({ cue }) => cue !== undefined);
      const isNothing = theFirst(parts).trim() === '';
      if (!found?.cue && !isNothing) return { unread: theFirst(parts).trim() };
      if (found?.cue) cues.push(found.cue);
      parts = parts.slice(found?.length ?? 1);
    }
  }
  return { cues };
};

/** "verse: Verse clean", "Verse clean", "V clean", "lift: +Lift", "“breathe”". @param mayEndSo its last words may name the sound */
const readCue = (rig: Rig, text: string, mayEndSo: boolean): Cue | undefined => {
  const named = <T extends { readonly name: string }>(parts: readonly T[], name: string): T | undefined =>
    parts.find((p) => p.name === name) ?? parts.find((p) => p.name.toLowerCase() === name.toLowerCase());
  const whole = named(all(rig, 'sound'), text);
  if (whole) return { name: whole.name, call: { sound: whole.id } };
  const colon = text.indexOf(':');
  const name = colon < 0 ? undefined : text.slice(0, colon).trim();
  const target = text.slice(colon + 1).trim();
  const sound = named(all(rig, 'sound'), target);
  if (sound) return { name: name || sound.name, call: { sound: sound.id } };
  const move = /^[+−-]/.test(target) ? named(all(rig, 'move'), target.slice(1).trim()) : undefined;
  if (move)
    return {
      name: name || `${target.startsWith('+') ? '+' : '−'}${move.name}`,
      call: { move: move.id, to: target.startsWith('+') ? 'on' : 'off' },
    };
  const note = /^[“"](.*)[”"]$/.exec(target)?.[1];
  if (note) return { name: name || 'note', call: { note } };
  // "V clean", "chorus Wide": the last words name the sound.
  const words = colon < 0 && mayEndSo ? text.split(/\s+/) : [];
  for (let i = 1; i < words.length; i += 1) {
    const last = named(all(rig, 'sound'), words.slice(i).join(' '));
    if (last) return { name: words.slice(0, i).join(' '), call: { sound: last.id } };
  }
  return undefined;
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

export const addSong = (id: Id<'song'>, title: string): Edit => ({
  put: [{ kind: 'song', id, title, cues: [] }],
  remove: [],
});

/** Takes a song away; set lists let go of it. */
export const removeSong = (rig: Rig, id: Id<'song'>): Edit => ({
  put: all(rig, 'setList').flatMap((s) => (s.songs.includes(id) ? [withoutSong(s, id)] : [])),
  remove: [id, ...dialCardsAbout(rig, id)],
});

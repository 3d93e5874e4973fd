import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { all, partOf, placeBehind, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Cue, SetList, Song } from '../rig/show.js';
import { COMMON_TIME, placeQuarters } from '../units/metre.js';

/** What another rig of the band brings, and what of it still asks for a sound here. */
export interface BandSongs {
  readonly edit: Edit;
  readonly added: readonly string[];
  readonly changed: readonly string[];
  /** Cues that call nothing here yet: song, then cue. */
  readonly open: readonly (readonly [song: string, cue: string])[];
}

interface NewIds {
  readonly song: () => Id<'song'>;
  readonly setList: () => Id<'setList'>;
}

/** What stands in a cue until this player says what is called there. */
const THEIRS = 'they play ';

const key = (text: string): string => text.trim().toLowerCase();

/** What a song is for everybody; instrument, tuning, capo and notes are each player's own. */
const shared = ({
  title,
  bpm,
  metre,
  seconds,
  key: tone,
  words,
}: Song): Partial<Song> & { readonly title: string } => ({
  title,
  ...(bpm === undefined ? {} : { bpm }),
  ...(metre ? { metre } : {}),
  ...(seconds === undefined ? {} : { seconds }),
  ...(tone ? { key: tone } : {}),
  ...(words ? { words } : {}),
});

/** Cues in the order in which they come; one that does not say when stays behind the one before it. */
const inTime = (song: Song, cues: readonly Cue[]): readonly Cue[] => {
  let last = 0;
  const timed = cues.map((cue) => {
    const at = cue.at === undefined ? undefined : placeQuarters(cue.at, song.bpm, song.metre ?? COMMON_TIME);
    last = at ?? last;
    return { cue, at: last };
  });
  return timed.sort((a, b) => a.at - b.at).map((t) => t.cue);
};

/** The parts of a song as the others play them, each with what is called here. */
const cuesFor = (rig: Rig, other: Rig, mine: Song | undefined, theirs: Song): readonly Cue[] => {
  const left = [...(mine?.cues ?? [])];
  const called = theirs.cues.flatMap((cue): readonly Cue[] => {
    if (!('sound' in cue.call) && !('note' in cue.call)) return [];
    const place = cue.at === undefined ? {} : { at: cue.at };
    const found = left.findIndex((c) => key(c.name) === key(cue.name));
    if (found >= 0) return left.splice(found, 1).map((c) => ({ ...c, ...place }));
    if ('note' in cue.call) return [{ name: cue.name, ...place, call: cue.call }];
    const name = partOf(other, cue.call.sound)?.name ?? '';
    const sound = soundsInOrder(rig).find((s) => key(s.name) === key(name));
    return [{ name: cue.name, ...place, call: sound ? { sound: sound.id } : { note: `${THEIRS}${name}` } }];
  });
  return inTime({ ...theirs, cues: [] }, [...called, ...left]);
};

/**
 * Songs, their bars and their order from another rig of the band. A song of the same title is brought up to date: its
 * tempo, its words and when its parts come are the band's, what is called there stays this player's.
 * @param list a set of the other rig, whose order is taken too; all songs when it is left out
 */
export const songsOfBand = (rig: Rig, other: Rig, list: SetList | undefined, ids: NewIds): BandSongs => {
  const known = new Map(all(rig, 'song').map((s) => [key(s.title), s]));
  const [added, changed]: [string[], string[]] = [[], []];
  const open: (readonly [string, string])[] = [];
  const theirs = list ? list.songs.flatMap((id) => partOf(other, id) ?? []) : all(other, 'song');
  const songs = theirs.map((song): Song => {
    const mine = known.get(key(song.title));
    (mine ? changed : added).push(mine?.title ?? song.title);
    const cues = cuesFor(rig, other, mine, song);
    for (const { name, call } of cues)
      if ('note' in call && call.note.startsWith(THEIRS)) open.push([song.title, name]);
    const made = mine ?? { kind: 'song', id: ids.song(), at: placeBehind(rig, 'song') + added.length - 1, cues };
    return { ...made, ...shared(song), title: mine?.title ?? song.title, cues };
  });
  const before = list && all(rig, 'setList').find((l) => key(l.name) === key(list.name));
  const idOf = new Map(theirs.map((song, i) => [song.id, songs[i]?.id]));
  const marks = (list?.before ?? []).flatMap(({ song, comes }) => {
    const id = idOf.get(song);
    return id ? [{ song: id, comes }] : [];
  });
  const set: readonly SetList[] = list
    ? [
        {
          ...(before ?? { kind: 'setList', id: ids.setList(), name: list.name, at: placeBehind(rig, 'setList') }),
          songs: songs.map((s) => s.id),
          ...(marks.length ? { before: marks } : {}),
        },
      ]
    : [];
  return { edit: { put: [...songs, ...set], remove: [] }, added, changed, open };
};

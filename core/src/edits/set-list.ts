import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { partOf, placeBehind, type Rig } from '../rig/rig.js';
import type { SetList, SetMark } from '../rig/show.js';

const put = (list: SetList): Edit => ({ put: [list], remove: [] });

/** Without marks before songs that it does not have. */
const tidy = ({ before, ...list }: SetList): SetList => {
  const kept = (before ?? []).filter((b) => list.songs.includes(b.song));
  return kept.length ? { ...list, before: kept } : list;
};

export const addSetList = (rig: Rig, id: Id<'setList'>, name: string, songs: readonly Id<'song'>[] = []): Edit =>
  put({ kind: 'setList', id, name, at: placeBehind(rig, 'setList'), songs });

/** The songs in another order, or others; marks go with their songs. */
export const setSongs = (list: SetList, songs: readonly Id<'song'>[]): Edit => put(tidy({ ...list, songs }));

export const withoutSong = (list: SetList, song: Id<'song'>): SetList =>
  tidy({ ...list, songs: list.songs.filter((s) => s !== song) });

/** One song carried to another place, counted from 0; beyond an end it stays at it. */
export const carrySong = (list: SetList, from: number, to: number): Edit => {
  const song = list.songs[from];
  if (song === undefined) return put(list);
  const at = Math.max(0, Math.min(list.songs.length - 1, to));
  return setSongs(list, list.songs.toSpliced(from, 1).toSpliced(at, 0, song));
};

/** A sound that somebody may call for in any song, or no longer. */
export const setReserve = (list: SetList, sound: Id<'sound'>, isIn: boolean): SetList => {
  const { reserve = [], ...rest } = list;
  const kept = reserve.filter((s) => s !== sound);
  const next = isIn ? [...kept, sound] : kept;
  return next.length ? { ...rest, reserve: next } : rest;
};

/** The songs of a night, and the spare ones that stand in its list as well: from the mark on. */
export const playedAndSpare = ({
  songs,
  before = [],
}: SetList): { readonly played: readonly Id<'song'>[]; readonly spare: readonly Id<'song'>[] } => {
  const from = songs.findIndex((song) => before.some((b) => b.song === song && b.comes === 'spare'));
  return from < 0 ? { played: songs, spare: [] } : { played: songs.slice(0, from), spare: songs.slice(from) };
};

/** A break before a song, or the beginning of the encores or of the spare songs; undefined takes it away. */
export const markBefore = (list: SetList, song: Id<'song'>, comes: SetMark | undefined): Edit => {
  const others = (list.before ?? []).filter((b) => b.song !== song);
  return put(tidy({ ...list, before: comes ? [...others, { song, comes }] : others }));
};

/** Between two songs (assumed; common practice counts half a minute with applause). */
export const SECONDS_BETWEEN = 30;

/**
 * How long a set takes with what lies between its songs, in seconds; spare songs are not counted, and songs of which no
 * length is known count as nothing.
 */
export const setSeconds = (rig: Rig, list: SetList): number => {
  const { played } = playedAndSpare(list);
  const songs = played.reduce((sum, id) => sum + (partOf(rig, id)?.seconds ?? 0), 0);
  return songs + Math.max(0, played.length - 1) * SECONDS_BETWEEN;
};

import { boxText } from '../../recall/words/part-words.js';
import type { VerdictKind } from '../../recall/verdict/sound-verdict.js';
import type { Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { SetList, SetMark, Song } from '../../rig/show.js';
import type { Derived } from '../steps/deriver.js';
import { stringsTurned } from '../../units/tunings.js';
import { footworkOf } from './footwork.js';
import { playedAndSpare, SECONDS_BETWEEN, setSeconds } from '../../edits/set-list.js';
import { instrumentsOf } from '../../edits/variant.js';
import { hitText, movesBetween } from './on-foot.js';
import { reserveOf, type ReserveSound } from './reserve.js';
import { someOf } from '../../known/some-of.js';

/** What has to be done before a song, as it stands otherwise than after the one before. */
export type SetChange = 'instrument' | 'tuning' | 'capo' | 'by hand';

export interface SetSong {
  readonly song: Id<'song'>;
  readonly title: string;
  readonly comes?: SetMark;
  /** It stands in the list in case, and is not counted as played. */
  readonly isSpare: boolean;
  /** When it begins, in seconds from the beginning of the set; undefined behind a song of which no length is known. */
  readonly at?: number;
  readonly seconds?: number;
  readonly facts: string;
  readonly changes: readonly { readonly is: SetChange; readonly text: string }[];
  /** Stomps while it goes on, bank keys and switches of plain boxes among them. */
  readonly stomps: number;
  readonly bankPresses: number;
  /** Things moved by hand while it goes on. */
  readonly byHand: number;
  /** The worst of its sounds. */
  readonly verdict: VerdictKind | undefined;
  /** Sounds of it that can come back wrong, cannot sound or are not decided, by name. */
  readonly troubles: readonly string[];
}

export interface SetSheet {
  readonly songs: readonly SetSong[];
  /** What is counted is counted over the songs that are played, without the spare ones. */
  readonly spare: number;
  /** Sounds that somebody may call for. */
  readonly reserve: readonly ReserveSound[];
  readonly seconds: number;
  /** Songs of which no length is known. */
  readonly open: number;
  readonly stomps: number;
  readonly bankPresses: number;
  readonly instruments: number;
  readonly retunings: number;
}

const WORST: readonly VerdictKind[] = ['cannot sound', 'broken', 'undecided', 'left to hands', 'proved'];

interface Work {
  readonly stomps: number;
  readonly keys: number;
  readonly byHand: number;
}

/** What a song asks behind its first cue, before which there is time; what a foot lets go of is no stomp. */
const workIn = (d: Derived, song: Song): Work => {
  const work = footworkOf(d, song).slice(1);
  const feet = work.flatMap((w) => w.feet.filter((f) => f.held !== 'up'));
  return {
    stomps: feet.length,
    keys: feet.filter((f) => f.is === 'bank').length,
    byHand: work.reduce((n, w) => n + w.hands.length, 0),
  };
};

/** One string is turned in a breath, or by a lever; all of them are not. A song that says no tuning leaves it open. */
const turnedText = (from: string | undefined, to: string): string => {
  const turned = from === undefined ? undefined : stringsTurned(from, to);
  return turned ? `, ${turned} ${turned === 1 ? 'string' : 'strings'}` : '';
};

/** Whether a song is played on six strings, as far as the rig says it: those of a bass are fewer. */
const isGuitar = (rig: Rig, { instrument }: Song): boolean => {
  const maybe = instrument ? [partOf(rig, instrument)] : instrumentsOf(rig);
  const is = maybe.flatMap((d) => d?.ends?.flatMap((e) => (e.is === 'source' ? [e.what] : [])) ?? []);
  return is.includes('guitar') && !is.includes('bass');
};

/** What a player has to do to an instrument between two songs. */
export const changesBetween = (rig: Rig, before: Song | undefined, song: Song): SetSong['changes'] => {
  if (!before) return [];
  const changes: { readonly is: SetChange; readonly text: string }[] = [];
  const name = (s: Song): string => (s.instrument ? boxText(rig, s.instrument) : '');
  const isOther = before.instrument !== song.instrument && song.instrument !== undefined;
  if (isOther) changes.push({ is: 'instrument', text: `take the ${name(song)}` });
  // Another instrument hangs there in its own tuning.
  if (!isOther && song.tuning !== before.tuning && song.tuning !== undefined)
    changes.push({
      is: 'tuning',
      text: `retune to ${song.tuning}${isGuitar(rig, song) ? turnedText(before.tuning, song.tuning) : ''}`,
    });
  // Another instrument has no capo on it.
  if (song.capo !== (isOther ? undefined : before.capo))
    changes.push({ is: 'capo', text: song.capo === undefined ? 'capo off' : `capo ${song.capo}` });
  return changes;
};

const factsOf = (rig: Rig, { bpm, key, tuning, capo, instrument }: Song): string =>
  [
    bpm === undefined ? '' : `${bpm} bpm`,
    key ?? '',
    tuning ?? '',
    capo === undefined ? '' : `capo ${capo}`,
    instrument ? (partOf(rig, instrument)?.code ?? '') : '',
  ]
    .filter(Boolean)
    .join(', ');

const MOST_MOVES = 3;

/** What foot and hand move from the last sound of a song to the first of the next, as nothing calls it. */
const movedBetween = (d: Derived, before: Song | undefined, song: Song): SetSong['changes'] => {
  const sounds = (s: Song | undefined): readonly Id<'sound'>[] =>
    (s?.cues ?? []).flatMap(({ call }) => ('sound' in call ? [call.sound] : []));
  const [from, to] = [sounds(before).at(-1), sounds(song)[0]];
  if (!from || !to || from === to) return [];
  const moves = movesBetween(d.compilation, from, to).map((m) => hitText(d.rig, m));
  return moves.length ? [{ is: 'by hand', text: someOf(moves, MOST_MOVES) }] : [];
};

/** A set as it is played: when each song begins, what has to be done before it and in it, and what can go wrong. */
export const setSheet = (d: Derived, list: SetList): SetSheet => {
  const { rig } = d;
  const songs = list.songs.flatMap((id) => partOf(rig, id) ?? []);
  const spare = new Set(playedAndSpare(list).spare);
  let at: number | undefined = 0;
  const rows = songs.map((song, i): SetSong => {
    const sounds = [...new Set(song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : [])))];
    const kinds = sounds.flatMap((id) => d.answers.get(id)?.is ?? []);
    const isWrong = (id: Id<'sound'>): boolean => WORST.indexOf(d.answers.get(id)?.is ?? 'proved') < 3;
    const comes = list.before?.find((b) => b.song === song.id)?.comes;
    const isSpare = spare.has(song.id);
    const begins = isSpare ? undefined : at;
    at = begins === undefined || song.seconds === undefined ? undefined : begins + song.seconds + SECONDS_BETWEEN;
    const { stomps, keys, byHand } = workIn(d, song);
    const verdict = WORST.find((kind) => kinds.includes(kind));
    return {
      song: song.id,
      title: song.title,
      ...(comes ? { comes } : {}),
      isSpare,
      ...(begins === undefined ? {} : { at: begins }),
      ...(song.seconds === undefined ? {} : { seconds: song.seconds }),
      facts: factsOf(rig, song),
      // Nobody knows behind which song a spare one comes.
      changes: isSpare ? [] : [...changesBetween(rig, songs[i - 1], song), ...movedBetween(d, songs[i - 1], song)],
      stomps,
      bankPresses: keys,
      byHand,
      verdict,
      troubles: sounds.filter(isWrong).map((id) => partOf(rig, id)?.name ?? ''),
    };
  });
  const played = rows.filter((row) => !row.isSpare);
  const sum = (of: (row: SetSong) => number): number => played.reduce((total, row) => total + of(row), 0);
  const count = (is: SetChange): number => sum((row) => row.changes.filter((c) => c.is === is).length);
  return {
    songs: rows,
    spare: spare.size,
    reserve: reserveOf(d, list),
    seconds: setSeconds(rig, list),
    open: played.filter((row) => row.seconds === undefined).length,
    stomps: sum((row) => row.stomps),
    bankPresses: sum((row) => row.bankPresses),
    instruments: count('instrument'),
    retunings: count('tuning'),
  };
};

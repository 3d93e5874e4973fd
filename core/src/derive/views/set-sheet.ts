import type { VerdictKind } from '../../recall/verdict/sound-verdict.js';
import type { Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { SetList, SetMark, Song } from '../../rig/show.js';
import { slotsOfRig } from '../../plan/slots/of-rig.js';
import { pressesBetween, withoutRepeats } from '../../plan/slots/problem.js';
import { callersIn } from '../../edits/calls.js';
import { surely, theItem } from '../../known/the.js';
import type { Derived } from '../steps/deriver.js';
import { songHands } from './songs.js';

/** Between two songs (assumed; common practice counts half a minute with applause). */
export const SECONDS_BETWEEN = 30;

/** What has to be done before a song, as it stands otherwise than after the one before. */
export type SetChange = 'instrument' | 'tuning' | 'capo';

export interface SetSong {
  readonly song: Id<'song'>;
  readonly title: string;
  readonly comes?: SetMark;
  /** When it begins, in seconds from the beginning of the set; undefined behind a song of which no length is known. */
  readonly at?: number;
  readonly seconds?: number;
  readonly facts: string;
  readonly changes: readonly { readonly is: SetChange; readonly text: string }[];
  /** Stomps while it goes on, bank keys among them. */
  readonly stomps: number;
  readonly bankPresses: number;
  /** Things moved by hand or foot while it goes on. */
  readonly byHand: number;
  /** The worst of its sounds. */
  readonly verdict: VerdictKind | undefined;
  /** Sounds of it that can come back wrong, cannot sound or are not decided, by name. */
  readonly troubles: readonly string[];
}

export interface SetSheet {
  readonly songs: readonly SetSong[];
  readonly seconds: number;
  /** Songs of which no length is known. */
  readonly open: number;
  readonly stomps: number;
  readonly bankPresses: number;
  readonly instruments: number;
  readonly retunings: number;
}

const WORST: readonly VerdictKind[] = ['cannot sound', 'broken', 'undecided', 'left to hands', 'proved'];

/** Stomps and bank keys of each song, over all controllers that call its sounds. */
const stompsOf = (
  rig: Rig,
  songs: readonly Song[],
): ReadonlyMap<Id<'song'>, readonly [stomps: number, keys: number]> => {
  const total = new Map<Id<'song'>, readonly [number, number]>(songs.map((s) => [s.id, [0, 0]]));
  for (const caller of callersIn(rig)) {
    if (caller.isScene) continue;
    const setup = slotsOfRig(rig, caller, songs);
    if (!setup) continue;
    const bankOf = new Map(setup.now.map(([sound, bank]) => [sound, bank]));
    setup.problem.songs.forEach((cues, i) => {
      const called = withoutRepeats(cues);
      const keys = called.slice(1).reduce((sum, to, k) => {
        const from = theItem(called, k);
        return sum + pressesBetween(setup.problem, surely(bankOf.get(from)), surely(bankOf.get(to)));
      }, 0);
      const { id } = theItem(songs, i);
      const [stomps, presses] = surely(total.get(id));
      total.set(id, [stomps + Math.max(0, called.length - 1) + keys, presses + keys]);
    });
  }
  return total;
};

const changesBetween = (rig: Rig, before: Song | undefined, song: Song): SetSong['changes'] => {
  if (!before) return [];
  const changes: { readonly is: SetChange; readonly text: string }[] = [];
  const name = (s: Song): string => (s.instrument ? (partOf(rig, s.instrument)?.name ?? '') : '');
  const isOther = before.instrument !== song.instrument && song.instrument !== undefined;
  if (isOther) changes.push({ is: 'instrument', text: `take the ${name(song)}` });
  // Another instrument hangs there in its own tuning.
  if (!isOther && song.tuning !== before.tuning && song.tuning !== undefined)
    changes.push({ is: 'tuning', text: `retune to ${song.tuning}` });
  if (song.capo !== before.capo)
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

/** A set as it is played: when each song begins, what has to be done before it and in it, and what can go wrong. */
export const setSheet = (d: Derived, list: SetList): SetSheet => {
  const { rig } = d;
  const songs = list.songs.flatMap((id) => partOf(rig, id) ?? []);
  const stomps = stompsOf(rig, songs);
  const hands = new Map(songHands(d).map((h) => [h.song, h.between]));
  let at: number | undefined = 0;
  const rows = songs.map((song, i): SetSong => {
    const sounds = [...new Set(song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : [])))];
    const kinds = sounds.flatMap((id) => d.answers.get(id)?.is ?? []);
    const isWrong = (id: Id<'sound'>): boolean => WORST.indexOf(d.answers.get(id)?.is ?? 'proved') < 3;
    const comes = list.before?.find((b) => b.song === song.id)?.comes;
    const begins = at;
    at = begins === undefined || song.seconds === undefined ? undefined : begins + song.seconds + SECONDS_BETWEEN;
    const [all, keys] = surely(stomps.get(song.id));
    const verdict = WORST.find((kind) => kinds.includes(kind));
    return {
      song: song.id,
      title: song.title,
      ...(comes ? { comes } : {}),
      ...(begins === undefined ? {} : { at: begins }),
      ...(song.seconds === undefined ? {} : { seconds: song.seconds }),
      facts: factsOf(rig, song),
      changes: changesBetween(rig, songs[i - 1], song),
      stomps: all,
      bankPresses: keys,
      byHand: hands.get(song.id) ?? 0,
      verdict,
      troubles: sounds.filter(isWrong).map((id) => partOf(rig, id)?.name ?? ''),
    };
  });
  const sum = (of: (row: SetSong) => number): number => rows.reduce((total, row) => total + of(row), 0);
  const count = (is: SetChange): number => sum((row) => row.changes.filter((c) => c.is === is).length);
  return {
    songs: rows,
    seconds: sum((row) => row.seconds ?? 0) + Math.max(0, rows.length - 1) * SECONDS_BETWEEN,
    open: rows.filter((row) => row.seconds === undefined).length,
    stomps: sum((row) => row.stomps),
    bankPresses: sum((row) => row.bankPresses),
    instruments: count('instrument'),
    retunings: count('tuning'),
  };
};

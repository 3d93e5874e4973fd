import { standingIn, turnedBetween } from '../../dials/dial-cards.js';
import { knobText, slotText } from '../../recall/words/words.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { Cue, SetList, SetMark, Song } from '../../rig/show.js';
import { handMoves } from '../../recall/actuate/compile.js';
import type { Derived } from '../steps/deriver.js';
import { latchedIn, type Latched } from './latched.js';
import { hitText, inFeetOrder, movesBetween } from './on-foot.js';
import { stompsBetween, type Stomps } from './stomps.js';
import { isUsed } from './without.js';

/** One thing to do on stage, in as few words as it takes. */
export interface StageCue {
  /** What the player calls it: chorus, solo. */
  readonly name: string;
  /** What sounds from then on; a note or a move has none. */
  readonly sound?: string;
  /** What to hit, as the box shows it. @example '2B' */
  readonly hit?: string;
  /** Keys that lead to its bank from where the cue before left off. @example 'bank up twice' */
  readonly bank?: string;
  /** What foot and hand do besides. */
  readonly hands: readonly string[];
  /** What holds on from before and is heard here. */
  readonly rings: readonly string[];
}

export interface StageSong {
  readonly title: string;
  readonly facts: readonly string[];
  readonly comes?: SetMark;
  readonly seconds?: number;
  readonly bpm?: number;
  readonly cues: readonly StageCue[];
}

export interface Stage {
  readonly name: string;
  readonly songs: readonly StageSong[];
}

const TIMES = ['', '', ' twice'] as const;

/** @example bankText({ hits, keys: 3, way: 'up' }) // 'bank up 3 times' */
const bankText = ({ keys, way }: Stomps): string | undefined =>
  keys === 0 ? undefined : `bank ${way}${TIMES[keys] ?? ` ${keys} times`}`;

type Dials = ReturnType<typeof standingIn>;

/** How the cue before left the rig. */
interface Before {
  readonly sound: Id<'sound'> | undefined;
  readonly stands: Dials | undefined;
}

/** What is told with every cue. */
interface Night {
  readonly d: Derived;
  readonly latched: readonly Latched[];
}

const soundCue = (
  { d, latched }: Night,
  song: Song,
  cue: Cue,
  id: Id<'sound'>,
  before: Before,
): { readonly cue: StageCue; readonly stands: Dials } => {
  const { rig, compilation } = d;
  const where = { hookup: d.hookup.id, song: song.id, sound: id };
  const stands = standingIn(rig, song.instrument ? { ...where, instrument: song.instrument } : where);
  const sound = partOf(rig, id);
  const moves = before.sound
    ? movesBetween(compilation, before.sound, id)
    : inFeetOrder(rig, handMoves(compilation, id));
  const turned = turnedBetween(before.stands ?? new Map(), stands, (device) => isUsed(d, id, device));
  const last = before.sound && partOf(rig, before.sound);
  const stomps = sound && stompsBetween(rig, d.hookup.id, last, sound);
  const bank = stomps && bankText(stomps);
  return {
    stands,
    cue: {
      name: cue.name,
      ...(sound ? { sound: sound.name } : {}),
      ...(sound && stomps?.hits.length ? { hit: slotText(rig, { ...sound, calls: stomps.hits }) } : {}),
      ...(bank ? { bank } : {}),
      hands: [
        ...moves.map((move) => hitText(rig, move)),
        ...turned.map(({ device, knob, at }) => `${knobText(rig, device, knob)} to ${at}`),
      ],
      rings: latched.filter((l) => l.rings.includes(id)).map((l) => l.text),
    },
  };
};

const songOnStage = (night: Night, song: Song, comes: SetMark | undefined): StageSong => {
  const { rig } = night.d;
  let before: Before = { sound: undefined, stands: undefined };
  const cues = song.cues.map((cue): StageCue => {
    const { call } = cue;
    if ('note' in call) return { name: cue.name, hands: [call.note], rings: [] };
    if ('move' in call) {
      const move = partOf(rig, call.move);
      return { name: cue.name, hands: [`${move?.name ?? cue.name} ${call.to}`], rings: [] };
    }
    const { cue: told, stands } = soundCue(night, song, cue, call.sound, before);
    before = { sound: call.sound, stands };
    return told;
  });
  const instrument = song.instrument && partOf(rig, song.instrument);
  return {
    title: song.title,
    facts: [
      ...(instrument ? [instrument.name] : []),
      ...(song.tuning ? [song.tuning] : []),
      ...(song.capo ? [`capo ${song.capo}`] : []),
      ...(song.key ? [song.key] : []),
      ...(song.bpm ? [`${song.bpm} bpm`] : []),
    ],
    ...(comes ? { comes } : {}),
    ...(song.seconds === undefined ? {} : { seconds: song.seconds }),
    ...(song.bpm === undefined ? {} : { bpm: song.bpm }),
    cues,
  };
};

/** A night as a player meets it, cue by cue. @param list all songs in their order when it is left out */
export const stageOf = (d: Derived, list: SetList | undefined): Stage => {
  const night = { d, latched: latchedIn(d) };
  const songs = list ? list.songs.flatMap((id) => partOf(d.rig, id) ?? []) : all(d.rig, 'song');
  return {
    name: list?.name ?? 'All songs',
    songs: songs.map((song) => songOnStage(night, song, list?.before?.find((b) => b.song === song.id)?.comes)),
  };
};

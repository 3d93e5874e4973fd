import { boxText } from '../../recall/words/part-words.js';
import { all, partOf } from '../../rig/rig.js';
import type { Cue, SetList, SetMark, Song } from '../../rig/show.js';
import { callText } from '../../sheets/cue-words.js';
import { metreText, placeText, type Metre } from '../../units/metre.js';
import { messageBytes } from '../../midi/bytes.js';
import { callFits } from '../../recall/intend/wants.js';
import { memoryIn } from '../../rig/box.js';
import type { Id } from '../../rig/ids.js';
import type { Derived } from '../steps/deriver.js';
import { bankText, footworkOf, type FootStep, type Footwork } from './footwork.js';
import { sendsFor } from './set-score.js';
import { withoutLists } from './without-lists.js';
import { latchedIn, type Latched } from './latched.js';
import { reserveOf } from './reserve.js';

/** One thing to do on stage, in as few words as it takes. */
export interface StageCue {
  /** What the player calls it: chorus, solo. */
  readonly name: string;
  /** What sounds from then on, what a move does, what a looper does; a note has none. */
  readonly sound?: string;
  /** What to hit, as the box shows it. @example '2B' */
  readonly hit?: string;
  /** Keys that lead to its bank from where the cue before left off. @example 'bank up twice' */
  readonly bank?: string;
  /** When it comes, in seconds from the start of the song, and in which bar. */
  readonly seconds?: number;
  readonly bar?: string;
  /** What foot and hand do besides. */
  readonly hands: readonly string[];
  /** What a song list or a timeline sends for it, in their order, each so long after the one before. */
  readonly sends?: readonly StageSend[];
  /** What holds on from before and is heard here. */
  readonly rings: readonly string[];
}

export interface StageSend {
  readonly afterMs: number;
  readonly bytes: readonly number[];
}

export interface StageSong {
  readonly title: string;
  readonly facts: readonly string[];
  readonly comes?: SetMark;
  readonly seconds?: number;
  readonly bpm?: number;
  readonly metre?: Metre;
  readonly words?: string;
  readonly notes?: string;
  readonly cues: readonly StageCue[];
}

export interface Stage {
  readonly name: string;
  readonly songs: readonly StageSong[];
  /** A song list or a timeline calls sounds of this rig: one can be on stage without it. */
  readonly isListed: boolean;
  /** Sounds that somebody may call for, and what to hit for each. */
  readonly reserve: readonly { readonly name: string; readonly hit: string }[];
}

/** What is told with every cue. */
interface Night {
  readonly d: Derived;
  readonly latched: readonly Latched[];
}

/** What a cue that calls no sound gives, in a word. */
const givesText = ({ d: { rig } }: Night, { call }: Cue): string | undefined => {
  if ('track' in call) return call.act;
  return 'move' in call ? `${partOf(rig, call.move)?.name ?? ''} ${call.to}` : undefined;
};

const HELD = { down: 'hold it', up: 'let go' } as const;

const cueOnStage = (night: Night, { cue, sound, seconds, feet, hands, words }: Footwork): StageCue => {
  const { rig } = night.d;
  const gives = sound ? partOf(rig, sound)?.name : givesText(night, cue);
  const bank = bankText(feet);
  const hits = feet.filter((f) => f.is !== 'bank' && f.is !== 'box');
  const sends = sound ? sendsOf(night, sound) : [];
  const held = hits.flatMap((f) => (f.held ? [HELD[f.held]] : []));
  const isCalledSo = 'track' in cue.call && cue.name === callText(rig, cue);
  return {
    name: isCalledSo && gives ? gives : cue.name,
    ...(gives ? { sound: gives } : {}),
    ...(hits.length ? { hit: hitsText(hits) } : {}),
    ...(bank ? { bank } : {}),
    ...(sends.length ? { sends } : {}),
    ...(seconds === undefined ? {} : { seconds }),
    ...(cue.at === undefined || typeof cue.at === 'number' ? {} : { bar: placeText(cue.at) }),
    hands: [...held, ...feet.filter((f) => f.is === 'box').map((f) => f.text), ...hands, ...words],
    rings: sound ? night.latched.filter((l) => l.rings.includes(sound)).map((l) => l.text) : [],
  };
};

/** What goes out for a sound that no foot calls. */
const sendsOf = ({ d }: Night, id: Id<'sound'>): readonly StageSend[] => {
  const sound = partOf(d.rig, id);
  const calls = (sound?.calls ?? []).filter((c) => callFits(d.rig, c, d.hookup.id));
  const isStomped = calls.some((c) => memoryIn(partOf(d.rig, c.device), c.memory)?.by === 'slot');
  const sends = (!isStomped && sound && sendsFor(d, sound)) || [];
  return sends.map(({ msBefore, message }, i) => ({
    afterMs: Math.max(0, (sends[i - 1]?.msBefore ?? msBefore) - msBefore),
    bytes: messageBytes(message),
  }));
};

/** @example '1A scene 2', '1A + 3' */
const hitsText = (hits: readonly FootStep[]): string =>
  hits.map(({ text }, i) => `${i === 0 ? '' : text.startsWith('scene') ? ' ' : ' + '}${text}`).join('');

const songOnStage = (night: Night, song: Song, comes: SetMark | undefined): StageSong => {
  const instrument = song.instrument && partOf(night.d.rig, song.instrument);
  return {
    title: song.title,
    facts: [
      ...(instrument ? [boxText(night.d.rig, instrument.id)] : []),
      ...(song.tuning ? [song.tuning] : []),
      ...(song.capo ? [`capo ${song.capo}`] : []),
      ...(song.key ? [song.key] : []),
      ...(song.bpm ? [`${song.bpm} bpm`] : []),
      ...(song.metre ? [metreText(song.metre)] : []),
    ],
    ...(comes ? { comes } : {}),
    ...(song.seconds === undefined ? {} : { seconds: song.seconds }),
    ...(song.bpm === undefined ? {} : { bpm: song.bpm }),
    ...(song.metre === undefined ? {} : { metre: song.metre }),
    ...(song.words ? { words: song.words } : {}),
    ...(song.notes ? { notes: song.notes } : {}),
    cues: footworkOf(night.d, song).map((work) => cueOnStage(night, work)),
  };
};

/** A night as a player meets it, cue by cue. @param list all songs in their order when it is left out */
export const stageOf = (d: Derived, list: SetList | undefined): Stage => {
  const night = { d, latched: latchedIn(d) };
  const songs = list ? list.songs.flatMap((id) => partOf(d.rig, id) ?? []) : all(d.rig, 'song');
  return {
    name: list?.name ?? 'All songs',
    isListed: withoutLists(d.rig) !== undefined,
    reserve: list ? reserveOf(d, list).map(({ name, hit }) => ({ name, hit })) : [],
    songs: songs.map((song) => songOnStage(night, song, list?.before?.find((b) => b.song === song.id)?.comes)),
  };
};

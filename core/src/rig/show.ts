import type { Board } from './board.js';
import type { Metre, Place } from '../units/metre.js';
import type { AnyId, Id, Ref } from './ids.js';

export interface Song {
  readonly kind: 'song';
  readonly id: Id<'song'>;
  readonly title: string;
  /** Its place among the songs. */
  readonly at?: number;
  /** In quarters a minute, whatever the metre. */
  readonly bpm?: number;
  /** Four quarters when it is left out. */
  readonly metre?: Metre;
  readonly instrument?: Id<'device'>;
  readonly tuning?: string;
  readonly capo?: number;
  readonly key?: string;
  /** How long it takes, in seconds. */
  readonly seconds?: number;
  /** What the player wants to remember of it. */
  readonly notes?: string;
  /** Its words, line by line. A line that begins with `▸` marks where the cue of that name comes. */
  readonly words?: string;
  /** What somebody wants to hear otherwise in it, by who it is. */
  readonly wishes?: Readonly<Record<string, string>>;
  readonly cues: readonly Cue[];
}

export const LOOPER_ACTS = ['record', 'overdub', 'play', 'stop', 'clear'] as const;
export type LooperAct = (typeof LOOPER_ACTS)[number];

export interface Cue {
  readonly name: string;
  /** Seconds from the start of the song, or bar and beat. */
  readonly at?: Place;
  readonly call:
    | { readonly sound: Id<'sound'> }
    | { readonly move: Id<'move'>; readonly to: 'on' | 'off' }
    /** What a foot does with a track of a looper. */
    | { readonly track: Ref; readonly act: LooperAct }
    | { readonly note: string };
  /** What hands and feet do there, in the player's own words. */
  readonly hands?: readonly string[];
}

/** Something that the rig is used for, such as a theatre or a church, with its hook-up and banks. Screens call it an act. */
export interface Engagement {
  readonly kind: 'engagement';
  readonly id: Id<'engagement'>;
  readonly name: string;
  /** How the rig is wired for it. */
  readonly hookup?: Id<'hookup'>;
  /** Banks of controllers that are kept for its sounds; both ends count, from 0. */
  readonly banks?: readonly KeptBanks[];
  readonly limits?: GigLimits;
}

export const HOUSES = ['mono', 'stereo'] as const;
export const AMPS = ['own', 'none'] as const;

/** What its gigs ask of the rig. */
export interface GigLimits {
  /** No loudspeaker on stage. */
  readonly silent?: true;
  readonly house?: (typeof HOUSES)[number];
  /** An amp of one's own may come along, or none. */
  readonly amp?: (typeof AMPS)[number];
  /** Outputs of the supply. */
  readonly outputs?: number;
  /** Room for a board, in mm. */
  readonly board?: readonly [number, number];
  /** All that is carried, in kg. */
  readonly mostKg?: number;
  /** Mains sockets that a house is sure to have. */
  readonly sockets?: number;
}

export interface KeptBanks {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly from: number;
  readonly to: number;
}

export interface SetList {
  readonly kind: 'setList';
  readonly id: Id<'setList'>;
  readonly name: string;
  /** Its place among the sets. */
  readonly at?: number;
  readonly songs: readonly Id<'song'>[];
  /** What the rig is used for when it is played. */
  readonly engagement?: Id<'engagement'>;
  /** Sounds that somebody may call for in any song. */
  readonly reserve?: readonly Id<'sound'>[];
  /** Songs before which there is a break, or with which the encores or the spare songs begin. */
  readonly before?: readonly { readonly song: Id<'song'>; readonly comes: SetMark }[];
}

/** Spare songs are there in case: they are not counted as played. */
export const SET_MARKS = ['break', 'encore', 'spare'] as const;
export type SetMark = (typeof SET_MARKS)[number];

/** The player's own notes. */
export interface LogEntry {
  readonly kind: 'logEntry';
  readonly id: Id<'logEntry'>;
  /** ISO 8601. */
  readonly when: string;
  readonly text: string;
  readonly about: readonly AnyId[];
  /** Who wrote it. */
  readonly by?: string;
  /** Something that is still to be done or decided, or was: a part on order, tubes to change, a lead for now. */
  readonly point?: OpenPoint;
  /** It failed: which part of the box it is about. */
  readonly broke?: string;
}

export interface OpenPoint {
  /** As 2026-05-31. */
  readonly due?: string;
  /** To be done again so many days after it was done: upkeep. */
  readonly everyDays?: number;
  readonly done?: { readonly by: string; /** ISO 8601. */ readonly when: string };
}

/** A sequence that is played after every edit, and what must hold at its end. */
export interface StandingTest {
  readonly kind: 'standingTest';
  readonly id: Id<'standingTest'>;
  readonly name: string;
  readonly hookup: Id<'hookup'>;
  readonly steps: readonly string[];
  readonly expects: readonly { readonly control: string; readonly value: string }[];
}

/** A finding that a person accepted. It stays quiet while its evidence is the same. */
export interface Acceptance {
  readonly kind: 'acceptance';
  readonly id: Id<'acceptance'>;
  readonly code: string;
  readonly hookup: Id<'hookup'>;
  /** Fingerprint of the evidence at the time. */
  readonly evidence: string;
  readonly reason: string;
}

/**
 * Which lines of one program stand in the box: somebody typed them in and ticked them off. A line that reads otherwise
 * now is open again.
 */
export interface Tick {
  readonly kind: 'tick';
  readonly id: Id<'tick'>;
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly number: number;
  /** For a scene the program that it belongs to. */
  readonly of?: number;
  /** By the text of the line. */
  readonly lines: Readonly<Record<string, Ticked>>;
}

export interface Ticked {
  readonly by: string;
  /** Of the rig, when it was ticked. */
  readonly revision: number;
  /** ISO 8601. */
  readonly when: string;
  /** What the line stands for in the box: it stays typed when only its words change. */
  readonly is?: string;
}

/** A rig that this one is a copy of, as it was then. */
export interface Origin {
  /** By which its server keeps it. */
  readonly rig: string;
  readonly revision: number;
  /** Fingerprint of what it held. */
  readonly print: string;
}

/** The rig's own name and notes: one part, `about:rig`. */
export interface About {
  readonly kind: 'about';
  readonly id: Id<'about'>;
  readonly name: string;
  readonly notes: string;
  /** Oldest first; at most one of each rig. */
  readonly origins?: readonly Origin[] | undefined;
  /** Cable on reels and in drawers, to make leads of. */
  readonly stock?: readonly Stock[] | undefined;
  /** Boards, tiers, shelves and drawers, by name. */
  readonly boards?: Readonly<Record<string, Board>> | undefined;
}

/** What leads are made of. A mains lead is not made at home. */
export const STOCK_KINDS = ['instrument', 'line', 'balanced', 'speaker', 'MIDI', 'control', 'power'] as const;
export type StockKind = (typeof STOCK_KINDS)[number];

/** A length of cable that is there. */
export interface Stock {
  readonly of: StockKind;
  readonly m: number;
}

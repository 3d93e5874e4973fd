import equal from 'fast-deep-equal';
import type { Id, Ref } from './ids.js';
import type { Case, Value } from './value.js';
import type { HeardWish } from './hookup.js';
import type { Curve } from './act.js';

export const ROLES = ['clean', 'crunch', 'lead', 'ambience', 'fuzz', 'other'] as const;
export type Role = (typeof ROLES)[number];

export interface Sound {
  readonly kind: 'sound';
  readonly id: Id<'sound'>;
  readonly name: string;
  /** What a display shows that is too narrow for the name: the person's own short form of it. */
  readonly display?: string;
  readonly role: Role;
  /** Its place in the sheet. */
  readonly at: number;
  readonly parent?: Id<'sound'>;
  /** It is its parent once more in another bank, and is kept in step with it there. */
  readonly mirror?: true;
  readonly wants: readonly Want[];
  readonly hears?: readonly HeardWish[];
  /** Wanted order, said by stages (`device.block`); compile turns it into the switcher's arrangement. */
  readonly order?: readonly Ref[];
  /** Why in this order, in the person's words. */
  readonly orderWhy?: string;
  readonly level?: { readonly than: Id<'sound'>; readonly db: number };
  /** How loud it was, at most once in each hook-up. */
  readonly measured?: readonly MeasuredLevel[];
  readonly leaving?: 'ring' | 'cut';
  /** All are needed, in this order: one stomp each. */
  readonly calls: readonly Call[];
}

/** What a meter or a recording said of a sound where it is heard. */
export interface MeasuredLevel {
  readonly hookup: Id<'hookup'>;
  readonly db: number;
  readonly unit: LevelUnit;
  /** The day, as 2026-05-31. */
  readonly on?: string;
  readonly with?: string;
  /** By octave around `BANDS_HZ`, in dB under full scale. */
  readonly bands?: readonly number[];
  /** How long nothing came when it was called after another sound, in ms. */
  readonly hole?: { readonly after: Id<'sound'>; readonly ms: number };
}
/** Middle of the octaves that a guitar or bass and their boxes fill. */
export const BANDS_HZ = [63, 125, 250, 500, 1000, 2000, 4000, 8000] as const;
export const LEVEL_UNITS = ['LUFS', 'dBFS', 'dBu', 'dBA'] as const;
export type LevelUnit = (typeof LEVEL_UNITS)[number];

export type Want = StageWant | ControlWant;

/** The usual want: this stage is in the sound or not, whatever loop, program or foot brings it there. */
export interface StageWant {
  readonly stage: Ref;
  readonly is: 'in' | 'out' | 'any';
  readonly in?: Case;
  /** Why the sound wants it so, in the person's words. */
  readonly why?: string;
}

export type ControlWant = { readonly control: Ref; readonly in?: Case; readonly why?: string } & (
  | { readonly is: Value }
  | { readonly between: readonly [number, number] }
  | { readonly any: true }
  /** As the hand left it. */
  | { readonly hand: true }
  /** The parent's value plus this. */
  | { readonly more: number }
  /** This many beats of the song's tempo. */
  | { readonly note: number }
  /** Under the pedal at this expression input (`device.jack`); `at` until it moves. */
  | { readonly pedal: Ref; readonly heel: number; readonly toe: number; readonly curve?: Curve; readonly at?: Value }
);

export interface Call {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly slot: number;
  readonly in?: Case;
}

/** What a want is about: two wants on the same thing in the same case contradict each other. */
export const wantTarget = (want: Want): Ref => ('stage' in want ? want.stage : want.control);

export interface Move {
  readonly kind: 'move';
  readonly id: Id<'move'>;
  readonly name: string;
  readonly sounds: readonly Id<'sound'>[] | 'all';
  readonly latch: boolean;
  readonly at: readonly { readonly device: Id<'device'>; readonly switch: string }[];
  readonly on: readonly Want[];
  readonly off: readonly Want[];
}

/** How a move's switch works: on until pressed again, on while it is held, or every press the same. */
export const MANNERS = ['latched', 'while held', 'one way'] as const;
export type Manner = (typeof MANNERS)[number];

/**
 * Read off the two lists that a move says. Whoever treats manners apart has a record of all of them, so that the
 * compiler names every place that a new one needs.
 */
export const mannerOf = (move: Move): Manner =>
  !move.latch ? 'while held' : move.off.length > 0 && equal(move.on, move.off) ? 'one way' : 'latched';

import type { Id, Ref } from '../../rig/ids.js';
import type { Program, Sweep } from '../../rig/program.js';
import type { ControlFact, Value } from '../../rig/value.js';
import type { RigState } from '../../signal/graph/state.js';
import type { Trace } from '../../signal/graph/trace.js';

/** Why a control has to have a value in a sound. */
export type Because =
  | { readonly by: 'said' }
  | { readonly by: 'stage'; readonly stage: Ref; readonly is: 'in' | 'out' }
  | { readonly by: 'gate' }
  | { readonly by: 'order' }
  /** A relay on the way to a control that nothing else reaches. */
  | { readonly by: 'contact'; readonly control: Ref }
  | { readonly by: 'program'; readonly number: number };

export interface Wanted {
  readonly control: Ref;
  readonly value: Value;
  readonly why: Because;
  /** Any value of which this holds serves as well. */
  readonly within?: ControlFact;
}

/** A want that no message, relay or contact of a called controller reaches: somebody has to bend down. */
export interface HandMove {
  readonly control: Ref;
  readonly value: Value;
  readonly by: 'foot' | 'hand';
  /** Any value of which this holds serves as well. */
  readonly within?: ControlFact;
}

/** What one controller has to hold for one sound, as the very program that stands in the box. */
export interface StoredSlot {
  readonly program: Program;
  /** Typed by the player, as it stands in the box; otherwise planned here. */
  readonly typed: boolean;
  /** For each act of the program: whom it is meant for and what it is to bring about. */
  readonly meant: readonly Meant[];
}

export interface Meant {
  readonly device: Id<'device'>;
  readonly text: string;
}

export type Problem =
  | { readonly is: 'unreached'; readonly stage: Ref }
  | { readonly is: 'not out'; readonly stage: Ref }
  | { readonly is: 'silent'; readonly from: Ref; readonly at: Ref }
  /** No instrument is plugged in, or nothing at which anybody could hear it. */
  | { readonly is: 'unheard'; readonly lacks: 'an instrument' | 'an end' }
  /** Heard where silence is wanted; heard with one side where two are wanted. */
  | { readonly is: 'not silent' | 'narrow'; readonly from: Ref; readonly at: Ref }
  | { readonly is: 'order'; readonly first: Ref; readonly second: Ref }
  | { readonly is: 'forbidden'; readonly control: Ref; readonly value: Value; readonly held: Value };

export interface Compiled {
  readonly sound: Id<'sound'>;
  readonly wants: readonly Wanted[];
  readonly hand: readonly HandMove[];
  readonly stored: readonly StoredSlot[];
  /** The rig as it stands when the sound has come back right. */
  readonly state: RigState;
  readonly trace: Trace;
  readonly heard: readonly HearingPair[];
  readonly problems: readonly Problem[];
  /** Controls that only a toggle reaches. */
  readonly toggled: readonly Ref[];
  /** What pedals move in this sound, and how. */
  readonly pedals: readonly Swept[];
}

/** An amount under a pedal: by what its box moves it, or why it does not. */
export interface Swept {
  readonly control: Ref;
  readonly pedal: Ref;
  readonly heel: number;
  readonly toe: number;
  /** Where it stands until the pedal is touched; undefined when that is left open. */
  readonly at?: Value;
  readonly by: Sweep | 'nothing plugged in' | 'not called' | 'no way';
}

/** A source that is to be heard at an end, or silent there. */
export interface HearingPair {
  readonly from: Ref;
  readonly at: Ref;
  readonly as: 'sounds' | 'silent' | 'either' | 'stereo';
}

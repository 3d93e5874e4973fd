import type { Spot } from './board.js';
import type { FigureSource } from './figure-source.js';
import type { Id, Ref } from './ids.js';
import type { Settings, Value } from './value.js';
import type { Connector } from './device.js';

/** One way to wire the rig; sounds and songs are shared by all. */
export interface Hookup {
  readonly kind: 'hookup';
  readonly id: Id<'hookup'>;
  readonly name: string;
  readonly settings: Settings;
  /** Holds for every sound here unless the sound says otherwise. */
  readonly hears: readonly HeardWish[];
  /** Taped, at full, never stomped: taken for granted by the proof and printed on the line-check sheet. */
  readonly assumes: readonly Assumption[];
  readonly admits?: Disturbances;
  /** What was ticked before the gigs, day by day, the last first. */
  readonly lineChecks?: readonly LineCheck[];
  /** Where boxes stand, by box. */
  readonly place?: Readonly<Record<Id<'device'>, Spot>>;
  /** What each of the band wants to hear of all that plays, by who it is. */
  readonly mixes?: Readonly<Record<string, MonitorMix>>;
}

export const HOW_MUCH = ['most of all', 'well', 'a little', 'not at all'] as const;
export type HowMuch = (typeof HOW_MUCH)[number];

/** What one person wants to hear of whom, and on what. */
export interface MonitorMix {
  /** A wedge or in-ears of the rig; somebody else's unless said. */
  readonly at?: Id<'device'>;
  readonly hears: Readonly<Record<string, HowMuch>>;
}

/** The line check of one day: which of its lines were found right, by their words. */
export interface LineCheck {
  /** As 2026-05-31. */
  readonly on: string;
  readonly ticked: Readonly<Record<string, { readonly by: string; /** ISO 8601. */ readonly when: string }>>;
}

export interface Assumption {
  readonly control: Ref;
  readonly value: Value;
  readonly why: string;
}

/** What the proof reckons with besides recalls and power-up. */
export interface Disturbances {
  readonly moves: boolean;
  readonly feet: boolean;
  readonly powerCycle: boolean;
  /** Hands on knobs. Not usual: knobs are taken to stay where they were set. */
  readonly knobs?: boolean;
}

export const USUAL_DISTURBANCES: Disturbances = { moves: true, feet: true, powerCycle: true };

export interface HeardWish {
  readonly from: Ref | 'the instrument in hand';
  readonly at: Ref;
  readonly as: 'sounds' | 'silent' | 'either' | 'stereo';
}

export interface Cable {
  readonly kind: 'cable';
  readonly id: Id<'cable'>;
  readonly hookup: Id<'hookup'>;
  /** `device.jack` at both ends; Y, insert and bridging leads are devices. */
  readonly ends: readonly [Ref, Ref];
  readonly m?: number;
  /** What a metre of it is to a coil; 100 unless said. */
  readonly pFPerM?: number;
  /** Where that comes from; assumed unless said. */
  readonly pFFrom?: FigureSource;
  /** Gauge of a loudspeaker lead (AWG); 16 unless said. */
  readonly awg?: number;
  readonly plugs?: readonly [Connector, Connector];
  /** Which of its plugs are bent by a right angle; flat ones on a board unless said. */
  readonly angled?: readonly [boolean, boolean];
  readonly label?: string;
  readonly colour?: string;
  readonly have?: boolean;
  /** In for tonight: to be made right, or taken out again. */
  readonly forNow?: true;
  /** Leads that stay plugged together, by the name of the loom. */
  readonly loom?: string;
  /** Cut to length, or its plugs put on, by the player's own hands. */
  readonly byHand?: true;
  /** A supply lead that turns the polarity round. */
  readonly turns?: true;
}

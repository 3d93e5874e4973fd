import type { Id } from './ids.js';

/** How a case travels. What a carrier takes differs: ask yours. */
export const TRAVELS = ['van', 'hold', 'cabin', 'on the back'] as const;
export type Travels = (typeof TRAVELS)[number];
export const STAGE_SIDES = ['left', 'middle', 'right'] as const;
export type StageSide = (typeof STAGE_SIDES)[number];

/** A case or a bag, and what belongs in it. */
export interface PackCase {
  readonly kind: 'packCase';
  readonly id: Id<'packCase'>;
  readonly name: string;
  /** Inside: width, depth and height, in mm. */
  readonly mm?: readonly [number, number, number];
  /** Empty, in kg. */
  readonly kg?: number;
  /** What it may weigh, in kg. */
  readonly mostKg?: number;
  readonly travels?: Travels;
  /** Where it stands on stage; it may be unknown until rehearsal. */
  readonly side?: StageSide;
  readonly owner?: string;
  /** The one colour by which it is told from afar. */
  readonly colour?: string;
  /** What belongs in it, by its name. */
  readonly holds: Readonly<Record<string, Packed>>;
}

/** Something that is packed: a box of the rig, a board with all that stands on it, or anything else. */
export interface Packed {
  readonly device?: Id<'device'>;
  readonly board?: string;
  /** One unless said. */
  readonly many?: number;
  /** Of one, in kg; that of a box is known from the box. */
  readonly kg?: number;
  /** A compartment of the case. */
  readonly in?: string;
  /** Somebody else's. */
  readonly whose?: string;
  readonly is?: PackedAs;
  /** The day on which it was made to hold what its box holds: a backup, or another unit of the same kind. */
  readonly asOf?: string;
  /** Which file is in which slot. */
  readonly files?: Readonly<Record<string, string>>;
}

/** What a thing is packed as, besides being used. */
export const PACKED_AS = ['spare', 'to charge', 'digital'] as const;
export type PackedAs = (typeof PACKED_AS)[number];

/** What went out to a date, and what came back. */
export interface Packing {
  readonly kind: 'packing';
  readonly id: Id<'packing'>;
  /** As 2026-05-31. */
  readonly on: string;
  /** By the names of things. */
  readonly out: Readonly<Record<string, PackedBy>>;
  readonly back: Readonly<Record<string, PackedBy>>;
}

export interface PackedBy {
  readonly by: string;
  /** ISO 8601. */
  readonly when: string;
}

/** Sides of a box or a board as the player sees it from the front, clockwise. */
export const SIDES = ['back', 'right', 'front', 'left'] as const;
export type Side = (typeof SIDES)[number];

/** A plate on which boxes stand: a board, a tier of one, a shelf or a drawer of a rack. All in mm. */
export interface Board {
  /** Width and depth. */
  readonly mm: readonly [number, number];
  /** Room above it: up to the lid, or to the next shelf. */
  readonly high?: number;
  /** What it weighs with nothing on it. */
  readonly kg?: number;
  /** A tier: so far right of, behind and above the front left corner of another board; below it when negative. */
  readonly on?: { readonly board: string; readonly x: number; readonly y: number; readonly z: number };
  /** It has slots: leads can run beneath it. */
  readonly slotted?: true;
  /** Where leads to what stands beside it leave; anywhere unless said. */
  readonly leave?: Side;
  /** The side on which the signal comes in: boxes then follow one another towards the other side. */
  readonly enters?: 'left' | 'right';
}

/** Where a box stands: the front left corner of what it covers, in mm from that of its board; turned clockwise. */
export interface Spot {
  readonly x: number;
  readonly y: number;
  /** In degrees: 0, 90, 180 or 270. */
  readonly turn: number;
  /** The board's name. */
  readonly at: string;
}
export const TURNS = [0, 90, 180, 270] as const;
export type Turn = (typeof TURNS)[number];

/** A shoe needs so much from the middle of one switch to the next, in mm (common practice). */
export const SHOE_MM = 60;

/** A board is at most so wide or deep, in mm. */
export const WIDEST_BOARD = 3000;

import type { Side, Turn } from '../rig/board.js';

/** A rectangle along the edges of a board, in mm from its front left corner: x to the right, y to the back. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly d: number;
}
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Touching is no overlap. */
export const overlaps = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.d && b.y < a.y + a.d;

/** The smallest rectangle that holds some. */
export const around = (rects: readonly Rect[]): Rect => {
  const x = Math.min(...rects.map((r) => r.x));
  const y = Math.min(...rects.map((r) => r.y));
  return {
    x,
    y,
    w: Math.max(...rects.map((r) => r.x + r.w)) - x,
    d: Math.max(...rects.map((r) => r.y + r.d)) - y,
  };
};

export const movedBy = (rect: Rect, by: Point): Rect => ({ ...rect, x: rect.x + by.x, y: rect.y + by.y });
export const middleOf = ({ x, y, w, d }: Rect): Point => ({ x: x + w / 2, y: y + d / 2 });
/** Along the edges, as leads are laid. */
export const apart = (a: Point, b: Point): number => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);

/** The turn nearest to an angle in degrees. @example turnNear(-90) // 270 */
export const turnNear = (degrees: number): Turn => {
  const quarters = ((Math.round(degrees / 90) % 4) + 4) % 4;
  return quarters === 0 ? 0 : quarters === 1 ? 90 : quarters === 2 ? 180 : 270;
};

/** What a thing covers once it is turned. */
export const turnedSize = (w: number, d: number, turn: Turn): { readonly w: number; readonly d: number } =>
  turn % 180 === 0 ? { w, d } : { w: d, d: w };

/** A point of a thing of that size, before it is turned, as it lies afterwards, clockwise seen from above. */
export const turnedPoint = ({ x, y }: Point, w: number, d: number, turn: Turn): Point => {
  switch (turn) {
    case 0:
      return { x, y };
    case 90:
      return { x: y, y: w - x };
    case 180:
      return { x: w - x, y: d - y };
    case 270:
      return { x: d - y, y: x };
  }
};

const AHEAD: Readonly<Record<Side, Point>> = {
  back: { x: 0, y: 1 },
  right: { x: 1, y: 0 },
  front: { x: 0, y: -1 },
  left: { x: -1, y: 0 },
};

/** One step out of a side. */
export const outOf = (side: Side): Point => AHEAD[side];
const CLOCKWISE: readonly Side[] = ['back', 'right', 'front', 'left'];
export const turnedSide = (side: Side, turn: Turn): Side =>
  CLOCKWISE[(CLOCKWISE.indexOf(side) + turn / 90) % 4] ?? side;

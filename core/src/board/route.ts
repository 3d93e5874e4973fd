import TinyQueue from 'tinyqueue';
import { theItem } from '../known/the.js';
import { apart, type Point, type Rect } from './shapes.js';

/** Room that a lead takes beside a box, in mm (assumed: a patch lead is about 5 mm thick). */
export const BESIDE = 4;
/** What it costs to climb over boxes, or down through slots and up again, in mm of lead (assumed). */
export const OVER_MM = 120;
export const UNDER_MM = 80;

/** The way of a lead on a board, in mm. */
export interface Route {
  readonly mm: number;
  /** Its corners, from end to end. */
  readonly corners: readonly Point[];
  /** Along the board, over boxes where there is no way between them, or beneath a board with slots. */
  readonly goes: 'along' | 'over' | 'under';
}

const grown = ({ x, y, w, d }: Rect): Rect => ({ x: x - BESIDE, y: y - BESIDE, w: w + 2 * BESIDE, d: d + 2 * BESIDE });
const isInside = ({ x, y }: Point, r: Rect): boolean => x > r.x && x < r.x + r.w && y > r.y && y < r.y + r.d;
const sorted = (values: readonly number[]): readonly number[] => [...new Set(values)].sort((a, b) => a - b);

/** Whether a straight stretch along an edge keeps out of a rectangle. */
const misses = (a: Point, b: Point, r: Rect): boolean =>
  a.x === b.x
    ? a.x <= r.x || a.x >= r.x + r.w || Math.max(a.y, b.y) <= r.y || Math.min(a.y, b.y) >= r.y + r.d
    : a.y <= r.y || a.y >= r.y + r.d || Math.max(a.x, b.x) <= r.x || Math.min(a.x, b.x) >= r.x + r.w;

/** A corner costs so much in the search only, so that of two equal ways the one with fewer corners is taken. */
const CORNER = 0.001;

interface Step {
  readonly at: number;
  readonly axis: 0 | 1;
  readonly cost: number;
}

/**
 * The shortest way along the edges between boxes from point to point, by Dijkstra on the lines that the edges of the
 * boxes make: one of the shortest ways lies on them (a property of rectilinear paths among rectangles).
 * @returns the corners; undefined when there is no way between the boxes
 */
export const wayBetween = (from: Point, to: Point, boxes: readonly Rect[]): readonly Point[] | undefined => {
  const walls = boxes.map(grown);
  if (walls.some((r) => isInside(from, r) || isInside(to, r))) return undefined;
  const xs = sorted([from.x, to.x, ...walls.flatMap((r) => [r.x, r.x + r.w])]);
  const ys = sorted([from.y, to.y, ...walls.flatMap((r) => [r.y, r.y + r.d])]);
  const point = (at: number): Point => ({
    x: theItem(xs, at % xs.length),
    y: theItem(ys, Math.floor(at / xs.length)),
  });
  const start = xs.indexOf(from.x) + ys.indexOf(from.y) * xs.length;
  const goal = xs.indexOf(to.x) + ys.indexOf(to.y) * xs.length;
  const best = new Map([
    [start * 2, 0],
    [start * 2 + 1, 0],
  ]);
  const cameFrom = new Map<number, number>();
  const queue = new TinyQueue<Step>(
    [
      { at: start, axis: 0, cost: 0 },
      { at: start, axis: 1, cost: 0 },
    ],
    (a, b) => a.cost - b.cost,
  );
  for (let step = queue.pop(); step; step = queue.pop()) {
    const key = step.at * 2 + step.axis;
    if ((best.get(key) ?? Infinity) < step.cost) continue;
    if (step.at === goal) return cornersOf(key, cameFrom, point);
    const here = point(step.at);
    const column = step.at % xs.length;
    for (const [by, axis, isThere] of [
      [-1, 0, column > 0],
      [1, 0, column < xs.length - 1],
      [-xs.length, 1, step.at >= xs.length],
      [xs.length, 1, step.at < xs.length * (ys.length - 1)],
    ] as const) {
      if (!isThere) continue;
      const next = step.at + by;
      const there = point(next);
      if (!walls.every((r) => misses(here, there, r))) continue;
      const cost = step.cost + apart(here, there) + (axis === step.axis ? 0 : CORNER);
      const nextKey = next * 2 + axis;
      if (cost >= (best.get(nextKey) ?? Infinity)) continue;
      best.set(nextKey, cost);
      cameFrom.set(nextKey, key);
      queue.push({ at: next, axis, cost });
    }
  }
  return undefined;
};

const cornersOf = (
  goal: number,
  cameFrom: ReadonlyMap<number, number>,
  point: (at: number) => Point,
): readonly Point[] => {
  const way: Point[] = [];
  for (let key: number | undefined = goal; key !== undefined; key = cameFrom.get(key))
    way.unshift(point(Math.floor(key / 2)));
  return way.filter((p, i) => {
    const [a, b] = [way[i - 1], way[i + 1]];
    return !a || !b || !((a.x === p.x && p.x === b.x) || (a.y === p.y && p.y === b.y));
  });
};

const lengthOf = (corners: readonly Point[]): number =>
  corners.slice(1).reduce((sum, p, i) => sum + apart(p, theItem(corners, i)), 0);

/** The shortest way for a lead among boxes: between them, beneath a board with slots, else over them. */
export const routeOf = (from: Point, to: Point, boxes: readonly Rect[], isSlotted: boolean): Route => {
  const along = wayBetween(from, to, boxes);
  const straight = apart(from, to);
  const leap = [from, { x: to.x, y: from.y }, to];
  const beneath: Route = { mm: straight + UNDER_MM, corners: leap, goes: 'under' };
  if (!along) return isSlotted ? beneath : { mm: straight + OVER_MM, corners: leap, goes: 'over' };
  const mm = lengthOf(along);
  return isSlotted && beneath.mm < mm ? beneath : { mm, corners: along, goes: 'along' };
};

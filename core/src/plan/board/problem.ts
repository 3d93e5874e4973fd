import { nearest } from '../../board/shoe.js';
import { SHOE_MM, type Side, type Turn } from '../../rig/board.js';
import { apart, movedBy, overlaps, type Point, type Rect } from '../../board/shapes.js';

/** A box in one of the ways in which it may be turned; all from the front left corner of what it covers then, in mm. */
export interface BoxTurned {
  readonly turn: Turn;
  readonly body: Rect;
  /** What plugs cover beside it. */
  readonly plugs: readonly Rect[];
  /** What holds body and plugs. */
  readonly around: Rect;
  /** Where each of its leads begins, by the lead's number. */
  readonly ends: ReadonlyMap<number, Point>;
  /** Where a foot hits it. */
  readonly switches: readonly Point[];
}

export interface BoxToLay {
  readonly id: string;
  /** A foot has to reach it. */
  readonly isStomped: boolean;
  /** What must keep away from what. */
  readonly hum: 'makes' | 'hears' | 'neither';
  readonly turned: readonly BoxTurned[];
}

/** A lead between two boxes, or from a box to a side of the board, or to wherever. */
export interface LeadToLay {
  readonly from: number;
  readonly to: number | Side | undefined;
  /** Its sound should run this way: to the right (1), or to the left (-1), as one looks at the board. */
  readonly runs?: 1 | -1;
}

export interface LayoutProblem {
  readonly board: Rect;
  readonly boxes: readonly BoxToLay[];
  readonly leads: readonly LeadToLay[];
  /** Boxes that stay where they are, with their plugs. */
  readonly taken: readonly Rect[];
}

/** Where a box stands: which of its turns, and its front left corner. */
export interface Laid {
  readonly as: number;
  readonly x: number;
  readonly y: number;
}
/** By the boxes' numbers; nothing where a box found no room. */
export type Layout = readonly (Laid | undefined)[];

/** A supply is kept so far from boxes of high gain where there is room, in mm (assumed; common practice says: away). */
const AWAY_MM = 120;
/** What a box that found no room costs, in mm of lead, and more for each mm² of it: a large one finds room the hardest. */
const LEFT_OUT = 20_000;
const LEFT_OUT_BY_AREA = 2;
/** What a stomped box costs for each mm that it stands further back. */
const REACH = 0.5;
/** What a box costs that is in no row, in mm of lead. */
const OUT_OF_LINE = 60;
/** What each mm costs by which a lead runs against the way of the signal, up to so many: the way back to another row is no more than that. */
const MOST_AGAINST = 120;
/** What each mm costs by which switches of two boxes stand too close for a shoe: more than any lead. */
const TOO_CLOSE = 10;
/** What each mm too near costs between what hums and what hears it. */
const TOO_NEAR = 2;

export const turnedAs = ({ boxes }: LayoutProblem, box: number, { as }: Laid): BoxTurned | undefined =>
  boxes[box]?.turned[as];

const gap = (a: Rect, b: Rect): number =>
  Math.max(0, a.x - b.x - b.w, b.x - a.x - a.w) + Math.max(0, a.y - b.y - b.d, b.y - a.y - a.d);

/** Of a lead between two plugs, or to the side at which it leaves, in mm; the plugs themselves are not counted. */
export const leadMm = (problem: LayoutProblem, layout: Layout, lead: number): number => {
  const { from, to } = problem.leads[lead] ?? {};
  const a = from === undefined ? undefined : endOf(problem, layout, from, lead);
  if (!a || to === undefined) return 0;
  if (typeof to === 'number') {
    const b = endOf(problem, layout, to, lead);
    return b ? apart(a, b) : 0;
  }
  const { w, d } = problem.board;
  const far = { left: a.x, right: w - a.x, front: a.y, back: d - a.y }[to];
  return Math.max(0, far);
};

/** What a lead costs whose sound runs against the way of the signal on its board. */
export const againstCost = (problem: LayoutProblem, layout: Layout, lead: number): number => {
  const { from, to, runs } = problem.leads[lead] ?? {};
  if (runs === undefined || from === undefined || typeof to !== 'number') return 0;
  const [a, b] = [middleX(problem, layout, from), middleX(problem, layout, to)];
  return a === undefined || b === undefined ? 0 : Math.min(MOST_AGAINST, Math.max(0, (a - b) * runs));
};

const middleX = (problem: LayoutProblem, layout: Layout, box: number): number | undefined => {
  const laid = layout[box];
  const body = laid && bodyAt(problem, box, laid);
  return body && body.x + body.w / 2;
};

/** Of all leads of a layout, in mm; plugs not counted. */
export const leadsMm = (problem: LayoutProblem, layout: Layout): number =>
  problem.leads.reduce((sum, _, lead) => sum + leadMm(problem, layout, lead), 0);

const endOf = (problem: LayoutProblem, layout: Layout, box: number, lead: number): Point | undefined => {
  const laid = layout[box];
  const end = laid && turnedAs(problem, box, laid)?.ends.get(lead);
  return laid && end && { x: end.x + laid.x, y: end.y + laid.y };
};

export const bodyAt = (problem: LayoutProblem, box: number, laid: Laid): Rect | undefined => {
  const body = turnedAs(problem, box, laid)?.body;
  return body && movedBy(body, laid);
};

/** What a box costs by where it stands, besides its leads and its neighbours. */
export const reachCost = (problem: LayoutProblem, layout: Layout, box: number): number => {
  const laid = layout[box];
  const body = laid && bodyAt(problem, box, laid);
  if (!body) {
    const { w = 0, d = 0 } = problem.boxes[box]?.turned[0]?.body ?? {};
    return LEFT_OUT + LEFT_OUT_BY_AREA * w * d;
  }
  return problem.boxes[box]?.isStomped ? body.y * REACH : 0;
};

/** What a box costs whose front edge is in line with no other's: rows are easier to see and to stomp. */
export const rowCost = (layout: Layout, box: number): number => {
  const laid = layout[box];
  if (!laid || layout.length < 2) return 0;
  for (const [other, there] of layout.entries()) if (other !== box && there?.y === laid.y) return 0;
  return OUT_OF_LINE;
};

/** What a box costs by how near it stands to those that hear its hum, or whose hum it hears. */
export const nearCost = (problem: LayoutProblem, layout: Layout, box: number): number => {
  const hum = problem.boxes[box]?.hum ?? 'neither';
  const laid = layout[box];
  const body = laid && bodyAt(problem, box, laid);
  if (!body || hum === 'neither') return 0;
  const against = hum === 'makes' ? 'hears' : 'makes';
  return problem.boxes.reduce((sum, { hum: theirs }, other) => {
    const at = layout[other];
    const there = theirs === against && at ? bodyAt(problem, other, at) : undefined;
    return there ? sum + Math.max(0, AWAY_MM - gap(body, there)) * TOO_NEAR : sum;
  }, 0);
};

/** What a box costs by how close its switches stand to those of others: a shoe hits both. */
export const shoeCost = (problem: LayoutProblem, layout: Layout, box: number): number => {
  const { boxes } = problem;
  if (!boxes[box]?.isStomped) return 0;
  let cost = 0;
  for (let other = 0; other < layout.length; other += 1)
    if (other !== box && boxes[other]?.isStomped) cost += closeCost(problem, layout, box, other);
  return cost;
};

const closeCost = (problem: LayoutProblem, layout: Layout, box: number, other: number): number => {
  const [laid, there] = [layout[box], layout[other]];
  if (!laid || !there) return 0;
  const [mine, theirs] = [turnedAs(problem, box, laid), turnedAs(problem, other, there)];
  if (!mine?.switches.length || !theirs?.switches.length) return 0;
  const [x, y] = [there.x - laid.x, there.y - laid.y];
  const isFar = x > mine.body.w + SHOE_MM || -x > theirs.body.w + SHOE_MM;
  return isFar ? 0 : Math.max(0, SHOE_MM - nearest(mine.switches, theirs.switches, x, y)) * TOO_CLOSE;
};

/** What a layout costs, in mm of lead and what stands for it. */
export const costOf = (problem: LayoutProblem, layout: Layout): number =>
  leadsMm(problem, layout) +
  problem.leads.reduce((sum, _, lead) => sum + againstCost(problem, layout, lead), 0) +
  problem.boxes.reduce(
    (sum, { hum }, box) =>
      sum +
      reachCost(problem, layout, box) +
      rowCost(layout, box) +
      (hum === 'makes' ? nearCost(problem, layout, box) : 0) +
      // Each two once.
      shoeCost(problem, layout, box) / 2,
    0,
  );

/** Whether two rectangles overlap once the other is moved by so much; nothing is made for it, it is asked so often. */
const meet = (a: Rect, b: Rect, x: number, y: number): boolean =>
  a.x < b.x + x + b.w && b.x + x < a.x + a.w && a.y < b.y + y + b.d && b.y + y < a.y + a.d;

/** Whether two boxes with their plugs get in each other's way. */
export const collide = (problem: LayoutProblem, a: number, at: Laid, b: number, bt: Laid): boolean => {
  const one = turnedAs(problem, a, at);
  const other = turnedAs(problem, b, bt);
  if (!one || !other) return false;
  const x = bt.x - at.x;
  const y = bt.y - at.y;
  if (!meet(one.around, other.around, x, y)) return false;
  if (meet(one.body, other.body, x, y)) return true;
  for (const plug of one.plugs) if (meet(plug, other.body, x, y)) return true;
  for (const plug of other.plugs) {
    if (meet(one.body, plug, x, y)) return true;
    for (const mine of one.plugs) if (meet(mine, plug, x, y)) return true;
  }
  return false;
};

/** Whether a box can stand there with nothing but the board and what stays. */
export const isFree = (problem: LayoutProblem, box: number, laid: Laid): boolean => {
  const what = turnedAs(problem, box, laid);
  if (!what) return false;
  const { board, taken } = problem;
  const { w, d } = what.body;
  if (laid.x < 0 || laid.y < 0 || laid.x + w > board.w || laid.y + d > board.d) return false;
  if (taken.length === 0) return true;
  return [movedBy(what.body, laid), ...what.plugs.map((p) => movedBy(p, laid))].every((r) =>
    taken.every((t) => !overlaps(r, t)),
  );
};

/** Every box that has a place is on the board, and none is in the way of another. */
export const isPossible = (problem: LayoutProblem, layout: Layout): boolean =>
  layout.every(
    (laid, box) =>
      !laid ||
      (isFree(problem, box, laid) &&
        layout.every((there, other) => other <= box || !there || !collide(problem, box, laid, other, there))),
  );

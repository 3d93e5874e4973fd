import { theEntry, theItem } from '../../known/the.js';
import type { Leg } from '../../rig/device.js';
import type { Ref } from '../../rig/ids.js';
import { activeIn, factsHold, type RigState } from './state.js';
import type { WiredEnd, Wiring } from './wiring.js';

/** Which side of the stereo picture a signal belongs to: neither of them as long as nothing has made two. */
export type Side = 'mono' | Leg;

export type StageState = 'in' | 'bypassed' | 'outside';

export interface Reach {
  readonly source: WiredEnd;
  readonly end: WiredEnd;
  readonly sides: readonly Side[];
}

/** What becomes of the signal in one state of the rig. Rings, dead ends and silence are values in it, not errors. */
export interface Trace {
  readonly wiring: Wiring;
  readonly state: RigState;
  /** By edge: carries the signal in this state. */
  readonly active: Uint8Array;
  readonly leaving: Leaving;
  /** By point: reached from a source and leads to an end that counts. */
  readonly onPath: Uint8Array;
  readonly reached: Uint8Array;
  /** By point: leads to an end that counts, whether or not a source reaches it. */
  readonly leads: Uint8Array;
  /** What comes from each source that counts. */
  readonly spreads: ReadonlyMap<WiredEnd, Spread>;
  /** Every block of the wired boxes: sounding, passed while off, or not on the way. */
  readonly stages: ReadonlyMap<Ref, StageState>;
  readonly reaches: readonly Reach[];
}

/** The active edges that leave each point, in a row: those of a point stand at `at[point]` up to `at[point + 1]`. */
export interface Leaving {
  readonly at: Int32Array;
  readonly edges: Int32Array;
}

/** Where the signal of one source comes to. */
export interface Spread {
  /** By point: the sides that arrive there, as bits, both where they have been added; 0 where nothing does. */
  readonly sides: Uint8Array;
  /** The points that it comes to, the nearest first. */
  readonly order: readonly number[];
}

export interface Heeds {
  /** Only signals from these sources count; every source when absent. */
  readonly from?: readonly Ref[];
  /** Only ways to these ends count; every end but tuners when absent. */
  readonly to?: readonly Ref[];
}

const SIDES: readonly Side[] = ['mono', 'left', 'right'];
/** The bit of a side in a spread. */
export const sideBit = (side: Side): number => 1 << SIDES.indexOf(side);
const BOTH = sideBit('left') | sideBit('right');

/** What one signal is to the ear: both sides added are one again. */
const sidesIn = (bits: number): readonly Side[] =>
  (bits & BOTH) === BOTH ? ['mono'] : SIDES.filter((s) => bits & sideBit(s));

/**
 * Follows the signal from its sources to every end. Left and right are points of their own, so that every walk is a
 * plain one.
 */
export const trace = (wiring: Wiring, state: RigState, heeds: Heeds = {}): Trace => {
  const active = activeIn(wiring, state);
  const leaving = leavingIn(wiring, active);
  const isOn = blocksOn(wiring, state);
  const makes = madeBy(wiring, isOn);
  const sources = wiring.sources.filter((s) => !heeds.from || heeds.from.includes(s.ref));
  const counted = wiring.ends.filter((e) => (heeds.to ? heeds.to.includes(e.ref) : e.end.is !== 'tuner'));
  const spreads = new Map(sources.map((source) => [source, spread(wiring, leaving, makes, source.point)]));
  const reached = new Uint8Array(wiring.points.length);
  for (const { order } of spreads.values()) for (const point of order) reached[point] = 1;
  const leads = backward(
    wiring,
    active,
    counted.map((e) => e.point),
  );
  const onPath = new Uint8Array(reached);
  for (let p = 0; p < onPath.length; p += 1) onPath[p]! &= leads[p]!;
  const brought = new Map(wiring.ends.map((end) => [end, broughtTo({ wiring, active }, end.point)]));
  const reaches = sources.flatMap((source) =>
    wiring.ends.flatMap((end): Reach[] => {
      const { sides } = theEntry(spreads, source);
      if (!sides[end.point]) return [];
      const heard = new Set(theEntry(brought, end).flatMap((p) => sidesIn(theItem(sides, p))));
      return [{ source, end, sides: SIDES.filter((s) => heard.has(s)) }];
    }),
  );
  return {
    wiring,
    state,
    active,
    leaving,
    onPath,
    reached,
    leads,
    spreads,
    stages: stagesOf(wiring, active, onPath, isOn),
    reaches,
  };
};

const leavingIn = ({ points, from }: Wiring, active: Uint8Array): Leaving => {
  const at = new Int32Array(points.length + 1);
  for (let e = 0; e < active.length; e += 1) if (active[e]) at[from[e]! + 1]! += 1;
  for (let p = 0; p < points.length; p += 1) at[p + 1]! += at[p]!;
  const filled = at.slice();
  const found = new Int32Array(at[points.length]!);
  for (let e = 0; e < active.length; e += 1) {
    if (!active[e]) continue;
    const point = from[e]!;
    found[filled[point]!] = e;
    filled[point]! += 1;
  }
  return { at, edges: found };
};

/** By edge: whether the block that it passes is on. */
const blocksOn = ({ edges, gated }: Wiring, state: RigState): Uint8Array => {
  const isOn = new Uint8Array(edges.length);
  for (const { edge, on } of gated) if (factsHold(on, state)) isOn[edge] = 1;
  return isOn;
};

/** By edge: the side, as a bit, that whatever passes it becomes; 0 where it stays what it is. */
const madeBy = ({ edges, gated }: Wiring, isOn: Uint8Array): Uint8Array => {
  const makes = new Uint8Array(edges.length);
  for (const { edge, makes: side } of gated) if (side && isOn[edge]) makes[edge] = sideBit(side);
  return makes;
};

/** Every point that the signal comes to, and the sides that come there. */
const spread = ({ points, to: leads }: Wiring, leaving: Leaving, makes: Uint8Array, from: number): Spread => {
  const sides = new Uint8Array(points.length);
  const order = [from];
  const queue = [from];
  sides[from] = sideBit('mono');
  for (const point of queue) {
    for (let k = leaving.at[point]!; k < leaving.at[point + 1]!; k += 1) {
      const e = leaving.edges[k]!;
      const to = leads[e]!;
      const before = sides[to]!;
      const after = before | (makes[e] || sides[point]!);
      if (after === before) continue;
      sides[to] = after;
      if (!before) order.push(to);
      queue.push(to);
    }
  }
  return { sides, order };
};

/**
 * What comes apart to an end: the jacks of its box, and the sides of its chains, from which the signal goes on to it
 * with no jack between; a jack that is the end itself brings one signal.
 */
export const broughtTo = (
  { wiring: { points, into, from: starts, edges }, active }: Pick<Trace, 'wiring' | 'active'>,
  end: number,
): readonly number[] => {
  const isApart = (p: number): boolean => isApartAt(theItem(points, p));
  if (isApart(end)) return [end];
  const seen = new Set([end]);
  for (const p of seen) {
    if (p !== end && isApart(p)) continue;
    for (const e of theItem(into, p))
      if (active[e] && theItem(edges, e).carries.by !== 'cable') seen.add(theItem(starts, e));
  }
  const apart = [...seen].filter((p) => isApart(p));
  return apart.length ? apart : [end];
};

/** A jack or a side of a chain brings something of its own; a bus inside a box only adds. */
const isApartAt = (point: Wiring['points'][number]): boolean =>
  point.lane !== undefined || (!point.inside && !isBus(point));

const isBus = ({ id, device }: Wiring['points'][number]): boolean => id.startsWith('#', device.length + 1);

/** Where the signal of one source comes to, whether or not it counts. */
export const spreadFrom = (t: Trace, source: WiredEnd): Spread =>
  t.spreads.get(source) ?? spread(t.wiring, t.leaving, madeBy(t.wiring, blocksOn(t.wiring, t.state)), source.point);

/**
 * By point: the signal comes to it from some of these points, along the path and past nothing that is in the way.
 * Points that are not on the path lead nowhere.
 */
export const downstream = (
  { wiring, leaving, onPath }: Trace,
  from: readonly number[],
  isInTheWay?: (edge: number) => boolean,
): Uint8Array => {
  const seen = new Uint8Array(onPath.length);
  const queue = from.filter((p) => onPath[p]);
  for (const point of queue) seen[point] = 1;
  for (const point of queue) {
    for (let k = leaving.at[point]!; k < leaving.at[point + 1]!; k += 1) {
      const e = leaving.edges[k]!;
      const to = wiring.to[e]!;
      if (!onPath[to] || seen[to] || isInTheWay?.(e)) continue;
      seen[to] = 1;
      queue.push(to);
    }
  }
  return seen;
};

/** By point on the path: the signal still comes from it to some of these points, past nothing that is in the way. */
export const upstream = (
  { wiring, active, onPath }: Trace,
  to: readonly number[],
  isInTheWay: (edge: number) => boolean,
): Uint8Array => {
  const leads = new Uint8Array(onPath.length);
  const queue = to.filter((p) => onPath[p]);
  for (const point of queue) leads[point] = 1;
  for (const point of queue) {
    for (const e of wiring.into[point]!) {
      const from = wiring.from[e]!;
      if (!active[e] || !onPath[from] || leads[from] || isInTheWay(e)) continue;
      leads[from] = 1;
      queue.push(from);
    }
  }
  return leads;
};

/** By point: leads to some of these points in a state. */
export const backward = (wiring: Wiring, active: Uint8Array, ends: readonly number[]): Uint8Array => {
  const leads = new Uint8Array(wiring.points.length);
  const queue = [...ends];
  for (const end of queue) leads[end] = 1;
  for (const point of queue) {
    for (const e of wiring.into[point]!) {
      const from = wiring.from[e]!;
      if (!active[e] || leads[from]) continue;
      leads[from] = 1;
      queue.push(from);
    }
  }
  return leads;
};

const stagesOf = (
  wiring: Wiring,
  active: Uint8Array,
  onPath: Uint8Array,
  isOn: Uint8Array,
): ReadonlyMap<Ref, StageState> => {
  const stages = new Map<Ref, StageState>();
  for (const { edge: i, stage } of wiring.blocks) {
    const passes = active[i] && onPath[theItem(wiring.from, i)] && onPath[theItem(wiring.to, i)];
    if (passes) stages.set(stage, isOn[i] ? 'in' : 'bypassed');
    else if (!stages.has(stage)) stages.set(stage, 'outside');
  }
  return stages;
};

/**
 * A signal that comes back to where it was, whether or not a source feeds it: noise is enough. One ring, as points in
 * order, for each knot of them.
 */
export const ringsOf = (t: Trace): readonly (readonly number[])[] => {
  const known = rings.get(t) ?? findRings(t);
  rings.set(t, known);
  return known;
};

const rings = new WeakMap<Trace, readonly (readonly number[])[]>();

const findRings = ({ wiring: { points, to: leads }, leaving }: Trace): readonly (readonly number[])[] => {
  const entering = new Int32Array(points.length);
  for (const e of leaving.edges) entering[leads[e]!]! += 1;
  const isPeeled = new Uint8Array(points.length);
  const queue: number[] = [];
  for (let point = 0; point < points.length; point += 1) if (entering[point] === 0) queue.push(point);
  for (const point of queue) {
    isPeeled[point] = 1;
    for (let k = leaving.at[point]!; k < leaving.at[point + 1]!; k += 1) {
      const to = leads[leaving.edges[k]!]!;
      if ((entering[to]! -= 1) === 0) queue.push(to);
    }
  }
  if (queue.length === points.length) return [];
  const next = (point: number): number[] =>
    Array.from(leaving.edges.subarray(leaving.at[point], leaving.at[point + 1]), (e) => theItem(leads, e));
  const found: number[][] = [];
  const claimed = new Set<number>();
  for (let start = 0; start < points.length; start += 1) {
    if (isPeeled[start] || claimed.has(start)) continue;
    const ring = shortestRing(start, next);
    if (!ring || ring.some((p) => claimed.has(p))) continue;
    ring.forEach((p) => claimed.add(p));
    found.push(ring);
  }
  return found;
};

const shortestRing = (start: number, next: (point: number) => number[]): number[] | undefined => {
  const cameFrom = new Map<number, number>();
  const queue = [start];
  for (const point of queue) {
    for (const to of next(point)) {
      if (to === start) {
        const ring = [point];
        for (let at = point; at !== start; ring.unshift(at)) at = theEntry(cameFrom, at);
        return ring;
      }
      if (cameFrom.has(to)) continue;
      cameFrom.set(to, point);
      queue.push(to);
    }
  }
  return undefined;
};

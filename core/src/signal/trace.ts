import type { Leg } from '../rig/device.js';
import type { Id, Ref } from '../rig/ids.js';
import { needsIn, whenHolds, type RigState } from './state.js';
import type { Edge, WiredEnd, Wiring } from './wiring.js';

/** Which side of the stereo picture a signal belongs to, apart from the leg of the chain that carries it. */
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
  /** By point: reached from a source and leads to an end that counts. */
  readonly onPath: Uint8Array;
  readonly reached: Uint8Array;
  /** By point: leads to an end that counts, whether or not a source reaches it. */
  readonly leads: Uint8Array;
  /** Every block of the wired boxes: sounding, passed while off, or not on the way. */
  readonly stages: ReadonlyMap<Ref, StageState>;
  readonly reaches: readonly Reach[];
}

export interface Heeds {
  /** Only signals from these sources count; every source when absent. */
  readonly from?: readonly Ref[];
  /** Only ways to these ends count; every end but tuners when absent. */
  readonly to?: readonly Ref[];
}

const SIDES: readonly Side[] = ['mono', 'left', 'right'];
const LEGS: readonly ('both' | Leg)[] = ['both', 'left', 'right'];
const PER_POINT = SIDES.length * LEGS.length;

/** Follows the signal from its sources to every end, side by side and leg by leg. */
export const trace = (wiring: Wiring, state: RigState, heeds: Heeds = {}): Trace => {
  const holdsNow = needsIn(state);
  const active = new Uint8Array(wiring.edges.length);
  for (let i = 0; i < active.length; i += 1) {
    const { needs } = wiring.edges[i]!;
    active[i] = needs.length === 0 || needs.every(holdsNow) ? 1 : 0;
  }
  const sources = wiring.sources.filter((s) => !heeds.from || heeds.from.includes(s.ref));
  const counted = wiring.ends.filter((e) => (heeds.to ? heeds.to.includes(e.ref) : e.end.is !== 'tuner'));

  const reached = new Uint8Array(wiring.points.length);
  const waySides = new Map<WiredEnd, ReadonlyMap<number, ReadonlySet<Side>>>();
  const forward = new Uint8Array(wiring.points.length * PER_POINT);
  for (const source of sources) {
    const seen = spread(wiring, active, state, source.point, forward);
    waySides.set(source, seen);
    for (const point of seen.keys()) reached[point] = 1;
  }
  const leads = backward(wiring, active, counted.map((e) => e.point));
  const onPath = Uint8Array.from(reached, (r, i) => (r && leads[i] ? 1 : 0));

  const reaches = sources.flatMap((source) => wiring.ends.flatMap((end): Reach[] => {
    const sides = waySides.get(source)!.get(end.point);
    return sides ? [{ source, end, sides: SIDES.filter((s) => sides.has(s)) }] : [];
  }));
  return { wiring, state, active, onPath, reached, leads, stages: stagesOf(wiring, active, onPath, state), reaches };
};

const code = (point: number, leg: number, side: number): number => point * PER_POINT + leg * SIDES.length + side;

/** Every point that the signal reaches, with the sides on which it arrives there. `scratch` holds a mark per point, leg and side. */
const spread = (wiring: Wiring, active: Uint8Array, state: RigState, from: number, scratch: Uint8Array): ReadonlyMap<number, Set<Side>> => {
  scratch.fill(0);
  const seen = new Map<number, Set<Side>>();
  const queue: number[] = [];
  const visit = (point: number, leg: number, side: number) => {
    const at = code(point, leg, side);
    if (scratch[at]) return;
    scratch[at] = 1;
    const sides = seen.get(point);
    if (sides) sides.add(SIDES[side]!);
    else seen.set(point, new Set([SIDES[side]!]));
    queue.push(at);
  };
  visit(from, 0, 0);
  for (let q = 0; q < queue.length; q += 1) {
    const at = queue[q]!;
    const point = Math.floor(at / PER_POINT);
    const leg = Math.floor((at % PER_POINT) / SIDES.length);
    const side = at % SIDES.length;
    for (const e of wiring.out[point]!) {
      if (!active[e]) continue;
      const edge = wiring.edges[e]!;
      for (const [nextLeg, nextSide] of carry(wiring, edge, state, leg, side)) visit(edge.to, nextLeg, nextSide);
    }
  }
  return seen;
};

/** On which sides the signal of one source arrives at each point that it reaches. */
export const sidesFrom = (t: Trace, source: WiredEnd): ReadonlyMap<number, ReadonlySet<Side>> =>
  spread(t.wiring, t.active, t.state, source.point, new Uint8Array(t.wiring.points.length * PER_POINT));

const LEFT = 1;
const RIGHT = 2;
const MONO = 0;

/** What one edge makes of a signal on a leg and a side: nothing, one signal or two. */
const carry = (wiring: Wiring, edge: Edge, state: RigState, leg: number, side: number): readonly (readonly [leg: number, side: number])[] => {
  const from = edge.fromLeg === undefined ? undefined : edge.fromLeg === 'left' ? LEFT : RIGHT;
  if (from !== undefined && leg !== 0 && leg !== from) return [];
  if (edge.carries.by === 'block') {
    const { device, block } = edge.carries;
    const on = !block.on || whenHolds(device, block.on, state);
    if (on && block.width === 'spread') return side === MONO ? [[LEFT, LEFT], [RIGHT, RIGHT]] : [[leg === 0 ? (side === LEFT ? LEFT : RIGHT) : leg, side]];
    if (on && block.width === 'sum') return [[0, MONO]];
    return [[leg, side]];
  }
  const leavesChain = !wiring.points[edge.to]!.inside;
  if (leavesChain) return [[0, leg !== 0 && from === undefined ? MONO : side]];
  if (edge.toLeg) return [[edge.toLeg === 'left' ? LEFT : RIGHT, side]];
  return [[leg, side]];
};

const backward = (wiring: Wiring, active: Uint8Array, ends: readonly number[]): Uint8Array => {
  const leads = new Uint8Array(wiring.points.length);
  const queue = [...ends];
  for (const end of queue) leads[end] = 1;
  for (let q = 0; q < queue.length; q += 1) {
    for (const e of wiring.into[queue[q]!]!) {
      const from = wiring.edges[e]!.from;
      if (!active[e] || leads[from]) continue;
      leads[from] = 1;
      queue.push(from);
    }
  }
  return leads;
};

const stagesOf = (wiring: Wiring, active: Uint8Array, onPath: Uint8Array, state: RigState): ReadonlyMap<Ref, StageState> => {
  const stages = new Map<Ref, StageState>();
  for (const { edge: i, stage, device, block } of wiring.blocks) {
    const edge = wiring.edges[i]!;
    const passes = active[i] && onPath[edge.from] && onPath[edge.to];
    stages.set(stage, !passes ? 'outside' : !block.on || whenHolds(device, block.on, state) ? 'in' : 'bypassed');
  }
  return stages;
};

/** A signal that comes back to where it was, whether or not a source feeds it: noise is enough. One ring, as points in order, for each knot of them. */
export const ringsOf = (t: Trace): readonly (readonly number[])[] => {
  const known = rings.get(t) ?? findRings(t);
  rings.set(t, known);
  return known;
};

const rings = new WeakMap<Trace, readonly (readonly number[])[]>();

const findRings = ({ wiring, active }: Trace): readonly (readonly number[])[] => {
  const next = (point: number): number[] => wiring.out[point]!.filter((e) => active[e]).map((e) => wiring.edges[e]!.to);
  const entering = new Int32Array(wiring.points.length);
  wiring.edges.forEach((e, i) => { if (active[i]) entering[e.to]! += 1; });
  const peeled = new Uint8Array(wiring.points.length);
  const queue = wiring.points.map((_, i) => i).filter((i) => entering[i] === 0);
  for (let q = 0; q < queue.length; q += 1) {
    peeled[queue[q]!] = 1;
    for (const to of next(queue[q]!)) {
      entering[to]! -= 1;
      if (entering[to] === 0) queue.push(to);
    }
  }
  if (queue.length === wiring.points.length) return [];
  const found: number[][] = [];
  const claimed = new Set<number>();
  for (let start = 0; start < wiring.points.length; start += 1) {
    if (peeled[start] || claimed.has(start)) continue;
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
  for (let q = 0; q < queue.length; q += 1) {
    for (const to of next(queue[q]!)) {
      if (to === start) {
        const ring = [queue[q]!];
        while (ring[0] !== start) ring.unshift(cameFrom.get(ring[0]!)!);
        return ring;
      }
      if (cameFrom.has(to)) continue;
      cameFrom.set(to, queue[q]!);
      queue.push(to);
    }
  }
  return undefined;
};

/** Where a wanted signal stops: gates that are shut between what the source reaches and what leads to the end; else the furthest open jack that it reaches. */
export interface Stop {
  readonly device: Id<'device'>;
  readonly at: string;
  readonly because: 'shut' | 'nothing plugged in';
}

export const stopsBetween = (t: Trace, source: WiredEnd, end: WiredEnd): readonly Stop[] => {
  const { wiring, active } = t;
  const ahead = sidesFrom(t, source);
  const leads = backward(wiring, active, [end.point]);
  const shut = wiring.edges.filter((e, i) => !active[i] && ahead.has(e.from) && leads[e.to]);
  if (shut.length) return shut.map((e) => ({ device: wiring.points[e.from]!.device, at: wiring.points[e.to]!.id, because: 'shut' as const }));
  const last = [...ahead.keys()].findLast((p) => !wiring.points[p]!.inside && wiring.out[p]!.every((e) => !active[e]) && !wiring.ends.some((w) => w.point === p));
  return last === undefined ? [] : [{ device: wiring.points[last]!.device, at: wiring.points[last]!.id, because: 'nothing plugged in' }];
};

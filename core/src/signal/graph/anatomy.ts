import type { Hookup } from '../../rig/hookup.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Block, Insert } from '../../rig/device.js';
import type { When } from '../../rig/value.js';
import { wire, type Wiring, type WiredInsert } from './wiring.js';
import { theEntry, theItem } from '../../known/the.js';

/** How one stage is embedded in a hook-up: what can take it in and out of the path. */
export interface Embedded {
  readonly ref: Ref;
  readonly device: Id<'device'>;
  readonly block: Block;
  /**
   * Switchable inserts around it, outermost first. Of loops side by side that hold the same box only the first counts.
   */
  readonly inserts: readonly Loop[];
  /** Facts of the fork arms and gated chains in which it stands. */
  readonly gates: readonly Gate[];
  /** Nothing can take it out of the path. */
  readonly always: boolean;
  /** It has no switch of its own and comes and goes with another stage of its box. */
  readonly rides: boolean;
}

interface Gate {
  readonly device: Id<'device'>;
  readonly when: When;
}

const sameGate = (a: Gate, b: Gate): boolean =>
  a.device === b.device && JSON.stringify(a.when) === JSON.stringify(b.when);

export interface Loop extends WiredInsert {
  readonly name: Ref;
  /** Stages between its send and its return, whatever the other loops do. */
  readonly holds: readonly Ref[];
  readonly points: ReadonlySet<number>;
}

/** What is true of a hook-up in every state: where each stage sits and what each loop holds. */
export interface Anatomy {
  readonly hookup: Hookup;
  readonly wiring: Wiring;
  readonly stages: ReadonlyMap<Ref, Embedded>;
  readonly loops: readonly Loop[];
}

export const anatomy = (rig: Rig, hookup: Hookup): Anatomy => {
  const wiring = wire(rig, hookup);
  const loops = wiring.inserts.map((i) => loopOf(wiring, i)).sort((a, b) => b.points.size - a.points.size);
  const around = new Map<Ref, Loop[]>();
  for (const loop of loops) {
    if (!loop.insert.on) continue;
    for (const stage of loop.holds) {
      const list = around.get(stage);
      if (list) list.push(loop);
      else around.set(stage, [loop]);
    }
  }
  const gates = gatesByPoint(wiring);
  const stages = new Map<Ref, Embedded>();
  for (const edge of wiring.edges) {
    if (edge.carries.by !== 'block' || !wiring.wired.has(edge.carries.device)) continue;
    const { device, block } = edge.carries;
    const r = ref(device, block.id);
    const inserts = nested(around.get(r) ?? []);
    const [known, own] = [stages.get(r)?.gates, gates.get(edge.from) ?? []];
    /** Of a stage with two sides: what shuts both of them. */
    const here = known ? known.filter((g) => own.some((o) => sameGate(g, o))) : own;
    stages.set(r, {
      ref: r,
      device,
      block,
      inserts,
      gates: here,
      always: !block.on && inserts.length === 0 && here.length === 0,
      rides: false,
    });
  }
  const switched = new Set([...stages.values()].filter((s) => s.block.on || s.gates.length > 0).map((s) => s.device));
  for (const [r, stage] of stages)
    if (!stage.block.on && stage.gates.length === 0 && switched.has(stage.device))
      stages.set(r, { ...stage, rides: true });
  return { hookup, wiring, stages, loops };
};

const loopOf = (wiring: Wiring, wired: WiredInsert): Loop => {
  const pointsOf = (taps: Insert['send']) => taps.map((t) => theEntry(wiring.at, `${wired.device}.${t.at}`));
  const sends = pointsOf(wired.insert.send);
  const returns = pointsOf(wired.insert.return);
  const ahead = flood(sends, new Set(returns), (p) => theItem(wiring.out, p).map((e) => theItem(wiring.edges, e).to));
  const back = flood(returns, new Set(sends), (p) => theItem(wiring.into, p).map((e) => theItem(wiring.edges, e).from));
  const points = new Set([...ahead].filter((p) => back.has(p)));
  const holds = new Set<Ref>();
  for (const edge of wiring.edges) {
    if (edge.carries.by === 'block' && points.has(edge.from) && points.has(edge.to))
      holds.add(ref(edge.carries.device, edge.carries.block.id));
  }
  return {
    ...wired,
    name: ref(wired.device, wired.insert.id),
    holds: wired.patched ? [...holds] : [],
    points: wired.patched ? points : new Set(),
  };
};

const flood = (
  from: readonly number[],
  stop: ReadonlySet<number>,
  next: (point: number) => readonly number[],
): ReadonlySet<number> => {
  const seen = new Set(from);
  for (const point of seen) if (!stop.has(point)) for (const to of next(point)) seen.add(to);
  return seen;
};

/**
 * The outermost loop and those within it; a second loop beside it that holds the same box is another way, not a
 * further gate.
 */
const nested = (loops: readonly Loop[]): readonly Loop[] =>
  loops.reduce<Loop[]>(
    (kept, loop) => (kept.every((outer) => loop.entries.some((p) => outer.points.has(p))) ? [...kept, loop] : kept),
    [],
  );

/** Gates that every point inside an arm or a gated chain stands behind. */
const gatesByPoint = (wiring: Wiring): ReadonlyMap<number, readonly Gate[]> => {
  const gates = new Map<number, Gate[]>();
  for (const edge of wiring.edges) {
    const { place, lane } = theItem(wiring.points, edge.to);
    const isGate =
      edge.carries.by === 'arm' ||
      (edge.carries.by === 'wire' &&
        theItem(wiring.points, edge.to).inside &&
        !theItem(wiring.points, edge.from).inside);
    const whens = edge.needs.flatMap((n) => ('when' in n ? [{ device: n.device, when: n.when }] : []));
    if (!isGate || whens.length === 0) continue;
    wiring.points.forEach((p, i) => {
      if (p.lane !== lane || (p.place !== place && !p.place.startsWith(`${place}/`))) return;
      const list = gates.get(i);
      const fresh = whens.filter((w) => !list?.some((l) => sameGate(l, w)));
      if (list) list.push(...fresh);
      else gates.set(i, fresh);
    });
  }
  return gates;
};

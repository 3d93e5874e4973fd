import { DirectedGraph } from 'graphology';
import { stronglyConnectedComponents } from 'graphology-components';
import { bfsFromNode } from 'graphology-traversal';
import { readArrangement, type Arrangement } from '../src/signal/graph/arrangement.js';
import type { Chain, Device, Insert, Jack, Slot, Tap } from '../src/rig/device.js';
import type { Hookup } from '../src/rig/hookup.js';
import { ref, splitRef, type Ref } from '../src/rig/ids.js';
import { all, cablesOf, type Rig } from '../src/rig/rig.js';
import { holds, type When } from '../src/rig/value.js';
import type { RigState } from '../src/signal/graph/state.js';

/**
 * The signal of a hook-up in a state as a graph of named places, made straight from boxes and cables and walked with
 * a general graph
 * library. It shares nothing with the wiring and the tracer but the words in which a rig is written down: slow,
 * plain, and made apart.
 */
export interface PlainGraph {
  readonly graph: DirectedGraph;
  /** The ways through each stage, and whether it is on. */
  readonly stages: ReadonlyMap<
    Ref,
    { readonly on: boolean; readonly ways: readonly (readonly [from: string, to: string])[] }
  >;
}

type Side = 'left' | 'right' | 'only';
type Makes = 'left' | 'right' | undefined;
const OTHER = { left: 'right', right: 'left' } as const;

export const graphOf = (rig: Rig, hookup: Hookup, state: RigState): PlainGraph => {
  const graph = new DirectedGraph();
  const stages = new Map<Ref, { on: boolean; ways: [string, string][] }>();
  const cables = cablesOf(rig, hookup.id);
  const plugs = new Set(cables.flatMap((c) => c.ends));
  const go = (from: string, to: string, makes?: Makes): void => {
    const before = graph.hasEdge(from, to) ? (graph.getEdgeAttribute(from, to, 'makes') as Makes) : makes;
    graph.mergeEdge(from, to, { makes: before });
  };
  const pole = (device: Device, at: string): string => `${device.id} ${at.replace(/:tip$/, '')}`;
  const plugged = (device: Device, at: string): boolean => plugs.has(ref(device.id, at.replace(/:(tip|ring)$/, '')));
  const is = (device: Device, when: When | undefined): boolean =>
    holds(when, { value: (c) => state.get(ref(device.id, c)), plugged: (jack) => plugged(device, jack) });

  const addChain = (device: Device, chain: Chain): void => {
    const mentions = (slots: readonly Slot[]): boolean =>
      slots.some((s) =>
        s.is === 'insert'
          ? [...s.send, ...s.return].some((t) => t.leg !== undefined)
          : s.is === 'fork' && s.arms.some((a) => a.leg !== undefined || mentions(a.slots)),
      );
    const two = [...chain.from, ...chain.to].some((t) => t.leg !== undefined) || mentions(chain.slots);
    const sides: readonly Side[] = two ? ['left', 'right'] : ['only'];
    const of = (tap: Tap): readonly Side[] => (two && tap.leg ? [tap.leg] : sides);
    const name = (place: string, side: Side): string => `${device.id} chain ${chain.id} ${place} ${side}`;
    const inserts = (slots: readonly Slot[]): readonly Insert[] =>
      slots.flatMap((s) => (s.is === 'insert' ? [s] : s.is === 'fork' ? s.arms.flatMap((a) => inserts(a.slots)) : []));
    /** A side that some plug, or a bus, brings something to. */
    const isFed = (side: Side): boolean =>
      [...chain.from, ...inserts(chain.slots).flatMap((i) => i.return)].some(
        (t) =>
          of(t).includes(side) &&
          (t.at.startsWith('#') || plugged(device, t.at)) &&
          (t.when ?? []).every((f) => !('jack' in f) || plugged(device, f.jack) === f.plugged),
      );

    const enter = (tap: Tap, place: string, here: readonly Side[]): void => {
      if (is(device, tap.when))
        for (const side of of(tap)) if (here.includes(side)) go(pole(device, tap.at), name(place, side));
    };
    const leave = (tap: Tap, place: string, here: readonly Side[]): void => {
      if (is(device, tap.when))
        for (const side of of(tap)) if (here.includes(side)) go(name(place, side), pole(device, tap.at));
    };
    const slotBetween = (slot: Slot, from: string, to: string, here: readonly Side[], path: string): void => {
      if (slot.is === 'block') {
        const on = is(device, slot.on);
        const way = { on, ways: [] as [string, string][] };
        stages.set(ref(device.id, slot.id), way);
        if (slot.mutes?.length && is(device, slot.mutes)) return;
        for (const side of here) {
          const targets: Side[] = [side];
          if (
            on &&
            side !== 'only' &&
            here.length === 2 &&
            (slot.width === 'sum' || (slot.width === 'spread' && isFed(side) && !isFed(OTHER[side])))
          )
            targets.push(OTHER[side]);
          for (const target of targets) {
            go(
              name(from, side),
              name(to, target),
              on && slot.width === 'spread' && target !== 'only' ? target : undefined,
            );
            way.ways.push([name(from, side), name(to, target)]);
          }
        }
        return;
      }
      if (slot.is === 'fork') {
        for (const arm of slot.arms) {
          const inArm = arm.leg ? [arm.leg] : here;
          const inner = `${path}/${slot.id}/${arm.id}`;
          if (is(device, arm.when))
            for (const side of inArm) if (here.includes(side)) go(name(from, side), name(`${inner} in`, side));
          line(arm.slots, `${inner} in`, `${inner} out`, inArm, inner);
          for (const side of inArm) if (here.includes(side)) go(name(`${inner} out`, side), name(to, side));
        }
        return;
      }
      const [sent, returned] = [
        slot.send.some((t) => plugged(device, t.at)),
        slot.return.some((t) => plugged(device, t.at)),
      ];
      const patched = { send: sent, return: returned, either: sent || returned }[slot.breaks ?? 'return'];
      const on = is(device, slot.on);
      const past = (): void => {
        for (const side of here) go(name(from, side), name(to, side));
      };
      if (on || slot.off === 'return') for (const tap of slot.send) leave(tap, from, here);
      if (!patched) {
        if (slot.unpatched === 'through' || !on) past();
        return;
      }
      const keepsReturn = slot.off === 'send' || (typeof slot.off === 'object' && is(device, slot.off.sendOnlyWhen));
      if (on || keepsReturn) for (const tap of slot.return) enter(tap, to, here);
      if (!on || slot.direct === true || (slot.direct && is(device, slot.direct))) past();
    };
    const line = (slots: readonly Slot[], from: string, to: string, here: readonly Side[], path: string): void => {
      const stops = [from, ...slots.slice(0, -1).map((s) => `${path} behind ${s.id}`), to];
      slots.forEach((slot, i) => slotBetween(slot, stops[i]!, stops[i + 1]!, here, path));
      if (slots.length === 0) for (const side of here) go(name(from, side), name(to, side));
    };

    if (is(device, chain.when)) for (const tap of chain.from) enter(tap, 'start', sides);
    for (const tap of chain.to) leave(tap, 'finish', sides);
    if (!chain.order) return line(chain.slots, 'start', 'finish', sides, '');
    for (const slot of chain.slots) slotBetween(slot, `before ${slot.id}`, `behind ${slot.id}`, sides, '');
    const joinUp = (steps: Arrangement, before: readonly string[]): readonly string[] =>
      steps.reduce<readonly string[]>((open, step) => {
        if (typeof step !== 'string') return step.arms.flatMap((arm) => joinUp(arm, open));
        for (const place of open) for (const side of sides) go(name(place, side), name(`before ${step}`, side));
        return [`behind ${step}`];
      }, before);
    const order = String(state.get(ref(device.id, chain.order)) ?? chain.slots.map((s) => s.id).join(' '));
    for (const place of joinUp(readArrangement(order), ['start']))
      for (const side of sides) go(name(place, side), name('finish', side));
  };

  const isAudio = (jack: Jack): boolean => jack.kind === 'audio' || jack.kind === 'air';
  for (const device of all(rig, 'device')) {
    for (const jack of device.jacks)
      if (isAudio(jack))
        for (const p of ['tip', 'ring'] as const)
          if (jack.poles[p]) graph.mergeNode(pole(device, p === 'ring' ? `${jack.id}:ring` : jack.id));
    for (const chain of device.chains) {
      const named = [
        ...chain.from,
        ...chain.to,
        ...chain.slots.flatMap((s) => (s.is === 'insert' ? [...s.send, ...s.return] : [])),
      ]
        .map((t) => device.jacks.find((j) => j.id === t.at.replace(/:(tip|ring)$/, '')))
        .find((j) => j);
      if (!named || isAudio(named)) addChain(device, chain);
    }
  }
  for (const { ends } of cables) {
    const jackAt = (end: Ref) => {
      const { device: id, name } = splitRef(end);
      const device = rig.parts.device.get(id);
      const jack = device?.jacks.find((j) => j.id === name);
      return device && jack && isAudio(jack) ? { device, jack } : undefined;
    };
    const [a, b] = ends.map(jackAt);
    if (!a || !b) continue;
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      for (const p of ['tip', 'ring'] as const) {
        const at = (jack: Jack): string => (p === 'ring' ? `${jack.id}:ring` : jack.id);
        if (x.jack.poles[p] === 'out' && y.jack.poles[p] === 'in')
          go(pole(x.device, at(x.jack)), pole(y.device, at(y.jack)));
      }
    }
  }
  return { graph, stages };
};

/** The places that can be come to from some places, these included. */
export const reachable = (
  graph: DirectedGraph,
  from: readonly string[],
  way: 'outbound' | 'inbound' = 'outbound',
): ReadonlySet<string> => {
  const found = new Set<string>();
  for (const start of from)
    if (graph.hasNode(start) && !found.has(start))
      bfsFromNode(
        graph,
        start,
        (node) => {
          found.add(node);
        },
        { mode: way },
      );
  return found;
};

/**
 * The sides on which what begins at a place arrives at every other: the graph once more for each side that a signal
 * can be.
 */
export const sidesFrom = (graph: DirectedGraph, source: string): ReadonlyMap<string, ReadonlySet<string>> => {
  const found = new Map<string, Set<string>>();
  if (!graph.hasNode(source)) return found;
  const sided = new DirectedGraph();
  graph.forEachDirectedEdge((_, { makes }, from, to) => {
    for (const side of ['mono', 'left', 'right'])
      sided.mergeEdge(`${side}|${from}`, `${(makes as Makes) ?? side}|${to}`);
  });
  sided.mergeNode(`mono|${source}`);
  bfsFromNode(sided, `mono|${source}`, (node) => {
    const cut = node.indexOf('|');
    const place = node.slice(cut + 1);
    found.set(place, (found.get(place) ?? new Set()).add(node.slice(0, cut)));
  });
  return found;
};

/** Knots in which a signal comes back to where it was. */
export const knots = (graph: DirectedGraph): readonly ReadonlySet<string>[] =>
  stronglyConnectedComponents(graph)
    .filter((c) => c.length > 1 || graph.hasEdge(c[0]!, c[0]!))
    .map((c) => new Set(c));

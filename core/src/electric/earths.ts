import { jackAt, jackIn } from '../rig/box.js';
import type { Device, Jack } from '../rig/device.js';
import { blocksIn } from '../rig/domain.js';
import type { Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { holds } from '../rig/value.js';
import { all, cablesOf, partOf, type Rig } from '../rig/rig.js';
import { supplyOutputs } from './supply.js';

/** The protective earth of the mains: never to be cut. */
export const EARTH = 'earth';
/** A chassis, a common of a supply, or the earth of the mains. */
export type EarthNode = Id<'device'> | Ref | typeof EARTH;

/** What joins two chassis. */
export interface EarthEdge {
  readonly between: readonly [EarthNode, EarthNode];
  /** The lead whose shield it is; absent for a mains lead with an earth. */
  readonly cable?: Id<'cable'>;
  readonly is: 'shield' | 'supply' | 'mains';
}

/** Chassis and what joins them in a hook-up. */
export interface EarthGraph {
  readonly nodes: readonly EarthNode[];
  readonly edges: readonly EarthEdge[];
}

const isLifted = (rig: Rig, hookup: Hookup, at: Ref): boolean => {
  const { device: id, name } = splitRef(at);
  const device = partOf(rig, id);
  const shield = jackIn(device, name)?.shield;
  if (!device || shield === 'chassis') return false;
  if (shield === 'isolated') return true;
  if (shield === undefined) return isBehindTransformer(device, name);
  const settings: Readonly<Record<string, unknown>> = hookup.settings;
  return holds(shield.liftedWhen, {
    value: (control) => {
      const value = settings[ref(id, control)];
      return typeof value === 'string' || typeof value === 'number' ? value : undefined;
    },
    plugged: () => true,
  });
};

/** Whether all that comes to an output passes a transformer: what hangs on it has no wire to the chassis. */
const isBehindTransformer = ({ chains }: Device, jack: string): boolean => {
  const leading = chains.filter((c) => c.to.some((t) => t.at === jack));
  return leading.length > 0 && leading.every((c) => blocksIn(c.slots).some((b) => b.stage === 'isolator'));
};

/** MIDI goes over a light inside the box, air and radio over none at all; a loudspeaker has no chassis of its own. */
const JOINS: readonly Jack['kind'][] = ['audio', 'contact', 'expression', 'usb'];

/**
 * Shields, commons of supplies and earths of mains leads as a graph. An isolated output joins nothing but the box that
 * hangs on it.
 */
export const earthGraph = (rig: Rig, hookup: Hookup): EarthGraph => {
  const outputs = new Map(supplyOutputs(rig).map((o) => [o.jack, o.group as EarthNode]));
  const edges: EarthEdge[] = [];
  const here = new Set<Id<'device'>>();
  for (const { id, ends } of cablesOf(rig, hookup.id)) {
    const [a, b] = ends.map((at) => ({ at, jack: jackAt(rig, at), device: splitRef(at).device }));
    if (!a?.jack || !b?.jack) continue;
    here.add(a.device).add(b.device);
    const isShield =
      JOINS.includes(a.jack.kind) &&
      a.jack.level !== 'speaker' &&
      !isLifted(rig, hookup, a.at) &&
      !isLifted(rig, hookup, b.at);
    if (isShield) edges.push({ between: [a.device, b.device], cable: id, is: 'shield' });
    if (a.jack.kind === 'power')
      edges.push({
        between: [outputs.get(a.at) ?? a.device, outputs.get(b.at) ?? b.device],
        cable: id,
        is: 'supply',
      });
  }
  for (const device of all(rig, 'device'))
    if (device.figures.mainsEarth && here.has(device.id)) edges.push({ between: [device.id, EARTH], is: 'mains' });
  return { nodes: [...new Set(edges.flatMap((e) => e.between))], edges };
};

/** How many loops a graph has that do not follow from one another: edges − nodes + pieces. */
export const independentLoops = ({ nodes, edges }: EarthGraph): number => {
  const root = new Map<EarthNode, EarthNode>(nodes.map((n) => [n, n]));
  const find = (n: EarthNode): EarthNode => {
    const up = root.get(n) ?? n;
    return up === n ? n : find(up);
  };
  let pieces = nodes.length;
  for (const { between } of edges) {
    const [a, b] = between.map(find) as [EarthNode, EarthNode];
    if (a === b) continue;
    root.set(a, b);
    pieces -= 1;
  }
  return edges.length - nodes.length + pieces;
};

/** A loop through the earth of the mains: from one earthed box to another, the shortest way over shields and supplies. */
export interface EarthLoop {
  readonly boxes: readonly [Id<'device'>, Id<'device'>];
  readonly way: readonly EarthEdge[];
}

const cutEdges = (edges: readonly EarthEdge[]): readonly EarthEdge[] => edges.filter((e) => e.is !== 'mains');

/** The shortest way from one earthed box to any other that avoids the mains and what has been cut. */
const shortestWay = (graph: EarthGraph, cut: ReadonlySet<EarthEdge>): EarthLoop | undefined => {
  const earthed = graph.edges.filter((e) => e.is === 'mains').map((e) => e.between[0] as Id<'device'>);
  const open = cutEdges(graph.edges).filter((e) => !cut.has(e));
  let best: EarthLoop | undefined;
  for (const start of earthed) {
    const came = new Map<EarthNode, EarthEdge | undefined>([[start, undefined]]);
    const queue: EarthNode[] = [start];
    for (const node of queue) {
      for (const edge of open) {
        const [a, b] = edge.between;
        const next = a === node ? b : b === node ? a : undefined;
        if (next === undefined || came.has(next)) continue;
        came.set(next, edge);
        queue.push(next);
      }
    }
    for (const end of earthed) {
      if (end === start || !came.has(end)) continue;
      const way: EarthEdge[] = [];
      for (let at: EarthNode = end; at !== start;) {
        const edge = came.get(at);
        if (!edge) break;
        way.unshift(edge);
        at = edge.between[0] === at ? edge.between[1] : edge.between[0];
      }
      if (!best || way.length < best.way.length) best = { boxes: [start, end], way };
    }
  }
  return best;
};

/** The most leads of which it is looked whether cutting them does. */
const MOST_CUT = 6;

export interface Isolation {
  /** One short loop through the earth of the mains for each piece that has one. */
  readonly loops: readonly EarthLoop[];
  /** The fewest signal leads that have to be isolated so that none is left; undefined where that needs more than six. */
  readonly leads: readonly Id<'cable'>[] | undefined;
}

/**
 * Loops through the earth of the mains, and the fewest signal leads that have to be isolated: one of each loop has to
 * be, so a search that branches on the leads of a shortest one finds the fewest. A lead of a supply is cut by an
 * isolated output; the earth of the mains never.
 */
export const isolation = (graph: EarthGraph): Isolation => {
  const loops: EarthLoop[] = [];
  const apart = new Set<EarthEdge>();
  for (let loop = shortestWay(graph, apart); loop; loop = shortestWay(graph, apart)) {
    loops.push(loop);
    for (const e of loop.way) apart.add(e);
  }
  if (loops.length === 0) return { loops, leads: [] };
  for (let most = 1; most <= MOST_CUT; most += 1) {
    const cut = fewest(graph, new Set(), most);
    if (cut) return { loops, leads: [...cut].flatMap((e) => e.cable ?? []) };
  }
  return { loops, leads: undefined };
};

const fewest = (graph: EarthGraph, cut: ReadonlySet<EarthEdge>, left: number): ReadonlySet<EarthEdge> | undefined => {
  const loop = shortestWay(graph, cut);
  if (!loop) return cut;
  if (left === 0) return undefined;
  for (const edge of loop.way) {
    if (edge.is !== 'shield') continue;
    const found = fewest(graph, new Set([...cut, edge]), left - 1);
    if (found) return found;
  }
  return undefined;
};

/** What a node is called: a box, or the supply whose common it is. */
export const nodeDevice = (rig: Rig, node: EarthNode): Id<'device'> | undefined => {
  if (node === EARTH) return undefined;
  const device = partOf(rig, node as Id<'device'>);
  return device ? device.id : splitRef(node).device;
};

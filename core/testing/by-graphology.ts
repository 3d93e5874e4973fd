import { DirectedGraph } from 'graphology';
import { bfsFromNode } from 'graphology-traversal';
import { holds } from '../src/rig/value.js';
import { ref } from '../src/rig/ids.js';
import type { RigState } from '../src/signal/state.js';
import type { Edge, Need, WiredEnd, Wiring } from '../src/signal/wiring.js';

const SIDES = ['mono', 'left', 'right'] as const;
const LEGS = ['both', 'left', 'right'] as const;
type Side = (typeof SIDES)[number];
type LegOrBoth = (typeof LEGS)[number];

const holdsNow = (state: RigState, need: Need): boolean => {
  const asks = (when: Parameters<typeof holds>[0]) => holds(when, { value: (c) => state.get(ref(need.device, c)), plugged: () => false });
  return 'when' in need ? asks(need.when) : !asks(need.unless);
};

/** Edges from one slot to the next that the arrangements of a state leave out. */
const outOfLine = (wiring: Wiring, state: RigState): ReadonlySet<number> => new Set(wiring.ordered.flatMap(({ control, usual, pairs }) => {
  const order = ['^', ...String(state.get(control) ?? usual).split(' ').filter(Boolean), '$'];
  return pairs.flatMap(({ edge, pair }) => (order.some((slot, i) => `${slot}>${order[i + 1]}` === pair) ? [] : [edge]));
}));

/** What becomes of one signal on one edge, said rule by rule. */
const after = (wiring: Wiring, edge: Edge, state: RigState, leg: LegOrBoth, side: Side): readonly (readonly [LegOrBoth, Side])[] => {
  if (edge.fromLeg && leg !== 'both' && leg !== edge.fromLeg) return [];
  if (edge.carries.by === 'block') {
    const { block, device } = edge.carries;
    const on = holds(block.on, { value: (c) => state.get(ref(device, c)), plugged: (jack) => wiring.plugged.has(ref(device, jack)) });
    if (on && block.width === 'sum') return [['both', 'mono']];
    if (on && block.width === 'spread') {
      if (side === 'mono') return [['left', 'left'], ['right', 'right']];
      return [[leg === 'both' ? side : leg, side]];
    }
    return [[leg, side]];
  }
  if (!wiring.points[edge.to]!.inside) return [['both', leg !== 'both' && !edge.fromLeg ? 'mono' : side]];
  return [[edge.toLeg ?? leg, side]];
};

/** The signal of a wiring in a state as a graph of point, leg and side, made and walked with a general graph library. Slow, plain, and made apart from the tracer. */
export const graphOf = (wiring: Wiring, state: RigState): DirectedGraph => {
  const graph = new DirectedGraph();
  wiring.points.forEach((_, p) => LEGS.forEach((leg) => SIDES.forEach((side) => graph.addNode(`${p} ${leg} ${side}`))));
  const unused = outOfLine(wiring, state);
  for (const [e, edge] of wiring.edges.entries()) {
    if (unused.has(e) || !edge.needs.every((n) => holdsNow(state, n))) continue;
    for (const leg of LEGS) for (const side of SIDES) for (const [toLeg, toSide] of after(wiring, edge, state, leg, side)) graph.mergeEdge(`${edge.from} ${leg} ${side}`, `${edge.to} ${toLeg} ${toSide}`);
  }
  return graph;
};

/** Sides on which a source arrives at each point that it reaches. */
export const sidesByGraphology = (graph: DirectedGraph, source: WiredEnd): ReadonlyMap<number, ReadonlySet<Side>> => {
  const found = new Map<number, Set<Side>>();
  bfsFromNode(graph, `${source.point} both mono`, (node) => {
    const [point, , side] = node.split(' ') as [string, string, Side];
    const sides = found.get(Number(point));
    if (sides) sides.add(side);
    else found.set(Number(point), new Set([side]));
  });
  return found;
};

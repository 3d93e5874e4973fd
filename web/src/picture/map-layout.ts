import { getSmoothStepPath, Position } from '@xyflow/react';
import { splitRef, type Ref } from '@yunta/core/rig/ids';
import type { MapBox, MapCable, RoutingMap } from '@yunta/core/signal/drawing/map';
import type { ELK, ElkNode, ElkPort } from 'elkjs/lib/elk-api.js';
import { Bar, type BarInside } from './map-bar.js';
import {
  middle,
  moved,
  movedCable,
  pathOf,
  tag,
  TAG,
  type MapBlock,
  type LaidBox,
  type LaidCable,
} from './map-parts.js';
import { theFirst, theEntry, theItem, surely } from '@yunta/core/known/the';

export interface LaidZone {
  readonly name: string;
  readonly x: number;
  readonly y: number;
}

/** A block as the layout sees it: a box with its jacks on its rim, which are noted as ports. */
const nodeOf = (block: MapBlock, i: number, zoned: boolean, ports: Map<Ref, string>): ElkNode => {
  const own = theFirst(block.boxes);
  const rim = own.jacks.filter((j) => j.jack.layer === 'audio' && j.side !== 'bottom');
  rim.forEach((j) => ports.set(j.jack.ref, `${i} ${j.jack.ref}`));
  return {
    id: String(i),
    width: block.width,
    height: block.height,
    layoutOptions: {
      'elk.portConstraints': 'FIXED_POS',
      ...(zoned ? { 'elk.partitioning.partition': String(ZONE_ORDER.indexOf(block.of.zone)) } : {}),
    },
    ports: rim.map((j): ElkPort => ({
      id: `${i} ${j.jack.ref}`,
      width: 0,
      height: 0,
      layoutOptions: { 'elk.port.side': PORT_SIDES[j.side] },
      x: j.side === 'right' ? block.width : j.side === 'left' ? 0 : own.x + j.x,
      y: j.side === 'top' ? 0 : own.y + j.y,
    })),
  };
};

/** Everything on the map with its place; units are those of the drawing, 1 to a pixel at full size. */
export interface LaidMap {
  readonly boxes: readonly LaidBox[];
  readonly cables: readonly LaidCable[];
  readonly zones: readonly LaidZone[];
  readonly width: number;
  readonly height: number;
}

type Elk = Pick<ELK, 'layout'>;

/** The shape of the space that the map fits. */
const ASPECT = 1.35;
const BETWEEN = 34;
const APART = 22;
const APART_IN_A_ROW = 8;
/** Between boxes in a row of their own, whose names stand side by side. */
const NAMES_APART = 52;
const ZONE_ORDER = ['hands', 'floor', 'amp', 'outputs', 'supply'] as const;
export const ZONE_NAMES = { hands: 'Hands', floor: 'Floor', amp: 'Amp', outputs: 'Outputs', supply: 'Supply' } as const;
const USUAL = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.padding': '[top=0,left=0,bottom=0,right=0]',
  'elk.separateConnectedComponents': 'false',
  'elk.layered.spacing.nodeNodeBetweenLayers': String(BETWEEN),
  'elk.spacing.nodeNode': String(APART),
  'elk.layered.spacing.edgeNodeBetweenLayers': '12',
  'elk.spacing.edgeNode': '14',
  'elk.spacing.edgeEdge': '9',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '9',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.layered.nodePlacement.bk.fixedAlignment': 'BALANCED',
} as const;
const WRAPPED = {
  'elk.layered.wrapping.strategy': 'MULTI_EDGE',
  'elk.aspectRatio': String(ASPECT),
  'elk.layered.wrapping.additionalEdgeSpacing': '14',
} as const;
const ZONED = { 'elk.partitioning.activate': 'true' } as const;
/** From the most wanted to the surest: the layout package gives up on some graphs when both are asked of it. */
const ATTEMPTS = [{ ...WRAPPED, ...ZONED }, WRAPPED, ZONED, {}] as const;
const PORT_SIDES = { left: 'WEST', right: 'EAST', top: 'NORTH', bottom: 'SOUTH' } as const;

interface Root {
  readonly of: MapBox;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** How far its own corner is below that of all that hangs on it. */
  readonly head: number;
}

type Level = BarInside & { readonly roots: readonly Root[] };

/**
 * Lays a hook-up out: what lives in loops hangs from the bar of its host as in the run, everything else stands in
 * layers from the hands to the outputs.
 */
export const layMap = async (map: RoutingMap, elk: Elk): Promise<LaidMap> => {
  const audio = map.cables.filter((c) => c.layer === 'audio');
  const inPath = new Set(audio.flatMap((c) => [splitRef(c.from).device, splitRef(c.to).device]));
  const roots = map.boxes.filter((b) => !b.host);
  const main = await new Levels(map, audio, elk).lay(
    roots.filter((b) => inPath.has(b.device)),
    true,
  );
  const apart = roots
    .filter((b) => !inPath.has(b.device))
    .sort((a, b) => Number(b.wired) - Number(a.wired) || ZONE_ORDER.indexOf(a.zone) - ZONE_ORDER.indexOf(b.zone));
  const width = Math.max(main.width, Math.min(apart.length, APART_IN_A_ROW) * (TAG.width + NAMES_APART));
  const top = main.boxes.length ? main.height + 52 : 24;
  const below = rows(apart, width, top);
  const boxes = [...main.boxes, ...below.boxes];
  const cables = [...main.cables, ...crossing(map, boxes, new Set(main.cables.map((c) => c.cable.cable)))];
  const zones = [
    ...zonesOf(main.roots),
    ...(apart.length ? [{ name: 'Not in the signal path', x: 0, y: top - 24 }] : []),
  ];
  return { boxes, cables, zones, width, height: apart.length ? below.height : main.height };
};

const rows = (
  boxes: readonly MapBox[],
  width: number,
  top: number,
): { readonly boxes: readonly LaidBox[]; readonly height: number } => {
  const laid: LaidBox[] = [];
  let [x, y, tallest] = [0, top, 0];
  for (const box of boxes) {
    const one = tag(box);
    if (x > 0 && x + one.width > width) [x, y, tallest] = [0, y + tallest + TAG.label + APART, 0];
    laid.push(moved(one, x, y));
    x += one.width + NAMES_APART;
    tallest = Math.max(tallest, one.height);
  }
  return { boxes: laid, height: y + tallest + TAG.label };
};

/** A heading over the first box of each zone, row by row. */
const zonesOf = (roots: readonly Root[]): readonly LaidZone[] => {
  const bands: { bottom: number; roots: Root[] }[] = [];
  for (const root of [...roots].sort((a, b) => a.y - b.y)) {
    const last = bands.at(-1);
    if (last && root.y < last.bottom) {
      last.roots.push(root);
      last.bottom = Math.max(last.bottom, root.y + root.height);
    } else bands.push({ bottom: root.y + root.height, roots: [root] });
  }
  const under = (root: Root): boolean =>
    roots.some(
      (r) =>
        r !== root && r.of.zone === root.of.zone && Math.abs(r.x - root.x) < 2 && r.y < root.y && root.y - r.y < 140,
    );
  return bands.flatMap((band) =>
    ZONE_ORDER.flatMap((zone) => {
      const first = band.roots
        .filter((r) => r.of.zone === zone)
        .reduce<Root | undefined>(
          (a, b) => (!a || b.x < a.x - 1 || (Math.abs(b.x - a.x) <= 1 && b.y < a.y) ? b : a),
          undefined,
        );
      return first && !under(first)
        ? [{ name: ZONE_NAMES[zone], x: first.x, y: first.y + first.head - (first.of.loops.length ? 42 : 24) }]
        : [];
    }),
  );
};

const RIM = { left: Position.Left, right: Position.Right, top: Position.Top, bottom: Position.Bottom } as const;

/** Leads that go from inside one group to inside another, and those of the other layers: by the plainest way round. */
const crossing = (map: RoutingMap, boxes: readonly LaidBox[], done: ReadonlySet<string>): readonly LaidCable[] => {
  const at = new Map(
    boxes.flatMap((b) => b.jacks.map((j) => [j.jack.ref, { x: b.x + j.x, y: b.y + j.y, side: j.side }] as const)),
  );
  return map.cables
    .filter((c) => !done.has(c.cable))
    .flatMap((cable): LaidCable[] => {
      const [a, b] = [at.get(cable.from), at.get(cable.to)];
      if (!a || !b) return [];
      const [d, x, y] = getSmoothStepPath({
        sourceX: a.x,
        sourceY: a.y,
        sourcePosition: RIM[a.side],
        targetX: b.x,
        targetY: b.y,
        targetPosition: RIM[b.side],
        borderRadius: 0,
        offset: 22,
      });
      return [{ cable, d, at: [x, y] }];
    });
};

const firstThatWorks = async <T>([first, ...others]: readonly (() => Promise<T>)[]): Promise<T> => {
  try {
    return await surely(first)();
  } catch (e) {
    if (others.length === 0) throw e;
    return firstThatWorks(others);
  }
};

/** Lays out one level after the other, from the innermost loop outwards. */
class Levels {
  private readonly boxes: ReadonlyMap<string, MapBox>;
  private readonly cables: ReadonlyMap<Ref, MapCable>;

  constructor(
    map: RoutingMap,
    private readonly audio: readonly MapCable[],
    private readonly elk: Elk,
  ) {
    this.boxes = new Map(map.boxes.map((b) => [b.device, b]));
    this.cables = new Map(
      audio.flatMap(
        (c) =>
          [
            [c.from, c],
            [c.to, c],
          ] as const,
      ),
    );
  }

  async lay(boxes: readonly MapBox[], zoned: boolean): Promise<Level> {
    const blocks = await Promise.all(boxes.map((b) => this.block(b)));
    if (blocks.length === 0) return { width: 0, height: 0, boxes: [], cables: [], roots: [] };
    const ports = new Map<Ref, string>();
    const children = blocks.map((block, i) => nodeOf(block, i, zoned, ports));
    const between = this.audio.filter((c) => ports.has(c.from) && ports.has(c.to));
    const graph: ElkNode = {
      id: 'map',
      children,
      edges: between.map((c) => ({
        id: c.cable,
        sources: [theEntry(ports, c.from)],
        targets: [theEntry(ports, c.to)],
      })),
      layoutOptions: USUAL,
    };
    const laid = zoned
      ? await firstThatWorks(
          ATTEMPTS.map((more) => () => this.elk.layout({ ...graph, layoutOptions: { ...USUAL, ...more } })),
        )
      : await this.elk.layout(graph);
    const place = (laid.children ?? []).map((n) => ({ x: n.x ?? 0, y: n.y ?? 0 }));
    const placed = blocks.flatMap((b, i) => b.boxes.map((box) => moved(box, theItem(place, i).x, theItem(place, i).y)));
    const at = new Map(
      placed.flatMap((b) => b.jacks.map((j) => [j.jack.ref, [b.x + j.x, b.y + j.y] as const] as const)),
    );
    const routed = (laid.edges ?? []).flatMap((e, i): LaidCable[] => {
      const bends = (e.sections ?? [])
        .flatMap((s) => [s.startPoint, ...(s.bendPoints ?? []), s.endPoint])
        .map((p) => [p.x, p.y] as const);
      const cable = theItem(between, i);
      const points = [theEntry(at, cable.from), ...bends, theEntry(at, cable.to)];
      return bends.length ? [{ cable, d: pathOf(points), at: middle(bends) }] : [];
    });
    return {
      width: laid.width ?? 0,
      height: laid.height ?? 0,
      boxes: placed,
      roots: blocks.map((b, i) => ({
        of: b.of,
        width: b.width,
        height: b.height,
        head: theFirst(b.boxes).y,
        ...theItem(place, i),
      })),
      cables: [
        ...routed,
        ...blocks.flatMap((b, i) => b.cables.map((c) => movedCable(c, theItem(place, i).x, theItem(place, i).y))),
      ],
    };
  }

  /** A tag; or a bar with what lives in its loops. */
  private async block(box: MapBox): Promise<MapBlock> {
    if (box.loops.every((l) => l.holds.length === 0) && box.loops.length < 3) {
      const alone = tag(box);
      return { of: box, width: alone.width, height: alone.height + TAG.label, boxes: [alone], cables: [] };
    }
    const bar = new Bar(box, (jack) => this.cables.get(jack.ref));
    for (const loop of box.loops) {
      const inside = loop.holds.map((d) => theEntry(this.boxes, d));
      if (inside.length === 0) bar.bare(loop);
      else if (inside.length === 1 && theFirst(inside).loops.length === 0) bar.single(loop, theFirst(inside));
      else bar.several(loop, await this.lay(inside, false));
    }
    return bar.finish();
  }
}

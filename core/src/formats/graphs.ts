import { attribute as at, digraph, toDot } from 'ts-graphviz';
import { create } from 'xmlbuilder2';
import { splitRef } from '../rig/ids.js';
import type { LeadKind, RoutingMap } from '../signal/drawing/map.js';

const NODE_KEYS = ['code', 'name', 'zone'] as const;
const EDGE_KEYS = ['fromJack', 'toJack', 'layer', 'lead'] as const;

/** What XML 1.0 cannot hold is left out. */
const fit = (text: string): string => text.replaceAll(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, '');

/** A hook-up as GraphML (graphml.graphdrawing.org): boxes as nodes, cables as edges from what gives to what takes. */
export const routingGraphml = ({ boxes, cables }: RoutingMap): string => {
  const root = create({ version: '1.0', encoding: 'UTF-8' }).ele('graphml', {
    xmlns: 'http://graphml.graphdrawing.org/xmlns',
  });
  for (const key of NODE_KEYS) root.ele('key', { id: key, for: 'node', 'attr.name': key, 'attr.type': 'string' });
  for (const key of EDGE_KEYS) root.ele('key', { id: key, for: 'edge', 'attr.name': key, 'attr.type': 'string' });
  const graph = root.ele('graph', { id: 'routing', edgedefault: 'directed' });
  for (const box of boxes) {
    const node = graph.ele('node', { id: box.device });
    for (const key of NODE_KEYS) node.ele('data', { key }).txt(fit(box[key]));
  }
  for (const { cable, from, to, layer, lead } of cables) {
    const [a, b] = [splitRef(from), splitRef(to)];
    const edge = graph.ele('edge', { id: cable, source: a.device, target: b.device });
    const values = { fromJack: a.name, toJack: b.name, layer, lead };
    for (const key of EDGE_KEYS) edge.ele('data', { key }).txt(fit(values[key]));
  }
  return `${root.end({ prettyPrint: true })}\n`;
};

const STYLES: Readonly<Record<LeadKind, 'solid' | 'dotted' | 'dashed' | 'bold'>> = {
  instrument: 'solid',
  line: 'solid',
  balanced: 'solid',
  speaker: 'bold',
  air: 'dotted',
  MIDI: 'dotted',
  data: 'dotted',
  control: 'dashed',
  power: 'dashed',
};

/** In a double-quoted DOT string a backslash begins an escape. */
const escaped = (text: string): string => text.replaceAll('\\', '\\\\');

/** A hook-up in DOT, the language of graphviz: boxes in a cluster for each zone, jacks at the ends of the cables. */
export const routingDot = ({ boxes, cables }: RoutingMap, title: string): string =>
  `${toDot(
    digraph('routing', { [at.rankdir]: 'LR', [at.label]: escaped(title), [at.fontname]: 'sans-serif' }, (g) => {
      for (const zone of new Set(boxes.map((b) => b.zone))) {
        g.subgraph(`cluster_${zone}`, { [at.label]: zone, [at.style]: 'dashed' }, (s) => {
          for (const box of boxes.filter((b) => b.zone === zone))
            s.node(box.device, { [at.shape]: 'box', [at.label]: `${escaped(box.code)}\\n${escaped(box.name)}` });
        });
      }
      for (const { from, to, lead } of cables) {
        const [a, b] = [splitRef(from), splitRef(to)];
        g.edge([{ id: a.device }, { id: b.device }], {
          [at.taillabel]: a.name,
          [at.headlabel]: b.name,
          [at.label]: lead,
          [at.style]: STYLES[lead],
        });
      }
    }),
  )}\n`;

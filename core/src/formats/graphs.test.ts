import { MultiDirectedGraph } from 'graphology';
import { parse } from 'graphology-graphml';
import { spawnSync } from 'node:child_process';
import { after } from '../../testing/after.js';
import { Random } from '../../testing/random.js';
import { randomWiring } from '../../testing/random-wiring.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { changeDevice } from '../edits/devices.js';
import { all, type Rig } from '../rig/rig.js';
import { anatomy } from '../signal/graph/anatomy.js';
import { mapOf, type RoutingMap } from '../signal/drawing/map.js';
import { routingDot, routingGraphml } from './graphs.js';

const mapFor = (rig: Rig): RoutingMap => mapOf(rig, anatomy(rig, all(rig, 'hookup')[0]!));
const NASTY = 'He said "loud" & <left> \\n \\ 🎸 שלום';
const named = (rig: Rig, name: string): Rig => after(rig, changeDevice(all(rig, 'device')[3]!, { name }));
const MAPS = [
  ...DEMO_RIGS.map((r) => [r.id, mapFor(r.make())] as const),
  ['a name with quotes', mapFor(named(DEMO_RIGS[0]!.make(), NASTY))] as const,
  ...[1, 2, 3, 4].map((seed) => [`random ${seed}`, mapFor(randomWiring(new Random(seed)).rig)] as const),
];

describe.each(MAPS)('%s', (_, map) => {
  // Reference: graphology-graphml, a reader of GraphML made by others.
  test('GraphML is read back by another reader with every box, cable, jack and name', () => {
    const graph = parse(MultiDirectedGraph, routingGraphml(map));
    expect(graph.nodes().sort()).toEqual(map.boxes.map((b) => b.device).sort());
    for (const box of map.boxes)
      expect(graph.getNodeAttributes(box.device)).toMatchObject({ code: box.code, name: box.name, zone: box.zone });
    const edges = graph
      .mapEdges(
        (id, data, source, target) => `${id} ${source}.${data['fromJack']} ${target}.${data['toJack']} ${data['lead']}`,
      )
      .sort();
    expect(edges).toEqual(map.cables.map((c) => `${c.cable} ${c.from} ${c.to} ${c.lead}`).sort());
  });

  // Reference: graphviz of Debian; it draws what it accepts, and its JSON says what it understood.
  test('DOT is accepted by graphviz, which understands the same boxes and cables', () => {
    const run = spawnSync('dot', ['-Tdot_json'], { input: routingDot(map, `Routing of ${NASTY}`), encoding: 'utf8' });
    expect(run.stderr).toBe('');
    expect(run.status).toBe(0);
    const read = JSON.parse(run.stdout) as {
      objects: { name: string; label: string; nodes?: number[] }[];
      edges?: { tail: number; head: number; taillabel: string; headlabel: string }[];
    };
    const nodes = read.objects.filter((o) => o.name.startsWith('device:'));
    expect(nodes.map((n) => n.name).sort()).toEqual(map.boxes.map((b) => b.device).sort());
    expect(
      (read.edges ?? [])
        .map((e) => `${read.objects[e.tail]!.name}.${e.taillabel} ${read.objects[e.head]!.name}.${e.headlabel}`)
        .sort(),
    ).toEqual(map.cables.map((c) => `${c.from} ${c.to}`).sort());
  });
});

test('what XML cannot hold is left out, the rest stays', () => {
  const map = mapFor(DEMO_RIGS[0]!.make());
  const odd: RoutingMap = { ...map, boxes: map.boxes.map((b, i) => (i ? b : { ...b, name: 'A\u0000B\u0007C' })) };
  expect(parse(MultiDirectedGraph, routingGraphml(odd)).getNodeAttribute(odd.boxes[0]!.device, 'name')).toBe('ABC');
});

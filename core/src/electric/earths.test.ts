import fc from 'fast-check';
import { askNetworkx } from '../../testing/networkx.js';
import { often } from '../../testing/often.js';
import { smallRig, SMALL } from '../../testing/small-rig.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { PRACTICE } from '../../testing/practice.js';
import type { Id } from '../rig/ids.js';
import { all, partOf } from '../rig/rig.js';
import { EARTH, earthGraph, independentLoops, isolation, type EarthEdge, type EarthGraph } from './earths.js';

const box = (n: number): Id<'device'> => `device:${n}`;
const graphOf = (links: readonly (readonly [number, number])[], earthed: readonly number[]): EarthGraph => {
  const edges: EarthEdge[] = [
    ...links
      .filter(([a, b]) => a !== b)
      .map(([a, b], i): EarthEdge => ({ between: [box(a), box(b)], cable: `cable:${i}`, is: 'shield' })),
    ...earthed.map((n): EarthEdge => ({ between: [box(n), EARTH], is: 'mains' })),
  ];
  return { nodes: [...new Set(edges.flatMap((e) => e.between))], edges };
};
const link = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 6 }));
const graphs = fc
  .tuple(fc.array(link, { maxLength: 9 }), fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { maxLength: 3 }))
  .map(([links, earthed]) => graphOf(links, earthed));
const sample = fc.sample(graphs, { numRuns: often(60), seed: 7 });

// Reference: networkx, cycle_basis.
test('independent loops are as many as the cycle basis of networkx has, on random graphs and the rigs that ship', () => {
  const shipped = [...DEMO_RIGS.map((d) => d.make()), ...PRACTICE.map((p) => p.rig)].flatMap((rig) =>
    all(rig, 'hookup').map((hookup) => earthGraph(rig, hookup)),
  );
  const tried = [...sample, ...shipped];
  const theirs = askNetworkx(tried.map((g) => g.edges.map((e) => e.between)));
  expect(tried.map(independentLoops)).toEqual(theirs);
  expect(Math.max(...theirs)).toBeGreaterThan(5);
});

/** Whether an earthed box still reaches another over what is not cut. */
const joins = ({ edges }: EarthGraph, cut: ReadonlySet<string>): boolean => {
  const earthed = edges.filter((e) => e.is === 'mains').map((e) => e.between[0] as string);
  return earthed.some((start) => {
    const seen = new Set([start]);
    for (const at of seen)
      for (const e of edges) {
        if (e.is === 'mains' || (e.cable && cut.has(e.cable))) continue;
        const [a, b] = e.between as readonly [string, string];
        if (a === at) seen.add(b);
        if (b === at) seen.add(a);
      }
    return earthed.some((end) => end !== start && seen.has(end));
  });
};
test('the leads to isolate are the fewest of all sets of leads, and only leads', () => {
  let found = 0;
  for (const graph of sample) {
    const { leads, loops } = isolation(graph);
    const all = graph.edges.flatMap((e) => e.cable ?? []);
    const sets = Array.from({ length: 2 ** all.length }, (_, n) => all.filter((_, i) => n & (1 << i)));
    const fewest = Math.min(...sets.filter((s) => !joins(graph, new Set(s))).map((s) => s.length));
    expect([leads?.length, joins(graph, new Set(leads))]).toEqual([fewest, false]);
    expect(loops.length > 0).toBe(fewest > 0);
    for (const { way } of loops) expect(way.every((e) => e.is !== 'mains')).toBe(true);
    if (fewest > 1) found += 1;
  }
  expect(found).toBeGreaterThan(2);
});

describe('shields of a rig', () => {
  const boxes = {
    g: 'single-coil',
    s: 'ab-out',
    t: 'ab-out-isolated',
    i: 'isolator',
    a: 'one-channel-amp',
    b: 'one-channel-amp',
  };
  const loops = (...leads: readonly string[]): number => {
    const rig = smallRig({ boxes, leads });
    return isolation(earthGraph(rig, partOf(rig, SMALL)!)).loops.length;
  };
  test('two earthed amps behind an A/B box are a loop; an isolated output or a transformer opens it', () => {
    expect(loops('g.out>s.in', 's.a>a.in', 's.b>b.in')).toBe(1);
    expect(loops('g.out>t.in', 't.a>a.in', 't.b>b.in')).toBe(0);
    expect(loops('g.out>s.in', 's.a>a.in', 's.b>i.in', 'i.out>b.in')).toBe(0);
    expect(loops('g.out>a.in')).toBe(0);
  });
});

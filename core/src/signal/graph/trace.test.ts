import { often } from '../../../testing/often.js';
import { graphOf, knots, reachable, sidesFrom, type PlainGraph } from '../../../testing/by-graphology.js';
import { Random } from '../../../testing/random.js';
import { randomWiring } from '../../../testing/random-wiring.js';
import { makeDevice } from '../../catalogue/make.js';
import { islandRun, BALLROOM_ID } from '../../demo/island-run.js';
import type { Device } from '../../rig/device.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { all, partOf, rigOf, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { anatomy } from './anatomy.js';
import { sounding, stillMeets } from './order.js';
import { restingState } from './state.js';
import { stopsBetween } from './stops.js';
import { ringsOf, sideBit, spreadFrom, trace, type Trace } from './trace.js';
import { wire, type Point } from './wiring.js';

const HOOKUP: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
const lead = (i: number, from: string, to: string): Cable => ({
  kind: 'cable',
  id: `cable:${i}`,
  hookup: HOOKUP.id,
  ends: [`device:${from}` as Ref, `device:${to}` as Ref],
});
const rigWith = (devices: readonly Device[], leads: readonly (readonly [string, string])[]): Rig =>
  rigOf([...devices, HOOKUP, ...leads.map(([a, b], i) => lead(i, a, b))]);
const traced = (rig: Rig, values: Readonly<Record<string, Value>> = {}): Trace =>
  trace(
    wire(rig, HOOKUP),
    new Map<Ref, Value>([
      ...restingState(rig, HOOKUP),
      ...(Object.entries(values).map(([k, v]) => [`device:${k}`, v]) as [Ref, Value][]),
    ]),
  );
const box = (name: string, key: string) => makeDevice(key, `device:${name}`);
const stage = (t: Trace, r: string) => t.stages.get(`device:${r}` as Ref);
const heard = (t: Trace) =>
  t.reaches.map((r) => `${r.source.ref.slice(7)} → ${r.end.ref.slice(7)} ${r.sides.join('+')}`);

/** A jack or a bus as the plain graph names it. */
const plainName = ({ device, id }: Point): string => `${device} ${id.slice(device.length + 1)}`;

/**
 * What is brought apart to an end, by the plain graph: go back inside its box as far as a jack or a side of a chain.
 */
const apart = ({ graph }: PlainGraph, end: string): readonly string[] => {
  const isApart = (node: string): boolean => / (left|right)$/.test(node) || !/ (chain|#)/.test(node);
  if (isApart(end)) return [end];
  const seen = new Set([end]);
  for (const node of seen)
    if (node === end || !isApart(node))
      for (const before of graph.hasNode(node) ? graph.inNeighbors(node) : []) seen.add(before);
  const found = [...seen].filter(isApart);
  return found.length ? found : [end];
};

describe('trace against a graph made apart from it, on rigs with sides wired at random, in random states', () => {
  const RIGS = often(800);
  const BATCH = 200;
  const seen = {
    reached: 0,
    stereo: 0,
    rings: 0,
    straight: 0,
    inserts: 0,
    forks: 0,
    before: 0,
    notBefore: 0,
    summed: 0,
  };
  test.each(Array.from({ length: RIGS / BATCH }, (_, i) => i * BATCH))(
    'rigs from %i on: what is reached, on which sides, which stages are met and which before which, silence and rings',
    (from) => {
      for (let seed = from; seed < from + BATCH; seed += 1) {
        const { rig, hookup, state } = randomWiring(new Random(seed), seed % 2 ? [1, 4] : undefined, seed % 2 === 1);
        const t = trace(wire(rig, hookup), state);
        const { wiring } = t;
        const plain = graphOf(rig, hookup, state);
        const { graph } = plain;
        const bySource = new Map(wiring.sources.map((s) => [s, sidesFrom(graph, plainName(wiring.points[s.point]!))]));
        const outer = wiring.points.flatMap((p, i) => (p.inside ? [] : [[plainName(p), i] as const]));
        for (const [source, sides] of bySource) {
          const ours = spreadFrom(t, source);
          const sidesAt = (point: number) =>
            (['left', 'mono', 'right'] as const).filter((s) => ours.sides[point]! & sideBit(s)).join();
          const theirs = (name: string) =>
            [...(sides.get(name) ?? (name === plainName(wiring.points[source.point]!) ? ['mono'] : []))].sort().join();
          expect({ seed, at: outer.map(([name, p]) => `${name} ${sidesAt(p)}`) }).toEqual({
            seed,
            at: outer.map(([name]) => `${name} ${theirs(name)}`),
          });
        }
        expect(t.reaches.map((x) => `${seed} ${x.source.ref} ${x.end.ref} ${x.sides.join()}`).sort()).toEqual(
          wiring.sources
            .flatMap((s) =>
              wiring.ends.flatMap((e) => {
                const [sides, end] = [bySource.get(s)!, plainName(wiring.points[e.point]!)];
                if (!sides.has(end)) return [];
                const heard = new Set(
                  apart(plain, end).flatMap((p) => {
                    const there = sides.get(p) ?? new Set();
                    return there.has('left') && there.has('right') ? ['mono'] : [...there];
                  }),
                );
                return [
                  `${seed} ${s.ref} ${e.ref} ${(['mono', 'left', 'right'] as const).filter((x) => heard.has(x)).join()}`,
                ];
              }),
            )
            .sort(),
        );

        const ahead = reachable(
          graph,
          wiring.sources.map((s) => plainName(wiring.points[s.point]!)),
        );
        const back = reachable(
          graph,
          wiring.ends.filter((e) => e.end.is !== 'tuner').map((e) => plainName(wiring.points[e.point]!)),
          'inbound',
        );
        const isOn = (way: readonly string[]): boolean => way.every((node) => ahead.has(node) && back.has(node));
        const wired = [...plain.stages].filter(([stage]) => wiring.wired.has(splitRef(stage).device));
        for (const [stage, { ways }] of wired)
          if (!t.stages.has(stage)) expect({ seed, stage, ways }).toEqual({ seed, stage, ways: [] });
        const stages = wired
          .filter(([stage]) => t.stages.has(stage))
          .map(([stage, { on, ways }]) => `${stage} ${!ways.some(isOn) ? 'outside' : on ? 'in' : 'bypassed'}`);
        expect({ seed, stages: [...t.stages].map(([r, s]) => `${r} ${s}`).sort() }).toEqual({
          seed,
          stages: stages.sort(),
        });

        const sounds = wired.filter(([, { on, ways }]) => on && ways.some(isOn)).slice(0, 8);
        const ways = sounding(t);
        const meets = stillMeets(
          t,
          ways.map((b) => b.edge),
        );
        for (const [first, { ways: out }] of sounds) {
          const after = reachable(
            graph,
            out.filter(isOn).map(([, to]) => to),
          );
          for (const [second, { ways: into }] of sounds) {
            const ours = ways.some(
              (a) =>
                a.stage === first && ways.some((b, place) => b.stage === second && meets(wiring.to[a.edge]!, place)),
            );
            const theirs = into.filter(isOn).some(([start]) => after.has(start));
            expect({ seed, first, second, before: ours }).toEqual({ seed, first, second, before: theirs });
            seen[ours ? 'before' : 'notBefore'] += 1;
          }
        }

        const rings = ringsOf(t);
        const tied = knots(graph);
        const outside = (ring: readonly number[]): readonly string[] =>
          ring.filter((p) => !wiring.points[p]!.inside).map((p) => plainName(wiring.points[p]!));
        for (const ring of rings)
          expect({ seed, ring: tied.some((k) => outside(ring).every((name) => k.has(name))) }).toEqual({
            seed,
            ring: true,
          });
        for (const knot of tied)
          expect({
            seed,
            knot: rings.some((ring) => outside(ring).some((name) => knot.has(name)) || outside(ring).length === 0),
          }).toEqual({ seed, knot: true });
        seen.reached += t.reaches.length;
        seen.stereo += t.reaches.filter((x) => x.sides.includes('left') && x.sides.includes('right')).length;
        seen.summed += [...bySource.values()].some((points) =>
          [...points.values()].some((sides) => sides.has('left') && sides.has('right')),
        )
          ? 1
          : 0;
        seen.rings += rings.length;
        seen.straight += tied.length === 0 ? 1 : 0;
        seen.inserts += wiring.inserts.filter((i) => i.patched).length;
        seen.forks += wiring.edges.filter((e) => e.carries.by === 'arm').length;
      }
    },
  );

  test('the rigs were worth the trouble: sounds that arrive, two-sided signals, sums, patched inserts, forks, rings and none, stages before each other and not', () => {
    expect(seen.reached).toBeGreaterThan(RIGS / 4);
    const least: Readonly<Record<string, number>> = { stereo: RIGS / 50, summed: RIGS / 20 };
    for (const [what, count] of Object.entries(seen))
      expect(`${what} ${count >= (least[what] ?? RIGS / 10)}`).toBe(`${what} true`);
  });
});

describe('what a switcher, a pedal and an amp do', () => {
  const devices = [
    box('gtr', 'single-coil'),
    box('swi', 'switcher-4'),
    box('fuz', 'fuzz'),
    box('dly', 'analog-delay'),
    box('amp', 'valve-head'),
    box('cab', 'cab-212'),
  ];
  const leads = [
    ['gtr.out', 'swi.in'],
    ['swi.send1', 'fuz.in'],
    ['fuz.out', 'swi.return1'],
    ['swi.send2', 'dly.in'],
    ['dly.out', 'swi.return2'],
    ['swi.out', 'amp.in'],
    ['amp.speaker', 'cab.in'],
  ] as const;
  const rig = rigWith(devices, leads);

  test('a loop that is off leaves its box outside; one that is on takes it in, sounding or bypassed', () => {
    const t = traced(rig, { 'swi.loop1': 'on', 'swi.loop2': 'off', 'fuz.on': 'on', 'dly.on': 'on' });
    expect([stage(t, 'fuz.fuzz'), stage(t, 'dly.delay')]).toEqual(['in', 'outside']);
    expect(stage(traced(rig, { 'swi.loop1': 'on', 'fuz.on': 'off' }), 'fuz.fuzz')).toBe('bypassed');
    expect(heard(t)).toEqual(['gtr.out → cab.air mono']);
  });

  test("an amp's send is normalled to its return until a plug breaks it", () => {
    expect(heard(traced(rig))).toHaveLength(1);
    const broken = rigWith([...devices, box('buf', 'buffer')], [...leads, ['buf.out', 'amp.return']]);
    expect(heard(traced(broken))).toEqual([]);
  });

  test('the channel decides which preamp sounds', () => {
    const t = traced(rig, { 'amp.channel': 'lead' });
    expect([stage(t, 'amp.clean'), stage(t, 'amp.lead')]).toEqual(['outside', 'in']);
  });

  test('a muted output is silent, and the trace says which gate is shut', () => {
    const t = traced(rig, { 'swi.output': 'muted' });
    expect(heard(t)).toEqual([]);
    const stops = stopsBetween(t, t.wiring.sources[0]!, t.wiring.ends[0]!);
    expect(stops).toContainEqual({
      device: 'device:swi',
      at: 'device:swi.out',
      because: 'shut',
      by: [{ control: 'device:swi.output', value: 'muted' }],
    });
  });

  test('a pulled cable: the trace says where the signal stops', () => {
    const cut = rigWith(
      devices,
      leads.filter(([a]) => a !== 'swi.out'),
    );
    const t = traced(cut);
    expect(stopsBetween(t, t.wiring.sources[0]!, t.wiring.ends[0]!)).toEqual([
      { device: 'device:swi', at: 'device:swi.out', because: 'nothing plugged in', by: [] },
    ]);
  });

  test('an insert whose return is not plugged closes through', () => {
    const half = rigWith(
      devices,
      leads.filter(([a]) => a !== 'fuz.out'),
    );
    expect(heard(traced(half, { 'swi.loop1': 'on' }))).toEqual(['gtr.out → cab.air mono']);
  });
});

describe('order, rings and sides', () => {
  test('an orderable switcher follows the arrangement; slots that it does not name keep off the path', () => {
    const rig = rigWith(
      [
        box('gtr', 'single-coil'),
        box('swi', 'switcher-8'),
        box('a', 'fuzz'),
        box('b', 'boost'),
        box('foh', 'desk'),
        box('di', 'di'),
      ],
      [
        ['gtr.out', 'swi.in'],
        ['swi.send1', 'a.in'],
        ['a.out', 'swi.return1'],
        ['swi.send2', 'b.in'],
        ['b.out', 'swi.return2'],
        ['swi.out', 'di.in'],
        ['di.out', 'foh.ch1'],
      ],
    );
    const both = { 'swi.loop1': 'on', 'swi.loop2': 'on', 'a.on': 'on', 'b.on': 'on' };
    const order = (t: Trace) => {
      const seen: string[] = [];
      const { wiring, active } = t;
      for (let p = wiring.sources[0]!.point, steps = 0; steps < 200; steps += 1) {
        const e = wiring.out[p]!.find((x) => active[x] && t.onPath[wiring.edges[x]!.to]);
        if (e === undefined) break;
        const { carries, to } = wiring.edges[e]!;
        if (carries.by === 'block') seen.push(carries.device);
        p = to;
      }
      return seen.join(' ');
    };
    expect(order(traced(rig, { ...both, 'swi.order': 'loop1 loop2' }))).toBe('device:a device:b device:di');
    expect(order(traced(rig, { ...both, 'swi.order': 'loop2 loop1' }))).toBe('device:b device:a device:di');
    expect(stage(traced(rig, { ...both, 'swi.order': 'loop2' }), 'a.fuzz')).toBe('outside');
  });

  test('two boxes that feed each other are a ring; two loops of one switcher are not', () => {
    const ring = rigWith(
      [box('gtr', 'single-coil'), box('spl', 'splitter'), box('sel', 'ab-in'), box('b', 'boost')],
      [
        ['gtr.out', 'sel.a'],
        ['sel.out', 'b.in'],
        ['b.out', 'spl.in'],
        ['spl.out1', 'sel.b'],
      ],
    );
    expect(ringsOf(traced(ring, { 'sel.select': 'a' }))).toEqual([]);
    const both = rigWith(
      ring.parts.device.size
        ? all(ring, 'device').map((d) =>
            d.id === 'device:sel' ? { ...d, chains: d.chains.map(({ when: _, ...c }) => c) } : d,
          )
        : [],
      [
        ['gtr.out', 'sel.a'],
        ['sel.out', 'b.in'],
        ['b.out', 'spl.in'],
        ['spl.out1', 'sel.b'],
      ],
    );
    expect(ringsOf(traced(both))).toHaveLength(1);
  });

  test('a spreading box makes two sides; both legs arrive apart, and meet in mono at a mono box', () => {
    const stereo = rigWith(
      [box('gtr', 'single-coil'), box('dly', 'stereo-delay'), box('foh', 'desk')],
      [
        ['gtr.out', 'dly.in-l'],
        ['dly.out-l', 'foh.ch1'],
        ['dly.out-r', 'foh.ch2'],
      ],
    );
    expect(heard(traced(stereo, { 'dly.on': 'on' }))).toEqual(['gtr.out → foh.#house left+right']);
    expect(heard(traced(stereo, { 'dly.on': 'off' }))).toEqual(['gtr.out → foh.#house mono']);
    const oneLeg = rigWith(
      [box('gtr', 'single-coil'), box('dly', 'stereo-delay'), box('foh', 'desk')],
      [
        ['gtr.out', 'dly.in-l'],
        ['dly.out-r', 'foh.ch2'],
      ],
    );
    expect(heard(traced(oneLeg, { 'dly.on': 'on' }))).toEqual(['gtr.out → foh.#house right']);
  });
});

describe('what a loop holds, whatever the others do', () => {
  const rig = islandRun();
  const a = anatomy(rig, partOf(rig, BALLROOM_ID)!);
  test('four cables: the loop of the amp holds its preamps, and each pedal sits in its own loop', () => {
    const holds = Object.fromEntries(a.loops.filter((l) => l.holds.length).map((l) => [l.insert.id, l.holds]));
    expect(holds).toEqual({
      loop1: ['device:cmp.compressor'],
      loop2: ['device:ofz.fuzz'],
      loop3: ['device:low.overdrive'],
      loop4: ['device:hig.overdrive'],
      loop5: ['device:gat.gate'],
      loop6: ['device:hed.clean', 'device:hed.lead'],
      loop7: ['device:mod.modulation'],
      loop8: ['device:rev.reverb'],
    });
  });
  test('the power amp and the cabinet are always in; a looped pedal is not', () => {
    const always = (r: string) => a.stages.get(`device:${r}` as Ref)!.always;
    expect([always('hed.power'), always('cab.cabinet'), always('cmp.compressor'), always('hed.lead')]).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});

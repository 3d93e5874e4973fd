import { graphOf, sidesByGraphology } from '../../testing/by-graphology.js';
import { Random } from '../../testing/random.js';
import { randomWiring } from '../../testing/random-wiring.js';
import { makeDevice } from '../catalogue/make.js';
import { islandRun, BALLROOM_ID } from '../demo/island-run.js';
import type { Device } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import type { Ref } from '../rig/ids.js';
import { all, partOf, rigOf, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { anatomy } from './anatomy.js';
import { restingState } from './state.js';
import { ringsOf, sideBit, spreadFrom, stopsBetween, trace, type Trace } from './trace.js';
import { wire, type Wiring } from './wiring.js';

const HOOKUP: Hookup = { kind: 'hookup', id: 'hookup:h', name: 'h', settings: {}, hears: [], assumes: [] };
const lead = (i: number, from: string, to: string): Cable => ({ kind: 'cable', id: `cable:${i}`, hookup: HOOKUP.id, ends: [`device:${from}` as Ref, `device:${to}` as Ref] });
const rigWith = (devices: readonly Device[], leads: readonly (readonly [string, string])[]): Rig => rigOf([...devices, HOOKUP, ...leads.map(([a, b], i) => lead(i, a, b))]);
const traced = (rig: Rig, values: Readonly<Record<string, Value>> = {}): Trace =>
  trace(wire(rig, HOOKUP), new Map<Ref, Value>([...restingState(rig, HOOKUP), ...(Object.entries(values).map(([k, v]) => [`device:${k}`, v]) as [Ref, Value][])]));
const box = (name: string, key: string) => makeDevice(key, `device:${name}`);
const stage = (t: Trace, r: string) => t.stages.get(`device:${r}` as Ref);
const heard = (t: Trace) => t.reaches.map((r) => `${r.source.ref.slice(7)} → ${r.end.ref.slice(7)} ${r.sides.join('+')}`);

/** Every way from a point, one by one, without looking at what was found before: the plainest tracer there is. */
const everyWay = (wiring: Wiring, active: Uint8Array, from: number, visit: (point: number) => void): void => {
  const onWay = new Set<number>();
  const go = (point: number): void => {
    onWay.add(point);
    visit(point);
    for (const e of wiring.out[point]!) if (active[e] && !onWay.has(wiring.edges[e]!.to)) go(wiring.edges[e]!.to);
    onWay.delete(point);
  };
  go(from);
};

describe('trace against independent tracers, on rigs wired at random, in random states', () => {
  const RIGS = 2000;
  const BATCH = 200;
  const seen = { reached: 0, stereo: 0, rings: 0, inserts: 0, forks: 0 };
  test.each(Array.from({ length: RIGS / BATCH }, (_, i) => i * BATCH))(`rigs from %i on: every point and every side that the signal reaches are those of a walk by graphology, and of enumerating every way`, (from) => {
    for (let seed = from; seed < from + BATCH; seed += 1) {
      const r = new Random(seed);
      const { rig, hookup, state } = randomWiring(r);
      const t = trace(wire(rig, hookup), state);
      const { wiring, active } = t;
      const graph = graphOf(wiring, state);
      const byGraph = new Map(wiring.sources.map((s) => [s, sidesByGraphology(graph, s)]));
      for (const [source, sides] of byGraph) {
        const ours = spreadFrom(t, source);
        const sidesAt = (point: number) => (['left', 'mono', 'right'] as const).filter((s) => ours.sides[point]! & sideBit(s));
        expect({ seed, at: ours.order.map((p) => `${p} ${sidesAt(p).join()}`).sort() }).toEqual({ seed, at: [...sides].map(([p, s]) => `${p} ${[...s].sort().join()}`).sort() });
      }
      const reached = new Set([...byGraph.values()].flatMap((m) => [...m.keys()]));
      expect({ seed, reached: wiring.points.flatMap((_, i) => (t.reached[i] ? [i] : [])) }).toEqual({ seed, reached: [...reached].sort((a, b) => a - b) });
      expect(t.reaches.map((x) => `${x.source.ref} ${x.end.ref} ${x.sides.join()}`).sort()).toEqual(wiring.sources.flatMap((s) => wiring.ends.flatMap((e) => {
        const sides = byGraph.get(s)!.get(e.point);
        return sides ? [`${s.ref} ${e.ref} ${(['mono', 'left', 'right'] as const).filter((x) => sides.has(x)).join()}`] : [];
      })).sort());
      if (wiring.points.length < 60) {
        const byHand = new Set<number>();
        for (const source of wiring.sources) everyWay(wiring, active, source.point, (p) => byHand.add(p));
        for (const p of reached) expect(byHand.has(p)).toBe(true);
      }
      seen.reached += t.reaches.length;
      seen.stereo += [...byGraph.values()].some((points) => [...points.values()].some((sides) => sides.has('left') && sides.has('right'))) ? 1 : 0;
      seen.rings += ringsOf(t).length;
      seen.inserts += wiring.inserts.filter((i) => i.patched).length;
      seen.forks += wiring.edges.filter((e) => e.carries.by === 'arm').length;
    }
  });

  test('the rigs were worth the trouble: sounds that arrive, two-sided signals, patched inserts, forks and rings', () => {
    expect(seen.reached).toBeGreaterThan(RIGS / 4);
    for (const count of [seen.stereo, seen.rings, seen.inserts, seen.forks]) expect(count).toBeGreaterThan(200);
  });
});

describe('what a switcher, a pedal and an amp do', () => {
  const devices = [box('gtr', 'single-coil'), box('swi', 'switcher-4'), box('fuz', 'fuzz'), box('dly', 'analog-delay'), box('amp', 'valve-head'), box('cab', 'cab-212')];
  const leads = [['gtr.out', 'swi.in'], ['swi.send1', 'fuz.in'], ['fuz.out', 'swi.return1'], ['swi.send2', 'dly.in'], ['dly.out', 'swi.return2'], ['swi.out', 'amp.in'], ['amp.speaker', 'cab.in']] as const;
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
    expect(stops).toContainEqual({ device: 'device:swi', at: 'device:swi.out', because: 'shut' });
  });

  test('a pulled cable: the trace says where the signal stops', () => {
    const cut = rigWith(devices, leads.filter(([a]) => a !== 'swi.out'));
    const t = traced(cut);
    expect(stopsBetween(t, t.wiring.sources[0]!, t.wiring.ends[0]!)).toEqual([{ device: 'device:swi', at: 'device:swi.out', because: 'nothing plugged in' }]);
  });

  test('an insert whose return is not plugged closes through', () => {
    const half = rigWith(devices, leads.filter(([a]) => a !== 'fuz.out'));
    expect(heard(traced(half, { 'swi.loop1': 'on' }))).toEqual(['gtr.out → cab.air mono']);
  });
});

describe('order, rings and sides', () => {
  test('an orderable switcher follows the arrangement; slots that it does not name keep off the path', () => {
    const rig = rigWith([box('gtr', 'single-coil'), box('swi', 'switcher-8'), box('a', 'fuzz'), box('b', 'boost'), box('foh', 'desk'), box('di', 'di')], [
      ['gtr.out', 'swi.in'], ['swi.send1', 'a.in'], ['a.out', 'swi.return1'], ['swi.send2', 'b.in'], ['b.out', 'swi.return2'], ['swi.out', 'di.in'], ['di.out', 'foh.ch1'],
    ]);
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
    const ring = rigWith([box('gtr', 'single-coil'), box('spl', 'splitter'), box('sel', 'ab-in'), box('b', 'boost')], [
      ['gtr.out', 'sel.a'], ['sel.out', 'b.in'], ['b.out', 'spl.in'], ['spl.out1', 'sel.b'],
    ]);
    expect(ringsOf(traced(ring, { 'sel.select': 'a' }))).toEqual([]);
    const both = rigWith(ring.parts.device.size ? all(ring, 'device').map((d) => (d.id === 'device:sel' ? { ...d, chains: d.chains.map(({ when: _, ...c }) => c) } : d)) : [], [
      ['gtr.out', 'sel.a'], ['sel.out', 'b.in'], ['b.out', 'spl.in'], ['spl.out1', 'sel.b'],
    ]);
    expect(ringsOf(traced(both))).toHaveLength(1);
  });

  test('a spreading box makes two sides; both legs arrive apart, and meet in mono at a mono box', () => {
    const stereo = rigWith([box('gtr', 'single-coil'), box('dly', 'stereo-delay'), box('foh', 'desk')], [['gtr.out', 'dly.in-l'], ['dly.out-l', 'foh.ch1'], ['dly.out-r', 'foh.ch2']]);
    expect(heard(traced(stereo, { 'dly.on': 'on' }))).toEqual(['gtr.out → foh.#house left+right']);
    expect(heard(traced(stereo, { 'dly.on': 'off' }))).toEqual(['gtr.out → foh.#house mono']);
    const oneLeg = rigWith([box('gtr', 'single-coil'), box('dly', 'stereo-delay'), box('foh', 'desk')], [['gtr.out', 'dly.in-l'], ['dly.out-r', 'foh.ch2']]);
    expect(heard(traced(oneLeg, { 'dly.on': 'on' }))).toEqual(['gtr.out → foh.#house right']);
  });
});

describe('what a loop holds, whatever the others do', () => {
  const rig = islandRun();
  const a = anatomy(rig, partOf(rig, BALLROOM_ID)!);
  test('four cables: the loop of the amp holds its preamps, and each pedal sits in its own loop', () => {
    const holds = Object.fromEntries(a.loops.filter((l) => l.holds.length).map((l) => [l.insert.id, l.holds]));
    expect(holds).toEqual({
      loop1: ['device:cmp.compressor'], loop2: ['device:ofz.fuzz'], loop3: ['device:low.overdrive'], loop4: ['device:hig.overdrive'], loop5: ['device:gat.gate'],
      loop6: ['device:hed.clean', 'device:hed.lead'], loop7: ['device:mod.modulation'], loop8: ['device:rev.reverb'],
    });
  });
  test('the power amp and the cabinet are always in; a looped pedal is not', () => {
    const always = (r: string) => a.stages.get(`device:${r}` as Ref)!.always;
    expect([always('hed.power'), always('cab.cabinet'), always('cmp.compressor'), always('hed.lead')]).toEqual([true, true, false, false]);
  });
});


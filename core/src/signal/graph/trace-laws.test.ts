import fc from 'fast-check';
import { Random } from '../../../testing/random.js';
import { randomWiring, type RandomWiring } from '../../../testing/random-wiring.js';
import { apply } from '../../change/apply.js';
import { makeDevice } from '../../catalogue/make.js';
import { connect, offers } from '../../edits/cables.js';
import type { Ref } from '../../rig/ids.js';
import { all, everyPart, rigOf, type Part, type Rig } from '../../rig/rig.js';
import { trace, type Trace } from './trace.js';
import { wire } from './wiring.js';

const traced = ({ rig, hookup, state }: Pick<RandomWiring, 'rig' | 'hookup' | 'state'>): Trace =>
  trace(wire(rig, hookup), state);
const said = (t: Trace): readonly string[] =>
  t.reaches.map((r) => `${r.source.ref} ${r.end.ref} ${r.sides.join()}`).sort();
const stages = (t: Trace): readonly string[] => [...t.stages].map(([r, s]) => `${r} ${s}`).sort();
const wiring = fc.integer({ min: 1, max: 1_000_000 }).map((seed) => ({ ...randomWiring(new Random(seed)), seed }));
const shuffled = (r: Random, rig: Rig): Rig => {
  const parts: Part[] = everyPart(rig).map((p) => (p.kind === 'device' ? { ...p, at: r.int(0, 1000) } : p));
  for (let i = parts.length - 1; i > 0; i -= 1) {
    const k = r.int(0, i);
    [parts[i], parts[k]] = [parts[k]!, parts[i]!];
  }
  return rigOf(parts);
};

describe('laws of the tracer, on boxes wired without any sense', () => {
  test('in which order boxes and cables were put into the rig makes no difference', () =>
    fc.assert(
      fc.property(wiring, fc.nat(), (w, n) => {
        const [a, b] = [traced(w), traced({ ...w, rig: shuffled(new Random(n + 1), w.rig) })];
        expect(said(b)).toEqual(said(a));
        expect(stages(b)).toEqual(stages(a));
      }),
      { numRuns: 200 },
    ));

  test('a box that is not plugged in changes nothing', () =>
    fc.assert(
      fc.property(wiring, fc.constantFrom('low-drive', 'switcher-8', 'modeller', 'desk'), (w, key) => {
        const more = rigOf([...everyPart(w.rig), makeDevice(key, 'device:spare')]);
        expect(said(traced({ ...w, rig: more }))).toEqual(said(traced(w)));
      }),
      { numRuns: 200 },
    ));

  test('a cable turned round is the same cable', () =>
    fc.assert(
      fc.property(wiring, (w) => {
        const turned = rigOf(
          everyPart(w.rig).map((p) => (p.kind === 'cable' ? { ...p, ends: [p.ends[1], p.ends[0]] as const } : p)),
        );
        expect(said(traced({ ...w, rig: turned }))).toEqual(said(traced(w)));
      }),
      { numRuns: 100 },
    ));

  test('what is not reached is not on the path; a source that is heard and the end at which it is heard are', () =>
    fc.assert(
      fc.property(wiring, (w) => {
        const t = traced(w);
        t.onPath.forEach((on, p) => {
          if (on) expect(t.reached[p]).toBe(1);
        });
        for (const { source, end } of t.reaches)
          if (end.end.is !== 'tuner') expect([t.onPath[source.point], t.onPath[end.point]]).toEqual([1, 1]);
        for (const [stage, state] of t.stages)
          if (state !== 'outside') expect(t.wiring.wired.has(stage.slice(0, stage.indexOf('.')) as never)).toBe(true);
      }),
      { numRuns: 200 },
    ));
});

test('whatever jack is asked, every offer can be plugged, and leaves no jack with two plugs', () =>
  fc.assert(
    fc.property(wiring, fc.nat(), fc.nat(), ({ rig, hookup }, which, where) => {
      const jacks = all(rig, 'device').flatMap((d) => d.jacks.map((j) => `${d.id}.${j.id}` as Ref));
      const from = jacks[which % jacks.length]!;
      const list = offers(rig, hookup.id, from);
      if (list.length === 0) return;
      const { jack, taken } = list[where % list.length]!;
      const edit = connect(rig, hookup.id, 'cable:new', from, jack);
      const applied = apply(rig, edit);
      expect(applied.ok || applied.error).toBe(true);
      expect(taken).toBe(all(rig, 'cable').some((c) => c.ends.includes(jack) && !c.ends.includes(from)));
    }),
    { numRuns: 300 },
  ));

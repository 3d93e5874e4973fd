import { after } from '../../testing/after.js';
import { randomRig } from '../../testing/random-rig.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import type { Device } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { partOf, type Part, type Rig } from '../rig/rig.js';
import type { Trace } from '../signal/graph/trace.js';
import { gainLadder, gainOf, gainStages, soundOfRung, USUAL_DBU } from './gain.js';
import { decibels, levelsAt } from './level.js';

const levelOf = (rig: Rig, sound: Id<'sound'>): number | undefined =>
  [...levelsAt(rig, deriveOnce(rig, SMALL)!.compilation.sounds.get(sound)!.trace).values()][0];
const device =
  (id: string, change: (d: Device) => Device) =>
  (p: Part): Part =>
    p.kind === 'device' && p.id === `device:${id}` ? change(p) : p;

describe('level at the end of a chain, worked by hand', () => {
  const boxes = { g: 'single-coil', s: 'switcher-8', b: 'boost', w: 'powered-speaker' };
  const leads = ['g.out>s.in', 's.send1>b.in', 'b.out>s.return1', 's.out>w.in'];
  const source = (dbu: number) =>
    device('g', (d) => ({ ...d, ends: d.ends!.map((e) => ({ ...e, dbu: { average: dbu, peak: dbu + 15 } })) }));
  const rig = (want: readonly string[], dbu = -24) =>
    smallRig({ boxes, leads, sounds: { One: want }, with: source(dbu) });
  test('a boost of 12 dB in a loop, and a trim of 3 dB behind it', () => {
    expect(levelOf(rig([]), 'sound:one')).toBeCloseTo(-24, 9);
    expect(levelOf(rig(['b.boost']), 'sound:one')).toBeCloseTo(-12, 9);
    expect(levelOf(rig(['b.boost', 's.trim=3']), 'sound:one')).toBeCloseTo(-9, 9);
  });
  test('a stage gives no more than it can: typical ceiling of a boost 6 dBu', () =>
    expect(levelOf(rig(['b.boost'], 0), 'sound:one')).toBeCloseTo(6, 9));
  test('a source without a figure counts as a guitar', () => {
    const bare = smallRig({
      boxes,
      leads,
      sounds: { One: [] },
      with: device('g', (d) => ({ ...d, ends: d.ends!.map(({ dbu: _, ...e }) => e) })),
    });
    expect(levelOf(bare, 'sound:one')).toBeCloseTo(USUAL_DBU, 9);
  });
  test('a gain that a control holds, in dB or scaled from its range', () => {
    const { rig: r } = deriveOnce(rig([]), SMALL)!;
    const state = new Map<Ref, number>([['device:s.trim', 1.5]]);
    expect(decibels(r, 'device:s', { control: 'trim' }, state)).toBe(1.5);
    expect(decibels(r, 'device:s', { control: 'trim', scale: [-60, 0] }, state)).toBeCloseTo(-60 + (60 * 7.5) / 12, 9);
    expect(decibels(r, 'device:s', { control: 'nothing' }, state)).toBe(0);
    expect(decibels(r, 'device:s', -4, state)).toBe(-4);
    expect(decibels(r, 'device:s', undefined, state)).toBe(0);
  });
});

test('sounds made of the rungs of the ladder are as loud as the ladder says', () => {
  const rig = smallRig({
    boxes: {
      g: 'single-coil',
      b: 'boost',
      d: 'low-drive',
      k: 'high-drive',
      h: 'valve-head',
      c: 'cab-212',
      m: 'cab-mic',
      f: 'desk',
    },
    leads: ['g.out>b.in', 'b.out>d.in', 'd.out>k.in', 'k.out>h.in', 'h.speaker>c.in', 'c.air>m.air', 'm.out>f.ch1'],
  });
  const rungs = gainLadder(rig, gainStages(rig, deriveOnce(rig, SMALL)!.anatomy));
  for (const rung of rungs)
    expect([rung.text, levelOf(after(rig, soundOfRung(rig, rung, 'sound:made')), 'sound:made')]).toEqual([
      rung.text,
      rung.out,
    ]);
  expect(rungs.length).toBeGreaterThan(10);
});

/**
 * Every way from a source to every end, one after the other, without ever passing a point twice; the loudest counts.
 */
const byEveryWay = (rig: Rig, t: Trace, most: number): Map<Ref, number> | undefined => {
  const loudest = new Map<Ref, number>();
  let ways = 0;
  const walk = (point: number, level: number, passed: ReadonlySet<number>): void => {
    ways += 1;
    if (ways > most) return;
    for (const end of t.wiring.ends)
      if (end.point === point) loudest.set(end.ref, Math.max(loudest.get(end.ref) ?? -Infinity, level));
    t.wiring.edges.forEach((e, i) => {
      if (e.from !== point || !t.active[i] || !t.onPath[e.to] || passed.has(e.to)) return;
      const { carries } = e;
      let next = level;
      if (carries.by === 'block' && t.stages.get(ref(carries.device, carries.block.id)) === 'in') {
        const { db, ceiling } = gainOf(partOf(rig, carries.device)!, carries.block);
        next = Math.min(level + db, ceiling);
      } else if (carries.by !== 'cable' && carries.by !== 'block' && e.gain !== undefined)
        next += decibels(rig, carries.device, e.gain, t.state);
      walk(e.to, next, new Set([...passed, e.to]));
    });
  };
  for (const s of t.wiring.sources)
    if (t.onPath[s.point]) walk(s.point, s.end.dbu?.average ?? USUAL_DBU, new Set([s.point]));
  return ways > most ? undefined : loudest;
};

test('the same as the loudest of all ways, walked one by one, on random rigs', () => {
  let compared = 0;
  for (let seed = 1; seed <= 60; seed += 1) {
    const { rig, hookup } = randomRig(seed);
    for (const { trace } of deriveOnce(rig, hookup.id)!.compilation.sounds.values()) {
      const walked = byEveryWay(rig, trace, 400);
      if (!walked) continue;
      compared += 1;
      expect([seed, ...levelsAt(rig, trace)].sort()).toEqual([seed, ...walked].sort());
    }
  }
  expect(compared).toBeGreaterThan(100);
});

import { Random } from '../../../testing/random.js';
import { randomWiring } from '../../../testing/random-wiring.js';
import { SMALL, smallRig, type SmallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { soundTrace } from '../../derive/views/view.js';
import type { Id } from '../../rig/ids.js';
import { anatomy } from '../graph/anatomy.js';
import { trace } from '../graph/trace.js';
import { litBy, mapOf, type MapBox, type RoutingMap } from './map.js';

const mapped = (said: SmallRig): RoutingMap => {
  const derived = deriveOnce(smallRig(said), SMALL)!;
  return mapOf(derived.rig, derived.anatomy);
};
const box = (map: RoutingMap, id: string): MapBox => map.boxes.find((b) => b.device === `device:${id}`)!;
const jackWay = (map: RoutingMap, r: string): string | undefined =>
  map.boxes
    .flatMap((b): readonly (readonly [string, string])[] => [
      ...b.jacks.map((j) => [j.ref, j.way] as const),
      ...b.loops.flatMap((l) => [
        ...l.sends.map((x) => [x, 'out'] as const),
        ...l.returns.map((x) => [x, 'in'] as const),
      ]),
    ])
    .find(([x]) => x === r)?.[1];
const loops = (map: RoutingMap, id: string) =>
  Object.fromEntries(
    box(map, id)
      .loops.filter((l) => l.holds.length)
      .map((l) => [l.inserts.join('+'), l.holds.map((h) => h.slice(7)).join(' ')]),
  );

describe('who lives in whose loop', () => {
  test('pedals live in the loops of their switcher; the amp in four cables lives outside, with its jacks on the bar', () => {
    const map = mapped({
      boxes: { g: 'single-coil', s: 'switcher-8', d: 'low-drive', y: 'analog-delay', h: 'valve-head', c: 'cab-212' },
      leads: [
        'g.out>s.in',
        's.send1>d.in',
        'd.out>s.return1',
        's.send2>h.in',
        'h.send>s.return2',
        's.send3>y.in',
        'y.out>s.return3',
        's.out>h.return',
        'h.speaker>c.in',
      ],
    });
    expect(loops(map, 's')).toEqual({ loop1: 'd', loop3: 'y' });
    expect(box(map, 's').loops[1]).toMatchObject({ inserts: ['loop2'], holds: [], patched: true });
    expect([box(map, 'd').host, box(map, 'h').host]).toEqual(['device:s', undefined]);
  });

  test('effects in the loop of an amp hang below the amp', () => {
    const map = mapped({
      boxes: { g: 'single-coil', d: 'low-drive', h: 'valve-head', y: 'analog-delay', r: 'chorus', c: 'cab-212' },
      leads: ['g.out>d.in', 'd.out>h.in', 'h.send>r.in', 'r.out>y.in', 'y.out>h.return', 'h.speaker>c.in'],
    });
    expect(Object.values(loops(map, 'h'))).toEqual(['r y']);
  });

  test('a switcher in a loop of another has its own pedals; the outer host holds only the switcher', () => {
    const map = mapped({
      boxes: { g: 'single-coil', m: 'modeller', s: 'switcher-4', d: 'low-drive', w: 'powered-speaker' },
      leads: ['g.out>m.in', 'm.send>s.in', 's.send1>d.in', 'd.out>s.return1', 's.out>m.return', 'm.out-l>w.in'],
    });
    expect(Object.values(loops(map, 'm'))).toEqual(['s']);
    expect(loops(map, 's')).toEqual({ loop1: 'd' });
    expect(box(map, 'd').host).toBe('device:s');
  });

  test('two loops that hold one box are drawn as one', () => {
    const map = mapped({
      boxes: { g: 'single-coil', s: 'switcher-8', m: 'stereo-modulation', w: 'powered-speaker' },
      leads: ['g.out>s.in', 's.send1>m.in-l', 'm.out-l>s.return1', 's.send2>m.in-r', 'm.out-r>s.return2', 's.out>w.in'],
    });
    expect(loops(map, 's')).toEqual({ 'loop1+loop2': 'm' });
    expect(box(map, 's').loops[0]!.sends).toEqual(['device:s.send1', 'device:s.send2']);
  });

  test('the arms of a frequency splitter are loops too', () => {
    const map = mapped({
      boxes: { b: 'bass', x: 'splitter-frequency', k: 'bass-compressor', f: 'bass-fuzz', i: 'di', foh: 'desk' },
      leads: [
        'b.out>x.in',
        'x.low-send>k.in',
        'k.out>x.low-return',
        'x.high-send>f.in',
        'f.out>x.high-return',
        'x.out>i.in',
        'i.out>foh.ch1',
      ],
    });
    expect(Object.values(loops(map, 'x')).sort()).toEqual(['f', 'k']);
  });

  test('a loop with one plug is patched but holds nothing', () => {
    const map = mapped({
      boxes: { g: 'single-coil', s: 'switcher-4', d: 'low-drive', w: 'powered-speaker' },
      leads: ['g.out>s.in', 's.send1>d.in', 's.out>w.in'],
    });
    expect(box(map, 's').loops[0]).toMatchObject({ holds: [], patched: true });
    expect(box(map, 's').loops[1]).toMatchObject({ holds: [], patched: false });
    expect(box(map, 'd').host).toBeUndefined();
  });
});

describe('leads and layers', () => {
  const map = mapped({
    boxes: {
      g: 'single-coil',
      s: 'switcher-8',
      y: 'stereo-delay',
      h: 'valve-head',
      c: 'cab-212',
      mic: 'cab-mic',
      foh: 'desk',
      sup: 'supply',
    },
    leads: [
      'g.out>s.in',
      's.out>h.in',
      'h.speaker>c.in',
      'c.air>mic.air',
      'mic.out>foh.ch1',
      's.midi-out>y.midi-in',
      'y.out-l>foh.ch2',
      'sup.out1>y.dc',
    ],
  });
  const lead = (from: string) => map.cables.find((c) => c.from === `device:${from}`);
  test('a lead is told by what it joins', () => {
    expect(
      ['g.out', 'h.speaker', 'c.air', 'mic.out', 's.midi-out', 'sup.out1'].map((from) => [
        lead(from)?.lead,
        lead(from)?.layer,
      ]),
    ).toEqual([
      ['instrument', 'audio'],
      ['speaker', 'audio'],
      ['air', 'audio'],
      ['balanced', 'audio'],
      ['MIDI', 'midi'],
      ['power', 'power'],
    ]);
  });
  test('jacks know on which side they stand and whether a plug is in; those of loops are kept with the loops', () => {
    const jacks = box(map, 's').jacks;
    expect(jacks.find((j) => j.id === 'in')).toMatchObject({ way: 'in', plugged: true, layer: 'audio' });
    expect(jacks.find((j) => j.id === 'midi-out')).toMatchObject({ way: 'out', plugged: true, layer: 'midi' });
    expect(jacks.some((j) => j.id.startsWith('send'))).toBe(false);
  });
});

describe('a sound on the map', () => {
  const derived = deriveOnce(islandRun(), BALLROOM_ID)!;
  const lit = (sound: string) => litBy(soundTrace(derived, `sound:${sound}` as Id<'sound'>));
  const sounds = [...derived.rig.parts.sound.values()];
  test('its boxes are in, bypassed or outside, as its wants say', () => {
    for (const { id, wants } of sounds) {
      const { boxes, silent } = lit(id.slice(6));
      expect(silent).toBe(false);
      for (const want of wants)
        if ('stage' in want && want.is === 'in' && derived.anatomy.stages.has(want.stage))
          expect([id, want.stage, boxes[want.stage.slice(0, want.stage.indexOf('.'))]]).toEqual([id, want.stage, 'in']);
      expect(boxes['device:pre']).toBeUndefined();
      expect(boxes['device:ghb']).toBe('outside');
    }
  });
  test('cables of loops that are off are quiet, those of loops that are on are lit, and the loops are named', () => {
    const clean = sounds.find((s) => s.name === 'Verse clean')!;
    const { cables, jacks } = lit(clean.id.slice(6));
    const at = (from: string) =>
      cables[
        [...derived.rig.parts.cable.values()].find(
          (c) => c.hookup === BALLROOM_ID && c.ends.includes(`device:${from}` as never),
        )!.id
      ];
    expect([at('swi.send1'), at('swi.return1'), at('swi.send2'), at('swi.return2')]).toEqual([
      'lit',
      'lit',
      'quiet',
      'quiet',
    ]);
    expect(jacks).toEqual(expect.arrayContaining(['device:swi.send1', 'device:swi.return1']));
    expect(jacks).not.toContain('device:swi.send2');
  });
  test('what only listens is told from what passes on; a rig that reaches nobody is silent', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', d: 'low-drive', s: 'splitter' },
      leads: ['g.out>s.in', 's.out1>d.in'],
      sounds: { One: ['d.overdrive'] },
    });
    const alone = deriveOnce(rig, SMALL)!;
    expect(litBy(soundTrace(alone, 'sound:one'))).toMatchObject({
      silent: true,
      boxes: { 'device:d': 'fed', 'device:s': 'fed' },
    });
  });
});

describe('laws of the map, on boxes wired without any sense', () => {
  const maps = Array.from({ length: 120 }, (_, seed) => {
    const { rig, hookup, state } = randomWiring(new Random(seed));
    const a = anatomy(rig, hookup);
    return { seed, rig, map: mapOf(rig, a), traced: trace(a.wiring, state) };
  });
  test('every box and every jack is there once; jacks of loops are with the loops', () => {
    for (const { seed, rig, map } of maps) {
      const jacks = map.boxes.flatMap((b) => [
        ...b.jacks.map((j) => j.ref),
        ...b.loops.flatMap((l) => [...l.sends, ...l.returns]),
      ]);
      const own = [...rig.parts.device.values()].flatMap((d) => d.jacks.map((j) => `${d.id}.${j.id}`));
      expect([seed, [...new Set(jacks)].sort()]).toEqual([seed, own.sort()]);
      expect(map.boxes.map((b) => b.device)).toEqual([...rig.parts.device.keys()]);
    }
  });
  test('a box lives in one loop at most, of a host that says so, and no host lives in itself', () => {
    for (const { seed, map } of maps) {
      for (const { device, host } of map.boxes) {
        const holding = map.boxes.flatMap((b) => b.loops.filter((l) => l.holds.includes(device)).map(() => b.device));
        expect([seed, device, holding]).toEqual([seed, device, host ? [host] : []]);
        const above = new Set([device]);
        for (let up = host; up; up = box(map, up.slice(7)).host) {
          expect([seed, device, above.has(up)]).toEqual([seed, device, false]);
          above.add(up);
        }
      }
    }
  });
  test('every cable is there once, from what gives to what takes where there is one of each', () => {
    for (const { seed, rig, map } of maps) {
      expect([seed, map.cables.map((c) => c.cable).sort()]).toEqual([seed, [...rig.parts.cable.keys()].sort()]);
      for (const { from, to } of map.cables)
        expect([seed, jackWay(map, from), jackWay(map, to)]).toEqual([seed, 'out', 'in']);
    }
  });
  test('what is lit begins and ends at boxes that are in the path; a quiet cable carries nothing', () => {
    for (const { seed, map, traced } of maps) {
      const lit = litBy(traced);
      for (const { cable, from, to } of map.cables) {
        const boxes = [from, to].map((r) => lit.boxes[r.slice(0, r.indexOf('.'))]);
        if (lit.cables[cable] === 'lit')
          expect([seed, cable, boxes.every((b) => b === 'in' || b === 'bypassed')]).toEqual([seed, cable, true]);
        if (lit.cables[cable] === 'fed')
          expect([seed, cable, boxes.every((b) => b !== 'outside')]).toEqual([seed, cable, true]);
      }
      expect([seed, lit.silent]).toEqual([seed, traced.reaches.every((r) => r.end.end.is === 'tuner')]);
    }
  });
});

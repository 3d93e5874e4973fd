import { randomRig } from '../../../testing/random-rig.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import type { Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { restingState } from '../../signal/graph/state.js';
import { trace } from '../../signal/graph/trace.js';
import { wire } from '../../signal/graph/wiring.js';
import { gatesToOpen, toHold, valueAgainst, valueFor } from './gates.js';

const nothingKnown = () => undefined;
const opening = (rig: Rig, from: string, to: string, known: (r: Ref) => Value | undefined = nothingKnown) => {
  const w = wire(rig, partOf(rig, SMALL)!);
  const found = gatesToOpen(rig, w, w.at.get(`device:${from}`)!, w.at.get(`device:${to}`)!, known);
  return found && Object.fromEntries(found.map(([r, v]) => [r.slice('device:'.length), v]));
};

describe('the gates to open between two points', () => {
  const split = smallRig({
    boxes: { g: 'single-coil', s: 'ab-out', x: 'plain-amp', y: 'one-channel-amp', a: 'cab-112', b: 'cab-212' },
    leads: ['g.out>s.in', 's.a>x.in', 's.b>y.in', 'x.speaker>a.in', 'y.speaker>b.in'],
  });
  test('a selector has to stand so that the wanted amp is heard', () => {
    expect(opening(split, 'g.out', 'a.air')).toEqual({ 's.select': 'a' });
    expect(opening(split, 'g.out', 'b.air')).toEqual({ 's.select': 'b' });
  });
  test('what is known already needs no opening; what forbids it leaves no way', () => {
    const select = (value: Value) => (r: Ref) => (r === 'device:s.select' ? value : undefined);
    expect(opening(split, 'g.out', 'a.air', select('both'))).toEqual({});
    expect(opening(split, 'g.out', 'a.air', select('b'))).toBeUndefined();
  });
  test('mutes have to be off: tuner, kill switch, output of the switcher', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', t: 'tuner', k: 'kill-switch', s: 'switcher-4', i: 'di', foh: 'desk' },
      leads: ['g.out>t.in', 't.out>k.in', 'k.out>s.in', 's.out>i.in', 'i.out>foh.ch1'],
    });
    expect(opening(rig, 'g.out', 'foh.#house')).toEqual({ 't.mute': 'off', 'k.mute': 'off', 's.output': 'open' });
  });
  test('of two ways the one with fewer gates', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', s: 'splitter', k: 'kill-switch', i: 'di', j: 'di', foh: 'desk' },
      leads: ['g.out>s.in', 's.out1>k.in', 'k.out>i.in', 'i.out>foh.ch1', 's.out2>j.in', 'j.out>foh.ch2'],
    });
    expect(opening(rig, 'g.out', 'foh.#house')).toEqual({});
  });
  test('no cable, no way', () => expect(opening(split, 'a.air', 'g.out')).toBeUndefined());
});

test('with the gates that were found open the trace does reach the end, on random rigs', () => {
  let opened = 0;
  for (let seed = 1; seed <= 150; seed += 1) {
    const { rig, hookup } = randomRig(seed);
    const w = wire(rig, hookup);
    const [source, end] = [
      w.sources.find((s) => w.wired.has(s.device)),
      w.ends.find((e) => e.end.is !== 'tuner' && w.wired.has(e.device)),
    ];
    const found = source && end && gatesToOpen(rig, w, source.point, end.point, nothingKnown);
    if (!source || !end || !found) continue;
    const state = restingState(rig, hookup);
    for (const [control, value] of found) state.set(control, value);
    opened += 1;
    expect([seed, trace(w, state).reaches.some((r) => r.source === source && r.end === end)]).toEqual([seed, true]);
  }
  expect(opened).toBeGreaterThan(80);
});

describe('facts about controls', () => {
  const rig = smallRig({ boxes: { v: 'volume', h: 'valve-head' }, leads: [] });
  test('a value that makes a fact true, and one that makes it false', () => {
    const at = (value: string | number) => ({
      id: 'x',
      domain: { min: 0, max: 100, unit: '' },
      powerUp: { at: value },
      use: 'sound' as const,
    });
    expect([
      valueFor({ control: 'channel', in: ['lead', 'clean'] }, undefined),
      valueFor({ control: 'channel', in: ['lead', 'clean'] }, at('clean')),
      valueFor({ jack: 'in', plugged: true }, undefined),
    ]).toEqual(['lead', 'clean', undefined]);
    expect([
      valueFor({ control: 'amount', from: 20, to: 40 }, at(33)),
      valueFor({ control: 'amount', from: 20, to: 40 }, at(0)),
      valueFor({ control: 'amount', from: 1, to: 100 }, at(0)),
    ]).toEqual([33, 30, 51]);
    expect(valueAgainst(rig, 'device:h.channel', { control: 'channel', in: ['lead'] })).toBe('clean');
    expect(valueAgainst(rig, 'device:h.channel', { control: 'channel', in: ['clean', 'lead'] })).toBeUndefined();
    expect(valueAgainst(rig, 'device:v.amount', { control: 'amount', from: 0, to: 50 })).toBe(100);
    expect(valueAgainst(rig, 'device:none.x', { control: 'x', in: ['1'] })).toBeUndefined();
  });
  test('what must still be set for facts to hold', () => {
    const known = (r: Ref) => (r === 'device:h.channel' ? 'clean' : undefined);
    expect(toHold(rig, 'device:h', [{ control: 'channel', in: ['clean'] }], known)).toEqual([]);
    expect(toHold(rig, 'device:h', [{ control: 'channel', in: ['lead'] }], known)).toBeUndefined();
    expect(toHold(rig, 'device:h', [{ control: 'channel', in: ['lead'] }], nothingKnown)).toEqual([
      ['device:h.channel', 'lead'],
    ]);
    expect(toHold(rig, 'device:h', [], nothingKnown)).toEqual([]);
  });
});

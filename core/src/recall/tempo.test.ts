import { SMALL, smallRig } from '../../testing/small-rig.js';
import { proveRig, replayAll, walk } from '../../testing/walk.js';
import { Random } from '../../testing/random.js';
import { setUpBench, takeStep } from '../derive/play/play.js';
import type { Act } from '../rig/act.js';
import type { Actuator, Device } from '../rig/device.js';
import type { Program } from '../rig/program.js';
import { partOf, type Part, type Rig } from '../rig/rig.js';
import { handMoves } from './actuate/compile.js';

const CLOCK: Actuator = { id: 'clock', by: { midi: 'clock' }, acts: [{ control: 'tempo', take: 'value' }] };
const TAP: Actuator = { id: 'tap', by: { foot: 'tap', gesture: 'press' }, acts: [{ control: 'tempo', take: 'value' }] };
const CC: Actuator = { id: 'tempo', by: { midi: 'cc', number: 30 }, acts: [{ control: 'tempo', scale: [40, 294] }] };

const rig = (follows: readonly Actuator[], clock: boolean, stores = false, programs: readonly Program[] = []): Rig => {
  const withTempo = (d: Device): Device => ({
    ...d,
    controls: [
      ...d.controls,
      { id: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: stores ? 'loaded' : 'unknown', use: 'sound' },
    ],
    actuators: [...d.actuators, ...follows],
    memories: d.memories.map((m) => (stores ? { ...m, stores: [...m.stores, 'tempo'] } : m)),
  });
  const change = (part: Part): Part => {
    if (part.kind === 'sound') return { ...part, calls: [{ device: 'device:c', memory: 'slots', slot: part.at - 1 }] };
    if (part.kind !== 'device') return part;
    if (/d|e$/.test(part.id) && part.midi) return withTempo(part);
    return part.id === 'device:c' && clock
      ? { ...part, memories: part.memories.map((m) => ({ ...m, limits: { ...m.limits, clock: true } })) }
      : part;
  };
  const made = smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb', w: 'powered-speaker' },
    leads: ['g.out>d.in-l', 'd.out-l>e.in-l', 'e.out-l>w.in', 'c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'],
    sounds: {
      Slow: ['d.delay', 'd.tempo=84', ...programs.map((p) => `d.program=${p.number}`)],
      Fast: ['d.delay', 'd.tempo=132'],
    },
    with: change,
  });
  return { ...made, parts: { ...made.parts, program: new Map(programs.map((p) => [p.id, p])) } };
};
const proveIt = (r: Rig) => proveRig(r, partOf(r, SMALL)!);
const sent = (r: Rig, sound: 'sound:slow' | 'sound:fast') =>
  proveIt(r).compilation.sounds.get(sound)!.stored[0]!.program.acts;
const tempoActs = (acts: readonly Act[]) =>
  acts.filter((a) => 'send' in a && ('bpm' in a.send || ('cc' in a.send && a.send.cc === 30)));

test('a controller that sends MIDI clock sets the tempo of a box that follows it; proved, and so on the bench byte by byte', () => {
  const r = rig([CLOCK, TAP], true);
  const proved = proveIt(r);
  expect(tempoActs(sent(r, 'sound:slow'))).toEqual([{ send: { bpm: 84 }, at: 'midi-out' }]);
  expect([...proved.verdicts.values()].map((v) => v.is)).toEqual(['proved', 'proved']);
  const bench = setUpBench(proved, {});
  const play = (id: string) => takeStep(proved, bench, proved.modelled.steps.get(id)!);
  play('recall:sound:fast');
  expect(bench.value('device:d.tempo')).toBe(132);
  play('foot:device:d.tap');
  expect(bench.value('device:d.tempo')).not.toBe(132);
  play('recall:sound:slow');
  expect([bench.value('device:d.tempo'), bench.value('device:e.tempo')]).toEqual([84, 84]);
  expect(bench.heard.filter((h) => h.is === 'clock').map((h) => h.bpm)).toEqual([132, 84]);
  expect(walk(proved, new Random(5), 120).contradictions).toEqual([]);
  expect(replayAll(proved).contradictions).toEqual([]);
});
test('one that cannot send it leaves the tempo to a foot that taps: a hand move', () => {
  const r = rig([CLOCK, TAP], false);
  expect(tempoActs(sent(r, 'sound:slow'))).toEqual([]);
  expect(handMoves(proveIt(r).compilation, 'sound:slow')).toContainEqual({
    control: 'device:d.tempo',
    value: 84,
    by: 'foot',
  });
});
test('a control change sets it where the box has one, and goes before the clock', () => {
  expect(tempoActs(sent(rig([CC, TAP], true), 'sound:slow'))).toMatchObject([
    { send: { cc: 30, value: 22, channel: 3 } },
  ]);
  expect(tempoActs(sent(rig([CLOCK, CC], true), 'sound:slow'))).toMatchObject([{ send: { cc: 30 } }]);
});
test('a program that holds the tempo is called and says it by itself', () => {
  const held: Program = {
    kind: 'program',
    id: 'program:d-5',
    device: 'device:d',
    memory: 'programs',
    number: 5,
    name: 'Slow',
    contents: { on: 'on', mix: 30, tempo: 84 },
    acts: [],
    assigns: [],
  };
  const r = rig([CLOCK, TAP], true, true, [held]);
  expect(tempoActs(sent(r, 'sound:slow'))).toEqual([]);
  expect(proveIt(r).verdicts.get('sound:slow')).toEqual({ is: 'proved' });
});

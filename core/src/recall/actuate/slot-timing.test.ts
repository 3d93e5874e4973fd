import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { after } from '../../../testing/after.js';
import type { Act } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import { partOf } from '../../rig/rig.js';
import { bearings } from './bearings.js';
import { bytesOf, slotTiming, type Timed } from './slot-timing.js';

const rig = smallRig({
  boxes: { c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb' },
  leads: ['c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'],
});
const box = (change: (d: Device) => Device) => after(rig, { put: [change(partOf(rig, 'device:d')!)], remove: [] });
const on = { at: 'midi-out' };
const channel = (id: 'device:d' | 'device:e') => partOf(rig, id)!.midi!.channel as number;
const [d, e] = [channel('device:d'), channel('device:e')];
const timing = (acts: readonly Act[], r = rig): readonly Timed[] =>
  slotTiming(bearings(r, partOf(r, SMALL)!), 'device:c', acts);
const pc = (program: number, c = d, more: object = {}): Act => ({ send: { pc: program, channel: c }, ...on, ...more });
const cc = (value: number, c = d, more: object = {}): Act => ({ send: { cc: 20, value, channel: c }, ...on, ...more });
const gap = partOf(rig, 'device:d')!.memories[0]!.gapMs;
const not = (r = rig) =>
  box((x) => ({ ...x, memories: x.memories.map((m) => ({ ...m, again: 'nothing' as const })) })) ?? r;

/**
 * Source: MIDI 1.0 Detailed Specification: 320 µs a byte; two bytes for a program change, three for a control change,
 * eight with its bank.
 */
test('messages come one after the other, a byte every 320 µs, pauses counted', () => {
  expect(
    timing([pc(3), cc(9), { send: { pc: 4, channel: e, bank: 1 }, ...on }, cc(1, e, { afterMs: 5 })]).map((t) => t.us),
  ).toEqual([640, 1600, 4160, 10_120]);
  expect([bytesOf({ bpm: 120 }), bytesOf({ cc: 1, value: 2, channel: 3 })]).toEqual([0, 3]);
});
test('a control change right behind the program change is missed; one to another box, or after the gap, is heard', () => {
  expect(gap).toBeGreaterThan(2);
  expect(timing([pc(3), cc(9), cc(9, e), cc(9, d, { afterMs: gap })]).map((t) => t.missed)).toEqual([
    [],
    [{ device: 'device:d', first: 0 }],
    [],
    [],
  ]);
});
test('a box that keeps messages, or loads at once, misses nothing', () => {
  const missed = (change: (x: Device) => Device) => timing([pc(3), cc(9)], box(change)).flatMap((t) => t.missed);
  expect(missed((x) => ({ ...x, midi: { ...x.midi!, messages: 'queued' } }))).toEqual([]);
  expect(missed((x) => ({ ...x, memories: x.memories.map((m) => ({ ...m, gapMs: 0 })) }))).toEqual([]);
});
test('a box that does not load the current program again hears the message if it had it loaded', () => {
  expect(timing([pc(3), cc(9)], not()).map((t) => t.missed)).toEqual([
    [],
    [{ device: 'device:d', first: 0, depends: { control: 'device:d.program', number: 3, only: 'not loaded yet' } }],
  ]);
});
test('two programs: the second is missed behind the first, or loads and is deaf in its turn', () => {
  const late = gap - 1;
  expect(timing([pc(3), pc(4), cc(9, d, { afterMs: late })], not()).map((t) => t.missed[0]?.depends?.only)).toEqual([
    undefined,
    'not loaded yet',
    'loaded already',
  ]);
});

import { testCheck } from '../../../testing/check-tester.js';
import { Random } from '../../../testing/random.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { proveRig, replayAll, walk } from '../../../testing/walk.js';
import type { Act } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import type { Program } from '../../rig/program.js';
import { partOf, type Part } from '../../rig/rig.js';
import type { Check } from '../check.js';
import { CHECKS } from '../index.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
const boxes = { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb', w: 'powered-speaker' };
const audio = ['g.out>d.in-l', 'd.out-l>e.in-l', 'e.out-l>w.in'];
const sound = (part: Part): Part =>
  part.kind === 'sound' ? { ...part, calls: [{ device: 'device:c', memory: 'slots', slot: part.at - 1 }] } : part;
const both =
  (...changes: readonly ((part: Part) => Part)[]) =>
  (part: Part): Part =>
    changes.reduce((p, change) => change(p), sound(part));
const device =
  (id: string, change: (d: Device) => Device) =>
  (part: Part): Part =>
    part.kind === 'device' && part.id === `device:${id}` ? change(part) : part;
const rig = (
  midi: readonly string[],
  sounds: Readonly<Record<string, readonly string[]>>,
  ...changes: readonly ((part: Part) => Part)[]
) => smallRig({ boxes, leads: [...audio, ...midi], sounds, with: both(...changes) });
const typed = (acts: readonly Act[], name = 'One'): Program => ({
  kind: 'program',
  id: 'program:c-0',
  device: 'device:c',
  memory: 'slots',
  number: 0,
  name,
  contents: {},
  acts,
  assigns: [],
});
/** A slot of the controller as somebody typed it, put beside the sounds. */
const withTyped = (acts: readonly Act[], change: (part: Part) => Part = (p) => p) => {
  const made = rig(chained, { One: ['d.delay', 'd.program=3'] }, change);
  return { ...made, parts: { ...made.parts, program: new Map([['program:c-0' as const, typed(acts)]]) } };
};
const chained = ['c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'];
const at = { at: 'midi-out' };
const pc = (program: number, channel: number): Act => ({ send: { pc: program, channel }, ...at });
const cc = (number: number, value: number, channel: number, more: object = {}): Act => ({
  send: { cc: number, value, channel },
  ...at,
  ...more,
});
const [D, E] = [3, 4];

testCheck(check('midi.unreached'), SMALL, [
  {
    name: 'no cable leads to the reverb',
    rig: rig(['c.midi-out>d.midi-in'], { Wide: ['e.reverb', 'd.delay'], Dry: [] }),
    evidence: ['device:e', 'device:c', 'sound:wide'],
    says: 'nothing is plugged into its MIDI input',
    ways: ['Plug a cable from Stereo delay (midi-thru) to Stereo reverb (midi-in)'],
  },
  {
    name: 'the controller itself has a free output',
    rig: rig([], { Wide: ['d.delay'], Dry: [] }),
    evidence: ['device:d', 'device:c'],
    ways: ['Plug a cable from MIDI foot controller (midi-out) to Stereo delay (midi-in)'],
  },
  { name: 'both in a chain', rig: rig(chained, { Wide: ['e.reverb', 'd.delay'], Dry: [] }), evidence: [] },
]);
testCheck(check('midi.range'), SMALL, [
  {
    name: 'a controller that the box does not know',
    rig: withTyped([pc(3, D), cc(99, 5, D)]),
    evidence: ['program:c-0', 'device:c', 'device:d'],
    says: 'controller 99 on channel 3',
    ways: ['Take this message out of the slot'],
  },
  {
    name: 'a channel on which nobody answers',
    rig: withTyped([pc(3, D), pc(1, 12)]),
    evidence: ['program:c-0'],
    says: 'on which no box of this rig answers',
  },
  {
    name: 'a program past the last',
    rig: withTyped(
      [pc(120, D)],
      device('d', (d) => ({
        ...d,
        controls: d.controls.map((c) => (c.id === 'program' ? { ...c, domain: { min: 0, max: 99, unit: '' } } : c)),
        memories: d.memories.map((m) => ({ ...m, size: 100 })),
      })),
    ),
    evidence: ['program:c-0', 'device:d'],
    says: 'goes up to 99',
  },
  { name: 'what the boxes know', rig: withTyped([pc(3, D), cc(20, 40, E)]), evidence: [] },
]);
const twoWays = ['c.midi-out>t.midi-in', 't.thru1>m.in1', 't.thru2>m.in2', 'm.midi-out>d.midi-in'];
const merged = (change: (part: Part) => Part = (p) => p) =>
  smallRig({
    boxes: { ...boxes, t: 'midi-thru', m: 'midi-merge' },
    leads: [...audio, ...twoWays],
    sounds: { Wide: ['d.delay'] },
    with: both(change),
  });
const flips = device('d', (d) => ({
  ...d,
  actuators: d.actuators.map((a) =>
    'midi' in a.by && a.by.midi === 'cc' && a.acts.some((act) => 'control' in act && act.control === 'on')
      ? { ...a, acts: [{ control: 'on', toggle: ['off', 'on'] }] }
      : a,
  ),
}));
testCheck(check('midi.twice'), SMALL, [
  {
    name: 'from two outputs of a thru box into a merge box',
    rig: merged(),
    evidence: ['device:d', 'device:c', 'sound:wide'],
    says: 'by two ways, and is carried out twice',
    ways: [
      'Pull the cable from MIDI thru box (thru1) to MIDI merge box (in1)',
      'Pull the cable from MIDI thru box (thru2) to MIDI merge box (in2)',
    ],
  },
  {
    name: 'what turns over is turned back',
    rig: merged(flips),
    evidence: ['device:d', 'device:c', 'sound:wide'],
    says: 'turned back by the second',
  },
  { name: 'one after the other', rig: rig(chained, { Wide: ['d.delay', 'd.program=3'] }), evidence: [] },
]);
test('a message that arrives twice acts twice: on the bench as in the proof', () => {
  const made = merged(flips);
  const proved = proveRig(made, partOf(made, SMALL)!, 10_000);
  const recall = proved.modelled.system.events.find((e) => e.id.startsWith('recall:'))!;
  expect(recall.acts.filter((a) => a.variable === 'device:d.on' && 'toggle' in a)).toHaveLength(2);
  const walked = walk(proved, new Random(1), 300);
  expect([walked.recalls > 20, walked.contradictions, replayAll(proved).contradictions]).toEqual([true, [], []]);
});
const small = (limits: object) => device('c', (d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, limits })) }));
testCheck(check('midi.capacity'), SMALL, [
  {
    name: 'two messages where one fits',
    rig: rig(chained, { Wide: ['d.delay', 'd.program=3', 'e.reverb', 'e.program=5'] }, small({ messages: 1 })),
    evidence: ['device:c', 'sound:wide'],
    says: 'stores 1 messages in a slot',
  },
  {
    name: 'a name longer than the display',
    rig: rig(chained, { 'A very long name of a sound': ['d.delay'] }, small({ nameLength: 12 })),
    evidence: ['device:c'],
    says: 'shows 12 letters',
  },
  {
    name: 'room enough',
    rig: rig(chained, { Wide: ['d.delay', 'd.program=3'] }, small({ messages: 8, nameLength: 12, assigns: 4 })),
    evidence: [],
  },
]);
const long = smallRig({
  boxes: { c: 'midi-controller', ...Object.fromEntries([1, 2, 3, 4, 5].map((n) => [`d${n}`, 'stereo-delay'])) },
  leads: ['c.midi-out>d1.midi-in', ...[1, 2, 3, 4].map((n) => `d${n}.midi-thru>d${n + 1}.midi-in`)],
});
testCheck(check('midi.chain-long'), SMALL, [
  { name: 'five boxes one behind the other', rig: long, evidence: ['device:d5', 'device:c'], says: 'passes 4 thrus' },
  {
    name: 'pauses that a slow box needs',
    rig: withTyped([pc(3, D), cc(20, 9, D, { afterMs: 120 })]),
    evidence: ['sound:one'],
    says: 'take up to 122 ms',
  },
  { name: 'two boxes', rig: rig(chained, { Wide: ['d.delay'] }), evidence: [] },
]);
testCheck(check('midi.load-gap'), SMALL, [
  {
    name: 'a value right behind its program',
    rig: withTyped([pc(3, D), cc(20, 40, D)]),
    evidence: ['device:d', 'device:c', 'sound:one'],
    says: 'loads for 120 ms',
    ways: ['Pause 120 ms before what would be missed'],
  },
  {
    name: 'a controller that cannot pause',
    rig: withTyped([pc(3, D), cc(20, 40, D)], small({ waits: false })),
    evidence: ['device:d'],
    ways: [],
  },
  { name: 'after a pause', rig: withTyped([pc(3, D), cc(20, 40, D, { afterMs: 120 })]), evidence: [] },
  {
    name: 'Yunta plans the pause itself',
    rig: rig(chained, { Wide: ['d.delay', 'd.program=3', 'd.mix=40'] }),
    evidence: [],
  },
]);
const rigWithAdapters = (type: string) =>
  smallRig({
    boxes: { a: 'midi-adapter', b: 'midi-adapter', c: 'midi-controller' },
    leads: ['a.midi-out>b.midi-in', 'c.midi-out>a.midi-in'],
    with: device('b', (d) => ({
      ...d,
      jacks: d.jacks.map((j) => (j.id === 'midi-in' ? { ...j, connector: type as '3.5 TRS B' } : j)),
    })),
  });
testCheck(check('midi.trs-type'), SMALL, [
  {
    name: 'type A into type B',
    rig: rigWithAdapters('3.5 TRS B'),
    evidence: ['cable:1', 'device:a', 'device:b'],
    says: 'crossed',
  },
  { name: 'type A into type A', rig: rigWithAdapters('3.5 TRS A'), evidence: [] },
]);
testCheck(check('recall.gap'), SMALL, [
  {
    name: 'a delay in line that loads',
    rig: rig(
      chained,
      { Wide: ['d.delay', 'd.program=3'], Dry: [] },
      device('d', (d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, mutesMs: 60 })) })),
    ),
    evidence: ['device:d', 'sound:wide'],
    says: 'silent for 60 ms',
  },
  {
    name: 'a delay that loads without a hole',
    rig: rig(
      chained,
      { Wide: ['d.delay', 'd.program=3'], Dry: [] },
      device('d', (d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, mutesMs: 5 })) })),
    ),
    evidence: [],
  },
]);
const leaving =
  (how: 'ring' | 'cut') =>
  (part: Part): Part =>
    part.kind === 'sound' && part.name === 'Wide' ? { ...part, leaving: how } : part;
const hasTails = (tails: boolean) =>
  device('d', (d) => ({
    ...d,
    chains: d.chains.map((c) => ({ ...c, slots: c.slots.map((s) => (s.is === 'block' ? { ...s, tails } : s)) })),
  }));
const looped = (how: 'ring' | 'cut') =>
  smallRig({
    boxes: { g: 'single-coil', s: 'switcher-4', a: 'analog-delay', w: 'powered-speaker' },
    leads: ['g.out>s.in', 's.send1>a.in', 'a.out>s.return1', 's.out>w.in'],
    sounds: { Wide: ['a.delay'], Dry: [] },
    with: leaving(how),
  });
testCheck(check('recall.tails'), SMALL, [
  {
    name: 'a delay whose loop closes both ways',
    rig: looped('ring'),
    evidence: ['device:a', 'sound:wide'],
    says: 'is cut off on the way to “Dry”',
  },
  {
    name: 'a delay with tails, where silence is wanted',
    rig: rig(chained, { Wide: ['d.delay'], Dry: [] }, leaving('cut'), hasTails(true)),
    evidence: ['device:d'],
    says: 'rings on in “Dry”',
  },
  { name: 'a loop that closes, where silence is wanted', rig: looped('cut'), evidence: [] },
  {
    name: 'a delay with tails that is to ring',
    rig: rig(chained, { Wide: ['d.delay'], Dry: [] }, leaving('ring'), hasTails(true)),
    evidence: [],
  },
]);

import { testCheck } from '../../../testing/check-tester.js';
import { after } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { makeDevice } from '../../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Device } from '../../rig/device.js';
import { all, partOf, type Part, type Rig } from '../../rig/rig.js';
import type { Edit } from '../../change/edit.js';
import { mirrorBank } from '../../edits/mirror.js';
import type { Engagement, SetList, Song } from '../../rig/show.js';
import type { Check } from '../check.js';
import { CHECKS } from '../index.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
const demo = islandRun();
const put = (...parts: Part[]): Rig => after(demo, { put: parts, remove: [] });
const box = (id: `device:${string}`, change: (d: Device) => Device): Part => change(partOf(demo, id)!);
const sound = (n: string) => partOf(demo, `sound:${n}`)!;
const called = (n: string, slot: number): Part => ({
  ...sound(n),
  calls: sound(n).calls.map((c) => ({ ...c, slot })),
});

const rope = partOf(demo, 'song:01')!;
const spaced = (mm: number): Part =>
  box('device:swi', (d) => ({
    ...d,
    figures: {
      ...d.figures,
      switches: ['A', 'B', 'C', 'D', 'E', 'F'].map((id, i) => ({ id, x: 40 + mm * i, y: 30 })),
    },
  }));
testCheck(check('set.fat-foot'), BALLROOM_ID, [
  {
    name: 'switches 45 mm apart that a song needs both',
    rig: put(spaced(45)),
    evidence: ['device:swi', 'song:01'],
    says: 'has A and B only 45 mm apart',
  },
  { name: 'a shoe fits between', rig: put(spaced(60)), evidence: [] },
  { name: 'nobody said where the switches are', rig: demo, evidence: [] },
]);
testCheck(check('set.role-moved'), BALLROOM_ID, [
  {
    name: 'the lead of one bank is on another switch',
    rig: put(called('15', 15), called('16', 14)),
    evidence: ['device:swi', 'sound:16'],
    says: 'The lead is on D',
  },
  { name: 'the demo has its roles under the same foot in every bank', rig: demo, evidence: [] },
]);
const looper = makeDevice('looper-station', 'device:lop');
testCheck(check('set.rings-on'), BALLROOM_ID, [
  {
    name: 'a loop that is recorded and never stopped, cured by a cue',
    rig: put(looper, {
      ...rope,
      cues: [...rope.cues, { name: 'loop', call: { track: 'device:lop.track1', act: 'record' } }],
    }),
    evidence: ['song:01', 'device:lop'],
    says: 'LST track 1 is never stopped',
    ways: ['Add a cue at the end of “Rope and tide” that ends it'],
  },
  {
    name: 'a switch that is held and never let go',
    rig: put({ ...rope, cues: [...rope.cues, { name: 'up', call: { move: 'move:lift', to: 'on' } }] }),
    evidence: ['song:01', 'move:lift'],
    says: 'held and never let go',
    ways: ['Add a cue at the end of “Rope and tide” that ends it'],
  },
  {
    name: 'a loop that is stopped, and a latched move that the next slot takes back',
    rig: put(looper, {
      ...rope,
      cues: [
        { name: 'loop', call: { track: 'device:lop.track1', act: 'play' } },
        { name: 'throw', call: { move: 'move:throw', to: 'on' } },
        ...rope.cues,
        { name: 'out', call: { track: 'device:lop.track1', act: 'clear' } },
      ],
    }),
    evidence: [],
  },
  { name: 'the demo lets go of what it holds', rig: demo, evidence: [] },
]);
const bpmOf = (bpm: number): Part => ({
  ...sound('04'),
  wants: [...sound('04').wants, { control: 'device:dly.tempo', is: bpm }],
});
const withTempo = box('device:dly', (d) => ({
  ...d,
  controls: [...d.controls, { id: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: 'left', use: 'sound' }],
}));
testCheck(check('set.tempo'), BALLROOM_ID, [
  {
    name: 'a sound at 110 in a song at 96',
    rig: put(withTempo, bpmOf(110)),
    evidence: ['sound:04', 'device:dly', 'song:01'],
    says: '“Rope and tide” at 96',
  },
  {
    name: 'a time in beats, in songs of two tempi',
    rig: put(withTempo, { ...sound('04'), wants: [...sound('04').wants, { control: 'device:dly.tempo', note: 0.75 }] }),
    evidence: ['sound:04', 'song:01', 'song:08'],
    says: 'more than one tempo',
  },
  {
    name: 'its tempo, or the double of it',
    rig: put(withTempo, bpmOf(192), { ...partOf(demo, 'song:08')!, bpm: 192.3 }),
    evidence: [],
  },
  { name: 'the demo carries no tempo of its own', rig: demo, evidence: [] },
]);

/** Four slots, and a song that calls every sound. */
const full = (sounds: Readonly<Record<string, readonly string[]>>, called: number): Rig => {
  const rig = smallRig({
    boxes: { g: 'single-coil', s: 'switcher-4', a: 'boost', b: 'low-drive', w: 'powered-speaker' },
    leads: ['g.out>s.in', 's.send1>a.in', 'a.out>s.return1', 's.send2>b.in', 'b.out>s.return2', 's.out>w.in'],
    sounds,
    with: (part: Part) =>
      part.kind === 'device' && part.id === 'device:s'
        ? { ...part, memories: part.memories.map((m) => ({ ...m, size: 4 })) }
        : part.kind === 'sound' && part.at <= called
          ? { ...part, calls: [{ device: 'device:s', memory: 'slots', slot: part.at - 1 }] }
          : part,
  });
  const cues = all(rig, 'sound').map((s) => ({ name: s.name, call: { sound: s.id } }));
  const song: Song = { kind: 'song', id: 'song:one', title: 'One', cues };
  return after(rig, { put: [song], remove: [] });
};
const FOUR = { Clean: [], Boost: ['a.boost'], Drive: ['b.overdrive'], Both: ['a.boost', 'b.overdrive'] };

testCheck(check('set.slots'), SMALL, [
  {
    name: 'a fifth sound that is the same as one of four',
    rig: full({ ...FOUR, Solo: ['a.boost', 'b.overdrive'] }, 4),
    evidence: ['device:s', 'sound:solo'],
    says: '“Solo” is the same as “Both”',
    ways: ['Let the songs call “Both” in place of “Solo”'],
  },
  { name: 'there is a slot left', rig: full(FOUR, 3), evidence: [] },
  { name: 'all have theirs', rig: full(FOUR, 4), evidence: [] },
]);

let made = 0;
const SWITCHER = { device: 'device:swi', memory: 'slots' } as const;
const mirrored = after(
  demo,
  mirrorBank(
    demo,
    { ...SWITCHER, from: 0, to: 6, size: 4 },
    [{ control: 'device:swi.trim', is: -3 }],
    () => `sound:m-${(made += 1)}`,
  ) as Edit,
);
const inMirror = partOf(mirrored, 'sound:m-1')!;
testCheck(check('set.mirror-apart'), BALLROOM_ID, [
  { name: 'a bank that was just mirrored', rig: mirrored, evidence: [] },
  {
    name: 'a mirror of another role',
    rig: after(mirrored, { put: [{ ...inMirror, role: 'fuzz' }], remove: [] }),
    evidence: ['device:swi', 'sound:m-1'],
    says: `“${inMirror.name}” has another role`,
    ways: [`Give “${inMirror.name}” the role of its original`],
  },
]);

const act: Engagement = {
  kind: 'engagement',
  id: 'engagement:deck',
  name: 'Deck',
  banks: [{ ...SWITCHER, from: 3, to: 3 }],
};
const deck: SetList = { kind: 'setList', id: 'setList:deck', name: 'Deck', songs: ['song:01'], engagement: act.id };
const outside = [...new Set(rope.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : [])))].filter(
  (id) => partOf(demo, id)!.calls[0]!.slot < 12,
);
testCheck(check('set.act-banks'), BALLROOM_ID, [
  {
    name: 'a song of an act calls a sound of another bank',
    rig: put(act, deck),
    evidence: ['engagement:deck', 'device:swi', ...outside],
    says: 'for which bank 4 of Eight-loop switcher is kept',
  },
  {
    name: 'all banks are kept for it',
    rig: put({ ...act, banks: [{ ...SWITCHER, from: 0, to: 3 }] }, deck),
    evidence: [],
  },
  {
    name: 'no set is played for it',
    rig: put(act, { kind: 'setList', id: deck.id, name: 'Deck', songs: deck.songs }),
    evidence: [],
  },
]);

/** Two boxes that follow the clock of one controller. */
const clocked = (bpm: number): Rig => {
  const follow = (d: Device): Device => ({
    ...d,
    controls: [
      ...d.controls,
      { id: 'tempo', domain: { min: 40, max: 240, unit: 'bpm' }, powerUp: 'unknown', use: 'sound' },
    ],
    actuators: [...d.actuators, { id: 'clock', by: { midi: 'clock' }, acts: [{ control: 'tempo', take: 'value' }] }],
  });
  return smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb', w: 'powered-speaker' },
    leads: ['g.out>d.in-l', 'd.out-l>e.in-l', 'e.out-l>w.in', 'c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'],
    sounds: { Both: ['d.delay', 'e.reverb', 'd.tempo=90', `e.tempo=${bpm}`] },
    with: (part: Part): Part => {
      if (part.kind === 'sound') return { ...part, calls: [{ device: 'device:c', memory: 'slots', slot: 0 }] };
      if (part.kind !== 'device') return part;
      if (part.id === 'device:c')
        return { ...part, memories: part.memories.map((m) => ({ ...m, limits: { ...m.limits, clock: true } })) };
      return /[de]$/.test(part.id) && part.midi ? follow(part) : part;
    },
  });
};
testCheck(check('set.tempo'), SMALL, [
  {
    name: 'two tempi on one wire',
    rig: clocked(120),
    evidence: ['sound:both', 'device:c'],
    says: '90 and 120 bpm of boxes that hear one clock',
  },
  { name: 'one tempo for both', rig: clocked(90), evidence: [] },
]);

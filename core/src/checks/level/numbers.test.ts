import { testCheck } from '../../../testing/check-tester.js';
import { smallRig, SMALL, type SmallRig } from '../../../testing/small-rig.js';
import type { Block, Device, Jack, Slot } from '../../rig/device.js';
import type { Part, Rig } from '../../rig/rig.js';
import type { Role } from '../../rig/sound.js';
import type { Check } from '../check.js';
import { CHECKS } from '../index.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
const device =
  (id: string, change: (d: Device) => Device) =>
  (p: Part): Part =>
    p.kind === 'device' && p.id === `device:${id}` ? change(p) : p;
const blocks =
  (change: Partial<Block>) =>
  (d: Device): Device => ({
    ...d,
    chains: d.chains.map((c) => ({
      ...c,
      slots: c.slots.map((s): Slot => (s.is === 'block' ? { ...s, ...change } : s)),
    })),
  });
const jack =
  (id: string, change: Partial<Jack>) =>
  (d: Device): Device => ({
    ...d,
    jacks: d.jacks.map((j) => (j.id === id ? { ...j, ...change } : j)),
  });
const rigOf = (
  boxes: SmallRig['boxes'],
  leads: readonly string[],
  sounds: SmallRig['sounds'],
  more: Partial<SmallRig> = {},
): Rig => smallRig({ boxes, leads, ...(sounds ? { sounds } : {}), ...more });

const LINE = ['g.out>d.in', 'd.out>w.in'];
const BOXES = { g: 'humbucker', d: 'boost', w: 'powered-speaker' };
testCheck(check('level.clip'), SMALL, [
  {
    name: 'a boost of 30 dB before a box that takes 11 dBu',
    rig: rigOf(
      { ...BOXES, e: 'stereo-delay' },
      ['g.out>d.in', 'd.out>e.in-l', 'e.out-l>w.in'],
      { One: ['d.boost'] },
      {
        with: device('d', (d) => blocks({ gain: 30, maxDbu: 30 })(d)),
      },
    ),
    evidence: ['device:e', 'device:d', 'cable:2', 'sound:one'],
    says: 'more than it takes (11 dBu, assumed)',
    ways: [],
  },
  {
    name: 'the same into a box that takes 40 dBu',
    rig: rigOf(
      { ...BOXES, e: 'stereo-delay' },
      ['g.out>d.in', 'd.out>e.in-l', 'e.out-l>w.in'],
      { One: ['d.boost'] },
      {
        with: (p) =>
          device(
            'w',
            jack('in', { maxDbu: 40 }),
          )(device('e', jack('in-l', { maxDbu: 40 }))(device('d', blocks({ gain: 30, maxDbu: 30 }))(p))),
      },
    ),
    evidence: [],
  },
  {
    name: 'into a drive that is on: it is meant to be driven',
    rig: rigOf(
      { ...BOXES, e: 'high-drive' },
      ['g.out>d.in', 'd.out>e.in', 'e.out>w.in'],
      { One: ['d.boost', 'e.overdrive'] },
      {
        with: device('d', blocks({ gain: 30, maxDbu: 30 })),
      },
    ),
    evidence: [],
  },
  { name: 'a guitar and a boost as people leave it', rig: rigOf(BOXES, LINE, { One: ['d.boost'] }), evidence: [] },
]);

testCheck(check('level.mismatch'), SMALL, [
  {
    name: 'a guitar straight into a line input',
    rig: rigOf({ g: 'single-coil', w: 'powered-speaker' }, ['g.out>w.in'], { One: [] }),
    evidence: ['device:w', 'device:g', 'cable:1', 'sound:one'],
    says: 'too soft for its line input',
    ways: [],
  },
  {
    name: 'a speaker tap with nothing that lowers it into a pedal',
    rig: rigOf(
      { g: 'single-coil', a: 'one-channel-amp', t: 'line-out', d: 'stereo-delay', w: 'powered-speaker', c: 'cab-212' },
      ['g.out>a.in', 'a.speaker>t.in', 't.through>c.in', 't.line>d.in-l', 'd.out-l>w.in'],
      { One: [] },
      { with: device('t', blocks({ gain: 0 })) },
    ),
    evidence: ['device:d', 'device:t'],
    says: 'too loud for its instrument input',
  },
  {
    name: 'the same with the tap as it comes',
    rig: rigOf(
      { g: 'single-coil', a: 'one-channel-amp', t: 'line-out', d: 'stereo-delay', w: 'powered-speaker', c: 'cab-212' },
      ['g.out>a.in', 'a.speaker>t.in', 't.through>c.in', 't.line>d.in-l', 'd.out-l>w.in'],
      { One: [] },
    ),
    evidence: [],
  },
]);

const SONG: Part = {
  kind: 'song',
  id: 'song:1',
  at: 1,
  title: 'Ebb',
  cues: [
    { name: 'verse', at: { bar: 1, beat: 1 }, call: { sound: 'sound:one' } },
    { name: 'solo', at: { bar: 9, beat: 1 }, call: { sound: 'sound:two' } },
  ],
};
const steps = (
  trim: number,
  roles: readonly [Role, Role],
  measured: readonly (readonly [number, 'dBA' | 'LUFS'])[] = [],
): Rig => {
  const built = rigOf(
    { g: 'single-coil', s: 'switcher-8', p: 'preamp-cab', f: 'desk' },
    ['g.out>s.in', 's.send1>p.in', 'p.out>s.return1', 's.out>f.ch1'],
    { One: ['p.preamp', 's.trim=0'], Two: ['p.preamp', `s.trim=${trim}`] },
    {
      with: (p) =>
        p.kind === 'sound'
          ? {
              ...p,
              role: roles[p.at - 1]!,
              ...(measured.length
                ? { measured: [{ hookup: SMALL, db: measured[p.at - 1]![0], unit: measured[p.at - 1]![1] }] }
                : {}),
            }
          : p,
    },
  );
  return { ...built, parts: { ...built.parts, song: new Map([['song:1', SONG]]) } } as Rig;
};
testCheck(check('level.step'), SMALL, [
  {
    name: 'a lead that lifts by 6',
    rig: steps(6, ['crunch', 'lead']),
    evidence: [],
  },
  {
    name: 'two rhythm sounds 5 dB apart',
    rig: steps(5, ['clean', 'crunch']),
    evidence: ['sound:two', 'sound:one'],
    says: 'From “One” to “Two” it lifts by 5 dB (reckoned) in Ebb; no more than 2 dB either way is wanted.',
    ways: ['Let “Two” have S trim at 1 instead of 5'],
  },
  {
    name: 'a lead that is no louder than the rhythm',
    rig: steps(0, ['crunch', 'lead']),
    evidence: ['sound:two', 'sound:one'],
    ways: ['Let “Two” have S trim at 4 instead of 0'],
  },
  {
    name: 'measured, it is otherwise than reckoned',
    rig: steps(
      0,
      ['crunch', 'lead'],
      [
        [90, 'dBA'],
        [94, 'dBA'],
      ],
    ),
    evidence: [],
  },
  {
    name: 'measured 9 dB apart, reckoned alike',
    rig: steps(
      0,
      ['clean', 'crunch'],
      [
        [-24, 'LUFS'],
        [-15, 'LUFS'],
      ],
    ),
    evidence: ['sound:two', 'sound:one'],
    says: 'it lifts by 9 dB (measured)',
  },
]);

testCheck(check('level.instrument-swap'), SMALL, [
  {
    name: 'a humbucker and a single coil into one drive',
    rig: rigOf(
      { g: 'single-coil', h: 'humbucker', s: 'ab-in', d: 'low-drive', w: 'powered-speaker' },
      ['g.out>s.a', 'h.out>s.b', 's.out>d.in', 'd.out>w.in'],
      { One: ['d.overdrive', 's.select=a'] },
    ),
    evidence: ['device:h', 'device:g', 'device:d', 'sound:one'],
    says: 'drives Low-gain drive 6 dB harder than Single-coil guitar',
    ways: [],
  },
  {
    name: 'the same two with a trim of 6 dB on the way of the louder one',
    rig: rigOf(
      { g: 'single-coil', h: 'humbucker', s: 'ab-in', d: 'low-drive', w: 'powered-speaker' },
      ['g.out>s.a', 'h.out>s.b', 's.out>d.in', 'd.out>w.in'],
      { One: ['d.overdrive', 's.select=a'] },
      {
        with: device('s', (d) => ({
          ...d,
          chains: d.chains.map((c) =>
            c.id === 'from-b' ? { ...c, from: c.from.map((t) => ({ ...t, gain: -6 })) } : c,
          ),
        })),
      },
    ),
    evidence: [],
  },
  {
    name: 'the same two with nothing to drive',
    rig: rigOf(
      { g: 'single-coil', h: 'humbucker', s: 'ab-in', d: 'low-drive', w: 'powered-speaker' },
      ['g.out>s.a', 'h.out>s.b', 's.out>d.in', 'd.out>w.in'],
      { One: ['s.select=a'] },
    ),
    evidence: [],
  },
]);

const FRONT = { g: 'single-coil', a: 'fuzz', b: 'low-drive', d: 'stereo-delay', w: 'powered-speaker' };
testCheck(check('load.treble'), SMALL, [
  {
    name: '12 m of cable before the first box that is on',
    rig: rigOf({ g: 'humbucker', d: 'stereo-delay', w: 'powered-speaker' }, ['g.out>d.in-l 12', 'd.out-l>w.in'], {
      One: [],
    }),
    evidence: ['device:g', 'cable:1', 'sound:one'],
    says: 'hangs on 12 m of cable (1200 pF)',
    ways: ['Use a lead of 3 m instead of 12 m'],
  },
  {
    name: 'a lead of much capacitance: a softer one of the same length will do',
    rig: rigOf(
      { g: 'single-coil', d: 'stereo-delay', w: 'powered-speaker' },
      ['g.out>d.in-l 3', 'd.out-l>w.in'],
      { One: [] },
      {
        with: (p) => (p.id === 'cable:1' ? { ...p, pFPerM: 300 } : p),
      },
    ),
    evidence: ['device:g', 'cable:1'],
    ways: ['Use a lead of 3 m and 100 pF a metre instead of 3 m and 300'],
  },
  {
    name: '3 m',
    rig: rigOf({ g: 'humbucker', d: 'stereo-delay', w: 'powered-speaker' }, ['g.out>d.in-l 3', 'd.out-l>w.in'], {
      One: [],
    }),
    evidence: [],
  },
  {
    name: '12 m behind an active instrument',
    rig: rigOf({ g: 'active-bass', d: 'stereo-delay', w: 'powered-speaker' }, ['g.out>d.in-l 12', 'd.out-l>w.in'], {
      One: [],
    }),
    evidence: [],
  },
]);
testCheck(check('load.bypass-chain'), SMALL, [
  {
    name: 'two bypassed boxes and 15 m',
    rig: rigOf(FRONT, ['g.out>a.in 6', 'a.out>b.in 3', 'b.out>d.in-l 6', 'd.out-l>w.in'], { One: [] }),
    evidence: ['device:g', 'device:a', 'device:b', 'sound:one'],
    says: 'feels 2 bypassed boxes',
    ways: [],
  },
  {
    name: 'the first of them is on: the coil feels 6 m only',
    rig: rigOf(FRONT, ['g.out>a.in 3', 'a.out>b.in 3', 'b.out>d.in-l 6', 'd.out-l>w.in'], { One: ['a.fuzz'] }),
    evidence: [],
  },
]);

const BLEND = { g: 'single-coil', s: 'splitter', d: 'stereo-delay', x: 'y-join', f: 'desk' };
const both = (change: (p: Part) => Part): Rig =>
  rigOf(BLEND, ['g.out>s.in', 's.out1>d.in-l', 'd.out-l>f.ch1', 's.out2>f.ch2'], { One: [] }, { with: change });
const WET_DRY = { g: 'single-coil', y: 'y-split', d: 'stereo-delay', a: 'combo', b: 'combo' };
const TO_BOTH = ['g.out>y.in', 'y.out1>a.in', 'y.out2>d.in-l', 'd.out-l>b.in'];
testCheck(check('comb.dry-in-wet'), SMALL, [
  {
    name: 'one program of the wet side at 60 %, the others at 100',
    rig: smallRig({
      boxes: WET_DRY,
      leads: TO_BOTH,
      sounds: { Wide: ['d.delay', 'd.mix=100'], Leak: ['d.delay', 'd.mix=60'] },
    }),
    evidence: ['device:d', 'sound:leak'],
    says: 'stands at 60 %',
    ways: ['Want Stereo delay at 100 % in “Leak”'],
  },
  {
    name: 'every program at 100 %',
    rig: smallRig({
      boxes: WET_DRY,
      leads: TO_BOTH,
      sounds: { Wide: ['d.delay', 'd.mix=100'], Far: ['d.delay', 'd.mix=100'] },
    }),
    evidence: [],
  },
  {
    name: 'a mix as people have it before a single amp',
    rig: smallRig({
      boxes: WET_DRY,
      leads: ['g.out>d.in-l', 'd.out-l>a.in'],
      sounds: { Wide: ['d.delay', 'd.mix=100'], Leak: ['d.delay', 'd.mix=60'] },
    }),
    evidence: [],
  },
]);

testCheck(check('comb.parallel'), SMALL, [
  {
    name: 'a way through a box that needs 2 ms, and one beside it, meet at the desk',
    rig: both(device('d', blocks({ ms: 2, on: [], gain: 0 }))),
    evidence: ['device:f', 'sound:one'],
    says: 'first notch at 250 Hz',
    ways: [],
  },
  {
    name: 'upside down at the same time',
    rig: both(device('d', blocks({ on: [], polarity: { invertedWhen: [] }, gain: 0 }))),
    evidence: ['device:f'],
    says: 'one of them upside down',
  },
  { name: 'two ways of one length', rig: both((p) => p), evidence: [] },
  {
    name: 'a way that is only wet is no copy of the other',
    rig: both(device('d', blocks({ ms: 2, on: [], wetOnly: [], gain: 0 }))),
    evidence: [],
  },
]);
testCheck(check('latency.total'), SMALL, [
  {
    name: 'a wireless of 4 ms',
    rig: rigOf({ g: 'single-coil', d: 'wireless', f: 'desk' }, ['g.out>d.in', 'd.out>f.ch1'], { One: [] }),
    evidence: [],
  },
  {
    name: 'all of it 12 ms late',
    rig: rigOf(
      { g: 'single-coil', d: 'stereo-delay', f: 'desk' },
      ['g.out>d.in-l', 'd.out-l>f.ch1'],
      { One: [] },
      {
        with: device('d', blocks({ ms: 12, on: [] })),
      },
    ),
    evidence: ['device:f', 'sound:one'],
    says: '12 ms late, as if it stood 4.1 m further away',
  },
]);
testCheck(check('noise.floor'), SMALL, [
  {
    name: 'a fuzz that hisses',
    rig: rigOf(
      { g: 'single-coil', a: 'fuzz', f: 'desk' },
      ['g.out>a.in', 'a.out>f.ch1'],
      { One: ['a.fuzz'] },
      {
        with: device('a', blocks({ noiseDbu: -45 })),
      },
    ),
    evidence: ['device:a', 'sound:one'],
    says: 'noise lies only 25 dB under the sound, and Fuzz makes most of it',
  },
  {
    name: 'the same with a gate behind it',
    rig: rigOf(
      { g: 'single-coil', a: 'fuzz', t: 'gate', f: 'desk' },
      ['g.out>a.in', 'a.out>t.in', 't.out>f.ch1'],
      { One: ['a.fuzz', 't.gate'] },
      {
        with: device('a', blocks({ noiseDbu: -45 })),
      },
    ),
    evidence: [],
  },
]);
testCheck(check('earth.loop'), SMALL, [
  {
    name: 'two earthed amps behind an A/B box',
    rig: rigOf(
      { g: 'single-coil', s: 'ab-out', a: 'one-channel-amp', b: 'one-channel-amp' },
      ['g.out>s.in', 's.a>a.in', 's.b>b.in'],
      { One: [] },
    ),
    evidence: ['device:a', 'device:b', 'cable:2', 'cable:3'],
    says: 'both earthed by the mains and joined by shields over A/B box',
    ways: [],
  },
  {
    name: 'the same with an isolated output',
    rig: rigOf(
      { g: 'single-coil', s: 'ab-out-isolated', a: 'one-channel-amp', b: 'one-channel-amp' },
      ['g.out>s.in', 's.a>a.in', 's.b>b.in'],
      { One: [] },
    ),
    evidence: [],
  },
]);

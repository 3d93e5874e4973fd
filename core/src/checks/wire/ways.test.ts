import { SMALL, smallRig, type SmallRig } from '../../../testing/small-rig.js';
import { testCheck } from '../../../testing/check-tester.js';
import type { Part } from '../../rig/rig.js';
import type { Check } from '../check.js';
import { CHECKS } from '../index.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
const rig = (
  boxes: SmallRig['boxes'],
  leads: readonly string[],
  sounds: SmallRig['sounds'] = {},
  change?: (part: Part) => Part,
) => smallRig({ boxes, leads, sounds, ...(change ? { with: change } : {}) });
const amp = { g: 'single-coil', h: 'valve-head' };

const desk = { g: 'bass', y: 'splitter', k: 'compressor', l: 'boost', foh: 'desk' };
testCheck(check('wire.phantom'), SMALL, [
  {
    name: 'two jacks of one desk are one finding',
    rig: rig(desk, ['g.out>y.in', 'y.out1>k.in', 'y.out2>l.in', 'k.out>foh.ch1', 'l.out>foh.ch2']),
    evidence: ['cable:4', 'cable:5', 'device:k', 'device:l', 'device:foh'],
    says: '(ch1 and ch2)',
    ways: [],
  },
  {
    name: 'a balanced output of a preamp',
    rig: rig({ g: 'bass', p: 'preamp-di', foh: 'desk' }, ['g.out>p.in', 'p.xlr>foh.ch1']),
    evidence: [],
  },
  {
    name: 'a balanced output over a multicore',
    rig: rig({ g: 'bass', i: 'di', n: 'multicore', foh: 'desk' }, ['g.out>i.in', 'i.out>n.in1', 'n.out1>foh.ch1']),
    evidence: [],
  },
  {
    name: 'a pedal straight into the desk',
    rig: rig({ g: 'bass', k: 'compressor', foh: 'desk' }, ['g.out>k.in', 'k.out>foh.ch1']),
    evidence: ['cable:2', 'device:k', 'device:foh'],
    says: 'phantom power',
    ways: ['Put a DI box between them'],
  },
  {
    name: 'over a DI box',
    rig: rig({ g: 'bass', k: 'compressor', i: 'di', foh: 'desk' }, ['g.out>k.in', 'k.out>i.in', 'i.out>foh.ch1']),
    evidence: [],
  },
]);
testCheck(check('wire.long-unbalanced'), SMALL, [
  {
    name: 'nine metres from the guitar',
    rig: rig({ ...amp, c: 'cab-212' }, ['g.out>h.in 9', 'h.speaker>c.in']),
    evidence: ['cable:1', 'device:g', 'device:h'],
    says: 'treble is lost',
  },
  {
    name: 'twenty metres from a pedal',
    rig: rig({ ...amp, k: 'compressor', c: 'cab-212' }, ['g.out>k.in 3', 'k.out>h.in 20', 'h.speaker>c.in 20']),
    evidence: ['cable:2'],
    says: 'hum gets in',
  },
  {
    name: 'short ones, and a long balanced one',
    rig: rig({ g: 'bass', i: 'di', foh: 'desk' }, ['g.out>i.in 5', 'i.out>foh.ch1 50']),
    evidence: [],
  },
]);
const withPlugs =
  (a: string, b: string) =>
  (part: Part): Part =>
    part.kind === 'cable' && part.id === 'cable:1' ? { ...part, plugs: [a, b] as never } : part;
testCheck(check('wire.plug'), SMALL, [
  {
    name: 'a jack plug into an XLR',
    rig: rig({ m: 'microphone', foh: 'desk' }, ['m.out>foh.ch1'], {}, withPlugs('6.35 TS', 'XLR')),
    evidence: ['cable:1', 'device:m'],
    says: 'does not go into the XLR jack',
  },
  {
    name: 'an XLR lead',
    rig: rig({ m: 'microphone', foh: 'desk' }, ['m.out>foh.ch1'], {}, withPlugs('XLR', 'XLR')),
    evidence: [],
  },
  {
    name: 'TRS into TS goes in',
    rig: rig({ g: 'bass', i: 'di' }, ['g.out>i.in'], {}, withPlugs('6.35 TRS', '6.35 TS')),
    evidence: [],
  },
]);
testCheck(check('wire.expression'), SMALL, [
  {
    name: 'the wiper on the other pole',
    rig: rig({ e: 'expression-reversed', c: 'midi-controller-exp' }, ['e.exp>c.exp1']),
    evidence: ['cable:1', 'device:e'],
    says: 'other pole',
  },
  {
    name: 'an active volume pedal',
    rig: rig({ v: 'volume-active', c: 'midi-controller-exp' }, ['v.out>c.exp1']),
    evidence: ['cable:1'],
    says: 'active',
  },
  {
    name: 'a passive one on a plain lead',
    rig: rig({ v: 'volume', c: 'midi-controller-exp' }, ['v.out>c.exp1']),
    evidence: ['cable:1'],
    says: 'insert lead',
  },
  {
    name: 'a passive one at the far end of an insert lead',
    rig: rig({ v: 'volume', y: 'insert-lead', c: 'midi-controller-exp' }, [
      'y.trs>c.exp1',
      'y.tip>v.in',
      'v.out>y.ring',
    ]),
    evidence: [],
  },
  {
    name: 'an active one at the far end of an insert lead',
    rig: rig({ v: 'volume-active', y: 'insert-lead', c: 'midi-controller-exp' }, [
      'y.trs>c.exp1',
      'y.tip>v.in',
      'v.out>y.ring',
    ]),
    evidence: ['cable:2', 'device:v', 'device:c'],
    says: 'Active volume pedal is active',
  },
  {
    name: 'a pedal that suits',
    rig: rig({ e: 'expression', c: 'midi-controller-exp' }, ['e.exp>c.exp1']),
    evidence: [],
  },
]);

const four = ['g.out>s.in', 's.send1>h.in', 'h.send>s.return1', 's.out>h.return', 'h.speaker>c.in'];
const fourBoxes = { g: 'single-coil', s: 'switcher-4', h: 'valve-head', c: 'cab-212' };
testCheck(check('wire.four-cable'), SMALL, [
  {
    name: "the amp's send hangs free",
    rig: rig(
      fourBoxes,
      four.filter((l) => l !== 'h.send>s.return1'),
    ),
    evidence: ['device:s', 'device:h'],
    says: "the amp's send to its return",
    ways: ['Plug a cable from Two-channel valve head 50 W (send) to Four-loop switcher (return1)'],
  },
  {
    name: 'the last lead is missing',
    rig: rig(
      fourBoxes,
      four.filter((l) => l !== 's.out>h.return'),
    ),
    evidence: ['device:s'],
    says: "its output to the amp's return",
  },
  { name: 'all four', rig: rig(fourBoxes, four), evidence: [] },
  {
    name: 'all four, with a delay on the way back',
    rig: rig({ ...fourBoxes, d: 'stereo-delay' }, [
      ...four.filter((l) => l !== 's.out>h.return'),
      's.out>d.in-l',
      'd.out-l>h.return',
    ]),
    evidence: [],
  },
  {
    name: 'a switcher in front of an amp with a pedal in its loop',
    rig: rig({ ...fourBoxes, d: 'analog-delay' }, [
      'g.out>s.in',
      's.out>h.in',
      'h.send>d.in',
      'd.out>h.return',
      'h.speaker>c.in',
    ]),
    evidence: [],
  },
]);

const stereo = { g: 'single-coil', d: 'stereo-delay', i: 'di-stereo', foh: 'desk' };
const sound = { Wide: ['d.delay'] };
testCheck(check('wire.stereo-lost'), SMALL, [
  {
    name: 'only the right output is plugged',
    rig: rig(stereo, ['g.out>d.in-l', 'd.out-r>i.in-r', 'i.out-r>foh.ch1'], sound),
    evidence: ['device:d', 'sound:wide'],
    says: 'only one of them is heard',
    ways: ['Move the plug from Stereo delay (out-r) to out-l'],
  },
  {
    name: 'one of the two leads stops at the DI',
    rig: rig(stereo, ['g.out>d.in-l', 'd.out-l>i.in-l', 'd.out-r>i.in-r', 'i.out-l>foh.ch1'], sound),
    evidence: ['device:d'],
    ways: ['Pull the cable from Stereo delay (out-r) to Stereo DI box (in-r)'],
  },
  {
    name: 'two sides are wanted in the house, and a mono box comes last',
    rig: smallRig({
      boxes: { g: 'single-coil', d: 'analog-delay', i: 'di', foh: 'desk' },
      leads: ['g.out>d.in', 'd.out>i.in', 'i.out>foh.ch1'],
      sounds: { Wide: ['d.delay'] },
      hears: [{ from: 'device:g.out', at: 'device:foh.#house', as: 'stereo' }],
    }),
    evidence: ['device:foh', 'device:g', 'sound:wide'],
    says: 'both sides are not there',
  },
  {
    name: 'two sides are wanted and come',
    rig: smallRig({
      boxes: stereo,
      leads: ['g.out>d.in-l', 'd.out-l>i.in-l', 'd.out-r>i.in-r', 'i.out-l>foh.ch1', 'i.out-r>foh.ch2'],
      sounds: sound,
      hears: [{ from: 'device:g.out', at: 'device:foh.#house', as: 'stereo' }],
    }),
    evidence: [],
  },
  {
    name: 'both go to the desk',
    rig: rig(stereo, ['g.out>d.in-l', 'd.out-l>i.in-l', 'd.out-r>i.in-r', 'i.out-l>foh.ch1', 'i.out-r>foh.ch2'], sound),
    evidence: [],
  },
  {
    name: 'the left/mono output alone',
    rig: rig(stereo, ['g.out>d.in-l', 'd.out-l>i.in-l', 'i.out-l>foh.ch1'], sound),
    evidence: [],
  },
  {
    name: 'a stereo box that is out',
    rig: rig(stereo, ['g.out>d.in-l', 'd.out-r>i.in-r', 'i.out-r>foh.ch1'], { Dry: [] }),
    evidence: [],
  },
]);
const twoStereo = { g: 'single-coil', d: 'stereo-delay', r: 'stereo-reverb', i: 'di-stereo', foh: 'desk' };
const twoSound = { Wide: ['d.delay', 'r.reverb'] };
testCheck(check('wire.leg-swapped'), SMALL, [
  {
    name: 'left into right between two stereo boxes',
    rig: rig(
      twoStereo,
      [
        'g.out>d.in-l',
        'd.out-l>r.in-r',
        'd.out-r>r.in-l',
        'r.out-l>i.in-l',
        'r.out-r>i.in-r',
        'i.out-l>foh.ch1',
        'i.out-r>foh.ch2',
      ],
      twoSound,
    ),
    evidence: ['device:r', 'sound:wide'],
    says: 'cross',
    ways: ['Swap the two cables into Stereo reverb'],
  },
  {
    name: 'straight',
    rig: rig(
      twoStereo,
      [
        'g.out>d.in-l',
        'd.out-l>r.in-l',
        'd.out-r>r.in-r',
        'r.out-l>i.in-l',
        'r.out-r>i.in-r',
        'i.out-l>foh.ch1',
        'i.out-r>foh.ch2',
      ],
      twoSound,
    ),
    evidence: [],
  },
]);

const twoWays = { g: 'bass', y: 'splitter', k: 'distortion', a: 'di', b: 'di', foh: 'desk' };
const bothDis = ['g.out>y.in', 'y.out1>k.in', 'k.out>a.in', 'a.out>foh.ch1', 'y.out2>b.in', 'b.out>foh.ch2'];
testCheck(check('wire.lost-output'), SMALL, [
  {
    name: 'the lead of a DI box to the desk is pulled, the other still sounds',
    rig: rig(
      twoWays,
      bothDis.filter((l) => l !== 'b.out>foh.ch2'),
      { Verse: ['k.distortion'] },
    ),
    evidence: ['device:b', 'device:y'],
    says: 'DI box (B) is fed by Splitter, jack out2, and what comes out of it is heard nowhere',
  },
  {
    name: 'the lead into a DI box is pulled',
    rig: rig(
      twoWays,
      bothDis.filter((l) => l !== 'y.out2>b.in'),
      { Verse: ['k.distortion'] },
    ),
    evidence: ['device:b', 'device:foh'],
    says: 'nothing comes there: the way begins at DI box (B), jack in',
  },
  {
    name: 'an arm of two boxes that joins nothing',
    rig: rig(
      twoWays,
      bothDis.filter((l) => l !== 'a.out>foh.ch1'),
      { Verse: [] },
    ),
    evidence: ['device:k', 'device:y'],
    says: 'heard nowhere',
  },
  { name: 'both DI boxes come to the desk', rig: rig(twoWays, bothDis, { Verse: ['k.distortion'] }), evidence: [] },
  {
    name: 'a tuner on an output of its own',
    rig: rig(
      { g: 'bass', v: 'volume', t: 'tuner', i: 'di', foh: 'desk' },
      ['g.out>v.in', 'v.tuner>t.in', 'v.out>i.in', 'i.out>foh.ch1'],
      { Verse: [] },
    ),
    evidence: [],
  },
]);
const twoLoops = (a: string, b: string) =>
  rig(
    { g: 'bass', s: 'switcher-4', k: 'compressor', l: 'distortion', i: 'di', foh: 'desk' },
    ['g.out>s.in', 's.send1>k.in', `k.out>s.${a}`, 's.send2>l.in', `l.out>s.${b}`, 's.out>i.in', 'i.out>foh.ch1'],
    { Verse: ['k.compressor'] },
  );
testCheck(check('wire.exchanged'), SMALL, [
  {
    name: 'two returns in each other’s place',
    rig: twoLoops('return2', 'return1'),
    evidence: ['device:s'],
    says: 'what leaves by send1 comes back by return2',
    ways: ['Exchange the plugs in return1 and return2 of Four-loop switcher'],
  },
  { name: 'each at home', rig: twoLoops('return1', 'return2'), evidence: [] },
]);

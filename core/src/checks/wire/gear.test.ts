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

testCheck(check('wire.speaker-into-line'), SMALL, [
  {
    name: 'the speaker jack into the desk',
    rig: rig({ ...amp, i: 'di' }, ['g.out>h.in', 'h.speaker>i.in']),
    evidence: ['cable:2', 'device:h', 'device:i'],
    says: 'It can destroy the input',
    ways: ['Pull the cable from Two-channel valve head 50 W (speaker) to DI box (in)'],
  },
  {
    name: 'into a line-out box with a cabinet behind it',
    rig: rig({ ...amp, l: 'line-out', c: 'cab-212' }, ['g.out>h.in', 'h.speaker>l.in', 'l.through>c.in']),
    evidence: [],
  },
]);
testCheck(check('wire.line-into-speaker'), SMALL, [
  {
    name: 'the send of an amp into a cabinet',
    rig: rig({ ...amp, c: 'cab-212' }, ['g.out>h.in', 'h.send>c.in']),
    evidence: ['cable:2', 'device:h', 'device:c'],
    says: 'no power',
  },
  { name: 'the speaker jack', rig: rig({ ...amp, c: 'cab-212' }, ['g.out>h.in', 'h.speaker>c.in']), evidence: [] },
]);
testCheck(check('wire.no-load'), SMALL, [
  {
    name: 'a cabinet selector with one cabinet: its other way has none',
    rig: smallRig({
      boxes: { g: 'single-coil', h: 'valve-head', s: 'cab-selector', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.speaker>s.in', 's.a>c.in'],
    }),
    evidence: ['device:h', 'device:s'],
    says: 'as soon as S select stands at b',
  },
  {
    name: 'the same selector taped to the side with the cabinet',
    rig: smallRig({
      boxes: { g: 'single-coil', h: 'valve-head', s: 'cab-selector', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.speaker>s.in', 's.a>c.in'],
      settings: { 's.select': 'a' },
    }),
    evidence: [],
  },
  {
    name: 'a selector whose switch is locked, so that the empty side never comes about',
    rig: smallRig({
      boxes: { g: 'single-coil', h: 'valve-head', s: 'cab-selector', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.speaker>s.in', 's.a>c.in'],
      with: (part) =>
        part.kind === 'device' && part.id === 'device:s'
          ? {
              ...part,
              controls: [
                ...part.controls.map((c) => ({ ...c, powerUp: { at: 'a' } })),
                { id: 'lock', domain: { values: ['on', 'off'] }, powerUp: { at: 'on' }, use: 'sound' as const },
              ],
              actuators: part.actuators.map((a) => ({ ...a, when: [{ control: 'lock', in: ['off'] }] })),
            }
          : part,
    }),
    evidence: [],
  },
  {
    name: 'a cabinet on either side',
    rig: smallRig({
      boxes: { g: 'single-coil', h: 'valve-head', s: 'cab-selector', c: 'cab-212', d: 'cab-112' },
      leads: ['g.out>h.in', 'h.speaker>s.in', 's.a>c.in', 's.b>d.in'],
    }),
    evidence: [],
  },
  {
    name: 'a valve head used for its preamp only',
    rig: rig({ ...amp, i: 'di', foh: 'desk' }, ['g.out>h.in', 'h.send>i.in', 'i.out>foh.ch1']),
    evidence: ['device:h'],
    says: 'before it is switched on',
  },
  {
    name: 'a valve head with its cabinet beside it',
    rig: rig({ ...amp, i: 'di', foh: 'desk', c: 'cab-212', d: 'cab-412' }, [
      'g.out>h.in',
      'h.send>i.in',
      'i.out>foh.ch1',
    ]),
    evidence: ['device:h'],
    ways: ['Plug a cable from Two-channel valve head 50 W (speaker) to Closed 2×12 cabinet (in)'],
  },
  {
    name: 'a line-out box that leads to nothing is no load',
    rig: rig({ ...amp, l: 'line-out' }, ['g.out>h.in', 'h.speaker>l.in']),
    evidence: ['device:h'],
  },
  {
    name: 'a load box',
    rig: rig({ ...amp, l: 'load-sim', foh: 'desk' }, ['g.out>h.in', 'h.speaker>l.in', 'l.xlr>foh.ch1']),
    evidence: [],
  },
  {
    name: 'through a line-out box to the cabinet',
    rig: rig({ ...amp, l: 'line-out', c: 'cab-212' }, ['g.out>h.in', 'h.speaker>l.in', 'l.through>c.in']),
    evidence: [],
  },
  {
    name: 'a transistor amp stands it',
    rig: rig({ g: 'bass', h: 'bass-head', foh: 'desk' }, ['g.out>h.in', 'h.di>foh.ch1']),
    evidence: [],
  },
  { name: 'a valve head that stays in its case', rig: rig({ ...amp, i: 'di' }, ['g.out>i.in']), evidence: [] },
]);
testCheck(check('wire.load-mismatch'), SMALL, [
  {
    name: 'two 8 ohm cabinets on the 8 ohm tap of a valve amp',
    rig: rig({ ...amp, p: 'speaker-parallel', c: 'cab-212', d: 'cab-112' }, [
      'g.out>h.in',
      'h.speaker>p.in',
      'p.out1>c.in',
      'p.out2>d.in',
    ]),
    evidence: ['device:h', 'device:c', 'device:d'],
    says: '4 Ω',
  },
  {
    name: 'the same on a transistor amp is a danger',
    rig: rig({ g: 'bass', h: 'bass-head', p: 'speaker-parallel', c: 'cab-410', d: 'cab-115' }, [
      'g.out>h.in',
      'h.speaker>p.in',
      'p.out1>c.in',
      'p.out2>d.in',
    ]),
    evidence: ['device:h'],
    says: 'overheat',
  },
  {
    name: 'a head of 100 W into a cabinet that stands 75',
    rig: rig({ g: 'single-coil', h: 'three-channel-head', c: 'cab-112' }, ['g.out>h.in', 'h.speaker>c.in']),
    evidence: ['device:c', 'device:h'],
    says: '100 W; it stands 75 W',
  },
  {
    name: 'the same head into two of them through a cabinet selector: one at a time, each gets it all',
    rig: rig({ g: 'single-coil', h: 'three-channel-head', s: 'cab-selector', c: 'cab-212', d: 'cab-112' }, [
      'g.out>h.in',
      'h.speaker>s.in',
      's.a>c.in',
      's.b>d.in',
    ]),
    evidence: ['device:d', 'device:h'],
    says: 'as soon as S select stands at b',
  },
  { name: 'one 8 ohm cabinet', rig: rig({ ...amp, c: 'cab-212' }, ['g.out>h.in', 'h.speaker>c.in']), evidence: [] },
  { name: 'a 16 ohm cabinet', rig: rig({ ...amp, c: 'cab-412' }, ['g.out>h.in', 'h.speaker>c.in']), evidence: [] },
]);
const twoDis = { a: 'di', b: 'di', foh: 'desk' };
testCheck(check('wire.passive-split'), SMALL, [
  {
    name: 'a plain Y into two DI boxes',
    rig: rig({ g: 'bass', y: 'y-split', ...twoDis }, [
      'g.out>y.in',
      'y.out1>a.in',
      'y.out2>b.in',
      'a.out>foh.ch1',
      'b.out>foh.ch2',
    ]),
    evidence: ['device:y'],
    says: 'without a buffer',
  },
  {
    name: 'a buffered splitter',
    rig: rig({ g: 'bass', y: 'splitter', ...twoDis }, [
      'g.out>y.in',
      'y.out1>a.in',
      'y.out2>b.in',
      'a.out>foh.ch1',
      'b.out>foh.ch2',
    ]),
    evidence: [],
  },
  {
    name: 'a plain Y of which one end hangs free',
    rig: rig({ g: 'bass', y: 'y-split', ...twoDis }, ['g.out>y.in', 'y.out1>a.in', 'a.out>foh.ch1']),
    evidence: [],
  },
  {
    name: 'cabinets side by side are no splitter',
    rig: rig({ ...amp, p: 'speaker-parallel', c: 'cab-412', d: 'cab-412' }, [
      'g.out>h.in',
      'h.speaker>p.in',
      'p.out1>c.in',
      'p.out2>d.in',
    ]),
    evidence: [],
  },
]);
const silence = (as: 'silent' | 'either') =>
  smallRig({
    boxes: { g: 'single-coil', m: 'microphone', i: 'di', foh: 'desk' },
    leads: ['g.out>i.in', 'i.out>foh.ch1', 'm.out>foh.ch2'],
    sounds: { Verse: [] },
    hears: [
      { from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' },
      { from: 'device:m.out', at: 'device:foh.#house', as },
    ],
  });
testCheck(check('wire.silent'), SMALL, [
  {
    name: 'no instrument',
    rig: rig({ k: 'boost', i: 'di', foh: 'desk' }, ['k.out>i.in', 'i.out>foh.ch1'], { Verse: [] }),
    evidence: ['sound:verse'],
    says: 'No instrument is plugged in',
  },
  {
    name: 'a microphone that was to be silent',
    rig: silence('silent'),
    evidence: ['device:m', 'device:foh', 'sound:verse'],
    says: 'it was to be silent there',
  },
  { name: 'a microphone that may be heard', rig: silence('either'), evidence: [] },
]);
testCheck(check('wire.passive-join'), SMALL, [
  {
    name: 'two guitars on a joining lead',
    rig: rig({ g: 'single-coil', k: 'humbucker', y: 'y-join', i: 'di', foh: 'desk' }, [
      'g.out>y.in1',
      'k.out>y.in2',
      'y.out>i.in',
      'i.out>foh.ch1',
    ]),
    evidence: ['device:y'],
    says: 'drive the other',
  },
  {
    name: 'a selector',
    rig: rig({ g: 'single-coil', k: 'humbucker', y: 'ab-in', i: 'di', foh: 'desk' }, [
      'g.out>y.a',
      'k.out>y.b',
      'y.out>i.in',
      'i.out>foh.ch1',
    ]),
    evidence: [],
  },
]);
testCheck(check('wire.direction'), SMALL, [
  {
    name: 'two outputs',
    rig: rig({ k: 'boost', j: 'boost' }, ['k.out>j.out']),
    evidence: ['cable:1', 'device:k', 'device:j'],
  },
  {
    name: 'an insert lead into an expression jack, either way round',
    rig: rig({ v: 'volume', y: 'insert-lead', c: 'midi-controller-exp' }, [
      'y.trs>c.exp1',
      'y.tip>v.out',
      'v.in>y.ring',
    ]),
    evidence: [],
  },
]);

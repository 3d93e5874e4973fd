import { SMALL, smallRig, type SmallRig } from '../../../testing/small-rig.js';
import { testCheck } from '../../../testing/check-tester.js';
import { CHECKS } from '../index.js';
import type { Part } from '../../rig/rig.js';
import type { Check } from '../check.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;

/** A guitar through boxes one behind the other into an amp with a cabinet and its microphone to the desk. */
const chain = (
  boxes: Readonly<Record<string, string>>,
  sounds: SmallRig['sounds'],
  more: { readonly into?: Readonly<Record<string, string>>; readonly instrument?: string; readonly amp?: string } = {},
) => {
  const { into = {}, instrument = 'single-coil', amp = 'valve-head' } = more;
  const inOf = (id: string) => into[id] ?? 'in';
  const front = ['g', ...Object.keys(boxes)];
  const out = (id: string) => (id === 'g' ? 'out' : (into[`${id}-out`] ?? 'out'));
  return smallRig({
    boxes: { g: instrument, ...boxes, h: amp, c: 'cab-212', m: 'cab-mic', foh: 'desk' },
    leads: [
      ...front.slice(1).map((id, i) => `${front[i]!}.${out(front[i]!)}>${id}.${inOf(id)}`),
      `${front.at(-1)!}.${out(front.at(-1)!)}>h.in`,
      'h.speaker>c.in',
      'c.air>m.air',
      'm.out>foh.ch1',
    ],
    sounds,
  });
};
/** A guitar straight to the desk through boxes. */
const direct = (
  boxes: Readonly<Record<string, string>>,
  leads: readonly string[],
  sounds: SmallRig['sounds'],
  instrument = 'single-coil',
) => smallRig({ boxes: { g: instrument, ...boxes, foh: 'desk' }, leads, sounds });

const inLoop = (box: string, stage: string) =>
  smallRig({
    boxes: { g: 'single-coil', x: box, h: 'valve-head', c: 'cab-212' },
    leads: ['g.out>h.in', 'h.send>x.in', 'x.out>h.return', 'h.speaker>c.in'],
    sounds: { Lead: ['h.lead', `x.${stage}`] },
  });

testCheck(check('order.dirt-in-loop'), SMALL, [
  {
    name: 'a distortion in the loop of the amp',
    rig: inLoop('distortion', 'distortion'),
    evidence: ['device:x', 'device:h', 'sound:lead'],
    says: 'in the loop of',
    ways: ['Move Distortion right in front of Two-channel valve head 50 W'],
  },
  { name: 'a delay in the loop', rig: inLoop('analog-delay', 'delay'), evidence: [] },
  {
    name: 'a distortion in front',
    rig: chain({ x: 'distortion' }, { Lead: ['h.lead', 'x.distortion'] }),
    evidence: [],
  },
  {
    name: 'a drive that is off in every sound',
    rig: smallRig({
      boxes: { g: 'single-coil', x: 'distortion', h: 'valve-head', c: 'cab-212' },
      leads: ['g.out>h.in', 'h.send>x.in', 'x.out>h.return', 'h.speaker>c.in'],
      sounds: { Clean: ['h.clean'] },
    }),
    evidence: [],
  },
]);
/** The channels of an amp under other names: what is driven is told by gain and place, not by a word. */
const renamed =
  (names: readonly string[]) =>
  (part: Part): Part => {
    if (part.kind !== 'device' || part.id !== 'device:h') return part;
    return JSON.parse(
      JSON.stringify(part)
        .replaceAll('"clean"', JSON.stringify(names[0]))
        .replaceAll('"lead"', JSON.stringify(names[1])),
    ) as Part;
  };
const delayInto = (channel: string) =>
  smallRig({
    boxes: { g: 'single-coil', d: 'analog-delay', h: 'valve-head', c: 'cab-212' },
    leads: ['g.out>d.in', 'd.out>h.in', 'h.speaker>c.in'],
    sounds: { Lead: ['d.delay', `h.${channel}`] },
    with: renamed(['lead-free', 'clean-as-a-whistle']),
  });
testCheck(check('order.delay-into-gain'), SMALL, [
  {
    name: 'a driven channel with the word clean in its name',
    rig: delayInto('clean-as-a-whistle'),
    evidence: ['device:d', 'device:h'],
  },
  { name: 'a clean channel with the word lead in its name', rig: delayInto('lead-free'), evidence: [] },
  {
    name: 'a delay into the lead channel',
    rig: chain({ d: 'analog-delay' }, { Lead: ['d.delay', 'h.lead'] }),
    evidence: ['device:d', 'device:h', 'sound:lead'],
    says: 'blur',
    ways: ['Move Analogue delay into the loop of Two-channel valve head 50 W'],
  },
  {
    name: 'a reverb into a fuzz',
    rig: chain({ r: 'spring-reverb', f: 'buffered-fuzz' }, { Lead: ['r.reverb', 'f.fuzz', 'h.clean'] }),
    evidence: ['device:r', 'device:f'],
    ways: ['Move Reverb pedal right behind Fuzz with a buffered input'],
  },
  {
    name: 'a delay into the clean channel',
    rig: chain({ d: 'analog-delay' }, { Clean: ['d.delay', 'h.clean'] }),
    evidence: [],
  },
  {
    name: 'a delay before gain in one arm, from which moving it would take it out of the other',
    evidence: ['device:d', 'device:h'],
    ways: [],
    rig: smallRig({
      boxes: {
        g: 'single-coil',
        d: 'analog-delay',
        y: 'splitter',
        h: 'valve-head',
        c: 'cab-212',
        i: 'di',
        foh: 'desk',
      },
      leads: ['g.out>d.in', 'd.out>y.in', 'y.out1>h.in', 'h.speaker>c.in', 'y.out2>i.in', 'i.out>foh.ch1'],
      sounds: { Lead: ['d.delay', 'h.lead'] },
      hears: [
        { from: 'device:g.out', at: 'device:c.air', as: 'sounds' },
        { from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' },
      ],
    }),
  },
  { name: 'a delay behind the gain', rig: inLoop('analog-delay', 'delay'), evidence: [] },
]);
testCheck(check('order.gate-cuts-tails'), SMALL, [
  {
    name: 'a gate behind a delay',
    rig: chain({ d: 'analog-delay', n: 'gate' }, { Clean: ['d.delay', 'n.gate', 'h.clean'] }),
    evidence: ['device:n', 'device:d'],
    says: 'the tails are gone',
    ways: ['Move Gate right in front of Analogue delay'],
  },
  {
    name: 'a gate behind a chorus, a delay and a reverb is one note, with advice for its threshold',
    rig: chain(
      { d: 'analog-delay', r: 'spring-reverb', n: 'gate' },
      { Clean: ['d.delay', 'r.reverb', 'n.gate', 'h.clean'] },
    ),
    evidence: ['device:n', 'device:d', 'device:r'],
    says: 'below the quietest repeat',
  },
  {
    name: 'a gate before it',
    rig: chain({ n: 'gate', d: 'analog-delay' }, { Clean: ['d.delay', 'n.gate', 'h.clean'] }),
    evidence: [],
  },
]);
testCheck(check('order.gate-before-noise'), SMALL, [
  {
    name: 'a gate before a drive',
    rig: chain({ n: 'gate', d: 'high-drive' }, { Crunch: ['n.gate', 'd.overdrive', 'h.clean'] }),
    evidence: ['device:n', 'device:d'],
    says: 'hiss',
    ways: ['Move Gate right behind High-gain drive'],
  },
  {
    name: 'a gate behind the drive',
    rig: chain({ d: 'high-drive', n: 'gate' }, { Crunch: ['n.gate', 'd.overdrive', 'h.clean'] }),
    evidence: [],
  },
  {
    name: 'a keyed gate listens elsewhere',
    rig: chain({ n: 'gate-keyed', d: 'high-drive' }, { Crunch: ['n.gate', 'd.overdrive', 'h.clean'] }),
    evidence: [],
  },
]);
testCheck(check('order.compressor-lifts-noise'), SMALL, [
  {
    name: 'a compressor behind a drive',
    rig: chain({ d: 'high-drive', k: 'compressor' }, { Crunch: ['d.overdrive', 'k.compressor', 'h.clean'] }),
    evidence: ['device:k', 'device:d'],
    says: 'raises the hiss',
    ways: ['Move Compressor right in front of High-gain drive'],
  },
  {
    name: 'two compressors in a row',
    rig: chain({ k: 'compressor', l: 'limiter' }, { Clean: ['k.compressor', 'l.compressor', 'h.clean'] }),
    evidence: ['device:l', 'device:k'],
    says: 'both compress',
  },
  {
    name: 'a compressor first',
    rig: chain({ k: 'compressor', d: 'high-drive' }, { Crunch: ['d.overdrive', 'k.compressor', 'h.clean'] }),
    evidence: [],
  },
]);
testCheck(check('order.fuzz-after-buffer'), SMALL, [
  {
    name: 'a fuzz behind a buffered tuner',
    rig: chain({ t: 'tuner', f: 'fuzz' }, { Fuzz: ['f.fuzz', 'h.clean'] }),
    evidence: ['device:f', 'device:t'],
    says: 'brittle',
    ways: ['Move Fuzz right in front of Tuner'],
  },
  {
    name: 'a fuzz behind a wah that is on',
    rig: chain({ w: 'wah', f: 'fuzz' }, { Fuzz: ['w.wah', 'f.fuzz', 'h.clean'] }),
    evidence: ['device:f', 'device:w'],
  },
  {
    name: 'behind a true bypass that is off, behind a wireless',
    rig: chain({ w: 'wireless', k: 'compressor', f: 'fuzz' }, { Fuzz: ['f.fuzz', 'h.clean'] }),
    evidence: ['device:f', 'device:w'],
  },
  {
    name: 'a fuzz with a buffered input',
    rig: chain({ t: 'tuner', f: 'buffered-fuzz' }, { Fuzz: ['f.fuzz', 'h.clean'] }),
    evidence: [],
  },
  { name: 'a fuzz first', rig: chain({ f: 'fuzz', t: 'tuner' }, { Fuzz: ['f.fuzz', 'h.clean'] }), evidence: [] },
]);
testCheck(check('order.wah-side'), SMALL, [
  {
    name: 'a wah before the drive',
    rig: chain({ w: 'wah', d: 'low-drive' }, { Solo: ['w.wah', 'd.overdrive', 'h.clean'] }),
    evidence: ['device:w', 'device:d'],
    says: 'vocal',
  },
  {
    name: 'a wah behind it',
    rig: chain({ d: 'low-drive', w: 'wah' }, { Solo: ['w.wah', 'd.overdrive', 'h.clean'] }),
    evidence: ['device:d', 'device:w'],
    says: 'harsh',
  },
  { name: 'a wah alone', rig: chain({ w: 'wah' }, { Solo: ['w.wah', 'h.clean'] }), evidence: [] },
]);
const volumeIn = (where: 'front' | 'loop' | 'last') =>
  smallRig({
    boxes: { g: 'single-coil', v: 'volume', d: 'analog-delay', h: 'valve-head', c: 'cab-212' },
    leads:
      where === 'front'
        ? ['g.out>v.in', 'v.out>h.in', 'h.send>d.in', 'd.out>h.return', 'h.speaker>c.in']
        : where === 'loop'
          ? ['g.out>h.in', 'h.send>v.in', 'v.out>d.in', 'd.out>h.return', 'h.speaker>c.in']
          : ['g.out>h.in', 'h.send>d.in', 'd.out>v.in', 'v.out>h.return', 'h.speaker>c.in'],
    sounds: { Clean: ['h.clean', 'd.delay'] },
  });
testCheck(check('order.volume-place'), SMALL, [
  { name: 'first', rig: volumeIn('front'), evidence: ['device:v', 'sound:clean'], says: 'cleans the gain up' },
  { name: 'after the gain, before the delay', rig: volumeIn('loop'), evidence: ['device:v'], says: 'tails ring on' },
  { name: 'last', rig: volumeIn('last'), evidence: ['device:v'], says: 'tails down with everything' },
  { name: 'no volume pedal', rig: chain({}, { Clean: ['h.clean'] }), evidence: [] },
]);
testCheck(check('order.tuner-mute'), SMALL, [
  {
    name: 'no tuner at all',
    rig: chain({}, { Clean: ['h.clean'] }),
    evidence: ['device:g'],
    says: 'can mute',
    ways: ['Put a muting tuner first'],
  },
  {
    name: 'a splitter before the tuner lets half of it by',
    rig: smallRig({
      boxes: { g: 'bass', s: 'splitter', t: 'tuner', a: 'di', b: 'di', foh: 'desk' },
      leads: ['g.out>s.in', 's.out1>t.in', 't.out>a.in', 's.out2>b.in', 'a.out>foh.ch1', 'b.out>foh.ch2'],
      sounds: { Both: [] },
    }),
    evidence: ['device:t'],
    says: 'before the tuner, or beside it',
    ways: ['Move Tuner right behind Bass guitar'],
  },
  { name: 'a tuner that everything passes', rig: chain({ t: 'tuner' }, { Clean: ['h.clean'] }), evidence: [] },
  { name: 'a switcher that mutes its output', rig: chain({ s: 'switcher-4' }, { Clean: ['h.clean'] }), evidence: [] },
  { name: 'a wireless that mutes', rig: chain({ w: 'wireless-tuner' }, { Clean: ['h.clean'] }), evidence: [] },
  { name: 'a tap and a kill switch', rig: chain({ k: 'kill-switch' }, { Clean: ['h.clean'] }), evidence: [] },
]);
testCheck(check('order.no-cab-sim'), SMALL, [
  {
    name: 'a drive into a DI',
    rig: direct({ d: 'low-drive', i: 'di' }, ['g.out>d.in', 'd.out>i.in', 'i.out>foh.ch1'], {
      Crunch: ['d.overdrive'],
    }),
    evidence: ['device:d', 'sound:crunch'],
    says: 'fizz',
  },
  {
    name: 'the plain output of a preamp whose XLR has the simulation',
    rig: direct({ p: 'preamp-di', i: 'di' }, ['g.out>p.in', 'p.out>i.in', 'i.out>foh.ch1'], { Clean: ['p.preamp'] }),
    evidence: ['device:p'],
  },
  {
    name: 'it says which jack has it',
    rig: direct({ p: 'preamp-di', i: 'di' }, ['g.out>p.in', 'p.out>i.in', 'i.out>foh.ch1'], { Clean: ['p.preamp'] }),
    evidence: ['device:p'],
    says: 'at its jack xlr',
  },
  {
    name: 'a preamp behind a cabinet simulation is a note',
    rig: direct(
      { s: 'cab-sim', p: 'preamp-pedal', i: 'di' },
      ['g.out>s.in', 's.out>p.in', 'p.out>i.in', 'i.out>foh.ch1'],
      { Clean: ['p.preamp'] },
    ),
    evidence: ['device:p'],
    says: 'stands before it',
  },
  {
    name: 'a bass with a clean preamp',
    rig: direct(
      { p: 'preamp-pedal', i: 'di' },
      ['g.out>p.in', 'p.out>i.in', 'i.out>foh.ch1'],
      { Clean: ['p.preamp'] },
      'bass',
    ),
    evidence: [],
  },
  {
    name: 'a bass with a distortion is a note',
    rig: direct(
      { d: 'distortion', i: 'di' },
      ['g.out>d.in', 'd.out>i.in', 'i.out>foh.ch1'],
      { Dirt: ['d.distortion'] },
      'bass',
    ),
    evidence: ['device:d'],
    says: 'Many basses',
  },
  {
    name: 'an acoustic preamp beside a guitar that has its cabinet',
    rig: smallRig({
      boxes: { g: 'single-coil', k: 'acoustic', p: 'acoustic-preamp', q: 'preamp-di', i: 'di', foh: 'desk' },
      leads: ['g.out>q.in', 'q.xlr>foh.ch1', 'k.out>p.in', 'p.out>i.in', 'i.out>foh.ch2'],
      sounds: { Both: ['p.preamp', 'q.preamp'] },
      hears: [
        { from: 'device:g.out', at: 'device:foh.#house', as: 'sounds' },
        { from: 'device:k.out', at: 'device:foh.#house', as: 'sounds' },
      ],
    }),
    evidence: [],
  },
  {
    name: 'its XLR',
    rig: direct({ p: 'preamp-di' }, ['g.out>p.in', 'p.xlr>foh.ch1'], { Clean: ['p.preamp'] }),
    evidence: [],
  },
  {
    name: 'a microphone before the cabinet',
    rig: chain({ d: 'low-drive' }, { Crunch: ['d.overdrive', 'h.clean'] }),
    evidence: [],
  },
  {
    name: 'an acoustic guitar needs none',
    rig: direct(
      { p: 'acoustic-preamp', i: 'di' },
      ['g.out>p.in', 'p.out>i.in', 'i.out>foh.ch1'],
      { Clean: ['p.preamp'] },
      'acoustic',
    ),
    evidence: [],
  },
]);
testCheck(check('order.two-cab-sims'), SMALL, [
  {
    name: 'a simulation behind a preamp that has one',
    rig: direct({ p: 'preamp-di', s: 'cab-sim' }, ['g.out>p.in', 'p.xlr>s.in', 's.out>foh.ch1'], {
      Clean: ['p.preamp'],
    }),
    evidence: ['device:p', 'device:s'],
    says: 'boxy',
    ways: ['Take Cabinet simulation out of the path'],
  },
  {
    name: 'one simulation',
    rig: direct({ p: 'preamp-di', s: 'cab-sim' }, ['g.out>p.in', 'p.out>s.in', 's.out>foh.ch1'], {
      Clean: ['p.preamp'],
    }),
    evidence: [],
  },
  { name: 'a cabinet and its microphone are one', rig: chain({}, { Clean: ['h.clean'] }), evidence: [] },
]);
testCheck(check('order.no-amp-stage'), SMALL, [
  {
    name: 'a compressor into a DI',
    rig: direct({ k: 'compressor', i: 'di' }, ['g.out>k.in', 'k.out>i.in', 'i.out>foh.ch1'], {
      Clean: ['k.compressor'],
    }),
    evidence: ['device:g', 'sound:clean'],
    says: 'clean and thin',
  },
  {
    name: 'a preamp that is on',
    rig: direct({ p: 'preamp-di' }, ['g.out>p.in', 'p.xlr>foh.ch1'], { Clean: ['p.preamp'] }),
    evidence: [],
  },
  {
    name: 'a bass goes straight in all the time',
    rig: direct({ i: 'di' }, ['g.out>i.in', 'i.out>foh.ch1'], { Clean: [] }, 'bass'),
    evidence: [],
  },
]);

import { testCheck } from '../../../testing/check-tester.js';
import { after } from '../../../testing/after.js';
import { smallRig, SMALL, type SmallRig } from '../../../testing/small-rig.js';
import { Deriver, deriveOnce } from '../../derive/steps/deriver.js';
import type { Device, Jack } from '../../rig/device.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import type { SetList, Song } from '../../rig/show.js';
import type { Check } from '../check.js';
import { CHECKS } from '../index.js';

const check = (code: string): Check => CHECKS.find((c) => c.code === code)!;
type Supply = NonNullable<Jack['supply']>;
/** Boxes with supplies that say something else: of what they take, or of an output by its name. */
const rigOf = (
  boxes: SmallRig['boxes'],
  leads: readonly string[],
  supplies: Readonly<Record<string, Partial<Supply>>> = {},
  figures: Readonly<Record<string, Device['figures']>> = {},
): Rig =>
  smallRig({
    boxes,
    leads,
    with: (part: Part) => {
      if (part.kind !== 'device') return part;
      const name = part.id.slice('device:'.length);
      return {
        ...part,
        figures: { ...part.figures, ...figures[name] },
        jacks: part.jacks.map((j) => {
          const other = supplies[`${name}.${j.id}`];
          return other && j.supply ? { ...j, supply: { ...j.supply, ...other } } : j;
        }),
      };
    },
  });
const turned = (rig: Rig): Rig => after(rig, { put: [{ ...partOf(rig, 'cable:1')!, turns: true }], remove: [] });
const GOOD = rigOf({ psu: 'supply-5', fuz: 'fuzz' }, ['psu.out1>fuz.dc']);

testCheck(check('supply.volts'), SMALL, [
  {
    name: '18 V into a box of 9 V, and an output of 9 V is free',
    rig: rigOf({ psu: 'supply-5', fuz: 'fuzz' }, ['psu.out1>fuz.dc'], { 'psu.out1': { volts: [18] } }),
    evidence: ['device:fuz', 'cable:1', 'device:psu'],
    says: 'Five-output supply (out1) gives 18 V, and it takes 9 V: Fuzz can be destroyed by it.',
    ways: ['Feed Fuzz from Five-output supply (out2)'],
  },
  {
    name: 'an AC adaptor in a fuzz',
    rig: rigOf({ ada: 'adaptor-ac', fuz: 'fuzz' }, ['ada.out>fuz.dc']),
    evidence: ['device:fuz'],
    says: 'gives alternating current, and it takes direct: Fuzz can be destroyed',
    ways: [],
  },
  {
    name: 'direct current into a box that takes AC',
    rig: rigOf({ psu: 'supply-5', pre: 'fuzz' }, ['psu.out1>pre.dc'], { 'pre.dc': { volts: [9], centre: 'ac' } }),
    evidence: ['device:pre'],
    says: 'gives direct current',
  },
  {
    name: 'two outputs added to 18 V for a box of 9 V',
    rig: rigOf({ psu: 'supply-5', dbl: 'doubling-lead', fuz: 'fuzz' }, [
      'psu.out1>dbl.in1',
      'psu.out2>dbl.in2',
      'dbl.out>fuz.dc',
    ]),
    evidence: ['device:fuz'],
    says: '(out1) with Five-output supply (out2) gives 18 V',
  },
  {
    name: 'two boxes of different volts on one output that can be set to either',
    rig: rigOf(
      { psu: 'supply-high-current', dsy: 'daisy-lead', a: 'fuzz', b: 'boost' },
      ['psu.out1>dsy.in', 'dsy.out1>a.dc', 'dsy.out2>b.dc'],
      { 'b.dc': { volts: [18] } },
    ),
    evidence: ['device:a', 'device:b', 'device:psu'],
    says: 'can be set to one voltage only',
  },
  {
    name: '9 V into a box of 18 V does not hurt it',
    rig: rigOf({ psu: 'supply-5', fuz: 'fuzz' }, ['psu.out1>fuz.dc'], { 'fuz.dc': { volts: [18] } }),
    evidence: ['device:fuz'],
    says: 'will not work as it should',
  },
  {
    name: 'an output that can be set to what the box takes',
    rig: rigOf({ psu: 'supply-high-current', fuz: 'fuzz' }, ['psu.out1>fuz.dc'], { 'fuz.dc': { volts: [18] } }),
    evidence: [],
  },
  {
    name: '9 V through a way of the multicore',
    rig: rigOf({ psu: 'supply-5', mul: 'multicore', fuz: 'fuzz' }, [
      'psu.out1>mul.supply-in1',
      'mul.supply-out1>fuz.dc',
    ]),
    evidence: [],
  },
]);

testCheck(check('supply.polarity'), SMALL, [
  {
    name: 'a box with its centre positive on an ordinary lead',
    rig: rigOf({ psu: 'supply-5', fuz: 'fuzz' }, ['psu.out1>fuz.dc'], { 'fuz.dc': { centre: 'positive' } }),
    evidence: ['device:fuz', 'cable:1'],
    says: 'wants its centre positive, and the lead from Five-output supply (out1) has it negative',
    ways: ['Use a lead that turns the polarity'],
  },
  {
    name: 'a turned lead at an ordinary box',
    rig: turned(GOOD),
    evidence: ['device:fuz'],
    ways: ['Use an ordinary lead'],
  },
  {
    name: 'a turned lead at a box with its centre positive',
    rig: turned(rigOf({ psu: 'supply-5', fuz: 'fuzz' }, ['psu.out1>fuz.dc'], { 'fuz.dc': { centre: 'positive' } })),
    evidence: [],
  },
  { name: 'ordinary', rig: GOOD, evidence: [] },
]);

testCheck(check('supply.current'), SMALL, [
  {
    name: '300 mA on an output of 100 mA, and a larger one is free',
    rig: rigOf({ psu: 'supply', dly: 'mono-delay' }, ['psu.out1>dly.dc'], { 'dly.dc': { milliamps: 300 } }),
    evidence: ['device:psu', 'device:dly'],
    says: 'takes 300 mA of Ten-output supply (out1), which gives 100 mA: it will sag',
    ways: ['Feed Mono delay with MIDI from Ten-output supply (out9)'],
  },
  {
    name: 'three boxes on one output',
    rig: rigOf(
      { psu: 'supply-8', dsy: 'daisy-lead', a: 'mono-delay', b: 'fuzz', c: 'boost' },
      ['psu.out1>dsy.in', 'dsy.out1>a.dc', 'dsy.out2>b.dc', 'dsy.out3>c.dc'],
      { 'b.dc': { milliamps: 40 } },
    ),
    evidence: ['device:psu', 'device:a', 'device:b', 'device:c'],
    says: 'take 260 mA of Eight-output supply (out1), which gives 250 mA',
  },
  {
    name: 'little to spare is a note',
    rig: rigOf({ psu: 'supply-5', dly: 'mono-delay' }, ['psu.out1>dly.dc'], { 'dly.dc': { milliamps: 450 } }),
    evidence: ['device:psu', 'device:dly'],
    says: 'so little is left to spare',
  },
  {
    name: 'all together over what the supply gives',
    rig: rigOf(
      { psu: 'supply-5', a: 'mono-delay', b: 'mono-delay' },
      ['psu.out1>a.dc', 'psu.out2>b.dc'],
      {},
      { psu: { givesWatts: 3 } },
    ),
    evidence: ['device:psu'],
    says: 'takes 3.6 W, and it gives 3 W altogether',
  },
  {
    name: 'two outputs bridged share what the box takes',
    rig: rigOf(
      { psu: 'supply-8', brg: 'bridging-lead', dly: 'mono-delay' },
      ['psu.out1>brg.in1', 'psu.out2>brg.in2', 'brg.out>dly.dc'],
      { 'dly.dc': { milliamps: 400 } },
    ),
    evidence: [],
  },
  { name: 'enough', rig: GOOD, evidence: [] },
]);

testCheck(check('supply.shared'), SMALL, [
  {
    name: 'a delay and a fuzz on one adaptor for all, and an isolated output is free',
    rig: rigOf({ one: 'daisy-chain', psu: 'supply-5', dly: 'mono-delay', fuz: 'fuzz' }, [
      'one.out1>dly.dc',
      'one.out2>fuz.dc',
    ]),
    evidence: ['device:fuz', 'device:dly'],
    says: 'Mono delay with MIDI and Fuzz share one common',
    ways: ['Feed Mono delay with MIDI from Five-output supply (out1)'],
  },
  {
    name: 'both on one isolated output by a lead that feeds several',
    rig: rigOf({ psu: 'supply-5', dsy: 'daisy-lead', dly: 'mono-delay', fuz: 'fuzz' }, [
      'psu.out1>dsy.in',
      'dsy.out1>dly.dc',
      'dsy.out2>fuz.dc',
    ]),
    evidence: ['device:fuz', 'device:dly'],
  },
  {
    name: 'each on an isolated output',
    rig: rigOf({ psu: 'supply-5', dly: 'mono-delay', fuz: 'fuzz' }, ['psu.out1>dly.dc', 'psu.out2>fuz.dc']),
    evidence: [],
  },
  {
    name: 'a box that says that it makes no noise',
    rig: rigOf(
      { one: 'daisy-chain', dly: 'mono-delay', fuz: 'fuzz' },
      ['one.out1>dly.dc', 'one.out2>fuz.dc'],
      {},
      { dly: { onSupply: 'neither' } },
    ),
    evidence: [],
  },
]);

const SIX = { a: 'fuzz', b: 'boost', c: 'compressor', d: 'chorus', e: 'low-drive', f: 'high-drive' };
testCheck(check('supply.count'), SMALL, [
  {
    name: 'six boxes and five outputs',
    rig: rigOf({ psu: 'supply-5', ...SIX }, []),
    evidence: ['device:f', 'device:psu'],
    says: '6 boxes want an output, and 5 are there: High-gain drive finds none',
    ways: [],
  },
  {
    name: 'outputs enough, but none of 12 V AC',
    rig: rigOf({ psu: 'supply-8', a: 'fuzz' }, [], { 'a.dc': { volts: [12], centre: 'ac' } }),
    evidence: ['device:a'],
  },
  { name: 'six outputs of a chain for six', rig: rigOf({ one: 'daisy-chain', ...SIX }, []), evidence: [] },
  {
    name: 'the large one is served first: only one output is strong enough for it',
    rig: rigOf({ psu: 'supply', a: 'fuzz', b: 'mono-delay', c: 'looper' }, [], {
      'b.dc': { milliamps: 450 },
      'c.dc': { milliamps: 450 },
    }),
    evidence: [],
  },
  {
    name: 'six on five, one through a lead that feeds two',
    rig: rigOf({ psu: 'supply-5', dsy: 'daisy-lead', ...SIX }, ['psu.out1>dsy.in', 'dsy.out1>a.dc', 'dsy.out2>b.dc']),
    evidence: [],
  },
  {
    name: 'a large box that can have two outputs joined',
    rig: rigOf({ psu: 'supply-8', a: 'fuzz', b: 'mono-delay' }, [], { 'b.dc': { milliamps: 400 } }),
    evidence: [],
  },
  {
    name: 'a large box, and no two outputs are left to be joined',
    rig: rigOf({ psu: 'supply-5', ...SIX }, [], { 'a.dc': { milliamps: 900 } }),
    evidence: ['device:a'],
  },
  { name: 'no supply in the kit: nothing is said yet', rig: rigOf(SIX, []), evidence: [] },
]);

/** So many songs of two hours, of which a set plays some. */
const night = (songs: number): readonly Part[] => {
  const ids = [1, 2, 3].map((n) => `song:${n}` as const);
  const list: SetList = { kind: 'setList', id: 'setList:1', name: 'Night', songs: ids.slice(0, songs) };
  return [...ids.map((id): Song => ({ kind: 'song', id, title: id, cues: [], seconds: 7200 })), list];
};
const playing = (rig: Rig, songs: number): Rig => after(rig, { put: night(songs), remove: [] });
const PACK = rigOf({ w: 'wireless' }, []);
testCheck(check('supply.battery'), SMALL, [
  {
    name: 'a pack of 6.7 hours for a set of six hours',
    rig: playing(PACK, 3),
    evidence: ['device:w'],
    says: 'lasts about 6.7 hours; the longest set takes 6 hours',
  },
  {
    name: 'a battery of 500 mAh with 400 mA on it',
    rig: playing(rigOf({ bat: 'battery', dly: 'mono-delay' }, ['bat.out>dly.dc'], { 'dly.dc': { milliamps: 400 } }), 1),
    evidence: ['device:bat'],
    // 0.5 Ah × 9 V × 0.85 / (9 V × 0.4 A) = 1.06 h, by hand.
    says: 'lasts about 1.1 hours',
  },
  { name: 'a short set', rig: playing(PACK, 2), evidence: [] },
  { name: 'nothing hangs on it', rig: playing(rigOf({ bat: 'battery' }, []), 9), evidence: [] },
  { name: 'no set list', rig: PACK, evidence: [] },
]);

test('what is said of a set is said anew as soon as the set changes', () => {
  const deriver = new Deriver();
  const codes = (rig: Rig) => deriver.derive(rig, SMALL)!.judgement.findings.map((f) => f.code);
  const short = playing(PACK, 1);
  expect(codes(short)).not.toContain('supply.battery');
  const long = after(short, { put: night(3).slice(-1), remove: [] });
  expect(codes(long)).toContain('supply.battery');
  expect(codes(long)).toEqual(deriveOnce(long, SMALL)!.judgement.findings.map((f) => f.code));
});

const STRIP = smallRig({ boxes: { st: 'mains-strip', psu: 'supply-5' }, leads: ['st.socket1>psu.mains 5'] });
const lead = partOf(STRIP, 'cable:1')!;
testCheck(check('mains.home-made'), SMALL, [
  {
    name: 'a mains lead that somebody cut to length',
    rig: after(STRIP, { put: [{ ...lead, byHand: true }], remove: [] }),
    evidence: ['cable:1', 'device:st', 'device:psu'],
    says: 'made by hand',
    ways: ['Use a bought, tested lead of at least 5 m'],
  },
  {
    name: 'one that is to get other plugs',
    rig: after(STRIP, { put: [{ ...lead, plugs: ['mains', 'barrel'] }], remove: [] }),
    evidence: ['cable:1', 'device:st', 'device:psu'],
    says: 'licensed hands',
  },
  { name: 'a bought one', rig: STRIP, evidence: [] },
  {
    name: 'a patch lead of low voltage made by hand',
    rig: after(GOOD, { put: [{ ...partOf(GOOD, 'cable:1')!, byHand: true }], remove: [] }),
    evidence: [],
  },
]);

import { askCbc } from '../../../testing/cbc.js';
import { after } from '../../../testing/after.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { apply } from '../../change/apply.js';
import { changeDevice } from '../../edits/devices.js';
import { feeds, needsNoSupply, outputLoads } from '../../electric/supply.js';
import type { Device, Jack } from '../../rig/device.js';
import type { Id, Ref } from '../../rig/ids.js';
import { all, soundsInOrder, thePart, type Part, type Rig } from '../../rig/rig.js';
import { addDevice } from '../../edits/devices.js';
import { feedBoxes, fedOver, leadOver, supplyWays } from '../../edits/feed.js';
import type { Hookup } from '../../rig/hookup.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { together } from '../../change/edit.js';
import { PRACTICE } from '../../../testing/practice.js';
import { deriveOnce } from '../steps/deriver.js';
import { soundRun } from './view.js';
import { mainsOf } from './mains.js';
import { planPower, powerAsked, powerOf, type Power } from './power.js';

type Supply = NonNullable<Jack['supply']>;
/** A box whose supply jack says something else. */
const wants =
  (supply: Partial<Supply>) =>
  (device: Device): Device => ({
    ...device,
    jacks: device.jacks.map((j) =>
      j.kind === 'power' && j.poles.tip === 'in' && j.supply ? { ...j, supply: { ...j.supply, ...supply } } : j,
    ),
  });
const rigOf = (boxes: Record<string, string>, changes: Record<string, (d: Device) => Device> = {}): Rig =>
  smallRig({
    boxes,
    leads: [],
    with: (part: Part) => (part.kind === 'device' ? (changes[part.id.slice('device:'.length)]?.(part) ?? part) : part),
  });
let made = 0;
const newId = { cable: () => `cable:new-${(made += 1)}` as const, device: () => `device:new-${(made += 1)}` as const };
const powerIn = (rig: Rig, hookup: Hookup, chains = false): Power => {
  const problem = powerAsked(rig, hookup, chains);
  return powerOf(rig, hookup, problem, planPower(problem, askCbc)!);
};
const power = (rig: Rig, chains = false): Power => powerIn(rig, thePart(rig, SMALL), chains);
const plugged = (rig: Rig, chains = false): Rig => after(rig, feedBoxes(rig, SMALL, power(rig, chains).toPlug, newId));
const fedBy = (rig: Rig) =>
  Object.fromEntries(
    feeds(rig, thePart(rig, SMALL)).map(({ need, given }) => [
      need.device.slice('device:'.length),
      given && [given.outputs.map((o) => o.jack.slice('device:'.length)).join('+'), given.milliamps, given.centre],
    ]),
  );

/** As a rack wants it: one box for three outputs, one for 18 V, one with its centre positive, one for 12 V AC. */
const RACK = rigOf(
  {
    psu: 'supply-8',
    ac: 'adaptor-ac',
    big: 'mono-delay',
    eight: 'compressor',
    fuzz: 'fuzz',
    twelve: 'low-drive',
    low: 'boost',
  },
  {
    big: wants({ milliamps: 700 }),
    eight: wants({ volts: [18] }),
    fuzz: wants({ centre: 'positive' }),
    twelve: wants({ volts: [12], centre: 'ac' }),
  },
);

test('a rack: three outputs bridged, two doubled, a turned lead; 12 V AC is not there, and it says what to buy', () => {
  const { outputs, boxes, left, special, isProved, byChains } = power(RACK);
  expect({ outputs, boxes, isProved, byChains }).toEqual({
    outputs: { needed: 8, there: 9, used: 7 },
    boxes: 5,
    isProved: true,
    byChains: undefined,
  });
  expect(special).toEqual([
    'a lead that joins 3 outputs for more current',
    'a lead that joins 2 outputs for more volts',
    'a lead that turns the polarity',
  ]);
  expect(left).toEqual([
    expect.objectContaining({
      code: 'TWEL',
      needs: '12 V AC, 20 mA',
      why: 'no output gives 12 V, alone or joined',
      buy: 'an output of 12 V AC with 20 mA or more',
    }),
  ]);
});

test('plugged as planned each box gets what it wants, nothing is over its rating, and nothing is left to plug', () => {
  const rig = plugged(RACK);
  const fed = feeds(rig, thePart(rig, SMALL));
  expect(fed).toHaveLength(4);
  for (const { need, given } of fed) {
    expect(given?.volts.some((v) => need.volts.includes(v))).toBe(true);
    expect(given?.milliamps).toBeGreaterThanOrEqual(need.milliamps);
    expect(given?.centre).toBe(need.centre);
  }
  for (const { output, milliamps } of outputLoads(rig, fed)) expect(milliamps).toBeLessThanOrEqual(output.milliamps);
  expect(power(rig)).toMatchObject({ toPlug: [], left: [{ code: 'TWEL' }] });
});

test('one box more moves no lead that is plugged', () => {
  const rig = plugged(RACK);
  const before = fedBy(rig);
  const another = apply(rig, changeDevice({ ...thePart(rig, 'device:low'), id: 'device:more', code: 'MORE' }, {}));
  if (!another.ok) throw new Error('no box');
  const { toPlug } = power(another.value.rig);
  expect(toPlug.flatMap((w) => w.needs)).toEqual(['device:more.dc']);
  expect(fedBy(plugged(another.value.rig))).toMatchObject(before);
});

test('two outputs are joined wherever they are free: nothing that is plugged moves for it', () => {
  const rig = plugged(rigOf({ psu: 'supply-5', a: 'boost', b: 'fuzz', c: 'chorus' }));
  const big = apply(rig, {
    put: [wants({ milliamps: 900 })({ ...thePart(rig, 'device:a'), id: 'device:big', code: 'BIG' })],
    remove: [],
  });
  if (!big.ok) throw new Error('no box');
  const { toPlug, left } = power(big.value.rig);
  expect([toPlug.flatMap((w) => w.needs), left]).toEqual([['device:big.dc'], []]);
  expect(fedBy(plugged(big.value.rig))).toMatchObject(fedBy(rig));
});

test('more boxes than outputs: who is left, and what leads to several boxes would do', () => {
  const rig = rigOf(
    {
      psu: 'supply-5',
      a: 'low-drive',
      b: 'fuzz',
      c: 'boost',
      d: 'compressor',
      e: 'chorus',
      f: 'mono-delay',
      g: 'looper',
    },
    {},
  );
  const alone = power(rig);
  expect(alone.left).toHaveLength(2);
  expect(alone.byChains).toBe(2);
  expect(new Set(alone.left.map((l) => l.why))).toEqual(new Set(['the outputs that fit are taken by others']));
  const chained = power(rig, true);
  expect([chained.left, chained.mixed]).toEqual([[], []]);
  const chainedRig = plugged(rig, true);
  expect(Object.keys(fedBy(chainedRig))).toHaveLength(7);
  expect(power(chainedRig, true).toPlug).toEqual([]);
});

test('where leads with several plugs are allowed, they are used only for what finds no output of its own', () => {
  const boxes = { a: 'low-drive', b: 'fuzz', c: 'boost', d: 'compressor', e: 'chorus' };
  expect(power(rigOf({ psu: 'supply-5', ...boxes }), true)).toMatchObject({ left: [], special: [], isProved: true });
  const six = power(rigOf({ psu: 'supply-5', ...boxes, f: 'tremolo' }), true);
  expect([six.outputs.used, six.special]).toEqual([5, ['a lead that feeds 2 boxes from one output']]);
});

test('seven boxes on one output take two leads, one behind the other', () => {
  const boxes = Object.fromEntries(Array.from({ length: 7 }, (_, i) => [`b${i}`, 'boost']));
  const rig = plugged(rigOf({ psu: 'adaptor', ...boxes }), true);
  const fed = fedBy(rig);
  expect(Object.values(fed)).toEqual(Array(7).fill(['psu.out', 500, 'negative']));
});

test('digital beside high gain on one common is told, by their codes', () => {
  const rig = rigOf({ one: 'daisy-chain', a: 'mono-delay', b: 'fuzz', c: 'boost' });
  expect(power(rig).mixed).toEqual([['A', 'B']]);
  expect(power(rigOf({ one: 'supply-5', a: 'mono-delay', b: 'fuzz' })).mixed).toEqual([]);
});

test('a supply that gives less altogether than its outputs together', () => {
  const tight = (d: Device): Device => ({ ...d, figures: { ...d.figures, givesWatts: 3 } });
  const rig = rigOf(
    { psu: 'supply-5', a: 'mono-delay', b: 'looper' },
    { psu: tight, a: wants({ milliamps: 300 }), b: wants({ milliamps: 300 }) },
  );
  const { left, supplies } = power(rig);
  expect(left).toHaveLength(1);
  expect(supplies[0]?.watts).toEqual({ taken: 2.7, gives: 3 });
});

test('an empty kit needs nothing; boxes without a supply in the kit are all left over', () => {
  expect(power(rigOf({}))).toMatchObject({ boxes: 0, outputs: { needed: 0, there: 0, used: 0 }, left: [], toPlug: [] });
  const rig = rigOf({ a: 'fuzz', v: 'volume' });
  expect(needsNoSupply(thePart(rig, 'device:v'))).toBe(true);
  expect(power(rig)).toMatchObject({
    outputs: { needed: 1, there: 0, used: 0 },
    left: [{ code: 'A', why: 'no supply is in the kit' }],
  });
});

test('a box of another hook-up is not counted in this one, nor told as one that finds no output', () => {
  const rig = DEMO_RIGS[0]!.make();
  const [ballroom, ferry] = all(rig, 'hookup').map((h) => powerIn(rig, h));
  // The preamp goes to the desk on the ferry; in the ballroom it stays at home, and the amp has no supply jack.
  expect(ballroom!.atHome.map((b) => b.code)).toEqual(['PRE']);
  expect([ballroom!.boxes, ferry!.boxes, ferry!.left]).toEqual([11, 12, []]);
});

test('a box that finds the strong outputs taken gets weak ones joined, and stays without only where they are gone', () => {
  const big = wants({ milliamps: 280 });
  const boxes = { psu: 'supply', a: 'looper', b: 'looper', c: 'looper' };
  const { left, special } = power(rigOf(boxes, { a: big, b: big, c: big }));
  expect([left, special]).toEqual([[], ['a lead that joins 3 outputs for more current']]);
});

test('a battery lasts by what hangs on it: 5000 mAh at 9 V for 450 mW at 85 %', () => {
  const rig = rigOf({ bank: 'battery-bank', a: 'boost' }, { a: wants({ milliamps: 50 }) });
  // 5 Ah × 9 V × 0.85 / 0.45 W = 85 h, by hand.
  expect(power(rig).supplies[0]?.hours).toBeCloseTo(85, 6);
});

test('mains: what goes into the strip, what into the wall, what is to be charged', () => {
  const rig = rigOf({ strip: 'mains-strip', psu: 'supply-8', amp: 'combo', w: 'wireless' });
  const { plugs, atWall, batteries } = mainsOf(rig);
  expect([plugs.map((p) => p.code), atWall]).toEqual([['STRI', 'PSU', 'AMP'], 1]);
  // 2000 mAh / 300 mA, by hand.
  expect(batteries).toEqual([{ device: 'device:w', code: 'W', name: 'Wireless', hours: 2000 / 300 }]);
  expect(mainsOf(rigOf({ psu: 'supply-8', two: 'supply-5' })).atWall).toBe(2);
});

describe('what sounds, and what comes back, is the same with supply leads and without', () => {
  const rigs = [
    ...DEMO_RIGS.map(({ id, make }) => [id, make()] as const),
    ...PRACTICE.map((p) => [p.file, p.rig] as const),
  ];
  /** What tells of supplies besides others. */
  const OF_SUPPLIES_TOO: ReadonlySet<string> = new Set(['fail.single-point']);
  const said = (rig: Rig, hookup: Id<'hookup'>) => {
    const d = deriveOnce(rig, hookup)!;
    return {
      runs: soundsInOrder(rig).map((s) => soundRun(d, s.id)),
      answers: [...d.answers].map(([sound, { is }]) => [sound, is]),
      stored: soundsInOrder(rig).map((s) => d.compilation.sounds.get(s.id)?.stored.map((p) => p.program.contents)),
      findings: d.judgement.findings
        .filter((f) => !f.code.startsWith('supply.') && !OF_SUPPLIES_TOO.has(f.code))
        .map((f) => `${f.code} ${f.why}`),
    };
  };
  test.each(rigs)('%s', (_, rig) => {
    const supplies = after(
      rig,
      together(addDevice(rig, 'supply-8', 'device:s8'), addDevice(rig, 'supply-5', 'device:s5', {}, ['S8'])),
    );
    for (const hookup of all(supplies, 'hookup')) {
      const fed = after(supplies, feedBoxes(supplies, hookup.id, powerIn(supplies, hookup, true).toPlug, newId));
      expect(said(fed, hookup.id)).toEqual(said(rig, hookup.id));
    }
  });
});

test('the supplies that come along by hook-up: the one with leads here, and one that is wired nowhere yet', () => {
  const kit = smallRig({
    boxes: { fuz: 'fuzz', big: 'supply', small: 'supply-5', spare: 'adaptor' },
    leads: ['big.out1>fuz.dc'],
  });
  const fly: Hookup = { ...thePart(kit, SMALL), id: 'hookup:fly', name: 'Fly date' };
  const lead = all(kit, 'cable')[0]!;
  const here = (leads: readonly Ref[]): Rig =>
    after(kit, {
      put: [
        fly,
        ...leads.map((from, i) => ({
          ...lead,
          id: `cable:fly-${i}` as const,
          hookup: fly.id,
          ends: [from, 'device:fuz.dc'] as const,
        })),
      ],
      remove: [],
    });
  const codes = (rig: Rig): readonly string[] => powerIn(rig, thePart(rig, fly.id)).supplies.map((s) => s.device);
  expect(codes(here([]))).toEqual(['device:big', 'device:small', 'device:spare']);
  const flying = here(['device:small.out1']);
  expect(codes(flying)).toEqual(['device:small', 'device:spare']);
  expect(powerIn(flying, thePart(flying, fly.id)).atHome.map((h) => h.name)).toEqual(['Ten-output supply']);
});

test('outputs that are centre-positive feed boxes that want it so by an ordinary lead, the others by one that turns', () => {
  const gives = (d: Device): Device => ({
    ...d,
    jacks: d.jacks.map((j) => (j.supply ? { ...j, supply: { ...j.supply, centre: 'positive' } } : j)),
  });
  const boxes = { old: 'adaptor', new: 'adaptor', fuzz: 'fuzz', boost: 'boost' };
  const rig = rigOf(boxes, { old: gives, fuzz: wants({ centre: 'positive' }) });
  expect(power(rig)).toMatchObject({ left: [], special: [], isProved: true });
  expect(fedBy(plugged(rig))).toEqual({ fuzz: ['old.out', 500, 'positive'], boost: ['new.out', 500, 'negative'] });
  // With one more such box nothing but a lead that turns is left for it.
  const both = rigOf(boxes, { old: gives, fuzz: wants({ centre: 'positive' }), boost: wants({ centre: 'positive' }) });
  expect(power(both).special).toEqual(['a lead that turns the polarity']);
  expect(Object.values(fedBy(plugged(both))).map((given) => given?.[2])).toEqual(['positive', 'positive']);
  expect(power(plugged(both)).toPlug).toEqual([]);
});

describe('over the supply ways of a multicore', () => {
  const rig = rigOf({ psu: 'supply-5', mul: 'multicore', a: 'boost', b: 'fuzz' });
  const [way, other] = supplyWays(rig);
  const need = 'device:a.dc';
  const over = (on: Rig, to = way) => after(on, leadOver(on, SMALL, need, to, newId.cable));
  test('a box that is led over one and fed by nothing yet is fed at its far end when all is plugged as planned', () => {
    const laid = over(rig);
    expect(fedOver(laid, SMALL, need)).toEqual(way);
    expect(fedBy(laid)).toEqual({ a: undefined });
    const fed = plugged(laid);
    expect(feeds(fed, thePart(fed, SMALL)).map((f) => f.given?.centre)).toEqual(['negative', 'negative']);
    expect(fedOver(fed, SMALL, need)).toEqual(way);
    expect(power(fed).toPlug).toEqual([]);
  });
  test('what feeds it stays, whether it is led over a way, over another, or straight again', () => {
    const straight = plugged(rig);
    const before = fedBy(straight);
    const there = over(straight);
    const elsewhere = over(there, other);
    const back = after(elsewhere, leadOver(elsewhere, SMALL, need, undefined, newId.cable));
    for (const now of [there, elsewhere, back]) expect(fedBy(now)).toEqual(before);
    expect(fedOver(back, SMALL, need)).toBeUndefined();
    expect(all(back, 'cable')).toHaveLength(all(straight, 'cable').length);
  });
  test('a plan that gives it another output plugs the far end of its way', () => {
    const fed = over(plugged(rig));
    const [from] = feeds(fed, thePart(fed, SMALL)).find((f) => f.need.jack === need)!.given!.outputs;
    const to = power(fed).supplies[0]!.outputs.find((o) => o.boxes.length === 0)!.jack;
    const moved = after(fed, feedBoxes(fed, SMALL, [{ needs: [need], outputs: [to] }], newId));
    expect(from!.jack).not.toBe(to);
    expect(fedBy(moved).a?.[0]).toBe(to.slice('device:'.length));
    expect(fedOver(moved, SMALL, need)).toEqual(way);
  });
});

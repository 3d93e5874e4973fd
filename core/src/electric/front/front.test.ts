import fc from 'fast-check';
import { askNgspice } from '../../../testing/ngspice.js';
import { often } from '../../../testing/often.js';
import { smallRig, SMALL, type SmallRig } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import type { Pickup } from '../../rig/device.js';
import { all, type Part } from '../../rig/rig.js';
import { network } from '../circuit/circuit.js';
import { frontEnds, type FrontEnd, type Hung } from './front-end.js';
import {
  buffered,
  frontAt,
  frontCircuit,
  frontSound,
  KNOBS,
  referenceSound,
  taperedOpen,
  withLengths,
} from './front-response.js';

const frontOf = (rig: SmallRig): FrontEnd => {
  const built = smallRig(rig);
  return frontEnds(built, deriveOnce(built, SMALL)!.compilation.sounds.get('sound:one')!.trace)[0]!;
};
const lead = (pF: number): Hung => ({
  behind: 0,
  piece: { is: 'lead', cable: 'cable:1', metres: pF / 100, pF, from: { from: 'assumed' } },
});
const input = (ohm: number): Hung => ({ behind: 0, piece: { is: 'input', jack: 'device:x.in', ohm } });
const coil = (henry: number, pF: number): Pickup => ({ henry, ohm: 6000, pF });

describe('what hangs on a coil', () => {
  test('metres and pF over panel, multicore way, patch and bypassed boxes, up to the first box that is on', () => {
    const front = frontOf({
      boxes: {
        g: 'single-coil',
        p: 'jack-panel',
        m: 'multicore',
        a: 'fuzz',
        b: 'low-drive',
        d: 'stereo-delay',
        w: 'powered-speaker',
      },
      leads: [
        'g.out>p.in1 6',
        'p.out1>m.in1 0.5',
        'm.out1>a.in 15',
        'a.out>b.in 0.3',
        'b.out>d.in-l 0.3',
        'd.out-l>w.in 3',
      ],
      sounds: { One: [] },
    });
    expect(front.metres).toBeCloseTo(6 + 0.5 + 15 + 0.3 + 0.3, 9);
    expect(front.pF).toBeCloseTo(2210 + 2 * 35, 9);
    expect(front.bypassed).toEqual(['device:a', 'device:b']);
    expect(front.hung.at(-1)!.piece).toMatchObject({ is: 'input', jack: 'device:d.in-l' });
  });
  test('a box that is on ends it; what feels like another impedance says so', () => {
    const front = frontOf({
      boxes: { g: 'single-coil', a: 'fuzz', b: 'low-drive', w: 'powered-speaker' },
      leads: ['g.out>a.in 5', 'a.out>b.in 9', 'b.out>w.in'],
      sounds: { One: ['a.fuzz'] },
    });
    expect([front.metres, front.bypassed]).toEqual([5, []]);
  });
  test('a lead that says what a metre of it is, and one that has no length', () => {
    const front = frontOf({
      boxes: { g: 'single-coil', d: 'stereo-delay', w: 'powered-speaker' },
      leads: ['g.out>d.in-l 5', 'd.out-l>w.in'],
      sounds: { One: [] },
      with: (p: Part) => (p.id === 'cable:1' ? { ...p, pFPerM: 160 } : p),
    });
    expect(front.pF).toBe(800);
    const none = frontOf({
      boxes: { g: 'single-coil', d: 'stereo-delay', w: 'powered-speaker' },
      leads: ['g.out>d.in-l', 'd.out-l>w.in'],
      sounds: { One: [] },
    });
    expect([none.pF, none.unmeasured]).toEqual([0, ['cable:1']]);
  });
  test('an active instrument has no coil that feels anything', () =>
    expect(
      frontOf({ boxes: { g: 'active-bass', w: 'powered-speaker' }, leads: ['g.out>w.in 20'], sounds: { One: [] } }),
    ).toBeUndefined());
  test('the other guitar of a selector has its front end too', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', h: 'humbucker', s: 'ab-in', t: 'tuner', w: 'powered-speaker' },
      leads: ['g.out>s.a 3', 'h.out>s.b 9', 's.out>t.in 0.3', 't.out>w.in'],
      sounds: { One: ['s.select=a'] },
    });
    const fronts = frontEnds(rig, deriveOnce(rig, SMALL)!.compilation.sounds.get('sound:one')!.trace);
    expect(fronts.map((f) => [f.source.device, f.metres])).toEqual([
      ['device:g', 3.3],
      ['device:h', 9.3],
    ]);
  });
});

describe('its sound', () => {
  // Lossless estimate f = 1/(2π√(L·C)), worked by hand: 2.5 H with 610 pF 4076 Hz; 4.4 H with 1130 pF 2257 Hz.
  test.each([
    [2.5, 110, 500, 4076],
    [4.4, 130, 1000, 2257],
  ])('%d H with %d + %d pF rings near %d Hz', (henry, own, cable, hz) => {
    const { peak } = frontSound({ pickup: coil(henry, own), hung: [lead(cable), input(10e6)] }, 'full');
    expect(Math.abs(peak!.hz / hz - 1)).toBeLessThan(0.02);
  });
  test('3 m into 1 megohm against itself is nothing at all', () => {
    const pickup = coil(2.5, 110);
    for (const knobs of KNOBS)
      for (const { db } of frontSound({ pickup, hung: [lead(300), input(1e6)] }, knobs).against)
        expect(db).toBeCloseTo(0, 9);
    expect(referenceSound(pickup, 'full').peak).toBeDefined();
  });
  test('in whatever order leads and boxes hang, the more of them, the lower the peak', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 10, max: 900 }), { minLength: 1, maxLength: 6 }), (pFs) => {
        const hung = [...pFs.map(lead), input(1e6)];
        const [one, other] = [hung, [...hung].reverse()].map((h) =>
          frontSound({ pickup: coil(3, 100), hung: h }, 'full'),
        );
        expect(other!.at(5000)).toBeCloseTo(one!.at(5000), 6);
        const more = frontSound({ pickup: coil(3, 100), hung: [...hung, lead(50)] }, 'full');
        expect(more.peak!.hz).toBeLessThan(one!.peak!.hz);
      }),
      { numRuns: often(30) },
    ));
  test('behind a buffer nothing is felt', () => {
    const pickup = coil(2.5, 110);
    const source = { ref: 'device:g.out' } as unknown as FrontEnd['source'];
    const front = { source, pickup, metres: 0, unmeasured: [], pF: 0, bypassed: [] };
    const short = buffered({ ...front, hung: [lead(300), lead(900), input(10_000)] });
    expect(frontSound(short, 'full').against.map((a) => Math.abs(a.db) < 1e-9)).toEqual([true, true, true, true]);
  });
});

// Reference: ngspice on the netlists that rigs of the demo make, knobs at full and rolled down.
test('front ends of the demo rigs: within 0.05 dB of the circuit simulator', () => {
  let compared = 0;
  for (const { make } of DEMO_RIGS) {
    const rig = make();
    for (const { id } of all(rig, 'hookup')) {
      const [first] = deriveOnce(rig, id)!.compilation.sounds.values();
      for (const { pickup, hung } of frontEnds(rig, first!.trace))
        for (const knobs of KNOBS) {
          const { elements, output } = frontCircuit(pickup, hung, knobs === 'full' ? 1 : taperedOpen(0.5));
          const mine = network(elements);
          for (const [hz, db] of askNgspice(elements, output)) {
            if (hz < 20 || hz > 20_000) continue;
            expect(Math.abs(mine.decibels(output, hz) - db)).toBeLessThan(0.05);
            compared += 1;
          }
        }
    }
  }
  expect(compared).toBeGreaterThan(200);
});

test('tried elsewhere: a volume knob follows its taper, and another length is of the same cable', () => {
  expect([taperedOpen(0), taperedOpen(0.5), taperedOpen(1)].map((open) => Math.round(open * 1e9) / 1e9)).toEqual([
    0, 0.15, 1,
  ]);
  const front = { pickup: coil(3, 100), hung: [lead(300), input(1e6)] };
  for (const [knobs, position] of [
    ['full', 1],
    ['rolled down', 0.5],
  ] as const)
    for (const hz of [100, 1000, 5000])
      expect(frontAt(front, taperedOpen(position)).at(hz)).toBeCloseTo(frontSound(front, knobs).at(hz), 9);
  const [longer] = withLengths(front.hung, new Map([['cable:1', 6]]));
  expect(longer!.piece).toMatchObject({ metres: 6, pF: 600 });
  expect(withLengths(front.hung, new Map([['cable:2', 6]]))).toEqual(front.hung);
});

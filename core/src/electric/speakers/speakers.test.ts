import fc from 'fast-check';
import { smallRig } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { all, type Rig } from '../../rig/rig.js';
import { gaugeOhmPerM, leadLossDb, leadOhm, powerShares, sideBySide, wattsInto } from './power.js';
import { loadedTaps } from './speakers.js';

describe('loads and leads', () => {
  // Ohm's law; worked in the handbook of calculations.
  test.each([
    [[8, 8], 4],
    [[8, 4], 8 / 3],
    [[8, 16], 16 / 3],
    [[16, 16, 8], 4],
    [[16, 16, 16, 16], 4],
  ])('%j ohms side by side are %f', (ohms, total) => expect(sideBySide(ohms)).toBeCloseTo(total, 9));

  // ASTM B258 for the diameter, IEC 60028 for the resistivity of annealed copper.
  test.each([
    [18, 20.95],
    [14, 8.29],
  ])('a metre of AWG %d has %f mΩ', (awg, mOhm) => expect(gaugeOhmPerM(awg) * 1000).toBeCloseTo(mOhm, 2));

  test('both legs count: 10 m of AWG 18 before 8 ohms cost 0.44 dB', () => {
    expect(leadOhm(10, 18)).toBeCloseTo(0.419, 3);
    expect(leadLossDb(leadOhm(10, 18), 8)).toBeCloseTo(-0.4434, 3);
  });

  test('shares make the whole, the lower impedance gets more; a transistor stage holds its voltage', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 2, max: 32 }), { minLength: 1, maxLength: 6 }), (ohms) => {
        const shares = powerShares(ohms);
        expect(shares.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
        shares.forEach((share, i) => expect(share * ohms[i]!).toBeCloseTo(shares[0]! * ohms[0]!, 9));
        // Every load sees the same voltage: what it gets does not depend on what hangs beside it.
        const all = wattsInto({ watts: 100, ohm: 8 }, sideBySide(ohms), 'solid state');
        expect(all * shares[0]!).toBeCloseTo(800 / ohms[0]!, 6);
      }),
    );
    expect(wattsInto({ watts: 50, ohm: 8 }, 4, 'valve')).toBe(50);
  });
});

const tapsOf = (rig: Rig) => {
  const d = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
  return loadedTaps(rig, d.hookup, d.anatomy);
};

test('two cabinets of 8 and 16 ohms side by side take two thirds and one third', () => {
  const [tap] = tapsOf(
    smallRig({
      boxes: { g: 'single-coil', h: 'valve-head', y: 'speaker-parallel', c: 'cab-212', d: 'cab-412' },
      leads: ['g.out>h.in', 'h.speaker>y.in', 'y.out1>c.in', 'y.out2>d.in'],
    }),
  );
  expect(tap!.ohm).toBeCloseTo(16 / 3, 9);
  expect(tap!.loads.map((l) => [l.at.device.id, Math.round(l.gets!), l.stands])).toEqual([
    ['device:c', 33, 130],
    ['device:d', 17, 280],
  ]);
});

test('what is lost on a lead needs its length and its gauge', () => {
  const rig = smallRig({
    boxes: { g: 'single-coil', h: 'valve-head', c: 'cab-212' },
    leads: ['g.out>h.in', 'h.speaker>c.in'],
  });
  expect(tapsOf(rig)[0]!.loads[0]!.lossDb).toBeUndefined();
  const lead = all(rig, 'cable').find((c) => c.ends.includes('device:c.in'))!;
  const long = {
    ...rig,
    parts: { ...rig.parts, cable: new Map([...rig.parts.cable, [lead.id, { ...lead, m: 10, awg: 18 }]]) },
  };
  expect(tapsOf(long)[0]!.loads[0]!.lossDb).toBeCloseTo(-0.4434, 3);
});

import fc from 'fast-check';
import { often } from '../../../testing/often.js';
import { randomRig } from '../../../testing/random-rig.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { after } from '../../../testing/after.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { setWant } from '../../edits/sounds.js';
import type { Device } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { combAt } from '../circuit/delays.js';
import { alongs, dividerDb, levelsAt, type Along } from './along.js';
import { decibels } from './decibels.js';
import { limited, together } from './limit.js';
import { noiseAt, thermalDbu } from './noise.js';
import { levelControls, louderBy, reckonedStep } from './steps.js';
import { loudness, merged, type Wave } from './waves.js';

const traceOf = (rig: Rig, sound: Id<'sound'> = 'sound:one') =>
  deriveOnce(rig, SMALL)!.compilation.sounds.get(sound)!.trace;
const along = (rig: Rig, sound?: Id<'sound'>): Along => alongs(traceOf(rig, sound), rig)[0]!;
const out = (rig: Rig, sound?: Id<'sound'>): number => along(rig, sound).outputs[0]!.average;
const change =
  (id: string, how: (d: Device) => Device) =>
  (p: Part): Part =>
    p.kind === 'device' && p.id === `device:${id}` ? how(p) : p;

describe('arithmetic of levels, against worked values', () => {
  // Common divider examples, worked by hand: 20·log10(Zin/(Zin+Zout)).
  test.each([
    [10_000, 1e6, -0.086],
    [600, 600, -6.021],
    [10_000, 47_000, -1.676],
    [10_000, 10_000, -6.021],
  ])('%d ohm into %d ohm: %d dB', (from, to, db) => expect(dividerDb(from, to)).toBeCloseTo(db, 3));
  // √(4·k·T·R·B) with k = 1.380649e-23 J/K (SI 2019), 290 K, 20 kHz; 0 dBu = √0.6 V.
  test.each([
    [150, -131.0],
    [10_000, -112.7],
  ])('heat of %d ohm: %d dBu', (ohm, dbu) => expect(thermalDbu(ohm)).toBeCloseTo(dbu, 1));
  test('noises add as powers: 60 and 60 dB are 63.01', () => expect(together([60, 60])).toBeCloseTo(63.01, 2));
  test('a stage never gives more than its ceiling, and what is far below it passes as it is', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -90, max: 60, noNaN: true }),
        fc.double({ min: -20, max: 20, noNaN: true }),
        (x, c) => {
          expect(limited(x, c)).toBeLessThanOrEqual(Math.min(x, c));
          expect(limited(x + 1, c)).toBeGreaterThan(limited(x, c));
          if (x < c - 40) expect(limited(x, c)).toBeCloseTo(x, 2);
        },
      ),
      { numRuns: often(200) },
    ));
});

describe('copies that meet', () => {
  const wave = (db: number, ms = 0, inverted = false): Wave => ({ db, ms, inverted, wet: false });
  test('alike they are 6 dB louder, upside down they are gone, late ones add as powers', () => {
    expect(loudness(merged([wave(-20), wave(-20)]))).toBeCloseTo(-13.98, 2);
    expect(loudness(merged([wave(-20), wave(-20, 0, true)]))).toBe(-Infinity);
    expect(loudness(merged([wave(-20), wave(-20, 5)]))).toBeCloseTo(-16.99, 2);
  });
  test('in whatever order they come', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            db: fc.double({ min: -40, max: 0, noNaN: true }),
            ms: fc.constantFrom(0, 1, 2.5),
            inverted: fc.boolean(),
            wet: fc.boolean(),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (waves) => {
          const there = loudness(merged(waves));
          const back = loudness(merged([...waves].reverse()));
          if (there > -100) expect(back).toBeCloseTo(there, 6);
        },
      ),
      { numRuns: often(200) },
    ));
  test('a phasor sum is what a sum in time gives: a sine and its late copy, sampled', () => {
    for (const [ms, gain, hz] of [
      [1, 1, 700],
      [1.5, 0.5, 1000],
      [2.5, -0.8, 440],
    ] as const) {
      const rate = 192_000;
      const late = Math.round((ms / 1000) * rate);
      let power = 0;
      let alone = 0;
      for (let n = late; n < late + rate; n += 1) {
        const at = (k: number) => Math.sin((2 * Math.PI * hz * k) / rate);
        power += (at(n) + gain * at(n - late)) ** 2;
        alone += at(n) ** 2;
      }
      expect(combAt(ms / 1000, gain, hz)).toBeCloseTo(10 * Math.log10(power / alone), 2);
    }
  });
});

describe('a chain worked by hand', () => {
  const boxes = { g: 'single-coil', s: 'switcher-8', b: 'boost', d: 'low-drive', w: 'powered-speaker' };
  const leads = ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1', 's.send2>b.in', 'b.out>s.return2', 's.out>w.in'];
  const rig = (sounds: Readonly<Record<string, readonly string[]>>) => smallRig({ boxes, leads, sounds });
  // -20 dBu; 10 kohm into 1 Mohm -0.086; 1 kohm into 22 kohm -0.386; a power amp of 26 dB.
  test('nothing in: dividers and the power amp', () =>
    expect(out(rig({ One: [] }))).toBeCloseTo(-20 - 0.0864 - 0.3862, 1));
  test('3 dB of trim behind all of it are 3 dB; a boost of unstated gain lifts by 4', () => {
    const bare = out(rig({ One: [] }));
    expect(out(rig({ One: ['s.trim=3'] })) - bare).toBeCloseTo(3, 6);
    expect(out(rig({ One: ['b.boost'] })) - bare).toBeCloseTo(4, 1);
  });
  test('a boost behind a drive is level, before it hardly more than drive', () => {
    const before = rig({ One: ['d.overdrive'], Two: ['d.overdrive', 'b.boost'] });
    expect(out(before, 'sound:two') - out(before)).toBeCloseTo(4, 1);
    const swapped = smallRig({
      boxes,
      leads: ['g.out>b.in', 'b.out>d.in', 'd.out>w.in'],
      sounds: { One: ['d.overdrive'], Two: ['d.overdrive', 'b.boost'] },
    });
    const step = out(swapped, 'sound:two') - out(swapped);
    expect(step).toBeGreaterThan(0);
    expect(step).toBeLessThan(2);
  });
  test('a drive without a figure counts as set by ear: a usual guitar comes out as loud as it goes in', () => {
    const { stages } = along(rig({ One: ['d.overdrive'] }));
    const drive = stages.find((s) => s.stage === 'device:d.overdrive')!;
    expect(Math.abs(drive.out.average - drive.into.average)).toBeLessThan(0.2);
    expect(drive.out.peak - drive.out.average).toBeLessThan(drive.into.peak - drive.into.average);
  });
  test('small-signal gains of drives are no level: from clean to drive it is a step of nothing', () => {
    const two = rig({ One: [], Two: ['d.overdrive'], Three: ['d.overdrive', 's.trim=4'] });
    expect(reckonedStep(two, traceOf(two), traceOf(two, 'sound:two'))).toBeCloseTo(0, 9);
    expect(reckonedStep(two, traceOf(two, 'sound:two'), traceOf(two, 'sound:three'))).toBeCloseTo(4, 9);
  });
  test('the trim of the switcher is a number of level; asked for 2.4 dB more it goes to 2.5', () => {
    const one = rig({ One: ['d.overdrive'] });
    const [trim] = levelControls(one, traceOf(one));
    expect(trim).toMatchObject({ control: 'device:s.trim', now: 0, per: 1 });
    expect(louderBy(trim!, 2.4)).toBe(2.5);
    expect(louderBy(trim!, 20)).toBeUndefined();
  });
});

describe('laws on random rigs', () => {
  const rigs = Array.from({ length: often(25) }, (_, i) => randomRig(i + 1));
  test('a louder instrument makes no place softer; noise is the sum of its shares; nothing comes back early', () => {
    let places = 0;
    for (const { rig, hookup } of rigs)
      for (const { trace } of deriveOnce(rig, hookup.id)!.compilation.sounds.values())
        for (const a of alongs(trace, rig))
          for (const o of a.outputs) {
            const noise = noiseAt(rig, trace, a, o.point);
            places += 1;
            expect(noise.dbu).toBeCloseTo(together(noise.shares.map((s) => s.dbu)), 6);
            expect(noise.paused).toBeLessThanOrEqual(noise.dbu + 1e-9);
            expect(o.peak).toBeGreaterThanOrEqual(o.average);
            expect(o.ms[0]).toBeGreaterThanOrEqual(0);
          }
    expect(places).toBeGreaterThan(50);
  });
  test('there and back is no step, and steps add', () => {
    for (const { rig, hookup } of rigs) {
      const traces = [...deriveOnce(rig, hookup.id)!.compilation.sounds.values()].map((c) => c.trace);
      for (const a of traces)
        for (const b of traces) expect(reckonedStep(rig, a, b) + reckonedStep(rig, b, a)).toBeCloseTo(0, 9);
    }
  });
});

describe('noise at an output', () => {
  const rig = smallRig({
    boxes: { g: 'single-coil', c: 'compressor', d: 'low-drive', a: 'gate', w: 'powered-speaker' },
    leads: ['g.out>c.in', 'c.out>d.in', 'd.out>a.in', 'a.out>w.in'],
    sounds: {
      One: ['d.overdrive'],
      Two: ['c.compressor', 'd.overdrive'],
      Three: ['c.compressor', 'd.overdrive', 'a.gate'],
    },
  });
  const noise = (sound: Id<'sound'>) => {
    const t = traceOf(rig, sound);
    const a = alongs(t, rig)[0]!;
    return noiseAt(rig, t, a, a.outputs[0]!.point);
  };
  test('a compressor before a drive lifts it', () =>
    expect(noise('sound:two').dbu).toBeGreaterThan(noise('sound:one').dbu + 1.5));
  test('a gate takes it away in a pause, not while one plays', () => {
    expect(noise('sound:three').paused).toBeLessThan(noise('sound:two').dbu - 10);
    expect(noise('sound:three').dbu).toBeCloseTo(noise('sound:two').dbu, 0);
  });
  test('its own figure counts before the typical one', () => {
    const loud = smallRig({
      boxes: { g: 'single-coil', d: 'low-drive', w: 'powered-speaker' },
      leads: ['g.out>d.in', 'd.out>w.in'],
      sounds: { One: ['d.overdrive'] },
      with: change('d', (d) => ({
        ...d,
        chains: d.chains.map((c) => ({
          ...c,
          slots: c.slots.map((s) => (s.is === 'block' ? { ...s, noiseDbu: -40 } : s)),
        })),
      })),
    });
    const t = traceOf(loud);
    const a = alongs(t, loud)[0]!;
    expect(noiseAt(loud, t, a, a.outputs[0]!.point).shares[0]).toMatchObject({ stage: 'device:d.overdrive' });
  });
});

test('a gain that a control holds, in dB or scaled from its range', () => {
  const rig = smallRig({ boxes: { s: 'switcher-8' }, leads: [] });
  const state = new Map<Ref, number>([['device:s.trim', 1.5]]);
  expect(decibels(rig, 'device:s', { control: 'trim' }, state)).toBe(1.5);
  expect(decibels(rig, 'device:s', { control: 'trim', scale: [-60, 0] }, state)).toBeCloseTo(-60 + (60 * 7.5) / 12, 9);
  expect(decibels(rig, 'device:s', { control: 'nothing' }, state)).toBe(0);
  expect(decibels(rig, 'device:s', -4, state)).toBe(-4);
  expect(decibels(rig, 'device:s', undefined, state)).toBe(0);
});

test('a sound whose number is changed is louder by that at every output', () => {
  const rig = smallRig({
    boxes: { g: 'single-coil', s: 'switcher-8', w: 'powered-speaker' },
    leads: ['g.out>s.in', 's.out>w.in'],
    sounds: { One: [] },
  });
  const edited = after(rig, setWant(partOf(rig, 'sound:one')!, { control: ref('device:s', 'trim'), is: 5 }));
  const [was, is] = [levelsAt(rig, traceOf(rig)), levelsAt(edited, traceOf(edited))];
  for (const [end, level] of was) expect(is.get(end)! - level).toBeCloseTo(5, 6);
});

import fc from 'fast-check';
import { apply } from '../change/apply.js';
import { together, type Edit } from '../change/edit.js';
import { CATALOGUE } from '../catalogue/boxes.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { isTunerOut, theJack } from '../rig/box.js';
import type { Id } from '../rig/ids.js';
import { cablesOf, newRig, type Rig } from '../rig/rig.js';
import { givesOut, takesIn } from './cables.js';
import { addDevice } from './devices.js';
import { inARow } from './in-a-row.js';

const MAIN = 'hookup:main' as const;
const after = (rig: Rig, edit: Edit): Rig => {
  const applied = apply(rig, edit);
  if (!applied.ok) throw new Error(JSON.stringify(applied.error));
  return applied.value.rig;
};
const wired = (...keys: readonly string[]) => {
  const ids = keys.map((_, i): Id<'device'> => `device:b${i}`);
  const codes: string[] = [];
  const adds = keys.map((key, i) => {
    const made = addDevice(newRig('Row'), key, ids[i]!, {}, codes);
    codes.push(made.put[0].code);
    return made;
  });
  const rig = after(newRig('Row'), together(...adds));
  let n = 0;
  return after(
    rig,
    inARow(rig, MAIN, ids, () => `cable:c${(n += 1)}`),
  );
};
const leads = (rig: Rig): readonly string[] =>
  cablesOf(rig, MAIN).map((c) => c.ends.map((e) => e.slice('device:'.length)).join(' > '));

test('a guitar, two pedals, a head and its cabinet', () =>
  expect(leads(wired('single-coil', 'wah', 'low-drive', 'valve-head', 'cab-212'))).toEqual([
    'b0.out > b1.in',
    'b1.out > b2.in',
    'b2.out > b3.in',
    'b3.speaker > b4.in',
  ]));
test('a loop switcher is gone through by its input and output, not by its loops', () =>
  expect(leads(wired('single-coil', 'switcher-8', 'combo'))).toEqual(['b0.out > b1.in', 'b1.out > b2.in']));
test('what ends the way is followed by what stands beside it: one side each', () => {
  const [, left, right] = leads(wired('single-coil', 'stereo-delay', 'combo', 'combo'));
  expect([left, right].map((l) => l?.split(' > ')[1])).toEqual(['b2.in', 'b3.in']);
});
test('both sides go on where both boxes have two', () =>
  expect([
    leads(wired('stereo-delay', 'stereo-reverb')).length,
    leads(wired('stereo-reverb', 'stereo-power-amp', 'cab-212', 'cab-212')).length,
  ]).toEqual([2, 4]));
test('a foot switch is plugged into the amp that it was said with, a controller into the box that listens', () => {
  expect(leads(wired('single-coil', 'combo-two-channel', 'contact-1'))).toEqual([
    'b0.out > b1.in',
    'b2.contact1 > b1.channel-switch',
  ]);
  expect(leads(wired('single-coil', 'modeller-rack', 'desk', 'midi-controller'))).toContain('b3.midi-out > b1.midi-in');
  expect(leads(wired('single-coil', 'contact-1', 'valve-head', 'cab-212'))).toContain(
    'b1.contact1 > b2.channel-switch',
  );
});
test('three amps side by side, a microphone before each, a channel of the desk for each', () => {
  const cables = leads(
    wired('single-coil', 'abc-midi', 'combo', 'combo', 'combo', 'cab-mic', 'cab-mic', 'cab-mic', 'desk'),
  );
  expect(cables.filter((c) => c.startsWith('b1.')).map((c) => c.split(' > ')[1])).toEqual(['b2.in', 'b3.in', 'b4.in']);
  expect(cables.filter((c) => c.includes('> b8.'))).toHaveLength(3);
  expect(new Set(cables.filter((c) => /^b[567]/.test(c)).map((c) => c.split('.')[0])).size).toBe(3);
});
test('a foot switch that fits nothing is left alone', () =>
  expect(leads(wired('single-coil', 'combo', 'contact-1'))).toEqual(['b0.out > b1.in']));
test('what is heard of it at the end: a simple row sounds', () => {
  const d = deriveOnce(wired('single-coil', 'tuner', 'fuzz', 'boost', 'combo', 'cab-mic', 'desk'), MAIN)!;
  expect(d.judgement.findings.filter((f) => f.code === 'wire.silent')).toEqual([]);
});
test('any boxes in any order: cables go from outputs to inputs, no jack holds two', () =>
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...CATALOGUE.map((g) => g.key)), { minLength: 2, maxLength: 8 }), (keys) => {
      const rig = wired(...keys);
      const ends = cablesOf(rig, MAIN).flatMap((c) => c.ends);
      expect(new Set(ends).size).toBe(ends.length);
      for (const {
        ends: [a, b],
      } of cablesOf(rig, MAIN))
        expect([givesOut(theJack(rig, a)), takesIn(theJack(rig, b))]).toEqual([true, true]);
    }),
    { numRuns: 150 },
  ));

const withTunerOut = CATALOGUE.filter(({ box }) => box.jacks.some(isTunerOut) && box.jacks.some(takesIn));
test.each(withTunerOut.map((g) => g.key))(
  '%s: the way goes on from its own output, never from the one for a tuner',
  (key) => {
    const [, on] = leads(wired('bass', key, 'bass-combo'));
    expect(on).toMatch(/^b1\.out\S* > b2\.in$/);
  },
);
test('what only tunes is fed by it', () => {
  expect(leads(wired('bass', 'mute-tuner-out', 'tuner-tap'))).toContain('b1.tuner > b2.in');
});

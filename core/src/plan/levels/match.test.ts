import fc from 'fast-check';
import { after } from '../../../testing/after.js';
import { often } from '../../../testing/often.js';
import { smallRig, SMALL } from '../../../testing/small-rig.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { changeSound, setMeasured } from '../../edits/sounds.js';
import { offBy, wishedStep } from '../../electric/levels/steps.js';
import { ROLES, type Role, type Sound } from '../../rig/sound.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { applyMatch, bestMiddle, matchLevels } from './match.js';

const rigOf = (trims: readonly (readonly [number, Role])[]): Rig =>
  smallRig({
    boxes: { g: 'single-coil', d: 'low-drive', s: 'switcher-8', w: 'powered-speaker' },
    leads: ['g.out>s.in', 's.send1>d.in', 'd.out>s.return1', 's.out>w.in'],
    sounds: Object.fromEntries(trims.map(([trim], i) => [`S${i}`, ['d.overdrive', `s.trim=${trim}`]])),
    with: (p: Part) => (p.kind === 'sound' ? { ...p, role: trims[p.at - 1]![1] } : p),
  });
const matched = (rig: Rig) => {
  const d = deriveOnce(rig, SMALL)!;
  return matchLevels(rig, d.hookup, (id) => d.compilation.sounds.get(id)?.trace);
};
const offs = (rig: Rig) => matched(rig).map((m) => Math.round(m.off * 10) / 10);

test('a lead that lifts by 6 is wanted, one by 9 is 3 too loud; a clean sound 4 under the others is 2 too soft', () => {
  expect(
    offs(
      rigOf([
        [0, 'clean'],
        [0, 'crunch'],
        [6, 'lead'],
        [-4, 'clean'],
        [0, 'crunch'],
      ]),
    ),
  ).toEqual([0, 0, 0, -2, 0]);
  expect(
    offs(
      rigOf([
        [-3, 'clean'],
        [-3, 'crunch'],
        [6, 'lead'],
        [-3, 'clean'],
      ]),
    ),
  ).toEqual([0, 0, 3, 0]);
});
test('the changes that slots can store bring every sound to where it is wanted', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: -5, max: 5 }), fc.constantFrom<Role>('clean', 'crunch', 'lead', 'fuzz')), {
        minLength: 2,
        maxLength: 6,
      }),
      (trims) => {
        const rig = rigOf(trims);
        const before = matched(rig);
        const edited = after(rig, applyMatch(SMALL, before));
        const left = before.filter((m) => m.change && !m.change.stores).length;
        expect(offs(edited).filter((off) => off !== 0).length).toBeLessThanOrEqual(left);
      },
    ),
    { numRuns: often(25) },
  ));
test('no other level leaves more sounds as they are', () =>
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          db: fc.integer({ min: -20, max: 20 }),
          from: fc.constantFrom(-2, 3, -4),
          wide: fc.constantFrom(3, 4, 6),
        }),
        {
          minLength: 1,
          maxLength: 8,
        },
      ),
      (given) => {
        const sounds = given.map(({ db, from, wide }) => ({ db, wish: { from, to: from + wide } }));
        const fitAt = (middle: number) => sounds.filter((s) => offBy(s.db - middle, s.wish) === 0).length;
        const brute = Math.max(...Array.from({ length: 241 }, (_, i) => fitAt(-30 + i / 4)));
        const best = bestMiddle(sounds);
        expect([best.fit, fitAt(best.db)]).toEqual([brute, brute]);
      },
    ),
    { numRuns: often(100) },
  ));
test('what was measured counts instead of what is reckoned, and is matched with what was measured in the same unit', () => {
  const rig = rigOf([
    [0, 'clean'],
    [0, 'crunch'],
    [0, 'lead'],
  ]);
  const measure = (r: Rig, id: Sound['id'], db: number) =>
    after(r, setMeasured(partOf(r, id)!, SMALL, { db, unit: 'dBA' }));
  const loud = measure(measure(measure(rig, 'sound:s0', 94), 'sound:s1', 94), 'sound:s2', 103);
  expect(matched(rig).map((m) => m.off)).toEqual([0, 0, -3]);
  expect(matched(loud).map((m) => [m.measured, m.off])).toEqual([
    [true, 0],
    [true, 0],
    [true, 3],
  ]);
});
test('a stated wish counts before the role', () => {
  const rig = rigOf([
    [0, 'clean'],
    [0, 'clean'],
    [0, 'lead'],
  ]);
  const wished = after(rig, changeSound(partOf(rig, 'sound:s2')!, { level: { than: 'sound:s0', db: 0 } }));
  expect(matched(wished).map((m) => m.off)).toEqual([0, 0, 0]);
});
test('steps wanted there and back are each other’s opposite, for every two roles', () => {
  const sound = (role: Role): Sound => ({
    kind: 'sound',
    id: `sound:${role}`,
    name: role,
    role,
    at: 1,
    wants: [],
    calls: [],
  });
  for (const a of ROLES)
    for (const b of ROLES) {
      const [there, back] = [wishedStep(sound(a), sound(b)), wishedStep(sound(b), sound(a))];
      expect([a, b, back.from, back.to]).toEqual([a, b, -there.to || 0, -there.from || 0]);
    }
});

import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { randomRig } from '../../testing/random-rig.js';
import { line } from '../../testing/run-line.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { apply } from '../change/apply.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { all, cablesOf, type Rig } from '../rig/rig.js';
import { moveBox, placesFor, type BoxPlace } from './place.js';

let n = 0;
const newCable = () => `cable:m${(n += 1)}` as const;
const rig = smallRig({
  boxes: {
    g: 'single-coil',
    t: 'tuner',
    s: 'switcher-4',
    d: 'low-drive',
    f: 'fuzz',
    h: 'one-channel-amp',
    c: 'cab-212',
  },
  leads: ['g.out>t.in', 't.out>s.in', 's.send1>d.in', 'd.out>f.in', 'f.out>s.return1', 's.out>h.in', 'h.speaker>c.in'],
  sounds: { One: ['d.overdrive', 'f.fuzz'] },
});
const path = (r: Rig) => line(soundRun(deriveOnce(r, SMALL)!, 'sound:one'));
const move = (r: Rig, id: 'device:d' | 'device:f' | 'device:t', pick: (p: BoxPlace) => boolean) =>
  after(r, moveBox(r, SMALL, id, placesFor(r, SMALL, id).find(pick)!, newCable));

test('out of a loop that holds two: the other stays in it; into a free loop', () => {
  const moved = move(rig, 'device:f', (p) => p.is === 'loop' && p.insert === 'loop3');
  expect(path(moved)).toBe('g t (d) // (f) // h c →Stage:mono');
  expect(cablesOf(moved, SMALL)).toHaveLength(8);
});
test('the last free loop of a switcher is where one tries things', () => {
  expect(placesFor(rig, SMALL, 'device:f').filter((p) => p.is === 'loop' && p.test)).toMatchObject([
    { insert: 'loop4' },
  ]);
});
test('alone in a loop, it leaves the loop free', () => {
  const alone = move(rig, 'device:f', (p) => p.is === 'loop' && p.insert === 'loop2');
  const back = move(alone, 'device:f', (p) => p.is === 'between' && p.from === 'device:g.out');
  expect(path(back)).toBe('g f t (d) // // // h c →Stage:mono');
  expect(
    placesFor(back, SMALL, 'device:d')
      .filter((p) => p.is === 'loop')
      .map((p) => p.is === 'loop' && p.insert),
  ).toEqual(['loop2', 'loop3', 'loop4', 'normal']);
});
test('between two boxes; out of the path closes the gap', () => {
  expect(path(move(rig, 'device:t', (p) => p.is === 'between' && p.to === 'device:h.in'))).toBe(
    'g (d f) // // // t h c →Stage:mono',
  );
  expect(path(move(rig, 'device:t', (p) => p.is === 'out of the path'))).toBe('g (d f) // // // h c →Stage:mono');
});
test('in exchange for another: neighbours change order, boxes of two loops change loops; what follows sounds all the same', () => {
  expect(path(move(rig, 'device:f', (p) => p.is === 'exchange' && p.with === 'device:d'))).toBe(
    'g t (f d) // // // h c →Stage:mono',
  );
  const apart = move(rig, 'device:f', (p) => p.is === 'loop' && p.insert === 'loop3');
  const exchanged = move(apart, 'device:f', (p) => p.is === 'exchange' && p.with === 'device:d');
  expect(path(exchanged)).toBe('g t (f) // (d) // h c →Stage:mono');
  expect(
    cablesOf(exchanged, SMALL)
      .map((c) => c.id)
      .sort(),
  ).toEqual(
    cablesOf(apart, SMALL)
      .map((c) => c.id)
      .sort(),
  );
});
test('an exchange made twice is no exchange, on any rig', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400 }), fc.nat(), (seed, which) => {
      const { rig: random, hookup } = randomRig(seed);
      const exchanges = all(random, 'device').flatMap((d) =>
        placesFor(random, hookup.id, d.id).flatMap((place) => (place.is === 'exchange' ? [{ id: d.id, place }] : [])),
      );
      if (exchanges.length === 0) return;
      const { id, place } = exchanges[which % exchanges.length]!;
      const once = after(random, moveBox(random, hookup.id, id, place, newCable));
      const twice = after(once, moveBox(once, hookup.id, id, place, newCable));
      expect(cablesOf(twice, hookup.id)).toEqual(cablesOf(random, hookup.id));
    }),
    { numRuns: 100 },
  );
});
test('never into a speaker line, never beside itself; a guitar and a cabinet have no other place', () => {
  const places = placesFor(rig, SMALL, 'device:d');
  expect(places.some((p) => p.is === 'between' && p.from === 'device:h.speaker')).toBe(false);
  expect(places.some((p) => p.is === 'between' && [p.from, p.to].some((r) => r.startsWith('device:d.')))).toBe(false);
  expect([placesFor(rig, SMALL, 'device:g'), placesFor(rig, SMALL, 'device:nobody' as never)]).toEqual([[], []]);
});
test('on any rig every place can be taken and taken back, and no jack gets two plugs', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400 }), fc.nat(), fc.nat(), (seed, which, where) => {
      const { rig: random, hookup } = randomRig(seed);
      const movable = all(random, 'device').filter((d) => placesFor(random, hookup.id, d.id).length);
      if (movable.length === 0) return;
      const device = movable[which % movable.length]!;
      const places = placesFor(random, hookup.id, device.id);
      const applied = apply(random, moveBox(random, hookup.id, device.id, places[where % places.length]!, newCable));
      expect(applied.ok || applied.error).toBe(true);
    }),
    { numRuns: 150 },
  );
});

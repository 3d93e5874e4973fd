import fc from 'fast-check';
import { outcomeOf, type SoundAfter } from './after.js';
import { bestOf } from './best-way.js';

const SOUNDS = 5;

/** What is left of a sound: heard at so many of two ends, with so much missing. */
const after = fc
  .record({
    silent: fc.integer({ min: 0, max: 2 }),
    misses: fc.integer({ min: 0, max: 2 }),
    stays: fc.integer({ min: 0, max: 1 }),
    isBare: fc.boolean(),
    uncalled: fc.boolean(),
  })
  .map(({ silent, misses, stays, isBare, uncalled }): SoundAfter => ({
    sound: 'sound:any',
    silentAt: Array.from({ length: silent }, (_, i) => `device:house.ch${i}` as const),
    of: 2,
    misses: Array.from({ length: misses }, (_, i) => `device:box.stage${i}` as const),
    stays: Array.from({ length: stays }, () => 'device:box' as const),
    isBare,
    uncalled,
  }));
const sounds = fc.array(after, { minLength: SOUNDS, maxLength: SOUNDS });
const way = fc.record({ hands: fc.array(fc.constant('pull'), { maxLength: 3 }), outcome: sounds });

const SILENT = ['silent', 'partly silent'];
const lost = (of: readonly SoundAfter[]): readonly number[] => [
  of.filter((a) => SILENT.includes(outcomeOf(a))).length,
  of.filter((a) => outcomeOf(a) === 'silent').length,
  of.filter((a) => a.isBare).length,
  of.reduce((n, a) => n + a.misses.length + a.stays.length, 0),
];
const rank = (of: readonly SoundAfter[], hands: number): string =>
  [...lost(of), hands].map((n) => String(n).padStart(4, '0')).join(' ');

// Reference: every way followed to its end.
test('law: the way that is found is the one that following all of them to their end finds', () =>
  fc.assert(
    fc.property(fc.array(way, { maxLength: 6 }), sounds, (given, before) => {
      const ways = given.map(({ hands, outcome }) => ({
        hands,
        outcome,
        with: (was: SoundAfter) => outcome[before.indexOf(was)]!,
      }));
      const all = ways.map((w) => rank(w.outcome, w.hands.length)).sort();
      const isBetter = all[0] !== undefined && all[0].slice(0, -5) < rank(before, 0).slice(0, -5);
      const found = bestOf(ways, before);
      expect(found && rank(found.after, found.way.hands.length)).toBe(isBetter ? all[0] : undefined);
      if (found) expect(found.after).toEqual(found.way.outcome);
      // What has been found is beaten by less lost, or by fewer moves, and by nothing else.
      if (found) expect(bestOf(ways, before, found)).toBeUndefined();
    }),
  ));

import fc from 'fast-check';
import { nearestNote, noteMs, NOTE_VALUES, tappedMs, twoDelays } from './note-values.js';

const beatsOf = (name: string): number => NOTE_VALUES.find((n) => n.name === name)!.beats;

// Source: 60,000 ms a minute; the values at 120 beats a minute stand in every table of delay times (common practice).
test.each([
  ['quarter', 500],
  ['eighth', 250],
  ['dotted eighth', 375],
  ['eighth triplet', 166.667],
  ['sixteenth', 125],
  ['half', 1000],
  ['whole', 2000],
])('a %s at 120 lasts %s ms', (name, ms) => expect(noteMs(beatsOf(name), 120)).toBeCloseTo(ms, 2));

test('every note at every tempo is found again by its time, and runs away by nothing', () => {
  fc.assert(
    fc.property(fc.constantFrom(...NOTE_VALUES), fc.integer({ min: 40, max: 240 }), (note, bpm) => {
      const found = nearestNote(noteMs(note.beats, bpm), bpm);
      expect(found.note.name).toBe(note.name);
      expect(found.offMs).toBeCloseTo(0, 6);
      expect(found.driftMs).toBeCloseTo(0, 6);
    }),
  );
});
test('a delay that is a little long runs away by as much at every repeat of the bar', () => {
  // 510 ms for quarters of 500: four repeats a bar, 10 ms each.
  expect(nearestNote(510, 120)).toMatchObject({ note: { name: 'quarter' }, offMs: 10, driftMs: 40 });
  expect(nearestNote(248, 120, 3).driftMs).toBeCloseTo(-12, 6);
});
describe('two delays against each other', () => {
  test('500 and 375 ms are the dotted-eighth pattern at 120 (common practice)', () => {
    const found = twoDelays(500, 375);
    expect([found.first.name, found.second.name, found.bpm, found.offPercent]).toEqual([
      'quarter',
      'dotted eighth',
      120,
      0,
    ]);
  });
  test.each([
    [400, 300, 'quarter', 'dotted eighth', 150],
    [500, 250, 'quarter', 'eighth', 120],
    [600, 600, 'quarter', 'quarter', 100],
    [375, 500, 'dotted eighth', 'quarter', 120],
  ])('%s and %s ms: %s and %s at %s', (a, b, first, second, bpm) => {
    const found = twoDelays(a, b);
    expect([found.first.name, found.second.name, Math.round(found.bpm)]).toEqual([first, second, bpm]);
  });
  test('what makes no clean pattern says how far off the nearest is', () => {
    expect(Math.abs(twoDelays(500, 430).offPercent)).toBeGreaterThan(2);
  });
  test('a pattern is the same whichever delay is named first, and at half the times twice as fast', () => {
    fc.assert(
      fc.property(fc.constantFrom(...NOTE_VALUES.slice(0, 4)), fc.constantFrom(...NOTE_VALUES.slice(0, 4)), (a, b) => {
        const [one, other] = [noteMs(a.beats, 100), noteMs(b.beats, 100)];
        expect(twoDelays(one, other).first.beats / twoDelays(one, other).second.beats).toBeCloseTo(
          a.beats / b.beats,
          6,
        );
        expect(Math.abs(twoDelays(other, one).offPercent)).toBeLessThan(0.001);
      }),
    );
  });
});
describe('taps', () => {
  test('one bad tap does not count; a pause begins anew', () => {
    expect(tappedMs([0, 500, 1000, 1510, 2000, 2790])).toBe(500);
    expect(tappedMs([0, 500, 1000, 9000, 9400, 9800])).toBe(400);
    expect(tappedMs([])).toBeUndefined();
    expect(tappedMs([0, 500, 9000])).toBeUndefined();
  });
  test('even taps are told exactly, whenever they began', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 1900 }), fc.integer({ min: 2, max: 20 }), fc.nat(1e6), (ms, n, start) =>
        expect(tappedMs(Array.from({ length: n }, (_, i) => start + i * ms))).toBe(ms),
      ),
    );
  });
});

import fc from 'fast-check';
import {
  barBeatAt,
  barQuarters,
  COMMON_TIME,
  metreText,
  placeQuarters,
  placeSeconds,
  placeText,
  quartersAt,
  readMetre,
  readPlace,
  type Metre,
} from './metre.js';

const metres = fc.record({
  beats: fc.integer({ min: 1, max: 32 }),
  unit: fc.constantFrom(2, 4, 8, 16),
}) as fc.Arbitrary<Metre>;

test.each([
  ['4/4', 4],
  ['3/4', 3],
  ['6/8', 3],
  ['7/8', 3.5],
  ['2/2', 4],
  ['5/16', 1.25],
])('a bar of %s lasts %s quarters', (text, quarters) => expect(barQuarters(readMetre(text)!)).toBe(quarters));
test.each(['0/4', '4/3', '33/4', '4', 'waltz', '4/', '-3/4'])('%j is no metre', (text) =>
  expect(readMetre(text)).toBeUndefined(),
);
test('every metre is read as it is written', () => {
  fc.assert(fc.property(metres, (metre) => expect(readMetre(metreText(metre))).toEqual(metre)));
});
test('every place is read as it is written, and a bar and beat is found again by its quarters', () => {
  fc.assert(
    fc.property(
      metres,
      fc.integer({ min: 1, max: 999 }),
      fc.nat(31),
      fc.constantFrom(0, 0.5, 0.25),
      (m, bar, b, bit) => {
        const place = { bar, beat: (b % m.beats) + 1 + bit };
        expect(readPlace(placeText(place), m)).toEqual(place);
        expect(barBeatAt(quartersAt(place, m), m)).toEqual(place);
      },
    ),
  );
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 3 * 3600 * 8 }), (eighths) =>
      expect(readPlace(placeText(eighths / 8), COMMON_TIME)).toBe(eighths / 8),
    ),
  );
});
test('bar 9 at 120 begins after 16 seconds; in six-eighths a bar has three quarters', () => {
  expect(placeSeconds({ bar: 9, beat: 1 }, 120, COMMON_TIME)).toBe(16);
  expect(placeSeconds({ bar: 3, beat: 4 }, 60, { beats: 6, unit: 8 })).toBe(7.5);
  expect(placeQuarters(16, 120, COMMON_TIME)).toBe(32);
  expect(placeSeconds({ bar: 2, beat: 1 }, undefined, COMMON_TIME)).toBeUndefined();
  expect(placeSeconds(64, undefined, COMMON_TIME)).toBe(64);
  expect(placeQuarters(64, undefined, COMMON_TIME)).toBeUndefined();
});
test.each(['0', '4.5', '4.0', 'x', '', '12.', '-3'])('%j is no place in a bar of four', (text) =>
  expect(readPlace(text, COMMON_TIME)).toBeUndefined(),
);
test('a colon before the beat is a colon before the beat, unless seconds are meant', () => {
  expect(readPlace('bar 1:4', COMMON_TIME)).toEqual({ bar: 1, beat: 4 });
  expect(readPlace('1:04', COMMON_TIME)).toBe(64);
});

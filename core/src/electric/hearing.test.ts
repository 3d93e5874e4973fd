import { durationText, hearingHours } from './hearing.js';

// NIOSH, Publication 98-126, and 29 CFR 1910.95, table G-16: worked values.
test.each([
  [85, 8, '8 h and more'],
  [94, 1, '1 h'],
  [100, 0.25, '15 min'],
  [130, 8 / 2 ** 15, 'under a minute'],
])('%d dBA: %d h a day', (dBA, hours, text) => {
  expect(hearingHours(dBA).niosh).toBeCloseTo(hours, 6);
  expect(durationText(hearingHours(dBA).niosh)).toBe(text);
});
test.each([
  [90, 8],
  [95, 4],
  [100, 2],
  [105, 1],
])('at %d dBA the law allows %d h', (dBA, hours) => expect(hearingHours(dBA).osha).toBe(hours));

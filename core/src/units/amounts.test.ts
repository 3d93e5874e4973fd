import { roundly } from './amounts.js';

test.each([
  [0n, '0'],
  [999_999n, '999,999'],
  [1_000_000n, 'about 1.0 × 10^6'],
  [4_230_000_000n, 'about 4.2 × 10^9'],
  [9_990_000n, 'about 1.0 × 10^7'],
  [10n ** 15n, 'about 1.0 × 10^15'],
  [3n * 10n ** 400n, 'about 3.0 × 10^400'],
])('%d is said as %s', (count, text) => expect(roundly(count)).toBe(text));

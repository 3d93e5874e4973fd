import { agoText, dayText } from './ago-text.js';

const now = new Date(2026, 10, 29, 15, 30);
test.each([
  [new Date(2026, 10, 29, 15, 29, 40), 'just now'],
  [new Date(2026, 10, 29, 15, 29), '1 minute ago'],
  [new Date(2026, 10, 29, 15, 5), '25 minutes ago'],
  [new Date(2026, 10, 29, 9, 5), /^today at .*9.*05/],
  [new Date(2026, 10, 28, 23, 0), /^yesterday at /],
  [new Date(2026, 10, 20, 9, 0), /Nov.*20|20.*Nov/],
  [new Date(2025, 4, 2, 9, 0), /2025/],
])('%s', (when, text) => expect(agoText(when.toISOString(), now)).toMatch(text));

test('a day goes by its name when it is near', () => {
  expect(dayText(new Date(2026, 10, 29, 0, 1).toISOString(), now)).toBe('Today');
  expect(dayText(new Date(2026, 10, 28, 23, 59).toISOString(), now)).toBe('Yesterday');
  expect(dayText(new Date(2026, 10, 20).toISOString(), now)).toMatch(/2026/);
});

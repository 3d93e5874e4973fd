import fc from 'fast-check';
import { stringsOf, stringsTurned } from './tunings.js';

test.each([
  ['standard', 'drop D', 1],
  ['standard', 'DADGBE', 1],
  ['drop D', 'd a d g b e', 0],
  ['standard', 'half step down', 6],
  ['Eb', 'drop Db', 1],
  ['standard', 'DADGAD', 3],
  ['open G', 'open D', 3],
  ['standard', 'open E', 3],
] as const)('from %s to %s: %i strings', (from, to, count) => {
  expect(stringsTurned(from, to)).toBe(count);
  expect(stringsTurned(to, from)).toBe(count);
});

test('a tuning that nobody knows is not counted', () => {
  for (const unknown of ['low B', 'EADG', 'nonsense', '', 'toString']) {
    expect(stringsOf(unknown)).toBeUndefined();
    expect(stringsTurned('standard', unknown)).toBeUndefined();
  }
});

test('letters give the note next to the usual one of the string, at most half an octave away', () => {
  const note = fc.constantFrom('c', 'd', 'e', 'f', 'g', 'a');
  fc.assert(
    fc.property(fc.array(note, { minLength: 6, maxLength: 6 }), (letters) => {
      const strings = stringsOf(letters.join(''))!;
      const standard = stringsOf('standard')!;
      const pitch = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9 } as Record<string, number>;
      strings.forEach((s, i) => {
        expect(Math.abs(s - standard[i]!)).toBeLessThanOrEqual(6);
        expect(((s % 12) + 12) % 12).toBe(pitch[letters[i]!]);
      });
    }),
  );
});

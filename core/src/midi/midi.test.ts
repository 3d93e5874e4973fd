import fc from 'fast-check';
import { bankAndProgram, hex, toBytes } from './bytes.js';
import { saysNumbers, shown, wireOf, type Shows } from './numbering.js';
import { wireUs } from '../units/amounts.js';

/** Source: MIDI 1.0 Detailed Specification, channel voice messages and hardware (31 250 baud, 10 bits a byte). */
describe('messages as bytes', () => {
  test('program change 6 on channel 3', () => expect(hex(toBytes({ is: 'pc', channel: 3, program: 6 }))).toBe('C2 06'));
  test('control change 102 = 127 on channel 16', () =>
    expect(hex(toBytes({ is: 'cc', channel: 16, controller: 102, value: 127 }))).toBe('BF 66 7F'));
  test('bank select is MSB, LSB, then the program: 8 bytes, 2560 µs', () => {
    const bytes = bankAndProgram(1, 300, 5);
    expect(hex(bytes)).toBe('B0 00 02 B0 20 2C C0 05');
    expect(wireUs(bytes.length)).toBe(2560);
  });
  test('a program change takes 640 µs, a control change 960 µs', () =>
    expect([wireUs(2), wireUs(3)]).toEqual([640, 960]));
  test.each([[0], [17], [1.5]])('channel %p is refused', (channel) =>
    expect(() => toBytes({ is: 'pc', channel, program: 0 })).toThrow(RangeError),
  );
  test('a program above 127 is refused', () =>
    expect(() => toBytes({ is: 'pc', channel: 1, program: 128 })).toThrow(/128 is outside 0 to 127/));
});

describe('number schools', () => {
  test.each<[string, Shows, number, string]>([
    ['0–127', { first: 0 }, 12, '12'],
    ['1–128', { first: 1 }, 12, '13'],
    ['banks of three from 1', { first: 1, bank: { size: 3, first: 1 } }, 4, '2.2'],
    ['banks of four with letters', { first: 1, bank: { size: 4, first: 1, letters: 'ABCD' } }, 5, '2B'],
    ['banks of five from 0', { first: 0, bank: { size: 5, first: 0 } }, 7, '1.2'],
  ])('%s', (_, shows, wire, display) => {
    expect(shown(shows, wire)).toBe(display);
    expect(wireOf(shows, display, 128)).toBe(wire);
  });
  test('reading what is shown gives the wire number back, in every school', () =>
    fc.assert(
      fc.property(
        fc.constantFrom<0 | 1>(0, 1),
        fc.option(
          fc.record({
            size: fc.integer({ min: 2, max: 10 }),
            first: fc.constantFrom(0, 1),
            letters: fc.option(fc.constant('ABCDEFGHIJ'), { nil: undefined }),
          }),
          { nil: undefined },
        ),
        fc.integer({ min: 0, max: 127 }),
        (first, bank, wire) => {
          const shows: Shows = {
            first,
            ...(bank
              ? { bank: { size: bank.size, first: bank.first, ...(bank.letters ? { letters: bank.letters } : {}) } }
              : {}),
          };
          expect(wireOf(shows, shown(shows, wire), 128)).toBe(wire);
        },
      ),
    ));
  test.each([['128'], ['-1'], ['x'], ['1.4'], ['']])('%p is no number of a box that shows 0–127', (text) =>
    expect(wireOf({ first: 0 }, text, 128)).toBeUndefined(),
  );
  test('in words', () =>
    expect(saysNumbers({ first: 1, bank: { size: 3, first: 1 } }, 9)).toBe('banks of 3, 1.1 to 3.3'));
});

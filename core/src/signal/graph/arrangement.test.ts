import fc from 'fast-check';
import {
  besideIn,
  carriedIn,
  FINISH,
  inLineIn,
  mostBeside,
  neighbours,
  readArrangement,
  slotsOf,
  START,
  writeArrangement as write,
  type Arrangement,
} from './arrangement.js';

/** Series–parallel arrangements of slots that each stand once, with at least one slot in every arm. */
const arrangements: fc.Arbitrary<Arrangement> = fc.integer({ min: 1, max: 7 }).chain((n) => {
  const slots = Array.from({ length: n }, (_, i) => `s${i}`);
  return fc.array(fc.boolean(), { minLength: n, maxLength: n }).map((breaks) => {
    const groups: string[][] = [];
    slots.forEach((slot, i) => {
      if (i === 0 || breaks[i]) groups.push([slot]);
      else groups.at(-1)!.push(slot);
    });
    return groups.map((group) => (group.length === 1 ? group[0]! : { arms: group.map((slot) => [slot]) }));
  });
});

/** All ways from the start of the chain to its end over pairs of neighbours. */
const ways = (text: string): readonly string[] => {
  const next = new Map<string, string[]>();
  for (const pair of neighbours(text)) {
    const [from, to] = pair.split('>') as [string, string];
    next.set(from, [...(next.get(from) ?? []), to]);
  }
  const walk = (at: string, sofar: readonly string[]): readonly string[] =>
    at === FINISH
      ? [sofar.join(' ')]
      : (next.get(at) ?? []).flatMap((to) => walk(to, to === FINISH ? sofar : [...sofar, to]));
  return walk(START, []);
};

/** All ways through an arrangement by its plain meaning: one step after another, one arm of each bracket. */
const meant = (arrangement: Arrangement): readonly string[] =>
  arrangement.reduce<readonly string[]>(
    (sofar, step) => {
      const here = typeof step === 'string' ? [step] : step.arms.flatMap(meant);
      return sofar.flatMap((before) => here.map((h) => (before ? `${before} ${h}` : h)));
    },
    [''],
  );

describe('arrangements of slots', () => {
  test.each([
    ['a b c', ['a', 'b', 'c']],
    ['a ( b | c ) d', ['a', { arms: [['b'], ['c']] }, 'd']],
    ['a(b|c d)e', ['a', { arms: [['b'], ['c', 'd']] }, 'e']],
    ['( a | ( b | c ) d )', [{ arms: [['a'], [{ arms: [['b'], ['c']] }, 'd']] }]],
    ['', []],
    ['   ', []],
  ])('"%s" is read', (text, read) => expect(readArrangement(text)).toEqual(read));

  test('what is written is read back', () =>
    fc.assert(fc.property(arrangements, (a) => expect(readArrangement(write(a))).toEqual(a))));

  test.each([
    ['a b', ['^>a', 'b>$', 'a>b']],
    ['( a | b ) c', ['^>a', '^>b', 'c>$', 'a>c', 'b>c']],
    ['', ['^>$']],
    ['a ( b | ) c', ['^>a', 'a>b', 'a>c', 'b>c', 'c>$']],
    ['( )', ['^>$']],
    ['a ( b | c )', ['^>a', 'b>$', 'c>$', 'a>b', 'a>c']],
  ])('neighbours of "%s"', (text, pairs) => expect([...neighbours(text)].sort()).toEqual([...pairs].sort()));

  test('the ways over neighbours are the ways that the arrangement means', () =>
    fc.assert(
      fc.property(arrangements, (a) => {
        expect([...ways(write(a))].sort()).toEqual([...meant(a)].sort());
      }),
    ));

  test('any text at all is read without a fault', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        expect(Array.isArray(readArrangement(text))).toBe(true);
        expect(neighbours(text).size).toBeGreaterThan(0);
      }),
    ));
});

describe('an order changed by hand', () => {
  const placed = arrangements.chain((a) =>
    fc.record({
      text: fc.constant(write(a)),
      slot: fc.constantFrom(...slotsOf(a)),
      hidden: fc.subarray([...slotsOf(a)]),
    }),
  );
  const slots = (text: string) => [...slotsOf(readArrangement(text))].sort();

  test('no slot is lost or doubled, wherever one is put', () =>
    fc.assert(
      fc.property(placed, fc.constantFrom(-1 as const, 1 as const), ({ text, slot, hidden }, by) => {
        const shown = new Set(slots(text).filter((s) => s === slot || !hidden.includes(s)));
        for (const next of [carriedIn(text, slot, by, shown), besideIn(text, slot, shown, 3), inLineIn(text, slot)])
          expect(slots(next)).toEqual(slots(text));
      }),
    ));

  test('put beside another and in line again, all stands as it stood', () =>
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 8 }), fc.nat(), (n, at) => {
        const all = Array.from({ length: n }, (_, i) => `s${i}`);
        const slot = all[1 + (at % (n - 1))]!;
        const beside = besideIn(all.join(' '), slot, new Set(all), 2);
        expect(mostBeside(readArrangement(beside))).toBe(2);
        expect(inLineIn(beside, slot)).toBe(all.join(' '));
      }),
    ));

  test.each([
    ['past one that is not seen', carriedIn('a b c', 'c', -1, new Set(['a', 'c'])), 'c a b'],
    ['past a group', carriedIn('( a | b ) c', 'c', -1, new Set(['a', 'b', 'c'])), 'c ( a | b )'],
    ['within its arm', carriedIn('( a b | c )', 'b', -1, new Set(['a', 'b', 'c'])), '( b a | c )'],
    ['out of its arm', carriedIn('( a | b ) c', 'b', 1, new Set(['a', 'b', 'c'])), 'a b c'],
    ['not beyond the end', carriedIn('a b', 'b', 1, new Set(['a', 'b'])), 'a b'],
    ['a third way', besideIn('( a | b ) c', 'c', new Set(['a', 'b', 'c']), 3), '( a | b | c )'],
    ['no more ways than there are', besideIn('( a | b ) c', 'c', new Set(['a', 'b', 'c']), 2), '( a | b ) c'],
    ['a way of wire alone stays', inLineIn('( a | b | ) c', 'b'), '( a |  ) b c'],
  ])('%s', (_, is, shall) => expect(is).toBe(shall));
});

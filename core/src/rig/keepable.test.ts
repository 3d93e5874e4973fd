import fc from 'fast-check';
import { makeDevice } from '../catalogue/make.js';
import { apply } from '../change/apply.js';
import type { Fork, Slot } from './device.js';
import { unkeepable } from './keepable.js';
import { cutTo, DEEPEST, LONGEST, wrongText } from './limits.js';
import { newRig, type Part } from './rig.js';

const nestedForks = (count: number): Slot =>
  Array.from({ length: count }).reduce<Slot>(
    (inner, _, i): Fork => ({ is: 'fork', id: `f${i}`, arms: [{ id: 'a', slots: [inner] }] }),
    { is: 'block', id: 'b', stage: 'eq', on: [{ control: 'on', in: ['on'] }] },
  );
const withForks = (count: number): Part => {
  const made = makeDevice('low-drive', 'device:x');
  return { ...made, chains: [{ ...made.chains[0]!, slots: [nestedForks(count)] }] };
};
const said = (part: Part): string => {
  const done = apply(newRig('R'), { put: [part], remove: [] });
  return done.ok ? 'kept' : done.error.map((e) => `${e.where}: ${e.wrong}`).join(' ');
};
const depth = (value: unknown): number =>
  typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depth)) : 0;

describe('what cannot be kept at all', () => {
  test('forks inside one another: five are kept, seven are refused where they are made', () => {
    expect(said(withForks(4))).toBe('kept');
    expect(said(withForks(7))).toMatch(/More than 29 lists stand inside one another/);
  });
  test('what is kept is never deeper than the database takes', () => {
    for (let count = 0; count < 9; count += 1)
      if (said(withForks(count)) === 'kept') expect(depth(withForks(count))).toBeLessThanOrEqual(DEEPEST);
  });
  test('half a character, in a value or a name', () => {
    expect(said({ ...makeDevice('low-drive', 'device:x'), name: 'Drive \ud83d' })).toMatch(
      /^name: The text ends in half a character/,
    );
    expect(unkeepable({ ['x\udc00']: 1 })).toMatchObject({ wrong: expect.stringContaining('half a character') });
  });
  test.each([[Number.NaN], [Infinity], [-1e300], [1e13]])('the number %s', (number) =>
    expect(unkeepable({ a: [number] })).toMatchObject({ path: ['a', 0] }),
  );
  test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])('a control called %s', (id) => {
    const made = makeDevice('low-drive', 'device:x');
    expect(said({ ...made, controls: [...made.controls, { ...made.controls[0]!, id }] })).not.toBe('kept');
    expect(
      said({
        kind: 'program',
        id: 'program:p',
        device: 'device:x',
        memory: 'm',
        number: 0,
        name: 'p',
        contents: JSON.parse(`{"${id}":1}`) as Record<string, number>,
        acts: [],
        assigns: [],
      }),
    ).not.toBe('kept');
  });
  test('whatever JSON gives back as it was, and not deep, is no trouble', () =>
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6, stringUnit: 'binary' }), (data) => {
        const text = JSON.stringify(data);
        const hasOdd =
          /constructor|__\w+__|toString|valueOf|hasOwn|prototype|isPrototypeOf|propertyIsEnumerable|toLocaleString/.test(
            text,
          ) || /e\+?(1[2-9]|[2-9]\d|\d{3})|\d{13}/.test(text);
        fc.pre(!hasOdd);
        expect(unkeepable(data)).toBeUndefined();
      }),
      { numRuns: 300 },
    ));
});

describe('how long a text may be', () => {
  test('is said with both numbers, and nothing is cut', () => {
    expect(wrongText('x'.repeat(120), LONGEST.name)).toBeUndefined();
    expect(wrongText('x'.repeat(121), LONGEST.name)).toBe('121 characters; at most 120 are kept.');
    expect(wrongText('cut \ud83c', LONGEST.name)).toMatch(/half a character/);
  });
  test('what is cut for a label is never cut within a character', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.integer({ min: 2, max: 40 }), (text, most) => {
        const cut = cutTo(text, most);
        expect([cut.length <= most || cut === text, cut.isWellFormed()]).toEqual([true, true]);
      }),
    ));
});

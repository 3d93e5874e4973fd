import { Random } from '../../testing/random.js';
import fc from 'fast-check';
import { randomSystem } from '../../testing/random-system.js';
import { conesOf, eventOf, placeOf, writersOf, writersWhenAsked } from './cone.js';
import { tally } from '../recall/verdict/sound-verdict.js';
import { waysToStand } from './summary.js';
import { afterEvent, canHappen, type RecallSystem } from './system.js';

/** A chain of influence: a is set where b is on, b's event asks for c, d stands alone. */
const SYSTEM: RecallSystem = {
  variables: ['a', 'b', 'c', 'd'].map((id) => ({ id, domain: ['off', 'on'], initial: ['off'] })),
  events: [
    {
      id: 'set a',
      acts: [
        { variable: 'a', set: 'on', when: [{ variable: 'b', in: ['on'] }] },
        { variable: 'd', set: 'on' },
      ],
    },
    { id: 'set b', when: [{ variable: 'c', in: ['on'] }], acts: [{ variable: 'b', set: 'on' }] },
    {
      id: 'turn c',
      acts: [
        { variable: 'c', toggle: ['off', 'on'] },
        { variable: 'a', set: 'off' },
      ],
    },
  ],
  sounds: [{ id: 's', recall: 'set a', wants: [{ variable: 'a', value: 'on' }] }],
};
const cones = (system: RecallSystem) =>
  conesOf(
    system,
    writersOf(system),
    system.variables.map((v) => v.id),
  );

describe('who writes what', () => {
  test.each([
    ['all at once', writersOf],
    ['when asked', writersWhenAsked],
  ])('each act is found by its event and its place, %s', (_, find) => {
    const writers = find(SYSTEM);
    expect(
      Object.fromEntries(
        SYSTEM.variables.map(({ id }) => [
          id,
          writers.get(id)!.at.map((w) => `${SYSTEM.events[eventOf(w)]!.id} ${placeOf(w)}`),
        ]),
      ),
    ).toEqual({ a: ['set a 0', 'turn c 1'], b: ['set b 0'], c: ['turn c 0'], d: ['set a 1'] });
  });
  test('on random systems both find the same', () => {
    fc.assert(
      fc.property(randomSystem, (system) => {
        const [all, asked] = [writersOf(system), writersWhenAsked(system)];
        for (const { id } of system.variables) expect(asked.get(id)).toEqual(all.get(id));
      }),
      { numRuns: 200 },
    );
  });
});

describe('cones of influence', () => {
  test('worked by hand', () =>
    expect(Object.fromEntries(cones(SYSTEM))).toEqual({ a: ['a', 'b', 'c'], b: ['b', 'c'], c: ['c'], d: ['d'] }));

  test('nothing outside a cone can change what happens inside, on random systems: the same steps with other values outside leave the same values inside', () => {
    fc.assert(
      fc.property(randomSystem, fc.integer({ min: 1 }), (system, seed) => {
        const r = new Random(seed);
        for (const [wanted, cone] of cones(system)) {
          const inside = new Set(cone);
          const state = Object.fromEntries(system.variables.map((v) => [v.id, r.pick(v.domain)]));
          let [one, other] = [
            state,
            Object.fromEntries(system.variables.map((v) => [v.id, inside.has(v.id) ? state[v.id]! : r.pick(v.domain)])),
          ];
          for (let n = 0; n < 12; n += 1) {
            const event = r.pick(system.events);
            const readsOutside = (event.when ?? []).some((c) => !inside.has(c.variable));
            const writesInside = event.acts.some((a) => inside.has(a.variable));
            if (writesInside) expect([seed, wanted, readsOutside]).toEqual([seed, wanted, false]);
            if (canHappen(event, one)) one = afterEvent(event, one);
            if (canHappen(event, other)) other = afterEvent(event, other);
            for (const v of cone) expect([seed, wanted, v, other[v]]).toEqual([seed, wanted, v, one[v]]);
          }
        }
      }),
      { numRuns: 150 },
    );
  });
});

test('a tally counts each verdict once', () => {
  expect(
    tally(
      new Map([
        ['a', { is: 'proved' }],
        ['b', { is: 'undecided' }],
        ['c', { is: 'proved' }],
        ['d', { is: 'cannot sound' }],
      ] as const),
    ),
  ).toEqual({ sounds: 4, proved: 2, 'left to hands': 0, broken: 0, undecided: 1, 'cannot sound': 1 });
});

test('the ways to stand are all values of each variable with all of every other', () => {
  expect(waysToStand(SYSTEM)).toBe(16n);
  fc.assert(
    fc.property(randomSystem, (system) => {
      const rows = system.variables.reduce<readonly string[]>(
        (known, v) => known.flatMap((k) => v.domain.map((x) => `${k} ${x}`)),
        [''],
      );
      expect(waysToStand(system)).toBe(BigInt(rows.length));
    }),
    { numRuns: 50 },
  );
});

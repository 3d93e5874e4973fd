import fc from 'fast-check';
import { EventClasses, type NumberedGuard, type Op } from './event-classes.js';

/** Three variables of 2, 3 and 4 values. */
const SIZES = [2, 3, 4];
const at = fc.integer({ min: 0, max: 2 });
const allows = at.chain((i) =>
  fc.tuple(fc.constant(i), fc.array(fc.constantFrom(0, 1), { minLength: SIZES[i]!, maxLength: SIZES[i]! })),
);
const does = at.chain((i) => {
  const value = fc.integer({ min: 0, max: SIZES[i]! - 1 });
  return fc.record({
    at: fc.constant(i),
    when: fc.array(allows, { maxLength: 2 }),
    sets: fc.oneof(value, fc.array(value, { minLength: SIZES[i]!, maxLength: SIZES[i]! })),
  });
});
const events = fc.array(
  fc.record({ when: fc.array(allows, { maxLength: 2 }), acts: fc.array(does, { maxLength: 4 }), isLast: fc.boolean() }),
  { minLength: 1, maxLength: 4 },
);
type Told = typeof events extends fc.Arbitrary<infer T> ? T : never;

const classesOf = (told: Told): EventClasses => {
  const classes = new EventClasses();
  const guards = (when: readonly (readonly [number, readonly number[]])[]): NumberedGuard[] =>
    when.map(([i, values]) => ({ at: i, table: classes.table(values) }));
  for (const { when, acts, isLast } of told) {
    const ops = acts.map((a): Op =>
      typeof a.sets === 'number'
        ? { guards: guards(a.when), at: a.at, to: a.sets, table: -1 }
        : { guards: guards(a.when), at: a.at, to: -1, table: classes.table(a.sets) },
    );
    classes.add(guards(when), ops, isLast);
  }
  return classes;
};

/** The plain meaning of the same. */
const plainly = ({ when, acts }: Told[number], state: readonly number[]): readonly number[] | undefined => {
  const hold = (guards: typeof when, s: readonly number[]) => guards.every(([i, values]) => values[s[i]!] === 1);
  if (!hold(when, state)) return undefined;
  const now = [...state];
  for (const a of acts) if (hold(a.when, now)) now[a.at] = typeof a.sets === 'number' ? a.sets : a.sets[now[a.at]!]!;
  return now;
};
const STATES = Array.from({ length: 24 }, (_, n) => [n % 2, Math.floor(n / 2) % 3, Math.floor(n / 6)]);
const carriedOut = (classes: EventClasses, c: number, state: readonly number[]): readonly number[] | undefined => {
  const now = Uint16Array.from(state);
  return classes.carryOut(c, now) ? [...now] : undefined;
};

/** What is said of three variables, class after class. */
const rowsOf = (marks: Uint8Array): readonly (readonly number[])[] =>
  Array.from({ length: marks.length / 3 }, (_, c) => [...marks.subarray(3 * c, 3 * c + 3)]);

test('a class does what its guards and acts say, in every state', () => {
  fc.assert(
    fc.property(events, (told) => {
      const classes = classesOf(told);
      expect(classes.count).toBe(told.length);
      told.forEach((event, c) => {
        expect(classes.isLast(c)).toBe(event.isLast);
        for (const state of STATES) expect(carriedOut(classes, c, state)).toEqual(plainly(event, state));
      });
    }),
    { numRuns: 300 },
  );
});

test('what does not matter to a class makes no difference to what it leaves; what it does not touch stays', () => {
  fc.assert(
    fc.property(events, (told) => {
      const classes = classesOf(told);
      for (let c = 0; c < classes.count; c += 1) {
        const [matters, touches] = [rowsOf(classes.matters(3))[c]!, rowsOf(classes.touches(3))[c]!];
        for (const state of STATES) {
          const after = carriedOut(classes, c, state);
          for (let i = 0; i < 3; i += 1) {
            if (!touches[i] && after) expect(after[i]).toBe(state[i]);
            if (matters[i]) continue;
            for (let v = 0; v < SIZES[i]!; v += 1)
              expect(
                carriedOut(
                  classes,
                  c,
                  state.map((x, k) => (k === i ? v : x)),
                ),
              ).toEqual(after);
          }
        }
      }
    }),
    { numRuns: 300 },
  );
});

test('an event forgets what it sets before anything reads it, and nothing else', () => {
  const classes = new EventClasses();
  const set = (i: number, to: number, ...guards: NumberedGuard[]): Op => ({ guards, at: i, to, table: -1 });
  const isOn: NumberedGuard = { at: 1, table: classes.table([0, 1, 1]) };
  classes.add([], [set(0, 1), set(2, 3, isOn)], false);
  classes.add([isOn], [set(1, 0)], false);
  classes.add([], [set(1, 0), set(2, 3, isOn)], false);
  expect(rowsOf(classes.matters(3))).toEqual([
    [0, 1, 1],
    [1, 1, 1],
    [1, 0, 1],
  ]);
  expect(rowsOf(classes.touches(3))).toEqual([
    [1, 1, 1],
    [0, 1, 0],
    [0, 1, 1],
  ]);
});

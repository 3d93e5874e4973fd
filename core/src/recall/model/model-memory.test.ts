import fc from 'fast-check';
import { Names } from './model-memory.js';

test('what some things name is the same as worked out from nothing, whatever came and went before', () => {
  const thing = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { maxLength: 3 }).map((names) => ({ names }));
  const pool = fc.array(thing, { minLength: 1, maxLength: 8 });
  const turns = fc.array(fc.array(fc.nat({ max: 7 }), { maxLength: 6 }), { minLength: 1, maxLength: 8 });
  fc.assert(
    fc.property(pool, turns, (things, all) => {
      const known = new Names<{ readonly names: readonly string[] }>();
      for (const turn of all) {
        const there = turn.flatMap((i) => things[i] ?? []);
        const found = known.of(there, (one, note) => one.names.forEach(note));
        expect([...found].sort()).toEqual([...new Set(there.flatMap((t) => t.names))].sort());
      }
    }),
    { numRuns: 500 },
  );
});

test('after a change only what is new is asked, and others only until what was lost is met again', () => {
  const things = ['first', 'second', 'third'].map((id) => ({ id, names: ['a', 'b'] }));
  const known = new Names<(typeof things)[number]>();
  const asked = (there: typeof things): readonly string[] => {
    const met: string[] = [];
    known.of(there, ({ id, names }, note) => {
      met.push(id);
      names.forEach(note);
    });
    return met;
  };
  expect(asked(things)).toEqual(['first', 'second', 'third']);
  expect(asked(things)).toEqual([]);
  const changed = { id: 'changed', names: ['a'] };
  expect(asked([changed, things[1]!, things[2]!])).toEqual(['changed', 'changed', 'second']);
});

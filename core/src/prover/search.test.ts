import { proveByWholeStates } from '../../testing/whole-states.js';
import { prove, ProofMemory } from './prove.js';
import type { RecallSystem } from './system.js';

const NINE = Array.from({ length: 9 }, (_, i) => `${i}`);

/** The recall asks b alone; b is turned over while c stands on its last value; c is stepped through nine. */
const system = (extra: RecallSystem['sounds'][number]['wants'] = []): RecallSystem => ({
  variables: [
    { id: 'a', domain: ['0', '1'], initial: ['0'] },
    { id: 'b', domain: ['0', '1'], initial: ['0', '1'] },
    { id: 'c', domain: NINE, initial: ['0'] },
  ],
  events: [
    {
      id: 'recall',
      acts: [
        { variable: 'a', set: '0' },
        { variable: 'a', when: [{ variable: 'b', in: ['1'] }], set: '1' },
      ],
    },
    { id: 'turn', when: [{ variable: 'c', in: ['8'] }], acts: [{ variable: 'b', toggle: ['0', '1'] }] },
    { id: 'step', acts: [{ variable: 'c', step: NINE }] },
  ],
  sounds: [{ id: 's', recall: 'recall', wants: [{ variable: 'a', value: '0' }, ...extra] }],
});
const searched = (s: RecallSystem, variable: string) => {
  const memory = new ProofMemory();
  prove(s, undefined, memory);
  return memory.last!.cones.get(variable)!.found;
};

test('a search ends once all that the judged events depend on was met', () => {
  const found = searched(system(), 'a');
  expect(found.done).toBe(true);
  expect(found.states).toBeLessThan(6);
  expect(proveByWholeStates(system()).get('s')).toEqual({ verdict: 'broken', length: 1, variables: { a: 1 } });
  expect(prove(system()).get('s')).toMatchObject({ is: 'broken', length: 1 });
});

test('where it is judged, too, what is there without any event, it goes on until that is known', () => {
  const left = system([{ variable: 'c', value: '0' }]);
  expect(searched(left, 'c').states).toBe(9);
  expect(prove(left).get('s')).toMatchObject({
    is: 'broken',
    wrong: [
      { variable: 'a', length: 1 },
      { variable: 'c', length: 2 },
    ],
  });
  expect(proveByWholeStates(left).get('s')).toMatchObject({ variables: { a: 1, c: 2 } });
});

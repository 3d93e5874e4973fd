import { often } from '../../testing/often.js';
import fc from 'fast-check';
import { changedSystem } from '../../testing/changed-system.js';
import { Random } from '../../testing/random.js';
import { randomSystem } from '../../testing/random-system.js';
import { conesOf, eventOf, placeOf, writersOf } from './cone.js';
import { prove, ProofMemory, type Verdict } from './prove.js';
import { stand } from './standing.js';
import { wrongInSystem, type RecallSystem } from './system.js';

/** Verdict, lengths and footsteps: all that a player is told. */
const told = (verdicts: ReadonlyMap<string, Verdict>) =>
  [...verdicts].map(([id, v]) => [
    id,
    v.is === 'broken' ? v.wrong.map((w) => [w.variable, w.wanted, w.length, w.example()]) : v,
  ]);

const CHANGES = 6;

describe('a system that changed a little', () => {
  test('stays sound in itself', () =>
    fc.assert(
      fc.property(randomSystem, fc.integer({ min: 1, max: 9999 }), (system, seed) => {
        expect(wrongInSystem(changedSystem(new Random(seed), system))).toEqual([]);
      }),
      { numRuns: often(120) },
    ));

  test('is proved from what was known as if from nothing, footsteps and all', () =>
    fc.assert(
      fc.property(randomSystem, fc.integer({ min: 1, max: 9999 }), (first, seed) => {
        const r = new Random(seed);
        const memory = new ProofMemory();
        let system = first;
        for (let i = 0; i < CHANGES; i += 1) {
          expect(told(prove(system, undefined, memory))).toEqual(told(prove(system)));
          system = changedSystem(r, system);
        }
      }),
      { numRuns: often(200) },
    ));

  test('has the cones and the wanted values that it has from nothing', () =>
    fc.assert(
      fc.property(randomSystem, fc.integer({ min: 1, max: 9999 }), (first, seed) => {
        const r = new Random(seed);
        let standing = stand(first);
        let system = first;
        for (let i = 0; i < CHANGES; i += 1) {
          system = changedSystem(r, system);
          standing = stand(system, standing);
          const fresh = stand(system);
          const ordered = <T>(map: ReadonlyMap<string, T>) => [...map].sort(([a], [b]) => (a < b ? -1 : 1));
          expect(ordered(standing.cones)).toEqual(ordered(fresh.cones));
          expect(ordered(standing.wanted).map(([v, values]) => [v, [...values].sort()])).toEqual(
            ordered(fresh.wanted).map(([v, values]) => [v, [...values].sort()]),
          );
          expect(new Set([...standing.asBefore, ...standing.redone])).toEqual(new Set(fresh.cones.keys()));
        }
      }),
      { numRuns: often(120) },
    ));
});

describe('what is proved again', () => {
  const variable = (id: string) => ({ id, domain: ['0', '1'], initial: ['0', '1'] });
  const set = (v: string, value: string, ...when: string[]) => ({
    variable: v,
    set: value,
    ...(when.length ? { when: when.map((w) => ({ variable: w, in: ['1'] })) } : {}),
  });
  const system: RecallSystem = {
    variables: ['a', 'b', 'c', 'd'].map(variable),
    events: [
      { id: 'r1', acts: [set('a', '0'), set('b', '1'), set('c', '1', 'b'), set('d', '0')] },
      { id: 'r2', acts: [set('a', '1'), set('b', '0'), set('c', '0', 'b'), set('d', '0')] },
    ],
    sounds: [
      {
        id: 's1',
        recall: 'r1',
        wants: [
          { variable: 'a', value: '0' },
          { variable: 'c', value: '1' },
          { variable: 'd', value: '0' },
        ],
      },
      {
        id: 's2',
        recall: 'r2',
        wants: [
          { variable: 'a', value: '1' },
          { variable: 'd', value: '0' },
        ],
      },
    ],
  };
  const withActs = (...acts: RecallSystem['events'][number]['acts']): RecallSystem => ({
    ...system,
    events: [{ id: 'r1', acts }, system.events[1]!],
  });
  const again = (changed: RecallSystem) => [...stand(changed, stand(system)).redone].sort();

  test('nothing when nothing changed', () => {
    expect(again(system)).toEqual([]);
    expect(
      again({ ...system, events: system.events.map((e) => ({ ...e, acts: e.acts.map((a) => ({ ...a })) })) }),
    ).toEqual([]);
  });
  test('only the variable that is set otherwise', () =>
    expect(again(withActs(set('a', '1'), set('b', '1'), set('c', '1', 'b'), set('d', '0')))).toEqual(['a']));
  test('what reads the variable that changed', () =>
    expect(again(withActs(set('a', '0'), set('b', '0'), set('c', '1', 'b'), set('d', '0')))).toEqual(['c']));
  test('acts that change places among each other, though each says the same', () => {
    const swapped = withActs(set('a', '0'), set('c', '1', 'b'), set('b', '1'), set('d', '0'));
    expect(again(swapped)).toEqual(['a', 'c', 'd']);
    const memory = new ProofMemory();
    expect(prove(system, undefined, memory).get('s1')).toEqual({ is: 'proved' });
    expect(prove(swapped, undefined, memory).get('s1')!.is).toBe('broken');
  });
  test('a value that nobody wanted before, and one that nobody wants any more', () => {
    const wants = (value: string) => ({
      ...system,
      sounds: [
        system.sounds[0]!,
        {
          ...system.sounds[1]!,
          wants: [
            { variable: 'a', value },
            { variable: 'd', value: '0' },
          ],
        },
      ],
    });
    expect(again(wants('0'))).toEqual(['a']);
    expect(
      again({
        ...system,
        sounds: [system.sounds[0]!, { ...system.sounds[1]!, wants: [{ variable: 'a', value: '1' }] }],
      }),
    ).toEqual([]);
  });
  test('another power-up value; another shape of the system: everything', () => {
    expect(
      again({ ...system, variables: [{ ...variable('a'), initial: ['0'] }, ...system.variables.slice(1)] }),
    ).toEqual(['a']);
    expect(again({ ...system, events: [...system.events, { id: 'foot', acts: [set('d', '1')] }] })).toEqual([
      'a',
      'c',
      'd',
    ]);
  });
  test('a row that differs in one column changes only what stands in that column', () => {
    const rows = (b: string) => ({
      ...system,
      together: [
        {
          variables: ['b', 'd'],
          rows: [
            ['0', '0'],
            [b, '1'],
          ],
        },
      ],
    });
    expect([...stand(rows('0'), stand(rows('1'))).redone].sort()).toEqual(['c']);
    expect([...stand(rows('1'), stand(rows('1'))).redone]).toEqual([]);
  });
});

describe('cones', () => {
  const on = (v: string) => ({ variable: v, in: ['1'] });
  const system: RecallSystem = {
    variables: ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id, domain: ['0', '1'], initial: ['0'] })),
    events: [
      {
        id: 'x',
        acts: [
          { variable: 'a', set: '1', when: [on('b')] },
          { variable: 'e', set: '1' },
        ],
      },
      { id: 'y', when: [on('c')], acts: [{ variable: 'b', toggle: ['0', '1'] }] },
      { id: 'z', acts: [{ variable: 'd', set: '0', when: [on('a')] }] },
    ],
    sounds: [],
  };
  const cones = conesOf(system, writersOf(system), ['a', 'b', 'd', 'e']);
  test.each([
    ['a', ['a', 'b', 'c']],
    ['b', ['b', 'c']],
    ['d', ['a', 'b', 'c', 'd']],
    ['e', ['e']],
  ])('of %s: itself and, step by step, all that is read on the way', (v, cone) => expect(cones.get(v)).toEqual(cone));
  test('an act is found by its event and its place in it', () =>
    expect(
      writersOf(system)
        .get('b')!
        .at.map((w) => [eventOf(w), placeOf(w)]),
    ).toEqual([[1, 0]]));
});

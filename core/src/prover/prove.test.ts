import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { proveByWholeStates } from '../../testing/whole-states.js';
import { randomSystem, wideSystem } from '../../testing/random-system.js';
import { prove, ProofMemory, type Verdict } from './prove.js';
import { afterEvent, canHappen, serves, wrongInSystem, type RecallSystem, type SystemState } from './system.js';

type Expected = ({ verdict: 'proved' } | { verdict: 'broken'; length: number; variables: Record<string, number> }) & {
  example?: unknown;
};
type Case = RecallSystem & { id: string; family: string; results: Record<string, Expected> };
const cases = ['recall.json', 'recall2.json'].flatMap(
  (file) =>
    (JSON.parse(readFileSync(join(__dirname, '../../testing/reference', file), 'utf8')) as { cases: Case[] }).cases,
);

const said = (verdict: Verdict) =>
  verdict.is === 'broken'
    ? {
        verdict: 'broken',
        length: verdict.length,
        variables: Object.fromEntries(verdict.wrong.map((w) => [w.variable, w.length])),
      }
    : { verdict: verdict.is };

/** Carries out the footsteps in the plain meaning of the format and says what the sound's wants came to. */
const replay = (system: RecallSystem, soundId: string, powerUp: SystemState, events: readonly string[]) => {
  for (const v of system.variables) expect(v.initial.length === 0 ? [] : v.domain).toContain(powerUp[v.id]);
  for (const g of system.together ?? [])
    expect(g.rows.map(String)).toContain(String(g.variables.map((v) => powerUp[v])));
  const end = events.reduce((state, id) => {
    const event = system.events.find((e) => e.id === id)!;
    expect(canHappen(event, state)).toBe(true);
    return afterEvent(event, state);
  }, powerUp);
  const sound = system.sounds.find((s) => s.id === soundId)!;
  expect(events.at(-1)).toBe(sound.recall);
  return sound.wants.filter((w) => !serves(w, end[w.variable])).map((w) => w.variable);
};

/** Source: verdicts worked out by SPIN 6.5.2, breadth-first and exhaustive (testing/reference). */
describe('the reference cases', () => {
  test('there are 216 systems with 1151 sounds', () => {
    expect(cases).toHaveLength(216);
    expect(cases.reduce((n, c) => n + c.sounds.length, 0)).toBe(1151);
  });

  test.each([...new Set(cases.map((c) => c.family))])(
    'family %s: verdict, length and wrong variables are as SPIN found them',
    (family) => {
      for (const system of cases.filter((c) => c.family === family)) {
        expect(wrongInSystem(system)).toEqual([]);
        const verdicts = prove(system);
        for (const sound of system.sounds) {
          const { example: _, ...expected } = system.results[sound.id]!;
          expect({ id: system.id, sound: sound.id, ...said(verdicts.get(sound.id)!) }).toEqual({
            id: system.id,
            sound: sound.id,
            ...expected,
          });
        }
      }
    },
  );

  test('every counterexample replays: it has its length, starts at a power-up state and leaves its variable wrong', () => {
    let replayed = 0;
    for (const system of cases) {
      for (const [id, verdict] of prove(system)) {
        if (verdict.is !== 'broken') continue;
        for (const wrong of verdict.wrong) {
          const { powerUp, events } = wrong.example();
          expect(events).toHaveLength(wrong.length);
          expect(replay(system, id, powerUp, events)).toContain(wrong.variable);
          replayed += 1;
        }
      }
    }
    expect(replayed).toBeGreaterThan(498);
  });
});

describe('laws of the prover', () => {
  test.each([
    ['random systems', randomSystem, 400],
    ['wide ones, where most events touch little of what there is', wideSystem, 80],
  ] as const)('agrees with a plain search over whole states on %s', (_, systems, numRuns) => {
    fc.assert(
      fc.property(systems, (system) => {
        const verdicts = prove(system);
        const plain = proveByWholeStates(system);
        for (const sound of system.sounds) expect(said(verdicts.get(sound.id)!)).toEqual(plain.get(sound.id));
      }),
      { numRuns },
    );
  });

  test('every counterexample of a wide one replays', () => {
    fc.assert(
      fc.property(wideSystem, (system) => {
        for (const [id, verdict] of prove(system)) {
          for (const wrong of verdict.is === 'broken' ? verdict.wrong : []) {
            const { powerUp, events } = wrong.example();
            expect(replay(system, id, powerUp, events)).toContain(wrong.variable);
          }
        }
      }),
      { numRuns: 80 },
    );
  });

  test('a proof that remembers equals one from scratch', () => {
    fc.assert(
      fc.property(fc.array(randomSystem, { minLength: 2, maxLength: 4 }), (systems) => {
        const memory = new ProofMemory();
        for (const system of [...systems, ...systems]) {
          const remembered = [...prove(system, undefined, memory)].map(([id, v]) => [id, said(v)]);
          expect(remembered).toEqual([...prove(system)].map(([id, v]) => [id, said(v)]));
        }
      }),
      { numRuns: 100 },
    );
  });

  test('a cone over its budget is undecided, never proved', () => {
    const many = Array.from({ length: 12 }, (_, i) => `v${i}`);
    const system: RecallSystem = {
      variables: many.map((id) => ({ id, domain: ['0', '1'], initial: ['0', '1'] })),
      events: [
        {
          id: 'recall',
          acts: [
            { variable: 'v0', when: many.map((variable) => ({ variable, in: ['0'] })), set: '1' },
            { variable: 'v0', set: '0' },
          ],
        },
      ],
      sounds: [{ id: 's', recall: 'recall', wants: [{ variable: 'v0', value: '0' }] }],
    };
    expect(prove(system).get('s')).toEqual({ is: 'proved' });
    expect(prove(system, 100).get('s')!.is).toBe('undecided');
  });
});

describe('a system that is not sound in itself is refused with its place', () => {
  const sane: RecallSystem = {
    variables: [{ id: 'a', domain: ['0', '1'], initial: ['0'] }],
    events: [{ id: 'r', acts: [{ variable: 'a', set: '1' }] }],
    sounds: [{ id: 's', recall: 'r', wants: [{ variable: 'a', value: '1' }] }],
  };
  test.each([
    [
      'an unknown variable',
      { ...sane, events: [{ id: 'r', acts: [{ variable: 'b', set: '1' }] }] },
      'events r: "b" is not a variable',
    ],
    [
      'a value outside the domain',
      { ...sane, events: [{ id: 'r', acts: [{ variable: 'a', set: '7' }] }] },
      'events r: "7" is not in the domain of a',
    ],
    [
      'a recall with a condition',
      { ...sane, events: [{ id: 'r', when: [{ variable: 'a', in: ['0'] }], acts: [] }] },
      'its recall has a condition',
    ],
    ['a missing recall', { ...sane, events: [] }, 'is not an event'],
    [
      'no power-up value',
      { ...sane, variables: [{ id: 'a', domain: ['0', '1'], initial: [] }] },
      'no value at power-up',
    ],
    [
      'an empty step',
      { ...sane, events: [{ id: 'r', acts: [{ variable: 'a', step: [] }] }] },
      'a step needs at least one value',
    ],
    [
      'one variable wanted twice',
      {
        ...sane,
        sounds: [
          {
            ...sane.sounds[0]!,
            wants: [
              { variable: 'a', value: '1' },
              { variable: 'a', value: '0' },
            ],
          },
        ],
      },
      'wants one variable twice',
    ],
    [
      'more acts than can be numbered',
      { ...sane, events: [{ id: 'r', acts: Array(65_537).fill({ variable: 'a', set: '1' }) }] },
      'at most 65536',
    ],
    ['a short row', { ...sane, together: [{ variables: ['a'], rows: [[]] }] }, 'a row has 0 values'],
  ])('%s', (_, system, text) => expect(wrongInSystem(system as RecallSystem).join('\n')).toContain(text));
});

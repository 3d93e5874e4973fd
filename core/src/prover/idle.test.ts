import fc from 'fast-check';
import { randomSystem } from '../../testing/random-system.js';
import { withoutIdle } from './idle.js';
import { afterEvent, type SystemAct } from './system.js';

const DOMAIN = ['0', '1', '2'];
const domainOf = () => DOMAIN;

describe('acts that make no difference', () => {
  it('leaves out what is overwritten before anything reads it', () => {
    const acts: SystemAct[] = [
      { variable: 'mix', set: '1', when: [{ variable: 'program', in: ['0', '2'] }] },
      { variable: 'program', set: '1', when: [{ variable: 'program', in: ['0', '2'] }] },
      { variable: 'mix', set: '2' },
    ];
    expect(withoutIdle(acts, domainOf)).toEqual([
      { variable: 'program', set: '1' },
      { variable: 'mix', set: '2' },
    ]);
  });

  it('keeps what a condition, a toggle or a step reads afterwards', () => {
    const set: SystemAct = { variable: 'mix', set: '1' };
    const over: SystemAct = { variable: 'mix', set: '2' };
    const readers: SystemAct[] = [
      { variable: 'gain', set: '1', when: [{ variable: 'mix', in: ['1'] }] },
      { variable: 'mix', toggle: ['0', '1'] },
      { variable: 'mix', step: ['0', '1'] },
    ];
    expect(withoutIdle([set, readers[0]!, over], domainOf)).toEqual([set, readers[0], over]);
    // Turned and overwritten: neither is heard.
    for (const turn of readers.slice(1)) {
      expect(withoutIdle([set, turn, over], domainOf)).toEqual([over]);
      expect(withoutIdle([set, turn], domainOf)).toEqual([set, turn]);
    }
  });

  it('keeps a condition on itself that asks for more, or of which the values are not known', () => {
    const some: SystemAct = { variable: 'mix', set: '1', when: [{ variable: 'mix', in: ['0'] }] };
    const acts = [some];
    expect(withoutIdle(acts, domainOf)).toBe(acts);
    expect(withoutIdle([{ ...some, when: [{ variable: 'mix', in: ['0', '2'] }] }], () => undefined)).toHaveLength(1);
  });

  it('leaves every state as the whole event leaves it', () => {
    fc.assert(
      fc.property(randomSystem, fc.nat(2 ** 20), (system, start) => {
        const domains = new Map(system.variables.map((v) => [v.id, v.domain]));
        const acts = system.events.flatMap((e) => e.acts);
        const state = Object.fromEntries(
          system.variables.map((v, i) => [v.id, v.domain[(start >> i) % v.domain.length]!]),
        );
        const brief = withoutIdle(acts, (variable) => domains.get(variable));
        expect(afterEvent({ id: 'brief', acts: brief }, state)).toEqual(afterEvent({ id: 'whole', acts }, state));
        expect(withoutIdle(brief, (variable) => domains.get(variable))).toBe(brief);
      }),
      { numRuns: 2000 },
    );
  });
});

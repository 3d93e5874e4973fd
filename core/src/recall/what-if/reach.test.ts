import { often } from '../../../testing/often.js';
import fc from 'fast-check';
import { randomSystem } from '../../../testing/random-system.js';
import { prove, type Verdict } from '../../prover/prove.js';
import { apart, Influence, wantedIn, type Extra } from './reach.js';

const said = (v: Verdict | undefined) =>
  v?.is === 'broken' ? Object.fromEntries(v.wrong.map((w) => [w.variable, w.length])) : {};

test('a system with more that can happen, told as several that share nothing, has the verdicts and lengths of the whole', () => {
  fc.assert(
    fc.property(randomSystem, (system) => {
      const extra = system.events.filter((e) => e.id.startsWith('other:') && !e.when?.length);
      const base = { ...system, events: system.events.filter((e) => !extra.includes(e)) };
      const reach = new Influence(system, wantedIn(system.sounds));
      const extras = extra.map((e): Extra => ({
        id: e.id,
        matters: reach.from(e.acts.map((a) => a.variable)),
        acts: (inside) => e.acts.filter((a) => inside.has(a.variable)),
      }));
      const [whole, without] = [prove(system), prove(base)];
      const parts = apart(base, extras, system.sounds, reach).map((s) => prove(s));
      const touched = new Set(extras.flatMap((e) => [...e.matters]));
      for (const { id } of system.sounds) {
        const untouched = Object.fromEntries(Object.entries(said(without.get(id))).filter(([v]) => !touched.has(v)));
        expect(Object.assign({}, untouched, ...parts.map((p) => said(p.get(id))))).toEqual(said(whole.get(id)));
      }
    }),
    { numRuns: often(500) },
  );
});

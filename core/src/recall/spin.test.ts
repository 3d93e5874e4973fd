import { randomRig } from '../../testing/random-rig.js';
import { askSpin } from '../../testing/spin.js';
import { proveRig } from '../../testing/walk.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { partOf } from '../rig/rig.js';
import { conesOf, writersOf } from './cone.js';
import { prove } from './prove.js';
import { coneSystem } from './reduce.js';
import type { RecallSystem } from './system.js';

/** Systems that Yunta exports from rigs, each cut to the widest cone of a sound so that SPIN can search it whole. */
const exported = (): readonly (readonly [string, RecallSystem])[] => {
  const demo = islandRun();
  const rigs = [['the demo rig', { rig: demo, hookup: partOf(demo, BALLROOM_ID)! }] as const, ...Array.from({ length: 60 }, (_, i) => [`random rig ${i + 1}`, randomRig(i + 1)] as const)];
  const found = rigs.flatMap(([name, { rig, hookup }]): (readonly [string, RecallSystem, number])[] => {
    const { modelled: { system } } = proveRig(rig, hookup);
    const cones = conesOf(system, writersOf(system), new Set(system.sounds.flatMap((s) => s.wants.map((w) => w.variable))));
    const wants = system.sounds.flatMap((s) => s.wants.map((w) => ({ sound: s.id, variable: w.variable, size: cones.get(w.variable)!.length })));
    return wants.filter((w) => w.size <= 9).sort((a, b) => b.size - a.size).slice(0, 2).map((w) => [`${name}, ${w.sound}, ${w.variable}`, coneSystem(system, w.sound, w.variable), w.size]);
  });
  return found.sort((a, b) => b[2] - a[2]).slice(0, 12).map(([name, system]) => [name, system]);
};

const said = (system: RecallSystem) => [...prove(system)].map(([id, v]) => [id, v.is === 'broken'
  ? { verdict: 'broken', length: v.length, variables: Object.fromEntries(v.wrong.map((w) => [w.variable, w.length])) } : { verdict: v.is }]);

/** Reference: SPIN (Debian package spin), run here and now. */
describe('SPIN itself, on systems exported from rigs', () => {
  const systems = exported();
  test('there are at least a dozen, and the widest spans more than four controls', () => {
    expect(systems.length).toBeGreaterThanOrEqual(12);
    expect(systems[0]![1].variables.length).toBeGreaterThan(4);
  });
  test.each(systems)('%s', (_, system) => expect([...askSpin(system)]).toEqual(said(system)), 120_000);
});

describe('a system cut to its cone', () => {
  test('keeps every verdict and length', () => {
    for (let seed = 1; seed <= 25; seed += 1) {
      const { rig, hookup } = randomRig(seed);
      const { modelled: { system }, verdicts } = proveRig(rig, hookup);
      for (const [id, verdict] of verdicts) {
        const cut = prove(coneSystem(system, id)).get(id)!;
        expect([seed, id, cut.is, cut.is === 'broken' && cut.length]).toEqual([seed, id, verdict.is, verdict.is === 'broken' && verdict.length]);
      }
    }
  });
});

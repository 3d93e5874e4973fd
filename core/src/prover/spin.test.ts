import { often } from '../../testing/often.js';
import { randomModeller } from '../../testing/random-modeller.js';
import { randomRig } from '../../testing/random-rig.js';
import { SMALL } from '../../testing/small-rig.js';
import { askSpin } from '../../testing/spin.js';
import { proveRig } from '../../testing/walk.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { partOf } from '../rig/rig.js';
import { conesOf, writersOf } from './cone.js';
import { prove } from './prove.js';
import { coneSystem } from './reduce.js';
import type { RecallSystem } from './system.js';
import { QUESTIONS } from '../recall/what-if/what-if.js';

const MOST = often(12);

interface Exported {
  readonly name: string;
  readonly system: RecallSystem;
  readonly size: number;
}

/** A system cut to single wants of its sounds, the widest first, none so wide that SPIN could not search it whole. */
const cutFrom = (name: string, system: RecallSystem, most: number): readonly Exported[] => {
  const cones = conesOf(
    system,
    writersOf(system),
    new Set(system.sounds.flatMap((s) => s.wants.map((w) => w.variable))),
  );
  const wants = system.sounds.flatMap((s) =>
    s.wants.map((w) => ({ sound: s.id, variable: w.variable, size: cones.get(w.variable)!.length })),
  );
  return wants
    .filter((w) => w.size <= 9)
    .sort((a, b) => b.size - a.size)
    .slice(0, most)
    .map((w) => ({
      name: `${name}, ${w.sound}, ${w.variable}`,
      system: coneSystem(system, w.sound, w.variable),
      size: w.size,
    }));
};

/** Systems that Yunta exports from rigs, and those of its further questions, whose judged events are the last. */
const exported = (): readonly (readonly [string, RecallSystem])[] => {
  const demo = islandRun();
  const rigs = [
    ['the demo rig', { rig: demo, hookup: partOf(demo, BALLROOM_ID)! }] as const,
    ...Array.from({ length: 60 + MOST }, (_, i) => [`random rig ${i + 1}`, randomRig(i + 1)] as const),
  ];
  const usual: Exported[] = [];
  const further: Exported[] = [];
  for (const [name, { rig, hookup }] of rigs) {
    const { compilation, modelled } = proveRig(rig, hookup);
    usual.push(...cutFrom(name, modelled.system, 2));
    for (const { about, ask } of QUESTIONS.filter((q) => q.about !== 'turned knob'))
      further.push(
        ...ask(compilation, modelled)
          .systems.slice(0, 1)
          .flatMap((s) => cutFrom(`${about} in ${name}`, s, 1)),
      );
  }
  const widest = (found: readonly Exported[], most: number) =>
    [...found].sort((a, b) => b.size - a.size).slice(0, most);
  return [...widest(usual, Math.ceil(MOST * 0.6)), ...widest(further, Math.floor(MOST * 0.4))].map(
    ({ name, system }) => [name, system],
  );
};

const said = (system: RecallSystem) =>
  [...prove(system)].map(([id, v]) => [
    id,
    v.is === 'broken'
      ? {
          verdict: 'broken',
          length: v.length,
          variables: Object.fromEntries(v.wrong.map((w) => [w.variable, w.length])),
        }
      : { verdict: v.is },
  ]);

/** Reference: SPIN (Debian package spin), run here and now. */
describe('SPIN itself, on systems exported from rigs', () => {
  const systems = exported();
  test('there are as many as asked for, a dozen at least, and the widest spans more than four controls', () => {
    expect(systems.length).toBe(MOST);
    expect(MOST).toBeGreaterThanOrEqual(12);
    expect(systems.some(([, s]) => s.events.some((e) => e.last))).toBe(true);
    expect(systems[0]![1].variables.length).toBeGreaterThan(4);
  });
  test.each(systems)('%s', (_, system) => expect([...askSpin(system)]).toEqual(said(system)), 120_000);
});

/** Boxes that call their own presets and scenes, and send to others. */
const ofModellers = (): readonly (readonly [string, RecallSystem])[] => {
  const found = Array.from({ length: MOST * 3 }, (_, i) => {
    const rig = randomModeller(i + 1);
    return cutFrom(`modeller ${i + 1}`, proveRig(rig, partOf(rig, SMALL)!).modelled.system, 3);
  }).flat();
  return [...found]
    .sort((a, b) => b.size - a.size)
    .slice(0, MOST)
    .map(({ name, system }) => [name, system]);
};

describe('SPIN itself, on systems of boxes with presets and scenes of their own', () => {
  const systems = ofModellers();
  test('there are as many as asked for', () => expect(systems).toHaveLength(MOST));
  test.each(systems)('%s', (_, system) => expect([...askSpin(system)]).toEqual(said(system)), 120_000);
});

describe('a system cut to its cone', () => {
  test('keeps every verdict and length', () => {
    for (let seed = 1; seed <= 25; seed += 1) {
      const { rig, hookup } = randomRig(seed);
      const {
        modelled: { system },
        verdicts,
      } = proveRig(rig, hookup);
      for (const [id, verdict] of verdicts) {
        const cut = prove(coneSystem(system, id)).get(id)!;
        expect([seed, id, cut.is, cut.is === 'broken' && cut.length]).toEqual([
          seed,
          id,
          verdict.is,
          verdict.is === 'broken' && verdict.length,
        ]);
      }
    }
  });
});

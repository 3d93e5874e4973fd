import { often } from '../../testing/often.js';
import { withParts } from '../../testing/after.js';
import { randomGear } from '../../testing/random-gear.js';
import { Random } from '../../testing/random.js';
import { randomRig } from '../../testing/random-rig.js';
import { proveRig } from '../../testing/walk.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import type { Part, Rig } from '../rig/rig.js';
import { all } from '../rig/rig.js';
import { wrongInSystem } from '../prover/system.js';

const SEEDS = often(50);
const BUDGET = 3_000;

/**
 * Numbers that some sound wants: what such a program holds is part of what is wanted, and not only of what is known.
 */
const wantedNumbers = (rig: Rig): ReadonlySet<string> =>
  new Set(
    all(rig, 'sound').flatMap((s) =>
      s.wants.flatMap((w) => ('control' in w && 'is' in w ? [`${w.control} ${String(w.is)}`] : [])),
    ),
  );

/** One thing less that is known: how a control wakes, or what a program holds. */
const lessCertain = (rig: Rig, r: Random): Part | undefined => {
  const wanted = wantedNumbers(rig);
  const fixed = all(rig, 'device').flatMap((d) =>
    d.controls
      .filter(
        (c) =>
          typeof c.powerUp === 'object' && !d.memories.some((m) => m.control === c.id && m.by) && c.use === 'sound',
      )
      .map((c): Part => ({
        ...d,
        controls: d.controls.map((x) => (x === c ? { ...x, powerUp: 'unknown' as const } : x)),
      })),
  );
  const written = all(rig, 'program')
    .filter(
      (p) =>
        !wanted.has(`${p.device}.program ${p.number}`) &&
        p.contents !== 'unplanned' &&
        Object.keys(p.contents).length > 0,
    )
    .map((p): Part => {
      const { [r.pick(Object.keys(p.contents))]: _, ...rest } = p.contents as Record<string, string | number>;
      return { ...p, contents: rest };
    });
  const choices = [...fixed, ...written];
  return choices.length ? r.pick(choices) : undefined;
};

test(`less certainty never gives a better verdict: ${SEEDS} rigs, one thing less known in each`, () => {
  let compared = 0;
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const { rig, hookup } = randomGear(seed);
    const part = lessCertain(rig, new Random(seed));
    if (!part) continue;
    const [before, later] = [proveRig(rig, hookup, BUDGET), proveRig(withParts(rig, part), hookup, BUDGET)];
    for (const [sound, verdict] of before.verdicts) {
      if (verdict.is !== 'broken') continue;
      compared += 1;
      expect([seed, part.id, sound, later.verdicts.get(sound)!.is]).not.toEqual([seed, part.id, sound, 'proved']);
    }
  }
  expect(compared).toBeGreaterThan(SEEDS / 2);
});

test('what is written out as a recall system is one that can be proved', () => {
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const gear = randomGear(seed);
    expect([seed, wrongInSystem(proveRig(gear.rig, gear.hookup, 1).modelled.system)]).toEqual([seed, []]);
    const owned = randomRig(seed);
    expect([seed, wrongInSystem(proveRig(owned.rig, owned.hookup, 1).modelled.system)]).toEqual([seed, []]);
  }
  for (const { make } of DEMO_RIGS)
    for (const hookup of all(make(), 'hookup'))
      expect(wrongInSystem(deriveOnce(make(), hookup.id)!.modelled.system)).toEqual([]);
});

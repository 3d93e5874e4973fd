import { fieldsOf, partsOf, usedFields } from '@yunta/core/testing/coverage';
import { coneSystem } from '@yunta/core/prover/reduce';
import { prove } from '@yunta/core/prover/prove';
import type { RecallSystem } from '@yunta/core/prover/system';
import { Random } from '@yunta/core/testing/random';
import { randomGear } from '@yunta/core/testing/random-gear';
import { askSpin } from '@yunta/core/testing/spin';
import { proveRig, replayAll, walk } from '@yunta/core/testing/walk';
import { print } from '../say.js';
import { surely } from '@yunta/core/known/the';

/** States of a cone: these rigs are small, and those that are not are left undecided. */
const BUDGET = 3_000;
/** SPIN takes no step as long as a large system has, and holds every state apart; larger systems are not asked. */
const MOST_EVENTS = 60;
const MOST_VARIABLES = 60;
const MOST_STATES = 400_000;
const fitsSpin = ({ events, variables }: RecallSystem): boolean =>
  events.length <= MOST_EVENTS &&
  variables.length <= MOST_VARIABLES &&
  variables.reduce((product, v) => product * v.domain.length, 1) <= MOST_STATES;

/** Up to two of a rig: of a sound's wants the one that rests on most, as far as SPIN can take it. */
const conesFor = (system: RecallSystem): readonly RecallSystem[] =>
  system.sounds
    .flatMap((sound) =>
      sound.wants
        .slice(0, 6)
        .map((want) => coneSystem(system, sound.id, want.variable))
        .filter(fitsSpin)
        .sort((x, y) => y.variables.length - x.variables.length)
        .slice(0, 1),
    )
    .slice(0, 2);

interface Amounts {
  readonly stomps: number;
  readonly perRig: number;
  readonly systems: number;
}

/**
 * Boxes that do all that boxes can, at random: bench against prover, prover against SPIN, and which fields of the
 * model the rigs used.
 * @returns how often two of them disagreed
 */
export const measureGear = ({ stomps, perRig, systems }: Amounts): number => {
  const rigs = Math.ceil(stomps / perRig);
  const [kinds, used] = [
    ['device', 'program', 'hookup', 'sound', 'move'] as const,
    new Map<string, Map<string, Set<string>>>(),
  ];
  const [counts, began] = [{ contradictions: 0, recalls: 0, replayed: 0, asked: 0, differing: 0 }, performance.now()];
  for (let seed = 1; seed <= rigs; seed += 1) {
    const { rig, hookup } = randomGear(seed);
    const proved = proveRig(rig, hookup, BUDGET);
    const walked = walk(proved, new Random(seed), perRig);
    const played = replayAll(proved);
    counts.contradictions += walked.contradictions.length + played.contradictions.length;
    counts.recalls += walked.recalls;
    counts.replayed += played.replayed;
    for (const kind of kinds) {
      const known = used.get(kind) ?? new Map<string, Set<string>>();
      used.set(kind, known);
      for (const [field, values] of usedFields(partsOf([rig], kind))) {
        const all = known.get(field) ?? new Set();
        values.forEach((v) => all.add(v));
        known.set(field, all);
      }
    }
    for (const system of counts.asked < systems ? conesFor(proved.modelled.system) : []) {
      if (counts.asked >= systems) break;
      const [ours, theirs] = [prove(system), askSpin(system)];
      counts.asked += 1;
      for (const [id, verdict] of theirs) if (surely(ours.get(id)).is !== verdict.verdict) counts.differing += 1;
    }
  }
  print(
    `${rigs} rigs, ${(rigs * perRig).toLocaleString('en')} stomps: ${counts.recalls.toLocaleString('en')} recalls judged, ${counts.replayed} counterexamples replayed, ${counts.contradictions} contradictions, ${((performance.now() - began) / 1000).toFixed(0)} s`,
  );
  print(`${counts.asked} systems asked of SPIN as well: ${counts.differing} verdicts differ`);
  print('Fields that the rigs used, with how many different values; fields that no rig used are marked with a dash');
  for (const kind of kinds) {
    const fields = [...fieldsOf(kind, new Set(['chains', 'jacks', 'ends', 'figures', 'place']))];
    print(`  ${kind}: ${fields.map((f) => `${f} ${used.get(kind)?.get(f)?.size ?? '–'}`).join(', ')}`);
  }
  return counts.contradictions + counts.differing;
};

import { setUpBench, takeStep, wrongOnBench } from '../src/derive/play/play.js';
import type { Hookup } from '../src/rig/hookup.js';
import type { Id, Ref } from '../src/rig/ids.js';
import type { Rig } from '../src/rig/rig.js';
import { bearings } from '../src/recall/actuate/bearings.js';
import { compile, isServedBy, type Compilation } from '../src/recall/actuate/compile.js';
import type { HandMove } from '../src/recall/intend/compiled.js';
import { isOther, UNKNOWN } from '../src/recall/model/domains.js';
import { model, type Modelled } from '../src/recall/model/model.js';
import { prove, type Verdict } from '../src/prover/prove.js';
import { sparing } from '../src/recall/verdict/spared.js';
import { afterEvent, canHappen, type SystemState } from '../src/prover/system.js';
import type { Random } from './random.js';

export interface Proved {
  readonly compilation: Compilation;
  readonly modelled: Modelled;
  readonly verdicts: ReadonlyMap<string, Verdict>;
}

export const proveRig = (rig: Rig, hookup: Hookup, budget?: number): Proved => {
  const compiled = compile(bearings(rig, hookup));
  const modelled = model(compiled);
  return { compilation: sparing(compiled, modelled), modelled, verdicts: prove(modelled.system, budget) };
};

export const randomPowerUp = ({ modelled: { system } }: Proved, random: Random): SystemState => {
  const state: Record<string, string> = Object.fromEntries(system.variables.map((v) => [v.id, random.pick(v.initial)]));
  for (const group of system.together ?? []) {
    const row = random.pick(group.rows);
    group.variables.forEach((v, i) => {
      state[v] = row[i]!;
    });
  }
  return state;
};

/**
 * Contradictions between prover and bench that a random walk meets: a proved want that ends wrong. Also says where the
 * model and the bench part ways.
 */
export const walk = (
  proved: Proved,
  random: Random,
  stomps: number,
): { readonly contradictions: readonly string[]; readonly recalls: number } => {
  const {
    modelled: { system, steps, isEndless },
    verdicts,
  } = proved;
  const contradictions: string[] = [];
  if (isEndless) return { contradictions, recalls: 0 };
  const spared = sparedMoves(proved.compilation);
  let state = randomPowerUp(proved, random);
  const bench = setUpBench(proved, state, false);
  const recalls = system.events.filter((e) => steps.get(e.id)!.does === 'recall');
  let judged = 0;
  for (let n = 0; n < stomps && contradictions.length === 0; n += 1) {
    const event = random.chance(50)
      ? random.pick(recalls)
      : random.pick(system.events.filter((e) => canHappen(e, state)));
    const step = steps.get(event.id)!;
    state = afterEvent(event, state);
    takeStep(proved, bench, step);
    for (const v of system.variables) {
      if (!v.id.startsWith('device:')) continue;
      const shown = String(bench.value(v.id as Ref));
      const same =
        state[v.id] === shown || state[v.id] === UNKNOWN || (isOther(state[v.id]!) && !v.domain.includes(shown));
      if (!same)
        contradictions.push(
          `after ${n + 1} steps, last ${event.id}: ${v.id} is ${shown} on the bench, ${state[v.id]} in the system`,
        );
    }
    if (step.does !== 'recall') continue;
    judged += 1;
    const verdict = verdicts.get(step.sound)!;
    const may = verdict.is === 'broken' ? [...verdict.wrong.map((w) => w.variable), ...(verdict.open ?? [])] : [];
    for (const wrong of wrongOnBench(proved, bench, step.sound)) {
      if (verdict.is !== 'undecided' && !may.includes(wrong))
        contradictions.push(`${step.sound} ends with ${wrong} wrong, which was proved right`);
    }
    for (const move of spared.get(step.sound) ?? []) {
      if (!isServedBy(move, bench.value(move.control)))
        contradictions.push(`${step.sound} ends with ${move.control} out of its range, which nobody had to set`);
    }
  }
  return { contradictions, recalls: judged };
};

/** By sound, the hand moves that nobody has to make: the control serves over a range, and stays in it. */
export const sparedMoves = ({ sounds, spared }: Compilation): ReadonlyMap<Id<'sound'>, readonly HandMove[]> =>
  new Map(
    [...(spared ?? [])].map(([sound, controls]) => [
      sound,
      sounds.get(sound)!.hand.filter((move) => controls.has(move.control)),
    ]),
  );

/** Plays every counterexample on the bench: it must end wrong in just that control. */
export const replayAll = (
  proved: Proved,
): { readonly contradictions: readonly string[]; readonly replayed: number } => {
  const contradictions: string[] = [];
  let replayed = 0;
  for (const [sound, verdict] of proved.verdicts) {
    if (verdict.is !== 'broken' || proved.modelled.isEndless) continue;
    for (const wrong of verdict.wrong) {
      const { powerUp, events } = wrong.example();
      if (events.some((id) => proved.modelled.anyhow.has(id))) continue;
      const bench = setUpBench(proved, powerUp, false);
      for (const id of events) takeStep(proved, bench, proved.modelled.steps.get(id)!);
      if (!wrongOnBench(proved, bench, sound).includes(wrong.variable as Ref))
        contradictions.push(`${sound}: ${events.join(', ')} leaves ${wrong.variable} right on the bench`);
      replayed += 1;
    }
  }
  return { contradictions, replayed };
};

import { apply } from '@yunta/core/change/apply';
import { BALLROOM_ID, islandRun } from '@yunta/core/demo/island-run';
import { judge } from '@yunta/core/checks/settle';
import { setUpBench, takeStep } from '@yunta/core/derive/play/play';
import { coneSystem } from '@yunta/core/prover/reduce';
import { NO_DIALS } from '@yunta/core/dials/dial-cards';
import { reply } from '@yunta/core/recall/what-if/question';
import { QUESTIONS } from '@yunta/core/recall/what-if/what-if';
import { Deriver } from '@yunta/core/derive/steps/deriver';
import { setWant } from '@yunta/core/edits/sounds';
import { type Bearings, bearings } from '@yunta/core/recall/actuate/bearings';
import { compile } from '@yunta/core/recall/actuate/compile';
import { model } from '@yunta/core/recall/model/model';
import { prove, ProofMemory, USUAL_BUDGET } from '@yunta/core/prover/prove';
import type { RecallSystem } from '@yunta/core/prover/system';
import { partOf, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { StageWant } from '@yunta/core/rig/sound';
import { trace } from '@yunta/core/signal/graph/trace';
import { graphOf, sidesFrom } from '@yunta/core/testing/by-graphology';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { Random } from '@yunta/core/testing/random';
import { randomRig } from '@yunta/core/testing/random-rig';
import { askSpin } from '@yunta/core/testing/spin';
import { hurrying, losing, walkAstray } from '@yunta/core/testing/mishaps';
import { whatIf } from '@yunta/core/recall/what-if/what-if';
import { proveRig, replayAll, walk } from '@yunta/core/testing/walk';
import { powerUpStates, proveByWholeStates } from '@yunta/core/testing/whole-states';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { print } from '../say.js';
import { growth } from './growth.js';
import { measureGear } from './gear.js';
import { measureLevels, measureLoading } from './loading.js';
import { measureBuildAndRoad, measurePlans } from './plans.js';
import { type Compiled } from '@yunta/core/recall/intend/compiled';
import { surely } from '@yunta/core/known/the';

/** Enough that a process is warm and that the median says what the work takes, not what else the machine was doing. */
const RUNS = 25;

/** How long each of several runs takes, in ms, the shortest first. */
const times = (run: () => unknown, runs = RUNS): readonly number[] =>
  Array.from({ length: runs }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  }).sort((a, b) => a - b);
const middle = (of: readonly number[]): number => surely(of[Math.floor(of.length / 2)]);
const median = (run: () => unknown, runs = RUNS): number => middle(times(run, runs));

const ms = (n: number): string => `${n < 10 ? n.toFixed(2) : n.toFixed(1)} ms`;
const row = (name: string, figure: string, beside = ''): void =>
  print(`${name.padEnd(46)} ${figure.padStart(12)}   ${beside}`);
/** The median, and the shortest beside it: how far they are apart is what else the machine was doing. */
const timed = (name: string, run: () => unknown, runs = RUNS): readonly number[] => {
  const took = times(run, runs);
  row(name, ms(middle(took)), `shortest ${ms(surely(took[0]))}`);
  return took;
};

/** One sound changed: a stage that was out is taken in, or the other way about. */
const edited = (rig: Rig, n: number): Rig => {
  const sounds = soundsInOrder(rig);
  const sound = surely(sounds[n % sounds.length]);
  const want = surely(sound.wants.find((w): w is StageWant => 'stage' in w && !w.stage.includes('hed')));
  const applied = apply(rig, setWant(sound, { stage: want.stage, is: want.is === 'in' ? 'out' : 'in' }));
  return applied.ok ? applied.value.rig : rig;
};

/** Last, because the graphs fill the memory of everything that is measured after them. */
const besideGraphology = (
  rig: Rig,
  hookup: Hookup,
  b: Bearings,
  compiled: readonly Compiled[],
  traced: number,
): void => {
  const byGraphology = median(
    () =>
      compiled.forEach((c) => {
        const graph = graphOf(rig, hookup, c.state).graph;
        for (const source of b.anatomy.wiring.sources)
          sidesFrom(graph, `${source.device} ${source.ref.slice(source.device.length + 1)}`);
      }),
    3,
  );
  row(
    'trace of all sounds, the same by graphology',
    ms(byGraphology),
    `${(byGraphology / traced).toFixed(0)} times as long`,
  );
};

const measure = (title: string, rig: Rig, hookup: Hookup): void => {
  const b = bearings(rig, hookup);
  const compilation = compile(b);
  const modelled = model(compilation);
  const verdicts = prove(modelled.system);
  const count = (is: string) => [...verdicts.values()].filter((v) => v.is === is).length;
  const controls = [...rig.parts.device.values()].reduce((n, d) => n + d.controls.length, 0);
  print(
    `\n${title}: ${rig.parts.sound.size} sounds, ${rig.parts.device.size} devices, ${controls} controls, ${rig.parts.move.size} moves; system of ${modelled.system.variables.length} variables, ${modelled.system.events.length} events; ${count('proved')} proved, ${count('broken')} broken, ${count('undecided')} undecided`,
  );
  const compiled = [...compilation.sounds.values()];
  const traced = median(() => compiled.forEach((c) => trace(b.anatomy.wiring, c.state)));
  row('trace of all sounds', ms(traced));
  timed('anatomy and wiring', () => bearings(rig, hookup));
  timed('compile', () => compile(b));
  timed('model', () => model(compilation));
  timed('prove, cold', () => prove(modelled.system));
  timed('whole pipeline, cold', () => new Deriver().derive(rig, hookup.id));
  const memory = new ProofMemory();
  prove(modelled.system, USUAL_BUDGET, memory);
  const editing = new Deriver();
  editing.derive(rig, hookup.id);
  let later = rig;
  const changed = Array.from(
    { length: RUNS },
    (_, k) => surely(editing.derive((later = edited(later, k + 1)), hookup.id)).modelled.system,
  );
  let at = 0;
  timed('prove, after one edit', () => prove(surely(changed[at++ % changed.length]), USUAL_BUDGET, memory));
  timed('findings, of sounds looked at before', () =>
    judge({ rig, hookup, compilation, modelled, verdicts: new Map(verdicts), dials: NO_DIALS }),
  );
  const deriver = new Deriver();
  deriver.derive(rig, hookup.id);
  let last = rig;
  const edits = Array.from({ length: 41 }, (_, k) => (last = edited(last, k + 1)));
  let n = 0;
  timed('whole pipeline, after one edit', () => deriver.derive(surely(edits[n++]), hookup.id), edits.length);
  const questions = QUESTIONS.map(({ about, ask }) =>
    timed(`and if: ${about}`, () => reply(ask(compilation, modelled), verdicts), 5),
  );
  row(
    'all of what the usual proof leaves out',
    ms(questions.reduce((sum, q) => sum + middle(q), 0)),
    `shortest ${ms(questions.reduce((sum, q) => sum + surely(q[0]), 0))}`,
  );
  besideGraphology(rig, hookup, b, compiled, traced);
};

print(
  `Medians of ${RUNS} runs one after the other in one process, unless a row says otherwise, with the shortest beside them.`,
);
const demo = islandRun();
measure('Demo', demo, surely(partOf(demo, BALLROOM_ID)));
const giant = giantRig();
measure('Giant', giant.rig, giant.hookup);

growth();
measureLoading();
measureLevels();
await measurePlans();
await measureBuildAndRoad();

print(
  '\nProver beside a plain breadth-first search over whole states, on the largest reference system that it can hold',
);
const reference = (
  JSON.parse(readFileSync(resolve(import.meta.dirname, '../../../core/testing/reference/recall.json'), 'utf8')) as {
    cases: (RecallSystem & { id: string; productStates: number })[];
  }
).cases;
const largest = surely(
  reference
    .filter((c) => c.productStates <= 60_000 && powerUpStates(c).length <= 60_000)
    .sort((a, b) => b.productStates - a.productStates)[0],
);
row(
  `${largest.id}, ${largest.productStates} states`,
  ms(median(() => prove(largest))),
  `whole states: ${ms(median(() => proveByWholeStates(largest), 3))}`,
);

print('\nProver, SPIN and whole states on the same systems of the demo rig, each cut to one want of a sound');
const proved = proveRig(demo, surely(partOf(demo, BALLROOM_ID)));
for (const sound of proved.modelled.system.sounds.slice(0, 3)) {
  const system = coneSystem(proved.modelled.system, sound.id, surely(sound.wants.at(-1)).variable);
  const began = performance.now();
  askSpin(system);
  const spin = performance.now() - began;
  row(
    `${sound.id}, ${system.variables.length} variables, ${system.events.length} events`,
    ms(median(() => prove(system))),
    `SPIN with its C compiler ${ms(spin)}, whole states ${ms(median(() => proveByWholeStates(system), 3))}`,
  );
}

print('\nThe bench beside real time');
{
  const bench = setUpBench(proved, {}, false);
  const recalls = [...proved.modelled.steps.values()].filter((s) => s.does === 'recall');
  const began = performance.now();
  for (let n = 0; n < 4000; n += 1) takeStep(proved, bench, surely(recalls[n % recalls.length]));
  const took = performance.now() - began;
  row(
    '4,000 recalls of the demo, bytes and load gaps',
    ms(took),
    `${(bench.now / 1000 / took).toFixed(0)} times as fast as the rig itself`,
  );
}

const STOMPS = 1_000_000;
/**
 * Of these with faults: messages lost before the stomp that is judged, or two stomps as close together as is said to
 * be right.
 */
const FAULTY = 200_000;
const RIGS = 400;
print(`\nBench against prover: ${STOMPS.toLocaleString('en')} random stomps over ${RIGS} random rigs`);
const began = performance.now();
let contradictions = 0;
let judged = 0;
let replayed = 0;
let faulty = 0;
/** The one that goes astray and the one that is judged, and now and then a foot in between. */
const STOMPS_A_ROUND = 2.4;
for (let seed = 1001; seed <= 1000 + RIGS; seed += 1) {
  const { rig, hookup } = randomRig(seed);
  const proved = proveRig(rig, hookup);
  const walked = walk(proved, new Random(seed), (STOMPS - FAULTY) / RIGS);
  for (const [about, go] of [
    ['lost message', losing],
    ['hasty feet', hurrying],
  ] as const) {
    const reply = whatIf(about, proved.compilation, proved.modelled, proved.verdicts);
    const rounds = Math.ceil(FAULTY / RIGS / 2 / STOMPS_A_ROUND);
    contradictions += walkAstray(proved, reply, new Random(seed), rounds, go(reply)).length;
    judged += rounds;
    faulty += rounds;
  }
  const played = replayAll(proved);
  contradictions += walked.contradictions.length + played.contradictions.length;
  judged += walked.recalls;
  replayed += played.replayed;
}
row(
  'contradictions',
  String(contradictions),
  `${judged.toLocaleString('en')} recalls judged, ${faulty.toLocaleString('en')} of them after a fault, ${replayed} counterexamples replayed, ${((performance.now() - began) / 1000).toFixed(0)} s`,
);

print('\nThe same with boxes that do all that boxes can');
const disagreed = measureGear({ stomps: Number(process.env.YUNTA_GEAR_STOMPS ?? STOMPS), perRig: 5_000, systems: 200 });
process.exitCode = contradictions + disagreed === 0 ? 0 : 1;

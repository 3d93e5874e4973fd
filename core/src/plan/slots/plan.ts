import type { Solver } from '../solver.js';
import { callsIn, costOf, faultsIn, usedSounds, type SlotPlace, type SlotsCost, type SlotsProblem } from './problem.js';
import { slotsProgramme, standsIn } from './programme.js';
import { searchSlots, type SearchEffort } from './search.js';

export interface SlotsPlan extends SlotsCost {
  readonly places: readonly SlotPlace[];
  /** No placement needs fewer stomps than this, as far as it is proved. */
  readonly bound: number;
}

/** What is known so far, told now and then; whoever asked may stop and keep it. */
export type PlanProgress = Pick<SlotsPlan, 'places' | 'stomps' | 'bankPresses' | 'bound'>;

/** First a quick look, then what the solver proves, then a long search where the two do not meet. */
const QUICK: SearchEffort = { moves: 100_000, descents: 4 };
const LONG_DESCENTS = 26;
const MOVES_PER_SOUND = 12_000;
const MOST_MOVES = 400_000;
/** A bound is a whole number of stomps; the solver's last digits are not. */
const ROUNDING = 1e-4;

/**
 * Puts sounds on banks and switches so that the songs need the fewest stomps. Tells what it has after each step.
 * @param solver proves how few are possible; without it only what every placement needs is known
 * @param seconds for the solver
 * @returns undefined when there are more sounds than slots, or none was found that leaves apart what must be
 */
export const planSlots = function* (
  problem: SlotsProblem,
  solver?: Solver,
  seconds = 5,
): Generator<PlanProgress, SlotsPlan | undefined, void> {
  let best = yield* better(problem, undefined, QUICK, callsIn(problem.songs));
  if (best) yield best;
  if (solver && (!best || best.stomps > best.bound)) {
    const { bound, value } = solver(slotsProgramme(problem), seconds);
    const proved = Math.max(best?.bound ?? -Infinity, Math.ceil(bound - ROUNDING));
    const found = cheaper(problem, best, value && placesOf(problem, value));
    best = found && { ...found, bound: proved };
    if (best) yield best;
  }
  if (best && best.stomps > best.bound) {
    const moves = Math.min(MOST_MOVES, MOVES_PER_SOUND * problem.sounds);
    best = yield* better(problem, best, { moves, descents: LONG_DESCENTS }, best.bound);
  }
  return best;
};

const better = function* (
  problem: SlotsProblem,
  before: SlotsPlan | undefined,
  effort: SearchEffort,
  bound: number,
): Generator<PlanProgress, SlotsPlan | undefined, void> {
  const search = searchSlots(problem, { ...effort, floor: bound });
  for (let step = search.next(); ; step = search.next()) {
    if (step.done) {
      if (!step.value) return before;
      const found = { places: step.value, ...costOf(problem, step.value), bound };
      return before && before.stomps <= found.stomps ? { ...before, bound } : found;
    }
    if (before) yield before;
  }
};

const cheaper = (
  problem: SlotsProblem,
  before: SlotsPlan | undefined,
  places: readonly SlotPlace[] | undefined,
): SlotsPlan | undefined => {
  if (!places || faultsIn(problem, places) > 0) return before;
  const cost = costOf(problem, places);
  return before && before.stomps <= cost.stomps ? before : { bound: -Infinity, ...before, ...cost, places };
};

/** A solution of the programme as places, each sound on the next free switch of its bank. */
const placesOf = (problem: SlotsProblem, value: (variable: string) => number): readonly SlotPlace[] => {
  const { banks, switches, pinned = [] } = problem;
  const places: SlotPlace[] = [...pinned];
  for (let bank = 0; bank < banks; bank += 1) {
    const free = Array.from({ length: switches }, (_, k) => k).filter(
      (k) => !pinned.some(([, b, s]) => b === bank && s === k),
    );
    for (const sound of usedSounds(problem)) {
      const isThere = pinned.some(([s, b]) => s === sound && b === bank);
      const next = value(standsIn(sound, bank)) > 0.5 && !isThere ? free.shift() : undefined;
      if (next !== undefined) places.push([sound, bank, next]);
    }
  }
  return places;
};

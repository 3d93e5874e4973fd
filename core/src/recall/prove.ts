import { conesOf, writersOf } from './cone.js';
import { coneKey, powerUpTexts, project, writersText, type ConeKey } from './projection.js';
import { search, type Outcome, type Searched, type Way } from './search.js';
import type { RecallSystem, SystemState, Variable } from './system.js';

/** States searched in one cone before it is called undecided. */
export const USUAL_BUDGET = 5_000_000;

export interface Footsteps {
  readonly powerUp: SystemState;
  /** Ids of events; the last is the sound's recall. */
  readonly events: readonly string[];
}

export type Verdict =
  | { readonly is: 'proved' }
  | { readonly is: 'broken'; readonly length: number; readonly wrong: readonly WrongWant[] }
  | { readonly is: 'undecided'; readonly because: string };

export interface WrongWant {
  readonly variable: string;
  readonly wanted: string;
  /** Length of the shortest sequence that ends with this want wrong. */
  readonly length: number;
  readonly example: () => Footsteps;
}

interface ConeProof {
  readonly key: ConeKey;
  readonly result: Searched;
}

/** What was searched before, by cone: a proof after an edit searches only cones that changed. Holds two generations. */
export class ProofMemory {
  private current = new Map<string, Searched>();
  private previous = new Map<string, Searched>();
  private cones = new Map<string, ConeProof>();
  private previousCones = new Map<string, ConeProof>();

  nextProof(): void {
    this.previous = this.current;
    this.current = new Map();
    this.previousCones = this.cones;
    this.cones = new Map();
  }

  /** A cone of which nothing changed, not even where its acts stand, needs no new key either. */
  cone(text: string, make: () => ConeProof): ConeProof {
    const found = this.previousCones.get(text) ?? make();
    this.cones.set(text, found);
    this.current.set(found.key.key, found.result);
    return found;
  }

  recall(key: string, make: () => Searched): Searched {
    const found = this.current.get(key) ?? this.previous.get(key) ?? make();
    this.current.set(key, found);
    return found;
  }
}

/**
 * The verdict of every sound: proved when in every reachable state its recall leaves all its wants true.
 * Searched breadth-first over each wanted variable's cone of influence alone, which is exact and keeps all lengths.
 * A system must be sound in itself (`wrongInSystem` is empty).
 */
export const prove = (system: RecallSystem, budget = USUAL_BUDGET, memory = new ProofMemory()): ReadonlyMap<string, Verdict> => {
  memory.nextProof();
  const variables = new Map(system.variables.map((v) => [v.id, v]));
  const wanted = wantedValues(system);
  const writers = writersOf(system);
  const cones = conesOf(system.events, writers, wanted.keys());
  const about = powerUpTexts(system);
  const eventIndex = new Map(system.events.map((e, i) => [e.id, i]));

  const written = new Map(system.variables.map((v) => [v.id, writersText(system, writers.get(v.id)!)]));
  const searches = new Map<string, { readonly cone: readonly string[] } & ConeProof>();
  const searchOf = (variable: string) => {
    const known = searches.get(variable);
    if (known) return known;
    const cone = cones.get(variable)!;
    const judged = cone.filter((v) => wanted.has(v)).map((v) => `${v}:${[...wanted.get(v)!].sort().join(',')}`);
    const text = [budget, ...cone.map((v) => `${about.get(v)} ${written.get(v)}`), ...judged].join('\n');
    const proof = memory.cone(text, () => {
      const key = coneKey(system, cone, writers, about, judged);
      return { key, result: memory.recall(key.key, () => search(project(system, cone, key.members, wanted, variables), budget)) };
    });
    const made = { cone, ...proof };
    searches.set(variable, made);
    return made;
  };

  return new Map(system.sounds.map((sound): [string, Verdict] => {
    const wrong: WrongWant[] = [];
    let undecided: string | undefined;
    for (const { variable, value } of sound.wants) {
      const { cone, key, result } = searchOf(variable);
      const at = cone.indexOf(variable);
      const outcome = key.classOfEvent.get(eventIndex.get(sound.recall)!);
      let shortest: Outcome | undefined;
      for (const found of result.outcomes(outcome, at)) if (found.value !== value && (!shortest || found.length < shortest.length)) shortest = found;
      if (shortest) {
        const { length, way } = shortest;
        wrong.push({ variable, wanted: value, length, example: once(() => inWords(system, variables, cone, key, way(), sound.recall)) });
      } else if (!result.done) {
        undecided = `${variable} depends on ${cone.length - 1} others, with more than ${budget.toLocaleString('en')} states to search.`;
      }
    }
    if (wrong.length) return [sound.id, { is: 'broken', length: Math.min(...wrong.map((w) => w.length)), wrong }];
    return [sound.id, undecided ? { is: 'undecided', because: undecided } : { is: 'proved' }];
  }));
};

const once = <T>(make: () => T): (() => T) => {
  let made: T | undefined;
  return () => (made ??= make());
};

const wantedValues = (system: RecallSystem): Map<string, Set<string>> => {
  const wanted = new Map<string, Set<string>>();
  for (const sound of system.sounds) {
    for (const { variable, value } of sound.wants) {
      const values = wanted.get(variable);
      if (values) values.add(value);
      else wanted.set(variable, new Set([value]));
    }
  }
  return wanted;
};

/** A way through merged values and classes as power-up values and events of the system; what lies outside the cone takes its first power-up value. */
const inWords = (system: RecallSystem, variables: ReadonlyMap<string, Variable>, cone: readonly string[], key: ConeKey, way: Way, recall: string): Footsteps => {
  const inCone = new Map(cone.map((id, i) => [id, i]));
  const powerUp: Record<string, string> = {};
  for (const v of system.variables) powerUp[v.id] = v.initial[0]!;
  const { names, merged } = project(system, cone, key.members, wantedValues(system), variables);
  const mergedLike = (i: number, value: string): boolean => merged[i]!.get(value) === names[i]!.indexOf(way.start[i]!);
  for (const [id, i] of inCone) powerUp[id] = variables.get(id)!.initial.find((value) => mergedLike(i, value)) ?? way.start[i]!;
  for (const group of system.together ?? []) {
    const row = group.rows.find((values) => group.variables.every((v, k) => !inCone.has(v) || mergedLike(inCone.get(v)!, values[k]!)));
    group.variables.forEach((v, k) => { powerUp[v] = (row ?? group.rows[0]!)[k]!; });
  }
  const byKey = new Map(key.members.map((m) => [m.key, system.events[m.event]!.id]));
  const events = way.classes.map((c) => byKey.get(c)!);
  const last = way.classes.length === way.length ? events.slice(0, -1) : events;
  return { powerUp, events: [...last, recall] };
};

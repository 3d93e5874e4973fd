import type { RecallSystem, SystemAct, SystemEvent } from './system.js';

/** An act with its place: which event carries it, and where in that event. */
export interface Placed {
  readonly event: number;
  readonly place: number;
  readonly act: SystemAct;
}

/** For each variable the acts that write it, in the order of events. */
export const writersOf = (system: RecallSystem): ReadonlyMap<string, readonly Placed[]> => {
  const writers = new Map<string, Placed[]>(system.variables.map((v) => [v.id, []]));
  system.events.forEach((event, e) => event.acts.forEach((act, place) => writers.get(act.variable)!.push({ event: e, place, act })));
  return writers;
};

/**
 * The cone of influence of each variable: the variable itself and, step by step, every variable that a condition on one of
 * its acts, or on the events that carry them, reads. Nothing outside can change what happens inside.
 */
export const conesOf = (events: readonly SystemEvent[], writers: ReadonlyMap<string, readonly Placed[]>, wanted: Iterable<string>): ReadonlyMap<string, readonly string[]> => {
  const readsOf = new Map<string, ReadonlySet<string>>();
  const reads = (variable: string): ReadonlySet<string> => {
    const known = readsOf.get(variable);
    if (known) return known;
    const found = new Set<string>();
    for (const { event, act } of writers.get(variable) ?? []) {
      if (act.when) for (const c of act.when) found.add(c.variable);
      const when = events[event]!.when;
      if (when) for (const c of when) found.add(c.variable);
    }
    readsOf.set(variable, found);
    return found;
  };
  const cones = new Map<string, readonly string[]>();
  for (const variable of wanted) {
    const cone = new Set([variable]);
    for (const member of cone) for (const read of reads(member)) cone.add(read);
    cones.set(variable, [...cone].sort());
  }
  return cones;
};

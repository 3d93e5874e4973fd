import type { RecallSystem, SystemAct } from './system.js';

/** The acts that write one variable, in order, each as one number: the event's place in the system above, the act's place in the event below. */
export type Writers = readonly number[];

export const eventOf = (write: number): number => write >>> 16;
export const placeOf = (write: number): number => write & 0xffff;
const actAt = (system: RecallSystem, write: number): SystemAct => system.events[eventOf(write)]!.acts[placeOf(write)]!;

/** For each variable the acts that write it. */
export const writersOf = (system: RecallSystem): ReadonlyMap<string, Writers> => {
  const writers = new Map<string, number[]>(system.variables.map((v) => [v.id, []]));
  system.events.forEach(({ acts }, e) => {
    for (let place = 0; place < acts.length; place += 1) writers.get(acts[place]!.variable)!.push(((e << 16) | place) >>> 0);
  });
  return writers;
};

/**
 * The cone of influence of each variable: the variable itself and, step by step, every variable that a condition on one of
 * its acts, or on the events that carry them, reads. Nothing outside can change what happens inside.
 */
export const conesOf = (system: RecallSystem, writers: ReadonlyMap<string, Writers>, wanted: Iterable<string>): Map<string, readonly string[]> => {
  const readsOf = new Map<string, ReadonlySet<string>>();
  const reads = (variable: string): ReadonlySet<string> => {
    const known = readsOf.get(variable);
    if (known) return known;
    const found = new Set<string>();
    for (const write of writers.get(variable) ?? []) {
      const { when } = actAt(system, write);
      if (when) for (const c of when) found.add(c.variable);
      const eventWhen = system.events[eventOf(write)]!.when;
      if (eventWhen) for (const c of eventWhen) found.add(c.variable);
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

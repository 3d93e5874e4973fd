import { keptIn, once } from '../kept/kept.js';
import type { RecallSystem, SystemAct, SystemEvent } from './system.js';
import { actNumbers } from './texts.js';

/** The acts that write one variable, in order. */
export interface Writers {
  /** Each as one number: the event's place in the system above, the act's place in the event below. */
  readonly at: readonly number[];
  /** What they say, each as the number of its text: side by side, as a cone asks for them one after the other. */
  readonly says: readonly number[];
}

export const eventOf = (write: number): number => write >>> 16;
export const placeOf = (write: number): number => write & 0xffff;
const NOWHERE: readonly number[] = [];
const actAt = (system: RecallSystem, write: number): SystemAct => system.events[eventOf(write)]!.acts[placeOf(write)]!;

/** For each variable the acts that write it. */
export interface WritersByVariable {
  readonly get: (variable: string) => Writers | undefined;
}

/** All of them at once: what a system that was never looked at needs. */
export const writersOf = (system: RecallSystem): WritersByVariable => {
  const writers = new Map<string, { readonly at: number[]; readonly says: number[] }>(
    system.variables.map((v) => [v.id, { at: [], says: [] }]),
  );
  system.events.forEach((event, e) => {
    const { acts } = event;
    const numbers = actNumbers(event);
    for (let place = 0; place < acts.length; place += 1) {
      const { at, says } = writers.get(acts[place]!.variable)!;
      at.push(((e << 16) | place) >>> 0);
      says.push(numbers[place]!);
    }
  });
  return writers;
};

/** Places of the acts of an event, by what they write. */
export const placesOf = once((event: SystemEvent): ReadonlyMap<string, readonly number[]> => {
  const places = new Map<string, number[]>();
  event.acts.forEach(({ variable }, place) => keptIn(places, variable, () => []).push(place));
  return places;
});

/**
 * The same, worked out for the variables that are asked for: after an edit these are few, and most events are as they
 * were.
 */
export const writersWhenAsked = ({ events }: RecallSystem): WritersByVariable => {
  const known = new Map<string, Writers>();
  return {
    get: (variable) =>
      keptIn(known, variable, () => {
        const [at, says]: [number[], number[]] = [[], []];
        events.forEach((event, e) => {
          for (const place of placesOf(event).get(variable) ?? NOWHERE) {
            at.push(((e << 16) | place) >>> 0);
            says.push(actNumbers(event)[place]!);
          }
        });
        return { at, says };
      }),
  };
};

/**
 * The cone of influence of each variable: the variable itself and, step by step, every variable that a condition on
 * one of
 * its acts, or on the events that carry them, reads. Nothing outside can change what happens inside.
 */
export const conesOf = (
  system: RecallSystem,
  writers: WritersByVariable,
  wanted: Iterable<string>,
): Map<string, readonly string[]> => {
  const readsOf = new Map<string, ReadonlySet<string>>();
  const reads = (variable: string): ReadonlySet<string> => {
    const known = readsOf.get(variable);
    if (known) return known;
    const found = new Set<string>();
    /** Events one after the other often share the very same act. */
    let before: SystemAct['when'];
    for (const write of writers.get(variable)?.at ?? NOWHERE) {
      const { when } = actAt(system, write);
      if (when && when !== before) for (const c of when) found.add(c.variable);
      before = when;
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

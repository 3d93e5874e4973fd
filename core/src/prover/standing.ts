import { conesOf, writersOf, writersWhenAsked, type WritersByVariable } from './cone.js';
import { actNumber, guardNumber } from './texts.js';
import {
  servedBy,
  type RecallSystem,
  type SystemEvent,
  type SystemSound,
  type SystemWant,
  type Together,
  type Variable,
} from './system.js';

/** How often each value of each variable is wanted. */
export type WantedCounts = ReadonlyMap<string, ReadonlyMap<string, number>>;

/** A system as the prover looks at it: who writes what, what is wanted, what each wanted variable rests on. */
export interface Standing {
  readonly system: RecallSystem;
  readonly variables: ReadonlyMap<string, Variable>;
  readonly writers: WritersByVariable;
  readonly wanted: WantedCounts;
  readonly cones: ReadonlyMap<string, readonly string[]>;
  /** Wanted variables of whose cone nothing differs from the standing before. */
  readonly asBefore: ReadonlySet<string>;
  readonly redone: readonly string[];
}

export const stand = (system: RecallSystem, before?: Standing): Standing => {
  const wanted = countWanted(before?.wanted ?? new Map(), before?.system.sounds ?? [], system.sounds);
  const variables = new Map(system.variables.map((v) => [v.id, v]));
  const changed = before && sameShape(before.system, system) ? changedVariables(before, system, wanted) : undefined;
  if (!before || !changed) {
    const writers = writersOf(system);
    return {
      system,
      variables,
      writers,
      wanted,
      cones: conesOf(system, writers, wanted.keys()),
      asBefore: new Set(),
      redone: [...wanted.keys()],
    };
  }
  const writers = writersWhenAsked(system);
  const asBefore = new Set<string>();
  const redone: string[] = [];
  for (const variable of wanted.keys()) {
    if (before.cones.get(variable)?.every((v) => !changed.has(v))) asBefore.add(variable);
    else redone.push(variable);
  }
  const cones = new Map([
    ...conesOf(system, writers, redone),
    ...[...asBefore].map((v) => [v, before.cones.get(v)!] as const),
  ]);
  return { system, variables, writers, wanted, cones, asBefore, redone };
};

const countWanted = (before: WantedCounts, old: readonly SystemSound[], now: readonly SystemSound[]): WantedCounts => {
  const wanted = new Map([...before].map(([v, values]) => [v, new Map(values)]));
  const count = (sounds: readonly SystemSound[], by: 1 | -1) => {
    const often = new Map<SystemWant, number>();
    for (const { wants } of sounds) for (const want of wants) often.set(want, (often.get(want) ?? 0) + by);
    for (const [want, n] of often) {
      let values = wanted.get(want.variable);
      if (!values) wanted.set(want.variable, (values = new Map()));
      for (const value of servedBy(want)) {
        const left = (values.get(value) ?? 0) + n;
        if (left) values.set(value, left);
        else values.delete(value);
      }
    }
  };
  const [stood, stands] = [new Set(old), new Set(now)];
  count(
    old.filter((s) => !stands.has(s)),
    -1,
  );
  count(
    now.filter((s) => !stood.has(s)),
    1,
  );
  for (const [variable, values] of wanted) if (values.size === 0) wanted.delete(variable);
  return wanted;
};

const sameIds = (a: readonly { readonly id: string }[], b: readonly { readonly id: string }[]): boolean =>
  a.length === b.length && a.every((x, i) => x.id === b[i]!.id);
const sameTexts = (a: readonly string[], b: readonly string[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

/** Whether two systems have the same parts in the same places, whatever they say. */
const sameShape = (a: RecallSystem, b: RecallSystem): boolean => {
  const [groups, others] = [a.together ?? [], b.together ?? []];
  return (
    sameIds(a.variables, b.variables) &&
    sameIds(a.events, b.events) &&
    sameIds(a.sounds, b.sounds) &&
    a.sounds.every((s, i) => s.recall === b.sounds[i]!.recall) &&
    groups.length === others.length &&
    groups.every((g, i) => sameTexts(g.variables, others[i]!.variables))
  );
};

/** Variables about which something differs: values, power-up, who writes them, or what is wanted of them. */
const changedVariables = (before: Standing, now: RecallSystem, wanted: WantedCounts): ReadonlySet<string> => {
  const { system: old } = before;
  const changed = new Set<string>();
  old.variables.forEach((v, i) => {
    const other = now.variables[i]!;
    if (v !== other && !(sameTexts(v.domain, other.domain) && sameTexts(v.initial, other.initial))) changed.add(v.id);
  });
  old.together?.forEach((group, i) => changedColumns(group, now.together![i]!, changed));
  old.events.forEach((event, i) => changedWrites(event, now.events[i]!, changed));
  for (const variable of new Set([...before.wanted.keys(), ...wanted.keys()])) {
    const [a, b] = [before.wanted.get(variable), wanted.get(variable)];
    if (a?.size !== b?.size || [...a!.keys()].some((value) => !b!.has(value))) changed.add(variable);
  }
  return changed;
};

const changedColumns = (old: Together, now: Together, changed: Set<string>): void => {
  if (old.rows === now.rows) return;
  old.variables.forEach((variable, column) => {
    if (
      old.rows.length !== now.rows.length ||
      old.rows.some((row, i) => row !== now.rows[i] && row[column] !== now.rows[i]![column])
    )
      changed.add(variable);
  });
};

/**
 * Variables that an event now writes otherwise; where acts that stayed changed places among each other, all that it
 * writes.
 */
const changedWrites = (old: SystemEvent, now: SystemEvent, changed: Set<string>): void => {
  if (old === now) return;
  const writes = (event: SystemEvent) => {
    const by = new Map<string, string>();
    for (const act of event.acts) by.set(act.variable, `${by.get(act.variable) ?? ''};${actNumber(act)}`);
    return by;
  };
  const [a, b] = [writes(old), writes(now)];
  const all = [...new Set([...a.keys(), ...b.keys()])];
  const otherwise = new Set(guardNumber(old) === guardNumber(now) ? all.filter((v) => a.get(v) !== b.get(v)) : all);
  const stayed = (event: SystemEvent) =>
    event.acts
      .filter((act) => !otherwise.has(act.variable))
      .map(actNumber)
      .join();
  for (const variable of stayed(old) === stayed(now) ? otherwise : all) changed.add(variable);
};

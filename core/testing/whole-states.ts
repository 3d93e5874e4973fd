import { afterEvent, canHappen, serves, type RecallSystem, type SystemState } from '../src/prover/system.js';

export type PlainVerdict =
  { verdict: 'proved' } | { verdict: 'broken'; length: number; variables: Record<string, number> };

/** Every power-up state of a system, free variables and rows combined. */
export const powerUpStates = (system: RecallSystem): SystemState[] => {
  const grouped = new Set((system.together ?? []).flatMap((g) => g.variables));
  const choices = [
    ...system.variables
      .filter((v) => !grouped.has(v.id))
      .map((v) => v.initial.map((value): SystemState => ({ [v.id]: value }))),
    ...(system.together ?? []).map((g) =>
      g.rows.map((row): SystemState => Object.fromEntries(g.variables.map((v, i) => [v, row[i]!]))),
    ),
  ];
  return choices.reduce<SystemState[]>(
    (states, choice) => states.flatMap((s) => choice.map((c) => ({ ...s, ...c }))),
    [{}],
  );
};

/**
 * The plainest prover there is: breadth-first over whole states, no cone, no merging. An independent path for tests
 * and the benchmark.
 */
export const proveByWholeStates = (system: RecallSystem): ReadonlyMap<string, PlainVerdict> => {
  const keyOf = (s: SystemState) => system.variables.map((v) => s[v.id]).join('\u0001');
  const found = new Map(system.sounds.map((s) => [s.id, new Map<string, number>()]));
  let level = [...new Map(powerUpStates(system).map((s) => [keyOf(s), s])).values()];
  const seen = new Set(level.map(keyOf));
  for (let depth = 1; level.length; depth += 1) {
    const next: SystemState[] = [];
    for (const state of level) {
      for (const event of system.events) {
        if (!canHappen(event, state)) continue;
        const after = afterEvent(event, state);
        for (const sound of system.sounds) {
          if (sound.recall !== event.id) continue;
          for (const w of sound.wants)
            if (!serves(w, after[w.variable]) && !found.get(sound.id)!.has(w.variable))
              found.get(sound.id)!.set(w.variable, depth);
        }
        const key = keyOf(after);
        if (!seen.has(key) && !event.last) {
          seen.add(key);
          next.push(after);
        }
      }
    }
    level = next;
  }
  return new Map(
    [...found].map(([id, wrong]): [string, PlainVerdict] => [
      id,
      wrong.size
        ? { verdict: 'broken', length: Math.min(...wrong.values()), variables: Object.fromEntries(wrong) }
        : { verdict: 'proved' },
    ]),
  );
};

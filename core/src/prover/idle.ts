import type { Condition, SystemAct } from './system.js';

/**
 * The acts of one event less those that make no difference to what it leaves: a value that a later act of the same
 * event overwrites before anything reads it, and a condition that only asks whether the value is there already.
 * @param domainOf every value that a variable may have, where that is known
 */
export const withoutIdle = (
  acts: readonly SystemAct[],
  domainOf: (variable: string) => readonly string[] | undefined,
): readonly SystemAct[] => {
  const overwritten = new Set<string>();
  const kept: SystemAct[] = [];
  for (let i = acts.length - 1; i >= 0; i -= 1) {
    const said = acts[i]!;
    if (overwritten.has(said.variable)) continue;
    const act = unlessThereAlready(said, domainOf);
    kept.push(act);
    if ('set' in act && !act.when?.length) overwritten.add(act.variable);
    else if (!('set' in act)) overwritten.delete(act.variable);
    if (act.when) for (const { variable } of act.when) overwritten.delete(variable);
  }
  return kept.length === acts.length && kept.every((act, i) => act === acts[acts.length - 1 - i])
    ? acts
    : kept.reverse();
};

/** The act without conditions under which it would only set what is there. */
const unlessThereAlready = (
  act: SystemAct,
  domainOf: (variable: string) => readonly string[] | undefined,
): SystemAct => {
  if (!('set' in act) || !act.when?.some((c) => c.variable === act.variable)) return act;
  const { variable, set } = act;
  const domain = domainOf(variable);
  const asksMore = ({ variable: read, in: allowed }: Condition): boolean =>
    read !== variable || !domain || domain.some((value) => value !== set && !allowed.includes(value));
  const when = act.when.filter(asksMore);
  if (when.length === act.when.length) return act;
  return { variable, set, ...(when.length ? { when } : {}) };
};

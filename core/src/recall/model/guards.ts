import { keptIn } from '../../kept/kept.js';
import { UNKNOWN } from './domains.js';
import { afterAct, type Condition, type SystemAct } from '../../prover/system.js';
import { surely } from '../../known/the.js';

/** A condition of which nobody may know whether it holds: with the values in `open` it stays open. */
export interface Guard extends Condition {
  readonly open?: readonly string[];
}

export const ALWAYS: readonly Guard[] = [];

/** What a variable holds that is no control, once nobody knows. */
export const MAYBE = 'maybe';
const [NO, YES] = ['no', 'yes'];

/**
 * Remembers within one event whether something came about, for what follows from it later. It is no control of a box.
 */
export const thenOf = (what: string): string => `then:${what}`;
export const THEN_DOMAIN: readonly string[] = [NO, YES, MAYBE];
export const isThen = (variable: string): boolean => variable.startsWith('then:');

/** Whether a variable stands for what a player can see or set. */
export const isControl = (variable: string): boolean => variable.startsWith('device:');

export const unknownOf = (variable: string): string => (isControl(variable) ? UNKNOWN : MAYBE);

/** It came about, as noted under these conditions: only where one of them could be open it may not be known. */
export const came = (then: string, when: readonly Guard[]): readonly Guard[] => [
  { variable: then, in: [YES], ...(isOpen(when) ? { open: [MAYBE] } : {}) },
];

const closed = ({ variable, in: values }: Guard): Condition => ({ variable, in: values });
const widened = ({ variable, in: values, open }: Guard): Condition => ({
  variable,
  in: open ? [...values, ...open] : values,
});

/** The conditions under which something may come about. */
export const perhaps = (when: readonly Guard[]): readonly Condition[] => (isOpen(when) ? when.map(widened) : when);

export const isOpen = (when: readonly Guard[]): boolean => when.some((g) => g.open);

/** The values that a variable may have, for saying "any but this one". */
export type DomainOf = (variable: string) => readonly string[];

const NO_DOMAIN: DomainOf = () => [];

/**
 * The same acts, carried out only under further conditions. Where nobody knows whether these hold, nobody knows
 * afterwards what the act would have set:
 * less certainty never gives a better verdict.
 * @param domainOf needed where a condition can be open
 */
export const guardedBy = (
  when: readonly Guard[],
  acts: readonly SystemAct[],
  domainOf = NO_DOMAIN,
): readonly SystemAct[] => {
  if (when.length === 0) return acts;
  if (!isOpen(when)) return acts.map((act) => ({ ...act, when: act.when ? [...when, ...act.when] : when }));
  const sure = when.map(closed);
  const atMost = when.map(widened);
  const doubts = when.flatMap((g, i) =>
    g.open
      ? [when.map((other, j): Condition => (i === j ? { variable: g.variable, in: surely(g.open) } : widened(other)))]
      : [],
  );
  return acts.flatMap((act): readonly SystemAct[] => {
    const also = act.when ?? [];
    const unknown = unknownOf(act.variable);
    if ('set' in act && act.set === unknown) return [{ ...act, when: [...atMost, ...also] }];
    const [alone] = when;
    const settles =
      when.length === 1 && also.length === 0 && surely(alone).variable === act.variable
        ? settledBy(surely(alone), act, domainOf(act.variable))
        : undefined;
    if (settles !== undefined)
      return [
        { variable: act.variable, set: settles, when: [{ variable: act.variable, in: surely(surely(alone).open) }] },
        { ...act, when: sure },
      ];
    const unless =
      'set' in act ? [{ variable: act.variable, in: domainOf(act.variable).filter((v) => v !== act.set) }] : [];
    return [
      ...doubts.map((doubt): SystemAct => ({
        variable: act.variable,
        set: unknown,
        when: [...doubt, ...also, ...unless],
      })),
      { ...act, when: [...sure, ...also] },
    ];
  });
};

/**
 * Where an act leaves its variable the same, whatever it was before it and whether or not the condition on it held:
 * there.
 */
const settledBy = ({ in: allowed }: Guard, act: SystemAct, domain: readonly string[]): string | undefined => {
  const after = new Set(
    domain.filter((v) => v !== unknownOf(act.variable)).map((v) => (allowed.includes(v) ? afterAct(act, v) : v)),
  );
  return after.size === 1 ? [...after][0] : undefined;
};

/** Notes whether conditions hold now. */
export const noteWhether = (then: string, when: readonly Guard[]): readonly SystemAct[] => [
  { variable: then, set: NO },
  ...guardedBy(when, [{ variable: then, set: YES }], () => THEN_DOMAIN),
];

/**
 * What rests on a note rests on the very conditions that were noted, as long as nothing that they read was written
 * since:
 * a note is one more variable, and ties together all that rests on it.
 */
export const withReasons = (acts: readonly SystemAct[]): readonly SystemAct[] => {
  const reasons = new Map<string, readonly Condition[]>();
  return acts.map((said, i) => {
    const act = said.when?.some((c) => reasons.has(c.variable))
      ? { ...said, when: said.when.flatMap((c) => (isYes(c) && reasons.get(c.variable)) || [c]) }
      : said;
    for (const [then, when] of reasons)
      if (then === act.variable || when.some((c) => c.variable === act.variable)) reasons.delete(then);
    if (isSureNote(act, acts[i - 1])) reasons.set(act.variable, surely(act.when));
    return act;
  });
};

const isYes = ({ in: values }: Condition): boolean => values.length === 1 && values[0] === YES;

/** The second act of a note of conditions of which it is known whether they hold. */
const isSureNote = (act: SystemAct, before: SystemAct | undefined): boolean =>
  isThen(act.variable) &&
  'set' in act &&
  act.set === YES &&
  act.when !== undefined &&
  before?.variable === act.variable &&
  'set' in before &&
  before.set === NO &&
  !before.when;

const guardedLists = new WeakMap<readonly SystemAct[], WeakMap<readonly Guard[], readonly SystemAct[]>>();
/** The same, for conditions that are asked again and again and never open: the very same acts each time. */
export const guardedOnce = (when: readonly Guard[], acts: readonly SystemAct[]): readonly SystemAct[] =>
  when.length === 0
    ? acts
    : keptIn(
        keptIn(guardedLists, acts, () => new WeakMap<readonly Guard[], readonly SystemAct[]>()),
        when,
        () => guardedBy(when, acts),
      );

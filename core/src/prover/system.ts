import { theFirst, theItem } from '../known/the.js';

/**
 * A recall system: plain data that says everything about how a rig's state can change, and knows nothing about gear.
 * Format and meaning: docs/formats.md. Acts of an event are carried out in order; their conditions are read at that
 * moment.
 */
export interface RecallSystem {
  readonly id?: string;
  readonly description?: string;
  readonly variables: readonly Variable[];
  readonly events: readonly SystemEvent[];
  readonly sounds: readonly SystemSound[];
  readonly together?: readonly Together[];
}

export interface Variable {
  readonly id: string;
  readonly domain: readonly string[];
  /** Every value that it may have at power-up. */
  readonly initial: readonly string[];
}

export interface Condition {
  readonly variable: string;
  readonly in: readonly string[];
}

export type SystemAct = { readonly variable: string; readonly when?: readonly Condition[] } & (
  { readonly set: string } | { readonly toggle: readonly [string, string] } | { readonly step: readonly string[] }
);

export interface SystemEvent {
  readonly id: string;
  readonly when?: readonly Condition[];
  readonly acts: readonly SystemAct[];
  /** Nothing is looked at after it: it is judged, and leads nowhere. */
  readonly last?: true;
}

export interface SystemWant {
  readonly variable: string;
  readonly value: string;
  /** Other values that serve as well. */
  readonly or?: readonly string[];
}

/** Every value that serves a want, the wanted one first. */
export const servedBy = ({ value, or }: SystemWant): readonly string[] => (or ? [value, ...or] : [value]);

/** Whether a value serves a want. @example serves({ variable: 'mix', value: '50', or: ['60'] }, '60') // true */
export const serves = (want: SystemWant, value: string | undefined): boolean =>
  value === want.value || (value !== undefined && (want.or?.includes(value) ?? false));

export interface SystemSound {
  readonly id: string;
  /** Id of the event that recalls it; that event has no `when`. */
  readonly recall: string;
  readonly wants: readonly SystemWant[];
}

/** At power-up these variables take one of the rows together. */
export interface Together {
  readonly variables: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** What an act makes of the old value. @example afterAct({ variable: 'v', step: ['1', '2'] }, '2') // '1' */
export const afterAct = (act: SystemAct, old: string): string => {
  if ('set' in act) return act.set;
  if ('toggle' in act) return old === act.toggle[0] ? act.toggle[1] : old === act.toggle[1] ? act.toggle[0] : old;
  const place = act.step.indexOf(old);
  return act.step[(place + 1) % act.step.length] ?? old;
};

/** Variables that an event writes or reads. */
export const usedBy = (event: SystemEvent, note: (variable: string) => void): void => {
  const reads = (when: readonly Condition[] | undefined): void => {
    if (when) for (const c of when) note(c.variable);
  };
  reads(event.when);
  for (const act of event.acts) {
    note(act.variable);
    reads(act.when);
  }
};

export type SystemState = Readonly<Record<string, string>>;

const allHold = (when: readonly Condition[] | undefined, state: SystemState): boolean =>
  (when ?? []).every((c) => c.in.includes(state[c.variable]!));

export const canHappen = (event: SystemEvent, state: SystemState): boolean => allHold(event.when, state);

/** The state after an event that can happen. */
export const afterEvent = (event: SystemEvent, state: SystemState): SystemState => {
  const next: Record<string, string> = { ...state };
  for (const act of event.acts) if (allHold(act.when, next)) next[act.variable] = afterAct(act, next[act.variable]!);
  return next;
};

/**
 * A power-up in which every value fits: of variables that come together a row of which all values do. Where none fits,
 * the first one is taken.
 */
export const powerUpOf = (
  { variables, together = [] }: RecallSystem,
  fits: (variable: string, value: string) => boolean,
): SystemState => {
  const state: Record<string, string> = {};
  for (const v of variables) state[v.id] = v.initial.find((value) => fits(v.id, value)) ?? theFirst(v.initial);
  for (const group of together) {
    const row =
      group.rows.find((values) => group.variables.every((v, i) => fits(v, theItem(values, i)))) ?? theFirst(group.rows);
    group.variables.forEach((v, i) => {
      state[v] = theItem(row, i);
    });
  }
  return state;
};

/** Events, and acts in one event: far beyond any rig. */
const MOST = 65_536;

/** What is wrong with a system as read from outside; empty when it can be proved. */
export const wrongInSystem = (system: RecallSystem): readonly string[] => {
  const wrong: string[] = [];
  const domains = new Map(system.variables.map((v) => [v.id, v.domain]));
  const events = new Map(system.events.map((e) => [e.id, e]));
  const needValue = (where: string, variable: string, values: readonly string[]) => {
    const domain = domains.get(variable);
    if (!domain) wrong.push(`${where}: "${variable}" is not a variable of this system.`);
    else
      for (const value of values)
        if (!domain.includes(value))
          wrong.push(`${where}: "${value}" is not in the domain of ${variable} (${domain.join(', ')}).`);
  };
  if (domains.size !== system.variables.length) wrong.push('variables: two have the same id.');
  if (events.size !== system.events.length) wrong.push('events: two have the same id.');
  if (events.size > MOST) wrong.push(`events: there are ${events.size}; at most ${MOST} can be proved.`);
  for (const v of system.variables) {
    if (v.initial.length === 0) wrong.push(`variables ${v.id}: no value at power-up.`);
    needValue(`variables ${v.id}.initial`, v.id, v.initial);
  }
  for (const event of system.events) {
    const where = `events ${event.id}`;
    if (event.acts.length > MOST)
      wrong.push(`${where}: it has ${event.acts.length} acts; at most ${MOST} can be proved.`);
    event.when?.forEach((c) => needValue(where, c.variable, c.in));
    for (const act of event.acts) {
      act.when?.forEach((c) => needValue(where, c.variable, c.in));
      needValue(where, act.variable, 'set' in act ? [act.set] : 'toggle' in act ? act.toggle : act.step);
      if ('step' in act && act.step.length === 0) wrong.push(`${where}: a step needs at least one value.`);
    }
  }
  for (const sound of system.sounds) {
    const recall = events.get(sound.recall);
    if (!recall) wrong.push(`sounds ${sound.id}: its recall "${sound.recall}" is not an event.`);
    else if (recall.when?.length)
      wrong.push(`sounds ${sound.id}: its recall has a condition; a player can always call a sound.`);
    sound.wants.forEach((w) => needValue(`sounds ${sound.id}`, w.variable, servedBy(w)));
    if (new Set(sound.wants.map((w) => w.variable)).size < sound.wants.length)
      wrong.push(`sounds ${sound.id}: it wants one variable twice.`);
  }
  const grouped = new Set<string>();
  for (const group of system.together ?? []) {
    for (const variable of group.variables) {
      if (grouped.has(variable)) wrong.push(`together: ${variable} is in two groups.`);
      grouped.add(variable);
    }
    if (group.rows.length === 0) wrong.push(`together ${group.variables.join(', ')}: no row.`);
    for (const row of group.rows) {
      if (row.length !== group.variables.length)
        wrong.push(`together ${group.variables.join(', ')}: a row has ${row.length} values.`);
      else group.variables.forEach((v, i) => needValue('together', v, [theItem(row, i)]));
    }
  }
  return wrong;
};

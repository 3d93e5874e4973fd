import type { Placed } from './cone.js';
import { afterAct, type Condition, type RecallSystem, type SystemAct, type SystemEvent, type Together, type Variable } from './system.js';

/** A guard as a table: for the variable at `at`, which of its merged values satisfy it. */
interface Guard {
  readonly at: number;
  readonly allows: Uint8Array;
}

interface Op {
  readonly guards: readonly Guard[];
  readonly at: number;
  /** New merged value for each old one. */
  readonly becomes: Uint16Array;
}

/** Events that do the same within the cone are one class. */
export interface EventClass {
  readonly key: string;
  readonly guards: readonly Guard[];
  readonly ops: readonly Op[];
}

/** A recall system cut down to a cone, in small integers; values that the cone cannot tell apart are merged. */
export interface Projection {
  readonly variables: readonly string[];
  readonly sizes: readonly number[];
  readonly classes: readonly EventClass[];
  /** The class of each member; members that come to the same once values are merged share one. */
  readonly classOf: ReadonlyMap<string, number>;
  /** Places of the variables whose value is judged. */
  readonly judged: readonly number[];
  /** A name for each merged value. */
  readonly names: readonly (readonly string[])[];
  /** The merged value of each value. */
  readonly merged: readonly ReadonlyMap<string, number>[];
  readonly initial: readonly (readonly number[])[];
  readonly rows: readonly { readonly at: readonly number[]; readonly rows: readonly (readonly number[])[] }[];
}

export interface ConeKey {
  /** Equal keys: the same projection, whatever else the systems hold. */
  readonly key: string;
  readonly classOfEvent: ReadonlyMap<number, string>;
  readonly members: readonly { readonly key: string; readonly event: number; readonly acts: readonly SystemAct[] }[];
}

const conditionTexts = new WeakMap<Condition, string>();
const conditionText = (c: Condition): string => {
  const known = conditionTexts.get(c);
  if (known !== undefined) return known;
  const text = `${c.variable}∈${c.in.join(',')}`;
  conditionTexts.set(c, text);
  return text;
};
const actTexts = new WeakMap<SystemAct, string>();
const actText = (act: SystemAct): string => {
  const known = actTexts.get(act);
  if (known !== undefined) return known;
  const what = 'set' in act ? `=${act.set}` : 'toggle' in act ? `~${act.toggle.join(',')}` : `+${act.step.join(',')}`;
  const text = `${act.variable}${what}${act.when?.length ? `[${act.when.map(conditionText).join('&')}]` : ''}`;
  actTexts.set(act, text);
  return text;
};
/** Texts as numbers, so that keys of many acts stay short. A number is never given twice, also after the table was emptied. */
const numbers = new Map<string, number>();
let nextNumber = 0;
const MOST_TEXTS = 500_000;
const numberOf = (text: string): number => {
  const known = numbers.get(text);
  if (known !== undefined) return known;
  if (numbers.size > MOST_TEXTS) numbers.clear();
  nextNumber += 1;
  numbers.set(text, nextNumber);
  return nextNumber;
};
const actNumbers = new WeakMap<SystemAct, number>();
const actNumber = (act: SystemAct): number => {
  const known = actNumbers.get(act);
  if (known !== undefined) return known;
  const number = numberOf(actText(act));
  actNumbers.set(act, number);
  return number;
};
const whenTexts = new WeakMap<SystemEvent, string>();
const whenText = (event: SystemEvent): string => {
  if (!event.when?.length) return '';
  const known = whenTexts.get(event) ?? `${event.when.map(conditionText).join('&')}:`;
  whenTexts.set(event, known);
  return known;
};

/** All that writes a variable, in order, as a short text: equal texts mean that nothing about its writers changed. */
export const writersText = (system: RecallSystem, placed: readonly Placed[]): string => {
  let text = '';
  for (const { event, place, act } of placed) {
    const { when } = system.events[event]!;
    text += when?.length ? `${event}.${place}=${actNumber(act)}/${numberOf(whenText(system.events[event]!))},` : `${event}.${place}=${actNumber(act)},`;
  }
  return text;
};

/** Acts that write the cone, gathered by event and merged into classes. */
export const coneKey = (
  system: RecallSystem, cone: readonly string[], writers: ReadonlyMap<string, readonly Placed[]>,
  about: ReadonlyMap<string, string>, wantedHere: readonly string[],
): ConeKey => {
  const classOfEvent = new Map<number, string>();
  const members = new Map<string, { key: string; event: number; acts: readonly SystemAct[] }>();
  const note = (event: number, key: string, acts: () => readonly SystemAct[]) => {
    classOfEvent.set(event, key);
    if (!members.has(key)) members.set(key, { key, event, acts: acts() });
  };
  if (cone.length === 1) {
    const placed = writers.get(cone[0]!)!;
    for (let i = 0; i < placed.length; ) {
      const first = i;
      const event = placed[first]!.event;
      let key = whenText(system.events[event]!);
      for (; i < placed.length && placed[i]!.event === event; i += 1) key += `${actNumber(placed[i]!.act)};`;
      const last = i;
      note(event, key, () => placed.slice(first, last).map((p) => p.act));
    }
  } else {
    const byEvent = new Map<number, Placed[]>();
    for (const variable of cone) {
      for (const placed of writers.get(variable)!) {
        const list = byEvent.get(placed.event);
        if (list) list.push(placed);
        else byEvent.set(placed.event, [placed]);
      }
    }
    for (const [event, placed] of byEvent) {
      placed.sort((a, b) => a.place - b.place);
      note(event, whenText(system.events[event]!) + placed.map((p) => actNumber(p.act)).join(';'), () => placed.map((p) => p.act));
    }
  }
  const sorted = [...members.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
  const key = [cone.map((v) => about.get(v)).join('|'), wantedHere.join('|'), sorted.map((m) => m.key).join('\n')].join('\n\n');
  return { key, classOfEvent, members: sorted };
};

/** What a variable is at power-up, as text, with its groups: part of a cone's key. */
export const powerUpTexts = (system: RecallSystem): ReadonlyMap<string, string> => {
  const groups = new Map<string, string>();
  for (const group of system.together ?? []) {
    const text = JSON.stringify(group);
    for (const variable of group.variables) groups.set(variable, text);
  }
  return new Map(system.variables.map((v) => [v.id, `${v.id}:${v.domain.join(',')}:${groups.get(v.id) ?? v.initial.join(',')}`]));
};

/**
 * @param wanted for each variable of the cone whose value is judged, the values that some sound wants of it
 */
export const project = (
  system: RecallSystem, cone: readonly string[], members: ConeKey['members'],
  wanted: ReadonlyMap<string, ReadonlySet<string>>, variables: ReadonlyMap<string, Variable>,
): Projection => {
  const acts = [...new Map(members.flatMap((m) => m.acts.map((a) => [actText(a), a] as const))).values()];
  const conditions = [...acts.flatMap((a) => a.when ?? []), ...members.flatMap((m) => system.events[m.event]!.when ?? [])];
  const merged = cone.map((id) => mergeValues(variables.get(id)!, acts, conditions, wanted.get(id)));
  const place = new Map(cone.map((id, i) => [id, i]));
  const guards = new Map<string, Guard>();
  const guardOf = (c: Condition): Guard => {
    const text = conditionText(c);
    let guard = guards.get(text);
    if (!guard) {
      const at = place.get(c.variable)!;
      const allowed = new Set(c.in);
      guards.set(text, guard = { at, allows: Uint8Array.from(merged[at]!.names.map((name) => (allowed.has(name) ? 1 : 0))) });
    }
    return guard;
  };
  const ops = new Map<string, Op>();
  const opOf = (act: SystemAct): Op => {
    const text = actText(act);
    let op = ops.get(text);
    if (!op) {
      const at = place.get(act.variable)!;
      const { names, of } = merged[at]!;
      ops.set(text, op = { at, guards: (act.when ?? []).map(guardOf), becomes: Uint16Array.from(names.map((name) => of.get(afterAct(act, name))!)) });
    }
    return op;
  };
  const grouped = (system.together ?? []).map((g) => rowsInCone(g, place)).filter((g) => g.at.length > 0);
  const inGroup = new Set(grouped.flatMap((g) => g.at));
  const classes: EventClass[] = [];
  const classOf = new Map<string, number>();
  const known = new Map<string, number>();
  for (const m of members) {
    const made: EventClass = { key: m.key, guards: (system.events[m.event]!.when ?? []).map(guardOf), ops: m.acts.map(opOf) };
    const form = formOf(made);
    let at = known.get(form);
    if (at === undefined) {
      at = classes.push(made) - 1;
      known.set(form, at);
    }
    classOf.set(m.key, at);
  }
  return {
    variables: cone,
    classes,
    classOf,
    judged: cone.flatMap((id, i) => (wanted.has(id) ? [i] : [])),
    sizes: merged.map((m) => m.names.length),
    names: merged.map((m) => m.names),
    merged: merged.map((m) => m.of),
    initial: cone.map((id, i) => (inGroup.has(i) ? [] : [...new Set(variables.get(id)!.initial.map((v) => merged[i]!.of.get(v)!))])),
    rows: grouped.map(({ at, rows }) => ({ at, rows: distinct(rows.map((row) => row.map((v, k) => merged[at[k]!]!.of.get(v)!))) })),
  };
};

const guardsForm = (guards: readonly Guard[]): string => guards.map((g) => `${g.at}?${g.allows.join('')}`).join('&');
/** What a class does, as text: equal forms do the same. */
const formOf = ({ guards, ops }: EventClass): string => `${guardsForm(guards)}:${ops.map((op) => `${guardsForm(op.guards)}>${op.at}=${op.becomes.join(',')}`).join(';')}`;

const rowsInCone = (group: Together, place: ReadonlyMap<string, number>) => {
  const columns = group.variables.map((v, i) => [place.get(v), i] as const).filter((c): c is readonly [number, number] => c[0] !== undefined);
  return { at: columns.map(([at]) => at), rows: group.rows.map((row) => columns.map(([, i]) => row[i]!)) };
};

const distinct = (rows: readonly (readonly number[])[]) => [...new Map(rows.map((row) => [row.join(','), row])).values()];

interface Merged {
  /** One value that stands for each merged value. */
  readonly names: readonly string[];
  readonly of: ReadonlyMap<string, number>;
}

/** Two values are one when no condition, toggle, step or want in the cone tells them apart. */
const mergeValues = (variable: Variable, acts: readonly SystemAct[], conditions: readonly Condition[], wanted: ReadonlySet<string> | undefined): Merged => {
  const alone = new Set<string>(wanted);
  for (const act of acts) {
    if (act.variable !== variable.id) continue;
    if ('toggle' in act) act.toggle.forEach((v) => alone.add(v));
    else if ('step' in act) act.step.forEach((v) => alone.add(v));
  }
  const sets = [...new Map(conditions.filter((c) => c.variable === variable.id).map((c) => [c.in.join('\u0000'), new Set(c.in)])).values()];
  const part = new Int32Array(variable.domain.length);
  const split = (bitOf: (value: string, i: number) => number): void => {
    const ids = new Map<number, number>();
    variable.domain.forEach((value, i) => {
      const sign = part[i]! * (variable.domain.length + 1) + bitOf(value, i);
      let id = ids.get(sign);
      if (id === undefined) ids.set(sign, id = ids.size);
      part[i] = id;
    });
  };
  split((value, i) => (alone.has(value) ? i + 1 : 0));
  for (const set of sets) split((value) => (set.has(value) ? 1 : 0));
  const names: string[] = [];
  variable.domain.forEach((value, i) => { names[part[i]!] ??= value; });
  return { names, of: new Map(variable.domain.map((value, i) => [value, part[i]!])) };
};

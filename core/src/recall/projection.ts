import { keptIn } from '../rig/kept.js';
import { eventOf, placeOf, type Writers, type WritersByVariable } from './cone.js';
import { EventClasses, type Guard, type Op } from './event-classes.js';
import { afterAct, type Condition, type RecallSystem, type SystemAct, type SystemEvent, type Together, type Variable } from './system.js';
import { actNumbers, allowedBy, conditionNumber, guardNumber } from './texts.js';

/** Guards and ops of the same form say the same. */
interface WithForm {
  readonly form: number;
}

/** A recall system cut down to a cone, in small integers; values that the cone cannot tell apart are merged. */
export interface Projection {
  readonly variables: readonly string[];
  readonly sizes: readonly number[];
  /** Events that do the same within the cone are one class. */
  readonly classes: EventClasses;
  /** Of each class whether it is judged what it leaves. */
  readonly asked: readonly boolean[];
  /** The class of each member; members that come to the same once values are merged share one. */
  readonly classOf: readonly number[];
  /** Places of the variables whose value is judged. */
  readonly judged: readonly number[];
  /** A name for each merged value. */
  readonly names: readonly (readonly string[])[];
  /** The merged value of each value. */
  readonly merged: readonly ReadonlyMap<string, number>[];
  readonly initial: readonly (readonly number[])[];
  readonly rows: readonly { readonly at: readonly number[]; readonly rows: readonly (readonly number[])[] }[];
}

/** The acts of an event that write the cone; every event that has just these acts there is the same member. */
export interface Member {
  readonly event: SystemEvent;
  readonly acts: readonly SystemAct[];
  /** The numbers of its acts. */
  readonly numbers: readonly number[];
  /** A sound is called by one of its events: what it leaves is judged. */
  isAsked: boolean;
}

/** What a cone holds of a system. */
export interface Cut {
  readonly cone: readonly string[];
  /** Equal keys: the same projection, whatever else the systems hold. */
  readonly key: string;
  /** The member of each event; -1 for events that write nothing in the cone. */
  readonly memberOf: Int32Array;
  readonly members: readonly Member[];
}

const START = 0;

/** Rows of numbers as paths: equal rows end at the same place. */
class Paths {
  /** The number with which the first path went on from each place, and where to; most places have no other. */
  private readonly first: number[] = [];
  private readonly next: number[] = [];
  private readonly others = new Map<number, Map<number, number>>();

  constructor() {
    this.place();
  }

  private place(): number {
    this.first.push(NOWHERE);
    return this.next.push(NOWHERE) - 1;
  }

  /** Where the path leads that goes on from a place with this number. */
  goOn(from: number, number: number): number {
    if (this.next[from] === NOWHERE) {
      this.first[from] = number;
      this.next[from] = this.place();
    }
    if (this.first[from] === number) return this.next[from]!;
    return keptIn(keptIn(this.others, from, () => new Map<number, number>()), number, () => this.place());
  }
}

const NOWHERE = -1;

/**
 * Gathers what writes a cone, event by event, and merges events alike into members, in the order in which they are first met.
 * @param judged says of the cone's variables which values are wanted of them
 * @param recalls ids of the events that call sounds
 */
export const cutTo = (system: RecallSystem, cone: readonly string[], writers: WritersByVariable, about: (cone: readonly string[]) => string, judged: string, recalls: ReadonlySet<string>): Cut => {
  const memberOf = new Int32Array(system.events.length).fill(-1);
  const members: Member[] = [];
  const keys: string[] = [];
  const paths = new Paths();
  const memberAt: number[] = [];
  const writes = new InOrder(cone.map((v) => writers.get(v)!));
  for (let write = writes.next(); write >= 0; ) {
    const e = eventOf(write);
    const event = system.events[e]!;
    const numbers = actNumbers(event);
    const places: number[] = [];
    let at = paths.goOn(START, guardNumber(event));
    for (; write >= 0 && eventOf(write) === e; write = writes.next()) {
      const place = placeOf(write);
      places.push(place);
      at = paths.goOn(at, numbers[place]!);
    }
    let member = memberAt[at];
    if (member === undefined) {
      const own = places.map((place) => numbers[place]!);
      memberAt[at] = member = members.push({ event, acts: places.map((place) => event.acts[place]!), numbers: own, isAsked: false }) - 1;
      keys.push(`${guardNumber(event)};${own.join(';')}`);
    }
    if (recalls.has(event.id)) members[member]!.isAsked = true;
    memberOf[e] = member;
  }
  return { cone, key: `${about(cone)}\n${judged}\n${keys.map((key, i) => (members[i]!.isAsked ? `${key}!` : key)).join('\n')}`, memberOf, members };
};

/** Several ascending lists as one. */
class InOrder {
  private readonly at: number[];

  constructor(private readonly lists: readonly Writers[]) {
    this.at = lists.map(() => 0);
  }

  /** The next number; −1 behind the last. */
  next(): number {
    let from = -1;
    let least = -1;
    for (let k = 0; k < this.lists.length; k += 1) {
      const list = this.lists[k]!;
      const at = this.at[k]!;
      if (at < list.length && (from < 0 || list[at]! < least)) {
        from = k;
        least = list[at]!;
      }
    }
    if (from >= 0) this.at[from]! += 1;
    return least;
  }
}

/** Says of a cone what its variables are at power-up, with the rows of values that come together: part of its key. */
export const powerUpSpeaker = (system: RecallSystem): ((cone: readonly string[]) => string) => {
  const variables = new Map(system.variables.map((v) => [v.id, v]));
  const texts = new Map<string, string>();
  const textOf = (id: string): string => keptIn(texts, id, () => `${id}:${variables.get(id)!.domain.join(',')}:${variables.get(id)!.initial.join(',')}`);
  const groups = system.together ?? [];
  const groupOf = new Map(groups.flatMap((group, g) => group.variables.map((v) => [v, g] as const)));
  const rowTexts = new Map<string, string>();
  return (cone) => {
    const columns = new Map<number, string[]>();
    for (const v of cone) {
      const g = groupOf.get(v);
      if (g !== undefined) columns.set(g, [...(columns.get(g) ?? []), v]);
    }
    const rows = [...columns].map(([g, variables]) => {
      const key = variables.join(' ');
      const text = rowTexts.get(key) ?? distinct(rowsInCone(groups[g]!, new Map(variables.map((v, i) => [v, i]))).rows).join('/');
      rowTexts.set(key, text);
      return `${key}:${text}`;
    });
    return [...cone.map(textOf), ...rows].join('|');
  };
};

/**
 * @param wanted for each variable of the cone whose value is judged, the values that some sound wants of it
 */
export const project = (
  system: RecallSystem, { cone, members }: Cut, wanted: ReadonlyMap<string, ReadonlyMap<string, number>>, variables: ReadonlyMap<string, Variable>,
): Projection => {
  const actsOf = new Map<string, SystemAct[]>(cone.map((v) => [v, []]));
  const conditionsOn = new Map<string, Map<number, Condition>>(cone.map((v) => [v, new Map()]));
  const seen = new Set<number>();
  const reads = (when: readonly Condition[] | undefined) => {
    if (when) for (const c of when) conditionsOn.get(c.variable)!.set(conditionNumber(c), c);
  };
  for (const { event, acts, numbers } of members) {
    reads(event.when);
    for (let i = 0; i < acts.length; i += 1) {
      if (seen.has(numbers[i]!)) continue;
      seen.add(numbers[i]!);
      actsOf.get(acts[i]!.variable)!.push(acts[i]!);
      reads(acts[i]!.when);
    }
  }
  const merged = cone.map((id) => mergeValues(variables.get(id)!, actsOf.get(id)!, [...conditionsOn.get(id)!.values()], wanted.get(id)));
  const place = new Map(cone.map((id, i) => [id, i]));
  const forms = new Map<string, number>();
  const formOf = (text: string): number => keptIn(forms, text, () => forms.size + 1);
  const classes = new EventClasses();
  const guards = new Map<number, Guard & WithForm>();
  const guardOf = (c: Condition): Guard & WithForm => {
    const number = conditionNumber(c);
    let guard = guards.get(number);
    if (!guard) {
      const at = place.get(c.variable)!;
      const allowed = allowedBy(c);
      const { names } = merged[at]!;
      const allows = new Uint8Array(names.length);
      for (let v = 0; v < names.length; v += 1) if (allowed.has(names[v]!)) allows[v] = 1;
      guards.set(number, guard = { at, table: classes.table(allows), form: formOf(`${at}?${allows.join('')}`) });
    }
    return guard;
  };
  const ops = new Map<number, Op & WithForm>();
  const opOf = (act: SystemAct, number: number): Op & WithForm => {
    let op = ops.get(number);
    if (!op) {
      const at = place.get(act.variable)!;
      const { names, of } = merged[at]!;
      const becomes = 'set' in act ? ALL_ALIKE : names.map((name) => of.get(afterAct(act, name))!);
      const to = 'set' in act ? of.get(act.set)! : becomes.every((v) => v === becomes[0]) ? becomes[0]! : -1;
      const under = act.when?.map(guardOf) ?? [];
      ops.set(number, op = { at, guards: under, to, table: to < 0 ? classes.table(becomes) : -1, form: formOf(`${under.map((g) => g.form).join(';')}>${at}=${to < 0 ? `${becomes.join(',')}*` : to}`) });
    }
    return op;
  };
  const grouped = groupsIn(system, cone).map((g) => rowsInCone(g, place));
  const inGroup = new Set(grouped.flatMap((g) => g.at));
  const paths = new Paths();
  const classAt: number[] = [];
  const asked: boolean[] = [];
  const classOf = members.map(({ event, acts, numbers, isAsked }): number => {
    const [when, does] = [event.when?.map(guardOf) ?? [], acts.map((act, i) => opOf(act, numbers[i]!))];
    let at = paths.goOn(START, event.last ? LAST : ANY);
    for (const guard of when) at = paths.goOn(at, guard.form);
    at = paths.goOn(at, ANY);
    for (const op of does) at = paths.goOn(at, op.form);
    const made = (classAt[at] ??= classes.add(when, does, event.last === true));
    asked[made] ||= isAsked;
    return made;
  });
  return {
    variables: cone,
    classes,
    classOf,
    asked,
    judged: cone.flatMap((id, i) => (wanted.has(id) ? [i] : [])),
    sizes: merged.map((m) => m.names.length),
    names: merged.map((m) => m.names),
    merged: merged.map((m) => m.of),
    initial: cone.map((id, i) => (inGroup.has(i) ? [] : [...new Set(variables.get(id)!.initial.map((v) => merged[i]!.of.get(v)!))])),
    rows: grouped.map(({ at, rows }) => ({ at, rows: distinct(rows.map((row) => row.map((v, k) => merged[at[k]!]!.of.get(v)!))) })),
  };
};

const ALL_ALIKE: readonly number[] = [];
/** No form has these numbers. */
const [ANY, LAST] = [0, -1];

const groupsBefore = new WeakMap<RecallSystem, ReadonlyMap<string, number>>();

/** The groups of variables that come together at power-up and have one in the cone, in the order of the system. */
const groupsIn = (system: RecallSystem, cone: readonly string[]): readonly Together[] => {
  const groups = system.together ?? [];
  const groupOf = keptIn(groupsBefore, system, () => new Map(groups.flatMap((group, g) => group.variables.map((v) => [v, g] as const))));
  const found = new Set<number>();
  for (const v of cone) {
    const g = groupOf.get(v);
    if (g !== undefined) found.add(g);
  }
  return [...found].sort((a, b) => a - b).map((g) => groups[g]!);
};

const rowsInCone = (group: Together, place: ReadonlyMap<string, number>) => {
  const columns = group.variables.map((v, i) => [place.get(v), i] as const).filter((c): c is readonly [number, number] => c[0] !== undefined);
  return { at: columns.map(([at]) => at), rows: columns.length ? group.rows.map((row) => columns.map(([, i]) => row[i]!)) : [] };
};

const distinct = <T>(rows: readonly (readonly T[])[]): readonly (readonly T[])[] => [...new Map(rows.map((row) => [row.join(','), row])).values()];

interface Merged {
  /** One value that stands for each merged value. */
  readonly names: readonly string[];
  readonly of: ReadonlyMap<string, number>;
}

/** Room for the parts of one split after the other. */
let scratch = new Int32Array(1024);

/** Two values are one when no condition, toggle, step or want in the cone tells them apart. */
const mergeValues = (variable: Variable, acts: readonly SystemAct[], conditions: readonly Condition[], wanted: ReadonlyMap<string, number> | undefined): Merged => {
  const alone = new Set<string>(wanted?.keys());
  for (const act of acts) {
    if ('toggle' in act) act.toggle.forEach((v) => alone.add(v));
    else if ('step' in act) act.step.forEach((v) => alone.add(v));
  }
  const { domain } = variable;
  const part = new Int32Array(domain.length);
  let parts = 1;
  /** Values of one part that have another mark among them fall apart. */
  const split = (marks: number, markOf: (value: string, i: number) => number): void => {
    if (scratch.length < parts * marks) scratch = new Int32Array(parts * marks * 2);
    const ids = scratch.fill(-1, 0, parts * marks);
    parts = 0;
    for (let i = 0; i < domain.length; i += 1) {
      const sign = part[i]! * marks + markOf(domain[i]!, i);
      if (ids[sign] === -1) {
        ids[sign] = parts;
        parts += 1;
      }
      part[i] = ids[sign]!;
    }
  };
  split(domain.length + 1, (value, i) => (alone.has(value) ? i + 1 : 0));
  for (const c of conditions) {
    const allowed = allowedBy(c);
    split(2, (value) => (allowed.has(value) ? 1 : 0));
  }
  const names: string[] = [];
  domain.forEach((value, i) => { names[part[i]!] ??= value; });
  return { names, of: new Map(domain.map((value, i) => [value, part[i]!])) };
};

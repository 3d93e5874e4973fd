import { keptIn, once } from '../kept/kept.js';
import { eventOf, placeOf, type Writers, type WritersByVariable } from './cone.js';
import { Paths, START } from './paths.js';
import { guardNumber } from './texts.js';
import type { RecallSystem, SystemEvent, Together } from './system.js';

/** The acts of an event that write the cone; every event that has just these acts there is the same member. */
export interface Member {
  readonly event: SystemEvent;
  /** Where they begin among the signs of the cut, and where they end. */
  readonly from: number;
  readonly to: number;
  /** A sound is called by one of its events: what it leaves is judged. */
  isAsked: boolean;
}

/**
 * What a cone holds of a system. Of the same text and the same signs: the same projection, whatever else the systems
 * hold.
 */
export interface Cut {
  readonly cone: readonly string[];
  /** What its variables are at power-up and what is wanted of them. */
  readonly text: string;
  /** A sound can be called by an event that writes nothing here. */
  readonly isLeftBySome: boolean;
  /** Its members, each as the numbers of its guard and its acts, ended by one that says whether it is asked. */
  readonly signs: readonly number[];
  /** For each sign that is an act its place in the event of its member. */
  readonly places: readonly number[];
  /** The member of each event; -1 for events that write nothing in the cone. */
  readonly memberOf: Int32Array;
  readonly members: readonly Member[];
}

/** Of each event the number of what must hold for it, and whether it calls a sound. */
const eventsOf = once(({ events, sounds }: RecallSystem) => {
  const recalls = new Set(sounds.map((s) => s.recall));
  return { guards: events.map(guardNumber), isCall: events.map((e) => recalls.has(e.id)), calls: recalls.size };
});

/**
 * Gathers what writes a cone, event by event, and merges events alike into members, in the order in which they are
 * first met.
 * @param judged says of the cone's variables which values are wanted of them
 */
export const cutTo = (
  system: RecallSystem,
  cone: readonly string[],
  writers: WritersByVariable,
  about: (cone: readonly string[]) => string,
  judged: string,
): Cut => {
  const { guards, isCall, calls } = eventsOf(system);
  const memberOf = new Int32Array(system.events.length).fill(-1);
  const members: Member[] = [];
  const signs: number[] = [];
  const places: number[] = [];
  const sign = (number: number, place: number): void => {
    signs.push(number);
    places.push(place);
  };
  let called = 0;
  paths.clear();
  const writes = new InOrder(cone.map((v) => writers.get(v)!));
  for (let write = writes.next(); write >= 0;) {
    const e = eventOf(write);
    let count = 0;
    let at = paths.goOn(START, guards[e]!);
    for (; write >= 0 && eventOf(write) === e; write = writes.next()) {
      written[count] = placeOf(write);
      said[count] = writes.says;
      count += 1;
      at = paths.goOn(at, writes.says);
    }
    let member = paths.endAt(at);
    if (member < 0) {
      sign(guards[e]!, NO_ACT);
      const from = signs.length;
      for (let k = 0; k < count; k += 1) sign(said[k]!, written[k]!);
      member = paths.endWith(
        at,
        members.push({ event: system.events[e]!, from, to: signs.length, isAsked: false }) - 1,
      );
      sign(LED_TO, NO_ACT);
    }
    memberOf[e] = member;
    if (!isCall[e]) continue;
    called += 1;
    members[member]!.isAsked = true;
    signs[members[member]!.to] = ASKED;
  }
  const isLeftBySome = called < calls;
  return {
    cone,
    text: `${about(cone)}\n${judged}${isLeftBySome ? '\nleft' : ''}`,
    isLeftBySome,
    signs,
    places,
    memberOf,
    members,
  };
};

/** No guard and no act has these numbers. */
const [LED_TO, ASKED] = [-1, -2];
const NO_ACT = -1;
const paths = new Paths();
/** Room for the places of one event after the other, and for what its acts there say. */
const [written, said]: [number[], number[]] = [[], []];

export const sameSigns = (a: Cut, b: Cut): boolean =>
  a.signs.length === b.signs.length && a.signs.every((sign, i) => sign === b.signs[i]);

/** The acts that write several variables, in order. */
class InOrder {
  private readonly at: number[];
  /** What the act says that came last. */
  says = 0;

  constructor(private readonly lists: readonly Writers[]) {
    this.at = lists.map(() => 0);
  }

  /** Where the next act is; −1 behind the last. */
  next(): number {
    let from = -1;
    let least = -1;
    for (let k = 0; k < this.lists.length; k += 1) {
      const list = this.lists[k]!.at;
      const at = this.at[k]!;
      if (at < list.length && (from < 0 || list[at]! < least)) {
        from = k;
        least = list[at]!;
      }
    }
    if (from < 0) return least;
    this.says = this.lists[from]!.says[this.at[from]!]!;
    this.at[from]! += 1;
    return least;
  }
}

/** Says of a cone what its variables are at power-up, with the rows of values that come together: part of its key. */
export const powerUpSpeaker = (system: RecallSystem): ((cone: readonly string[]) => string) => {
  const variables = new Map(system.variables.map((v) => [v.id, v]));
  const texts = new Map<string, string>();
  const textOf = (id: string): string =>
    keptIn(texts, id, () => `${id}:${variables.get(id)!.domain.join(',')}:${variables.get(id)!.initial.join(',')}`);
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
      const text =
        rowTexts.get(key) ?? distinct(rowsInCone(groups[g]!, new Map(variables.map((v, i) => [v, i]))).rows).join('/');
      rowTexts.set(key, text);
      return `${key}:${text}`;
    });
    return [...cone.map(textOf), ...rows].join('|');
  };
};

const groupsBefore = new WeakMap<RecallSystem, ReadonlyMap<string, number>>();

/** The groups of variables that come together at power-up and have one in the cone, in the order of the system. */
export const groupsIn = (system: RecallSystem, cone: readonly string[]): readonly Together[] => {
  const groups = system.together ?? [];
  const groupOf = keptIn(
    groupsBefore,
    system,
    () => new Map(groups.flatMap((group, g) => group.variables.map((v) => [v, g] as const))),
  );
  const found = new Set<number>();
  for (const v of cone) {
    const g = groupOf.get(v);
    if (g !== undefined) found.add(g);
  }
  return [...found].sort((a, b) => a - b).map((g) => groups[g]!);
};

export const rowsInCone = (group: Together, place: ReadonlyMap<string, number>) => {
  const columns = group.variables
    .map((v, i) => [place.get(v), i] as const)
    .filter((c): c is readonly [number, number] => c[0] !== undefined);
  return {
    at: columns.map(([at]) => at),
    rows: columns.length ? group.rows.map((row) => columns.map(([, i]) => row[i]!)) : [],
  };
};

export const distinct = <T>(rows: readonly (readonly T[])[]): readonly (readonly T[])[] => [
  ...new Map(rows.map((row) => [row.join(','), row])).values(),
];

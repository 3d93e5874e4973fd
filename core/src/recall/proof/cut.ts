import { keptIn, once } from '../../rig/kept.js';
import { eventOf, placeOf, type Writers, type WritersByVariable } from './cone.js';
import { Paths, START } from './paths.js';
import { actNumbers, guardNumber } from './texts.js';
import type { RecallSystem, SystemEvent, Together } from './system.js';

/** The acts of an event that write the cone; every event that has just these acts there is the same member. */
export interface Member {
  readonly event: SystemEvent;
  /** The numbers of all acts of the event. */
  readonly numbers: readonly number[];
  /** Which of its acts these are. */
  readonly places: readonly number[];
  /** A sound is called by one of its events: what it leaves is judged. */
  isAsked: boolean;
}

/** What a cone holds of a system. Of the same text and the same signs: the same projection, whatever else the systems hold. */
export interface Cut {
  readonly cone: readonly string[];
  /** What its variables are at power-up and what is wanted of them. */
  readonly text: string;
  /** A sound can be called by an event that writes nothing here. */
  readonly isLeftBySome: boolean;
  /** Its members, each as the numbers of its guard and its acts, ended by one that says whether it is asked. */
  readonly signs: readonly number[];
  /** The member of each event; -1 for events that write nothing in the cone. */
  readonly memberOf: Int32Array;
  readonly members: readonly Member[];
}

/** Of each event the numbers of its acts and of what must hold for it. */
const numbersIn = once((system: RecallSystem) => ({ acts: system.events.map(actNumbers), guards: system.events.map(guardNumber) }));

/**
 * Gathers what writes a cone, event by event, and merges events alike into members, in the order in which they are first met.
 * @param judged says of the cone's variables which values are wanted of them
 * @param recalls ids of the events that call sounds
 */
export const cutTo = (system: RecallSystem, cone: readonly string[], writers: WritersByVariable, about: (cone: readonly string[]) => string, judged: string, recalls: ReadonlySet<string>): Cut => {
  const { acts, guards } = numbersIn(system);
  const memberOf = new Int32Array(system.events.length).fill(-1);
  const members: Member[] = [];
  let calls = 0;
  const signs: number[] = [];
  const endings: number[] = [];
  paths.clear();
  const writes = new InOrder(cone.map((v) => writers.get(v)!));
  for (let write = writes.next(); write >= 0; ) {
    const e = eventOf(write);
    const event = system.events[e]!;
    const numbers = acts[e]!;
    let count = 0;
    let at = paths.goOn(START, guards[e]!);
    for (; write >= 0 && eventOf(write) === e; write = writes.next()) {
      const place = placeOf(write);
      scratch[count] = place;
      count += 1;
      at = paths.goOn(at, numbers[place]!);
    }
    let member = paths.endAt(at);
    if (member < 0) {
      const places = scratch.slice(0, count);
      signs.push(guards[e]!);
      for (const place of places) signs.push(numbers[place]!);
      endings.push(signs.push(LED_TO) - 1);
      member = paths.endWith(at, members.push({ event, numbers, places, isAsked: false }) - 1);
    }
    if (recalls.has(event.id)) {
      calls += 1;
      members[member]!.isAsked = true;
      signs[endings[member]!] = ASKED;
    }
    memberOf[e] = member;
  }
  const isLeftBySome = calls < recalls.size;
  return { cone, text: `${about(cone)}\n${judged}${isLeftBySome ? '\nleft' : ''}`, isLeftBySome, signs, memberOf, members };
};

/** No guard and no act has these numbers. */
const [LED_TO, ASKED] = [-1, -2];
const paths = new Paths();
/** Room for the places of one event after the other. */
const scratch: number[] = [];

export const sameSigns = (a: Cut, b: Cut): boolean => a.signs.length === b.signs.length && a.signs.every((sign, i) => sign === b.signs[i]);

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

const groupsBefore = new WeakMap<RecallSystem, ReadonlyMap<string, number>>();

/** The groups of variables that come together at power-up and have one in the cone, in the order of the system. */
export const groupsIn = (system: RecallSystem, cone: readonly string[]): readonly Together[] => {
  const groups = system.together ?? [];
  const groupOf = keptIn(groupsBefore, system, () => new Map(groups.flatMap((group, g) => group.variables.map((v) => [v, g] as const))));
  const found = new Set<number>();
  for (const v of cone) {
    const g = groupOf.get(v);
    if (g !== undefined) found.add(g);
  }
  return [...found].sort((a, b) => a - b).map((g) => groups[g]!);
};

export const rowsInCone = (group: Together, place: ReadonlyMap<string, number>) => {
  const columns = group.variables.map((v, i) => [place.get(v), i] as const).filter((c): c is readonly [number, number] => c[0] !== undefined);
  return { at: columns.map(([at]) => at), rows: columns.length ? group.rows.map((row) => columns.map(([, i]) => row[i]!)) : [] };
};

export const distinct = <T>(rows: readonly (readonly T[])[]): readonly (readonly T[])[] => [...new Map(rows.map((row) => [row.join(','), row])).values()];

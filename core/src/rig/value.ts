import type { Ref } from './ids.js';

export type Value = string | number;

/** All facts must hold. An empty list, or none: always. */
export type When = readonly Fact[];
export type Fact =
  | { readonly control: string; readonly in: readonly Value[] }
  | { readonly control: string; readonly from: number; readonly to: number }
  /** Switched sockets, "left/mono", normals, closing inserts. */
  | { readonly jack: string; readonly plugged: boolean };

/** A point of a device: a pole of a jack (`in`, `exp:ring`; no pole = tip) or an inner bus (`#pre`). */
export type PointName = string;

/** What a fact is judged by: the values of one device's controls, and where plugs are in. */
export interface Circumstances {
  readonly value: (control: string) => Value | undefined;
  readonly plugged: (jack: string) => boolean;
}

/** What a fact says of a control. */
export type ControlFact = Exclude<Fact, { readonly jack: string }>;

/** Whether a control with this value makes the fact true. */
export const allows = (fact: ControlFact, value: Value): boolean => {
  if ('in' in fact) {
    const text = String(value);
    return fact.in.some((v) => String(v) === text);
  }
  const amount = Number(value);
  return amount >= fact.from && amount <= fact.to;
};

const factHolds = (fact: Fact, now: Circumstances): boolean => {
  if ('jack' in fact) return now.plugged(fact.jack) === fact.plugged;
  const value = now.value(fact.control);
  return value !== undefined && allows(fact, value);
};

export const holds = (when: When | undefined, now: Circumstances): boolean =>
  (when ?? []).every((fact) => factHolds(fact, now));

/** Where it counts. All that are given must fit; of several that fit, the one with more of them wins. */
export interface Case {
  readonly hookup?: `hookup:${string}`;
  readonly instrument?: `device:${string}`;
  readonly song?: `song:${string}`;
}

export type Settings = Readonly<Record<Ref, Value>>;

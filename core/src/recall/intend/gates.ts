import type { Control } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import type { Rig } from '../../rig/rig.js';
import { allows, type Fact, type Value, type When } from '../../rig/value.js';
import { inArrangement, restingValue } from '../../signal/graph/state.js';
import type { Need, Wiring } from '../../signal/graph/wiring.js';
import { theItem } from '../../known/the.js';
import { controlAt } from '../../rig/box.js';

type Known = (r: Ref) => Value | undefined;
type Opening = readonly (readonly [Ref, Value])[];

/**
 * A value that makes the fact true: of several the one at which the control rests, else the first, or the middle of a
 * range (never its end, unasked).
 */
export const valueFor = (fact: Fact, control: Control | undefined): Value | undefined => {
  if (!('control' in fact)) return undefined;
  const rest = control && restingValue(control);
  if (rest !== undefined && allows(fact, rest)) return rest;
  if ('in' in fact) return fact.in[0];
  const step = (control && 'min' in control.domain && control.domain.step) || 1;
  const middle = fact.from + Math.round((fact.to - fact.from) / 2 / step) * step;
  return middle > fact.to ? fact.from : middle;
};

const against = new WeakMap<Control, Map<Fact, { readonly value: Value | undefined }>>();

/** A value that makes the fact false. */
export const valueAgainst = (rig: Rig, control: Ref, fact: Fact): Value | undefined => {
  const found = controlAt(rig, control);
  if (!found || !('control' in fact)) return undefined;
  return keptIn(
    keptIn(against, found, () => new Map<Fact, { readonly value: Value | undefined }>()),
    fact,
    () => {
      const { domain } = found;
      const values = 'values' in domain ? domain.values : 'min' in domain ? [domain.min, domain.max] : [];
      return { value: values.find((v) => !allows(fact, v)) };
    },
  ).value;
};

/** What must still be set for the facts to hold; undefined when what is known forbids it. */
export const toHold = (rig: Rig, device: Need['device'], when: When, known: Known): Opening | undefined => {
  const opening: [Ref, Value][] = [];
  for (const fact of when) {
    if (!('control' in fact)) continue;
    const control = ref(device, fact.control);
    const value = known(control);
    if (value === undefined) {
      const chosen = valueFor(fact, controlAt(rig, control));
      if (chosen === undefined) return undefined;
      opening.push([control, chosen]);
    } else if (!allows(fact, value)) return undefined;
  }
  return opening;
};

const NOTHING: Opening = [];

const opens = (rig: Rig, need: Need, known: Known): Opening | undefined => {
  if ('when' in need) {
    let isOpen = true;
    for (const { control, allows } of need.facts) {
      const value = known(control);
      if (value === undefined) isOpen = false;
      else if (!allows(value)) return undefined;
    }
    return isOpen ? NOTHING : toHold(rig, need.device, need.when, known);
  }
  let cheapest: Opening | undefined;
  for (const fact of need.unless) {
    if (!('control' in fact)) continue;
    const control = ref(need.device, fact.control);
    const value = known(control);
    if (value === undefined) {
      const against = valueAgainst(rig, control, fact);
      if (against !== undefined && !cheapest) cheapest = [[control, against]];
    } else if (!allows(fact, value)) return NOTHING;
  }
  return cheapest;
};

/** By edge: no arrangement leaves it out. */
const inUse = (wiring: Wiring, known: Known): Uint8Array => {
  const edges = new Uint8Array(wiring.edges.length);
  for (const e of wiring.plain) edges[e] = 1;
  for (const ordered of wiring.ordered)
    for (const e of inArrangement(ordered, String(known(ordered.control) ?? ordered.usual))) edges[e] = 1;
  return edges;
};

/**
 * The gates, mutes and routes to open so that sound gets from one point to another: the way that needs fewest.
 * @returns undefined when no way is left by what is known
 */
export const gatesToOpen = (rig: Rig, wiring: Wiring, from: number, to: number, known: Known): Opening | undefined => {
  const cost = new Float64Array(wiring.points.length).fill(Infinity);
  const before = new Int32Array(wiring.points.length);
  /** Where something is opened on the way to a point. */
  const opened = new Map<number, Opening>();
  const buckets: number[][] = [[from]];
  cost[from] = 0;
  const inLine = inUse(wiring, known);
  for (let c = 0; c < buckets.length; c += 1) {
    for (const point of buckets[c] ?? []) {
      if (cost[point] !== c) continue;
      if (point === to) return openedOn(before, opened, from, to);
      for (const e of theItem(wiring.out, point)) {
        if (!inLine[e] || theItem(cost, theItem(wiring.to, e)) <= c) continue;
        const opening = wiring.open[e] ? NOTHING : toPass(rig, theItem(wiring.edges, e).needs, known);
        const next = c + (opening?.length ?? Infinity);
        const there = theItem(wiring.to, e);
        if (!opening || next >= theItem(cost, there)) continue;
        cost[there] = next;
        before[there] = point;
        if (opening.length) opened.set(there, opening);
        else opened.delete(there);
        (buckets[next] ??= []).push(there);
      }
    }
  }
  return undefined;
};

/** What to open for all needs of an edge; undefined when what is known forbids it. */
const toPass = (rig: Rig, needs: readonly Need[], known: Known): Opening | undefined => {
  let opening = NOTHING;
  for (const need of needs) {
    const more = opens(rig, need, known);
    if (!more) return undefined;
    if (more.length) opening = opening.length ? [...opening, ...more] : more;
  }
  return opening;
};

const openedOn = (before: Int32Array, opened: ReadonlyMap<number, Opening>, from: number, to: number): Opening => {
  const all = new Map<Ref, Value>();
  for (let point = to; point !== from; point = theItem(before, point))
    for (const [control, value] of opened.get(point) ?? NOTHING) all.set(control, value);
  return [...all];
};

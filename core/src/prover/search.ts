import { FLAT_LIMIT, jumpsOf, MetStates, productOf, type Jumps } from './met.js';
import type { Projection } from './projection.js';
import type { SystemWant } from './system.js';

/** A way to a wrong value: the merged power-up values and the classes of events before the last, in order. */
export interface StatePath {
  readonly start: readonly string[];
  readonly classes: readonly number[];
}

/**
 * What a search found: for each class of events and each judged variable, the values that it can leave there and the
 * shortest way to each.
 */
export interface Searched {
  readonly done: boolean;
  /** How many were met. */
  readonly states: number;
  readonly projection: Projection;
  /**
   * The nearest value that does not serve a want and that a member leaves in a judged variable; undefined when there
   * is none.
   * @param member -1 for events that write nothing in the cone, which leave what was there before
   */
  readonly otherThan: (want: SystemWant, member: number, variable: number) => Outcome | undefined;
}

export interface Outcome {
  readonly length: number;
  readonly way: () => StatePath;
}

/** States one after the other, each the values of all variables in a row, with the way to each. */
class States {
  private rows = new Uint16Array(256);
  readonly parents: number[] = [];
  readonly vias: number[] = [];
  readonly depths: number[] = [];

  constructor(private readonly width: number) {}

  get count(): number {
    return this.parents.length;
  }

  add(state: Uint16Array, parent: number, via: number, depth: number): void {
    const base = this.count * this.width;
    if (base + this.width > this.rows.length) {
      const rows = new Uint16Array(Math.max(2 * this.rows.length, base + this.width));
      rows.set(this.rows);
      this.rows = rows;
    }
    for (let i = 0; i < this.width; i += 1) this.rows[base + i] = state[i]!;
    this.parents.push(parent);
    this.vias.push(via);
    this.depths.push(depth);
  }

  /** Copies a state into a row of its own. */
  copy(at: number, to: Uint16Array): void {
    const base = at * this.width;
    for (let i = 0; i < this.width; i += 1) to[i] = this.rows[base + i]!;
  }
}

/**
 * Breadth-first over every state that the cone can reach, until all that the judged events can depend on was met.
 * Exact, unless the budget of states runs out;
 * then `done` is false.
 */
// eslint-disable-next-line max-lines-per-function -- the inner loop of the prover shares its arrays
export const search = (projection: Projection, budget: number): Searched => {
  const { sizes, classes, names, merged, judged } = projection;
  const width = sizes.length;
  const states = new States(width);
  const { parents, vias, depths } = states;
  const seen = new MetStates(
    sizes,
    sizes.map((_, i) => i),
  );
  const touches = classes.touches(width);
  const { judging, leading, jumps } = byWhatMatters(projection, touches);
  let done = startStates(projection, budget, (state) => {
    if (seen.isNew(state)) states.add(state, -1, -1, 0);
  });
  /**
   * The judged values of all judged variables in a row, class after class; behind the classes what is there without
   * any event, and so also after each that does not
   * touch it. Where each was first seen: the state before, from 1; 0 for never.
   */
  const offsets = judged.map((_, j) => judged.slice(0, j).reduce((sum, v) => sum + sizes[v]!, 0));
  const perClass = judged.reduce((sum, v) => sum + sizes[v]!, 0);
  const firstSeen = new Int32Array((classes.count + 1) * perClass);
  const note = (c: number, state: Uint16Array, at: number): void => {
    for (let j = 0; j < judged.length; j += 1) {
      const place = c * perClass + offsets[j]! + state[judged[j]!]!;
      if (firstSeen[place] === 0) firstSeen[place] = at + 1;
    }
  };
  const [before, now] = [new Uint16Array(width), new Uint16Array(width)];
  const carriesOut = (c: number): boolean => {
    for (let i = 0; i < width; i += 1) now[i] = before[i]!;
    return classes.carryOut(c, now);
  };
  const goOn = (at: number, c: number): void => {
    if (carriesOut(c) && seen.isNew(now)) states.add(now, at, c, depths[at]! + 1);
  };
  const isOpen = openQuestions(projection, touches, judging, firstSeen.subarray(classes.count * perClass), offsets);
  for (let at = 0; at < states.count && isOpen(); at += 1) {
    if (states.count > budget) {
      done = false;
      break;
    }
    states.copy(at, before);
    note(classes.count, before, at);
    for (const { met, members } of judging)
      if (met.isNew(before)) for (const c of members) if (carriesOut(c)) note(c, now, at);
    for (const { met, members } of leading) if (!met || met.isNew(before)) for (const c of members) goOn(at, c);
    const code = seen.codeOf(before);
    for (const jump of jumps) if (!seen.has(code + jump.from(before))) goOn(at, jump.c);
  }

  const wayTo = (parent: number): StatePath => {
    const path: number[] = [];
    let at = parent;
    for (; parents[at] !== -1; at = parents[at]!) path.unshift(vias[at]!);
    states.copy(at, before);
    return { start: names.map((of, i) => of[before[i]!]!), classes: path };
  };
  /** The one value that is left there, where each row begins. */
  const only = new Int32Array(firstSeen.length).fill(NOT_LOOKED);
  const rowOf = Int32Array.from(sizes, () => -1);
  judged.forEach((variable, j) => {
    rowOf[variable] = offsets[j]!;
  });
  const otherThan = (want: SystemWant, member: number, variable: number): Outcome | undefined => {
    const own = member < 0 ? -1 : projection.classOf[member]!;
    const c = own < 0 || touches[own * width + variable] === 0 ? classes.count : own;
    const first = c * perClass + rowOf[variable]!;
    const wanted = merged[variable]!.get(want.value);
    const others = want.or?.map((value) => merged[variable]!.get(value));
    if (only[first] === NOT_LOOKED) only[first] = onlyIn(firstSeen, first, sizes[variable]!);
    if (only[first] === wanted) return undefined;
    let nearest = -1;
    for (let v = 0; v < sizes[variable]!; v += 1) {
      const parent = firstSeen[first + v]! - 1;
      if (parent >= 0 && v !== wanted && !others?.includes(v) && (nearest < 0 || depths[parent]! < depths[nearest]!))
        nearest = parent;
    }
    return nearest < 0 ? undefined : { length: depths[nearest]! + 1, way: () => wayTo(nearest) };
  };
  return { done, states: states.count, projection, otherThan };
};

const [NOT_LOOKED, NOT_ONE] = [-1, -2];

/** The one value of a row that was ever seen; `NOT_ONE` when there are more, or none. */
const onlyIn = (firstSeen: Int32Array, first: number, size: number): number => {
  let only = NOT_ONE;
  for (let v = 0; v < size; v += 1) {
    if (firstSeen[first + v] === 0) continue;
    if (only !== NOT_ONE) return NOT_ONE;
    only = v;
  }
  return only;
};

/**
 * Says whether the search must go on: judged classes may depend on more than was met, and so may what is there without
 * any event where that is judged.
 */
const openQuestions = (
  { asked, sizes, judged, isLeftBySome }: Projection,
  touches: Uint8Array,
  judging: readonly Judging[],
  left: Int32Array,
  offsets: readonly number[],
): (() => boolean) => {
  const rows = judged.flatMap((variable, j) =>
    isLeftBySome || asked.some((isAsked, c) => isAsked && !touches[c * sizes.length + variable])
      ? [left.subarray(offsets[j]!, offsets[j]! + sizes[variable]!)]
      : [],
  );
  return () => judging.some(({ met }) => met.left > 0) || rows.some((row) => row.includes(0));
};

/** Classes to which the same matters. */
interface Leading {
  readonly members: readonly number[];
  /** States that agree in all that matters to these classes count once; undefined when everything matters. */
  readonly met: MetStates | undefined;
}

/** Judged classes whose outcome depends on the same. */
interface Judging extends Leading {
  readonly met: MetStates;
}

/**
 * Two states that differ only in what an event forgets have the same state after it, and the one met first is the
 * nearer to power-up; so each class is carried out
 * once for all of them. To what it leaves where it is judged only what it touches matters. Classes to which
 * everything matters, but which touch little, jump.
 */
const byWhatMatters = (
  { classes, sizes, asked }: Projection,
  touches: Uint8Array,
): { readonly judging: readonly Judging[]; readonly leading: readonly Leading[]; readonly jumps: readonly Jumps[] } => {
  const width = sizes.length;
  const matters = classes.matters(width);
  const [judging, leading] = [new Alike(), new Alike()];
  const jumps: Jumps[] = [];
  const everywhere = sizes.map((_, i) => i);
  for (let c = 0; c < classes.count; c += 1) {
    const own = c * width;
    const mattering = everywhere.filter((i) => matters[own + i]);
    if (asked[c])
      judging.add(
        mattering.filter((i) => touches[own + i]),
        c,
      );
    if (classes.isLast(c)) continue;
    const jump =
      mattering.length === width
        ? jumpsOf(
            sizes,
            classes,
            c,
            everywhere.filter((i) => touches[own + i]),
          )
        : undefined;
    if (jump) jumps.push(jump);
    else leading.add(mattering, c);
  }
  return {
    jumps,
    judging: judging.groups.map(({ places, members }) => ({ members, met: new MetStates(sizes, places) })),
    leading: leading.groups.map(({ places, members }) => ({
      members,
      met: places.length < width && productOf(sizes, places) <= FLAT_LIMIT ? new MetStates(sizes, places) : undefined,
    })),
  };
};

/** Classes put together by the places that matter. */
class Alike {
  readonly groups: { readonly places: readonly number[]; readonly members: number[] }[] = [];

  add(places: readonly number[], c: number): void {
    const group = this.groups.find(
      (g) => g.places.length === places.length && g.places.every((p, i) => p === places[i]),
    );
    if (group) group.members.push(c);
    else this.groups.push({ places, members: [c] });
  }
}

/** Every power-up state, free variables and rows combined. False when there are more than the budget. */
const startStates = (projection: Projection, budget: number, visit: (state: Uint16Array) => void): boolean => {
  const state = new Uint16Array(projection.sizes.length);
  const choices: readonly { readonly at: readonly number[]; readonly rows: readonly (readonly number[])[] }[] = [
    ...projection.initial.flatMap((values, i) => (values.length ? [{ at: [i], rows: values.map((v) => [v]) }] : [])),
    ...projection.rows,
  ];
  if (choices.reduce((p, c) => p * c.rows.length, 1) > budget) return false;
  const choose = (k: number): void => {
    const choice = choices[k];
    if (!choice) return visit(state);
    for (const row of choice.rows) {
      choice.at.forEach((at, i) => {
        state[at] = row[i]!;
      });
      choose(k + 1);
    }
  };
  choose(0);
  return true;
};

import type { EventClass, Projection } from './projection.js';

/** A way to a wrong value: the merged power-up values and the classes of events before the last, in order. */
export interface Way {
  readonly start: readonly string[];
  readonly classes: readonly number[];
}

/** What a search found: for each class of events and each judged variable, the values that it can leave there and the shortest way to each. */
export interface Searched {
  readonly done: boolean;
  readonly states: number;
  readonly projection: Projection;
  /**
   * The nearest other value than the wanted one that a member leaves in a judged variable; undefined when there is none.
   * @param member -1 for events that write nothing in the cone, which leave what was there before
   */
  readonly otherThan: (value: string, member: number, variable: number) => Outcome | undefined;
}

export interface Outcome {
  readonly length: number;
  readonly way: () => Way;
}

const FLAT_LIMIT = 1 << 22;

/** Breadth-first over every state that the cone can reach. Exact, unless the budget of states runs out; then `done` is false. */
export const search = (projection: Projection, budget: number): Searched => {
  const { sizes, classes, variables } = projection;
  const width = sizes.length;
  const product = sizes.reduce((p, s) => p * s, 1);
  const index = product <= FLAT_LIMIT ? flatIndex(product) : product < Number.MAX_SAFE_INTEGER ? mapIndex<number>() : undefined;
  const factors = sizes.map((_, i) => sizes.slice(0, i).reduce((p, s) => p * s, 1));
  const wide = index ? undefined : mapIndex<string>();

  const values: number[] = [];
  const parents: number[] = [];
  const vias: number[] = [];
  const depths: number[] = [];
  const visit = (state: ArrayLike<number>, parent: number, via: number, depth: number): void => {
    let isNew: boolean;
    if (index) {
      let code = 0;
      for (let i = 0; i < width; i += 1) code += state[i]! * factors[i]!;
      isNew = index(code);
    } else isNew = wide!(Array.prototype.join.call(state, ','));
    if (!isNew) return;
    for (let i = 0; i < width; i += 1) values.push(state[i]!);
    parents.push(parent);
    vias.push(via);
    depths.push(depth);
  };

  const groups = byWhatMatters(projection);
  let done = startStates(projection, budget, (state) => visit(state, -1, -1, 0));
  const { judged } = projection;
  /** The judged values of all judged variables in a row, class after class; behind the classes what is there without any event. Where each was first seen: the state before, from 1; 0 for never. */
  const offsets = judged.map((_, j) => judged.slice(0, j).reduce((sum, v) => sum + sizes[v]!, 0));
  const perClass = judged.reduce((sum, v) => sum + sizes[v]!, 0);
  const firstSeen = new Int32Array((classes.length + 1) * perClass);
  const note = (c: number, state: ArrayLike<number>, base: number, at: number): void => {
    for (let j = 0; j < judged.length; j += 1) {
      const place = c * perClass + offsets[j]! + state[base + judged[j]!]!;
      if (firstSeen[place] === 0) firstSeen[place] = at + 1;
    }
  };
  const now = new Uint16Array(width);
  for (let at = 0; at < parents.length; at += 1) {
    if (parents.length > budget) {
      done = false;
      break;
    }
    const base = at * width;
    const depth = depths[at]!;
    note(classes.length, values, base, at);
    for (const group of groups) {
      if (!group.isNew(values, base)) continue;
      for (const c of group.classes) {
        const event = classes[c]!;
        if (!canHappen(event, values, base)) continue;
        for (let i = 0; i < width; i += 1) now[i] = values[base + i]!;
        carryOut(event, now);
        note(c, now, 0, at);
        if (!event.isLast) visit(now, at, c, depth + 1);
      }
    }
  }

  const wayTo = (parent: number): Way => {
    const path: number[] = [];
    let at = parent;
    for (; parents[at] !== -1; at = parents[at]!) path.unshift(vias[at]!);
    return { start: variables.map((_, i) => projection.names[i]![values[at * width + i]!]!), classes: path };
  };
  const told = [...classes, undefined].map(() => judged.map(() => new Map<string, Outcome | undefined>()));
  const otherThan = (value: string, member: number, variable: number): Outcome | undefined => {
    const c = member < 0 ? classes.length : projection.classOf[member]!;
    const j = judged.indexOf(variable);
    const before = told[c]![j]!;
    const known = before.get(value);
    if (known || before.has(value)) return known;
    let nearest = -1;
    for (let v = 0; v < sizes[variable]!; v += 1) {
      const parent = firstSeen[c * perClass + offsets[j]! + v]! - 1;
      if (parent >= 0 && projection.names[variable]![v] !== value && (nearest < 0 || depths[parent]! < depths[nearest]!)) nearest = parent;
    }
    const outcome = nearest < 0 ? undefined : { length: depths[nearest]! + 1, way: () => wayTo(nearest) };
    before.set(value, outcome);
    return outcome;
  };
  return { done, states: parents.length, projection, otherThan };
};

interface Group {
  readonly classes: readonly number[];
  /** Whether no earlier state agreed with this one in all that matters to these classes. */
  readonly isNew: (values: readonly number[], base: number) => boolean;
}

/**
 * An event forgets a variable that it sets before it or a condition reads it. Two states that differ only in what an event forgets have
 * the same state after it, and the one met first is the nearer to power-up; so each class is carried out once for all of them.
 */
const byWhatMatters = ({ classes, sizes }: Projection): readonly Group[] => {
  const groups = new Map<string, number[]>();
  classes.forEach((event, c) => {
    const matters = new Uint8Array(sizes.length).fill(1);
    const isRead = new Uint8Array(sizes.length);
    for (const g of event.guards) isRead[g.at] = 1;
    for (const op of event.ops) {
      for (const g of op.guards) if (matters[g.at]) isRead[g.at] = 1;
      const overwrites = op.guards.length === 0 && (op.to >= 0 || op.becomes.every((v) => v === op.becomes[0]));
      if (overwrites && !isRead[op.at]) matters[op.at] = 0;
      else if (!overwrites && matters[op.at]) isRead[op.at] = 1;
    }
    const key = matters.join('');
    const group = groups.get(key);
    if (group) group.push(c);
    else groups.set(key, [c]);
  });
  return [...groups].map(([key, members]): Group => {
    const kept = [...key].flatMap((m, i) => (m === '1' ? [i] : []));
    if (kept.length === sizes.length) return { classes: members, isNew: () => true };
    const product = kept.reduce((p, i) => p * sizes[i]!, 1);
    if (product > FLAT_LIMIT) return { classes: members, isNew: () => true };
    const isNewCode = flatIndex(product);
    return {
      classes: members,
      isNew: (values, base) => {
        let code = 0;
        for (const i of kept) code = code * sizes[i]! + values[base + i]!;
        return isNewCode(code);
      },
    };
  });
};

const canHappen = ({ guards }: EventClass, values: ArrayLike<number>, base: number): boolean => {
  for (let g = 0; g < guards.length; g += 1) if (!guards[g]!.allows[values[base + guards[g]!.at]!]) return false;
  return true;
};

/** Carries out what an event that can happen does to the state, in place. */
const carryOut = ({ ops }: EventClass, state: Uint16Array): void => {
  acts: for (let o = 0; o < ops.length; o += 1) {
    const { guards, at, to, becomes } = ops[o]!;
    for (let g = 0; g < guards.length; g += 1) if (!guards[g]!.allows[state[guards[g]!.at]!]) continue acts;
    state[at] = to < 0 ? becomes[state[at]!]! : to;
  }
};

const flatIndex = (product: number) => {
  const seen = new Uint8Array(product);
  return (code: number): boolean => {
    if (seen[code]) return false;
    seen[code] = 1;
    return true;
  };
};

const mapIndex = <K>() => {
  const seen = new Set<K>();
  return (code: K): boolean => {
    if (seen.has(code)) return false;
    seen.add(code);
    return true;
  };
};

/** Every power-up state, free variables and rows combined. False when there are more than the budget. */
const startStates = (projection: Projection, budget: number, visit: (state: ArrayLike<number>) => void): boolean => {
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
      choice.at.forEach((at, i) => { state[at] = row[i]!; });
      choose(k + 1);
    }
  };
  choose(0);
  return true;
};

import { keptIn } from '../kept/kept.js';
import { actNumber, allowedBy, conditionNumber, numberOf } from './texts.js';
import type { Condition, SystemAct, Variable } from './system.js';

/** Of each merged value whether a condition allows it: 1 or 0. Tables of the same number say the same. */
export interface Table {
  readonly values: readonly number[];
  readonly number: number;
}

/** The values of one variable, those that nothing tells apart as one. */
export class Merged {
  private readonly tables = new Map<number, Table>();

  /** @param names one value that stands for each merged value */
  constructor(
    readonly names: readonly string[],
    readonly of: ReadonlyMap<string, number>,
  ) {}

  allowedBy(c: Condition): Table {
    return keptIn(this.tables, conditionNumber(c), () => {
      const allowed = allowedBy(c);
      const values = this.names.map((name) => (allowed.has(name) ? 1 : 0));
      return { values, number: numberOf(values.join('')) };
    });
  }
}

/** Merges values for the cones of one system: what many cones ask of the same variable is worked out once. */
export class Merging {
  private readonly known = new Map<string, Merged>();

  /** @param wanted for each variable that is judged the values that some sound wants of it */
  constructor(
    private readonly variables: ReadonlyMap<string, Variable>,
    readonly wanted: ReadonlyMap<string, ReadonlyMap<string, number>>,
  ) {}

  variable(id: string): Variable {
    return this.variables.get(id)!;
  }

  /** Two values are one when no condition, toggle, step or want tells them apart. @param turns the toggles and steps */
  of(id: string, turns: readonly SystemAct[], conditions: readonly Condition[]): Merged {
    const key = `${id} ${turns.map(actNumber).join()} ${conditions.map(conditionNumber).join()}`;
    return keptIn(this.known, key, () => mergeValues(this.variable(id).domain, turns, conditions, this.wanted.get(id)));
  }
}

/** Room for the parts of one split after the other. */
let scratch = new Int32Array(1024);

const mergeValues = (
  domain: readonly string[],
  turns: readonly SystemAct[],
  conditions: readonly Condition[],
  wanted: ReadonlyMap<string, number> | undefined,
): Merged => {
  const alone = new Set<string>(wanted?.keys());
  for (const act of turns) {
    if ('toggle' in act) act.toggle.forEach((v) => alone.add(v));
    else if ('step' in act) act.step.forEach((v) => alone.add(v));
  }
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
  domain.forEach((value, i) => {
    names[part[i]!] ??= value;
  });
  return new Merged(names, new Map(domain.map((value, i) => [value, part[i]!])));
};

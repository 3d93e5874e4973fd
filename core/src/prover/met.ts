import type { EventClasses } from './event-classes.js';

/** Up to so many states are marked in a table, more are gathered in a set. */
export const FLAT_LIMIT = 1 << 22;

/** How many ways there are to stand at these places. */
export const productOf = (sizes: readonly number[], places: readonly number[]): number => {
  let product = 1;
  for (const i of places) product *= sizes[i]!;
  return product;
};
/** What a step at each of these places counts in a number for all of them. */
const factorsOf = (sizes: readonly number[], places: readonly number[]): readonly number[] => {
  let factor = 1;
  return places.map((i) => {
    const own = factor;
    factor *= sizes[i]!;
    return own;
  });
};

/** States that were met, told apart by their values at some places. */
export class MetStates {
  private readonly factors: readonly number[];
  private readonly flat: Uint8Array | undefined;
  private readonly codes: Set<number | string> | undefined;
  private readonly isWide: boolean;

  /** How many may still come. */
  left: number;

  constructor(
    sizes: readonly number[],
    private readonly places: readonly number[],
  ) {
    const product = productOf(sizes, places);
    this.left = product;
    this.factors = factorsOf(sizes, places);
    this.isWide = product >= Number.MAX_SAFE_INTEGER;
    if (product <= FLAT_LIMIT) this.flat = new Uint8Array(product);
    else this.codes = new Set();
  }

  codeOf(state: Uint16Array): number {
    const { places, factors } = this;
    let code = 0;
    for (let k = 0; k < places.length; k += 1) code += state[places[k]!]! * factors[k]!;
    return code;
  }

  /** Only where there are few enough of them. */
  has(code: number): boolean {
    return this.flat![code] === 1;
  }

  isNew(state: Uint16Array): boolean {
    const isNew = this.isAdded(state);
    if (isNew) this.left -= 1;
    return isNew;
  }

  private isAdded(state: Uint16Array): boolean {
    if (!this.flat)
      return (
        this.codes!.size <
        this.codes!.add(this.isWide ? this.places.map((i) => state[i]!).join() : this.codeOf(state)).size
      );
    const code = this.codeOf(state);
    return this.flat[code] === 0 && (this.flat[code] = 1) === 1;
  }
}

const UNKNOWN = -(2 ** 31);

/** How far one class takes the number of a state, worked out once for all states alike in what it touches. */
export class Jumps {
  private readonly factors: readonly number[];
  private readonly jumps: Int32Array;
  private readonly after: Uint16Array;

  constructor(
    readonly c: number,
    private readonly classes: EventClasses,
    private readonly touched: readonly number[],
    private readonly whole: readonly number[],
    sizes: readonly number[],
  ) {
    this.factors = factorsOf(sizes, touched);
    this.jumps = new Int32Array(productOf(sizes, touched)).fill(UNKNOWN);
    this.after = new Uint16Array(sizes.length);
  }

  /** 0 when it cannot happen. */
  from(state: Uint16Array): number {
    const { touched, factors, jumps } = this;
    let place = 0;
    for (let k = 0; k < touched.length; k += 1) place += state[touched[k]!]! * factors[k]!;
    const known = jumps[place]!;
    return known === UNKNOWN ? (jumps[place] = this.jump(state)) : known;
  }

  private jump(state: Uint16Array): number {
    this.after.set(state);
    return this.classes.carryOut(this.c, this.after)
      ? this.whole.reduce((sum, factor, i) => sum + (this.after[i]! - state[i]!) * factor, 0)
      : 0;
  }
}

const WORTH_A_TABLE = 8;

/** A table for a class that touches little of what there is; undefined where it would not pay. */
export const jumpsOf = (
  sizes: readonly number[],
  classes: EventClasses,
  c: number,
  touched: readonly number[],
): Jumps | undefined => {
  const everywhere = sizes.map((_, i) => i);
  const product = productOf(sizes, everywhere);
  if (product > FLAT_LIMIT) return undefined;
  return productOf(sizes, touched) * WORTH_A_TABLE <= product
    ? new Jumps(c, classes, touched, factorsOf(sizes, everywhere), sizes)
    : undefined;
};

import { keptIn } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';

/** The node to which all voltages are measured. */
export const GROUND = '0';

interface Between {
  readonly name: string;
  readonly n1: string;
  readonly n2: string;
}

/** A part of a linear circuit between two nodes; ohms, farads, henries. A resistance of 0 ohm is a wire. */
export type Element =
  | (Between & { readonly is: 'resistor' | 'capacitor' | 'inductor'; readonly value: number })
  /** An ideal source of 1 V. */
  | (Between & { readonly is: 'source' })
  /** An ideal amplifier: `gain` times the voltage from `ctrlP` to `ctrlN`. */
  | (Between & { readonly is: 'amplifier'; readonly ctrlP: string; readonly ctrlN: string; readonly gain: number });

/** A circuit made ready for any frequency. */
export interface Network {
  /** Voltage of a node in dB over the source's 1 V at a frequency above 0. @throws when sources fight over a node */
  decibels(node: string, hz: number): number;
}

/** One name for all nodes that these parts join; the ground's where it is among them. */
const joinedBy = (elements: readonly Element[]): ((node: string) => string) => {
  const leads = new Map<string, string>();
  const root = (node: string): string => {
    const next = leads.get(node);
    return next === undefined ? node : root(next);
  };
  for (const { n1, n2 } of elements) {
    const [a, b] = [root(n1), root(n2)];
    if (a !== b) leads.set(a === GROUND ? b : a, a === GROUND ? a : b);
  }
  return root;
};

/**
 * A circuit as equations of its nodes and of what flows through its sources (modified nodal analysis; Ho, Ruehli and
 * Brennan, 1975), solved anew for each frequency by elimination with row exchange: a few nodes, so a dense matrix.
 *
 * @throws when a node is joined to ground by nothing
 */
export const network = (elements: readonly Element[]): Network => {
  const root = joinedBy(elements.filter((e) => e.is === 'resistor' && e.value === 0));
  const parts = elements.filter((e) => root(e.n1) !== root(e.n2));
  const nodes = [...new Set(parts.flatMap((e) => [root(e.n1), root(e.n2)]))].filter((n) => n !== GROUND);
  const earthed = joinedBy(parts.map((e) => ({ ...e, n1: root(e.n1), n2: root(e.n2) })));
  const adrift = nodes.find((n) => earthed(n) !== GROUND);
  if (adrift !== undefined) throw new Error(`Node ${adrift} hangs in the air: nothing joins it to ground.`);
  const at = (node: string): number => nodes.indexOf(root(node));
  const equations = equationsOf(parts, nodes.length, at);
  const forNode = new Map<number, Reduced>();
  return {
    decibels: (node, hz) => {
      const wanted = at(node);
      if (wanted < 0) return -Infinity;
      const of = keptIn(forNode, wanted, () => reduced(equations, wanted));
      const { fixed, timesOmega, overOmega, re, im } = of;
      const omega = 2 * Math.PI * hz;
      const per = 1 / omega;
      re.set(fixed);
      for (let k = 0; k < im.length; k += 1) im[k] = timesOmega[k]! * omega + overOmega[k]! * per;
      return 10 * Math.log10(squareOfLast(re, im, of.size));
    },
  };
};

/** Rows of what stays with frequency, of what is times jω, and of what is over jω; each row with its right side last. */
interface Equations {
  readonly size: number;
  readonly fixed: Float64Array;
  readonly timesOmega: Float64Array;
  readonly overOmega: Float64Array;
}

/** Nodes that a source or amplifier holds against ground, and which unknown says what flows there. */
interface Held {
  readonly node: number;
  readonly flow: number;
}

const equationsOf = (
  parts: readonly Element[],
  nodes: number,
  at: (node: string) => number,
): Equations & { readonly held: readonly Held[] } => {
  const flows = parts.filter((e) => e.is === 'source' || e.is === 'amplifier');
  const size = nodes + flows.length;
  const width = size + 1;
  const [fixed, timesOmega, overOmega] = [0, 1, 2].map(() => new Float64Array(size * width)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const add = (into: Float64Array, row: number, column: number, value: number): void => {
    if (row >= 0 && column >= 0) into[row * width + column] = theItem(into, row * width + column) + value;
  };
  const admit = (into: Float64Array, { n1, n2 }: Between, value: number): void => {
    const [a, b] = [at(n1), at(n2)];
    add(into, a, a, value);
    add(into, b, b, value);
    add(into, a, b, -value);
    add(into, b, a, -value);
  };
  for (const e of parts) {
    if (e.is === 'resistor') admit(fixed, e, 1 / e.value);
    if (e.is === 'capacitor') admit(timesOmega, e, e.value);
    if (e.is === 'inductor') admit(overOmega, e, -1 / e.value);
  }
  flows.forEach((e, i) => {
    const row = nodes + i;
    add(fixed, at(e.n1), row, 1);
    add(fixed, at(e.n2), row, -1);
    add(fixed, row, at(e.n1), 1);
    add(fixed, row, at(e.n2), -1);
    if (e.is === 'source') add(fixed, row, size, 1);
    else {
      add(fixed, row, at(e.ctrlP), -e.gain);
      add(fixed, row, at(e.ctrlN), e.gain);
    }
  });
  const held = flows.flatMap((e, i) => (at(e.n2) < 0 ? [{ node: at(e.n1), flow: nodes + i }] : []));
  return { size, fixed, timesOmega, overOmega, held };
};

/** Equations for one node, which stands last: it is known as soon as the others are eliminated. */
interface Reduced extends Equations {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/**
 * Nodes that a source or amplifier holds against ground are put in for the others, once for all frequencies; nobody asks
 * what flows there.
 */
const reduced = (
  { size, fixed, timesOmega, overOmega, held }: Equations & { readonly held: readonly Held[] },
  wanted: number,
): Reduced => {
  const width = size + 1;
  const [f, t, o] = [fixed, timesOmega, overOmega].map((of) => of.slice()) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const gone = new Set<number>();
  for (const { node, flow } of held) {
    if (node === wanted || gone.has(node)) continue;
    const pivot = theItem(f, flow * width + node);
    if (pivot === 0) continue;
    for (let row = 0; row < size; row += 1) {
      if (row === flow) continue;
      for (const matrix of [t, o, f]) {
        const times = theItem(matrix, row * width + node) / pivot;
        if (times !== 0)
          for (let k = 0; k < width; k += 1) matrix[row * width + k]! -= times * theItem(f, flow * width + k);
      }
    }
    gone.add(node).add(flow);
  }
  const left = Array.from({ length: size }, (_, k) => k).filter((k) => k !== wanted && !gone.has(k));
  const rows = [...left, wanted];
  const kept = (of: Float64Array): Float64Array =>
    Float64Array.from(rows.flatMap((row) => [...rows, size].map((column) => theItem(of, row * width + column))));
  const few = rows.length * (rows.length + 1);
  return {
    fixed: kept(f),
    timesOmega: kept(t),
    overOmega: kept(o),
    size: rows.length,
    re: new Float64Array(few),
    im: new Float64Array(few),
  };
};

/** Eliminates rows of complex numbers, each with its right side behind it. @returns the last unknown's size, squared */
const squareOfLast = (re: Float64Array, im: Float64Array, size: number): number => {
  const width = size + 1;
  for (let column = 0; column < size; column += 1) {
    const head = column * width;
    const most = exchangeRows(re, im, size, column);
    if (column === size - 1) {
      const k = head + size;
      return (re[k]! * re[k]! + im[k]! * im[k]!) / most;
    }
    const pr = re[head + column]! / most;
    const pi = -im[head + column]! / most;
    for (let row = column + 1; row < size; row += 1) {
      const from = row * width;
      const r = re[from + column]!;
      const i = im[from + column]!;
      if (r === 0 && i === 0) continue;
      const fr = r * pr - i * pi;
      const fi = r * pi + i * pr;
      for (let k = column + 1; k < width; k += 1) {
        const hr = re[head + k]!;
        const hi = im[head + k]!;
        re[from + k] = re[from + k]! - (fr * hr - fi * hi);
        im[from + k] = im[from + k]! - (fr * hi + fi * hr);
      }
    }
  }
  return 0;
};

/** Brings the row whose number in a column is largest to its place. @returns that number's size, squared */
const exchangeRows = (re: Float64Array, im: Float64Array, size: number, column: number): number => {
  const width = size + 1;
  let best = column;
  let most = 0;
  for (let row = column; row < size; row += 1) {
    const k = row * width + column;
    const is = re[k]! * re[k]! + im[k]! * im[k]!;
    if (is > most) {
      most = is;
      best = row;
    }
  }
  if (most === 0) throw new Error('Its sources fight over a node: it has no definite solution.');
  if (best !== column)
    for (let k = 0; k < width; k += 1) {
      const a = column * width + k;
      const b = best * width + k;
      const r = re[a]!;
      const i = im[a]!;
      re[a] = re[b]!;
      im[a] = im[b]!;
      re[b] = r;
      im[b] = i;
    }
  return most;
};

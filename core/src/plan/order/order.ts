import type { Programme, Solver } from '../solver.js';

/** Somebody wants one box before another; boxes and who wants it by their numbers. */
export interface OrderWant {
  readonly by: number;
  readonly before: number;
  readonly after: number;
}

/** One order of boxes that is to serve everybody. */
export interface OrderProblem {
  readonly boxes: number;
  /** The boxes as they stand now. */
  readonly now: readonly number[];
  readonly wants: readonly OrderWant[];
}

export interface OrderPlan {
  /** The boxes in an order that serves all but those who give way; of such orders the one nearest to how they stand. */
  readonly order: readonly number[];
  /** Who gives way, as few as possible. */
  readonly giveWay: readonly number[];
  /** So many have to give way at least, as far as it is proved. */
  readonly bound: number;
}

/**
 * The smallest set of wants that contradict each other: in a circle each wants its box before the next one's. None where
 * one order serves all: wants of this kind can be met together exactly when no circle is among them.
 */
export const contradiction = ({ boxes, wants }: OrderProblem): readonly OrderWant[] => {
  let smallest: readonly OrderWant[] = [];
  for (let from = 0; from < boxes; from += 1) {
    const ways = new Map<number, readonly OrderWant[]>([[from, []]]);
    const queue = [from];
    for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
      const way = ways.get(at) ?? [];
      if (smallest.length && way.length + 1 >= smallest.length) break;
      const closing = wants.find((w) => w.before === at && w.after === from);
      if (closing) {
        smallest = [...way, closing];
        break;
      }
      for (const want of wants)
        if (want.before === at && !ways.has(want.after)) {
          ways.set(want.after, [...way, want]);
          queue.push(want.after);
        }
    }
  }
  return smallest;
};

/** Whether an order gives a want. */
const isMet = (order: readonly number[], { before, after }: OrderWant): boolean =>
  order.indexOf(before) < order.indexOf(after);

/** Whose wants an order does not give. */
export const unmetBy = ({ wants }: OrderProblem, order: readonly number[]): readonly number[] =>
  [...new Set(wants.filter((w) => !isMet(order, w)).map((w) => w.by))].sort((a, b) => a - b);

/** Pairs of boxes that stand the other way round than now. */
export const turned = ({ now }: OrderProblem, order: readonly number[]): number =>
  now.flatMap((a, i) => now.slice(i + 1).filter((b) => !isMet(order, { by: 0, before: a, after: b }))).length;

/** Somebody who gives way is dearer than all pairs together. */
const WAY = 10_000;

const isBefore = (a: number, b: number): { readonly name: string; readonly isTurned: boolean } =>
  a < b ? { name: `o_${a}_${b}`, isTurned: false } : { name: `o_${b}_${a}`, isTurned: true };

/** Sums in which "a before b" stands for 1 − "b before a" where it is kept the other way round. */
class Sum {
  private readonly terms: string[] = [];
  private constant = 0;
  before(a: number, b: number, times = 1): this {
    const { name, isTurned } = isBefore(a, b);
    this.constant += isTurned ? times : 0;
    return this.add(isTurned ? -times : times, name);
  }
  add(times: number, name: string): this {
    this.terms.push(`${times < 0 ? '-' : '+'} ${Math.abs(times)} ${name}`);
    return this;
  }
  row(is: '<=' | '>=', than: number): string {
    return `${this.terms.join(' ')} ${is} ${than - this.constant}`;
  }
  value(): { readonly text: string; readonly plus: number } {
    return { text: this.terms.join(' '), plus: this.constant };
  }
}

/** The order as an integer programme: each pair one way round, no three in a circle, as few as possible give way. */
export const orderProgramme = (problem: OrderProblem): Programme => {
  const { boxes, now, wants } = problem;
  const rows: string[] = [];
  const goal = new Sum();
  const who = [...new Set(wants.map((w) => w.by))];
  for (const by of who) goal.add(WAY, `d_${by}`);
  const pairs: string[] = [];
  for (let a = 0; a < boxes; a += 1)
    for (let b = a + 1; b < boxes; b += 1) {
      pairs.push(isBefore(a, b).name);
      if (now.includes(a) && now.includes(b)) {
        const [first, second] = now.indexOf(a) < now.indexOf(b) ? [a, b] : [b, a];
        goal.before(second, first);
      }
      for (let c = b + 1; c < boxes; c += 1)
        rows.push(
          new Sum().before(a, b).before(b, c).before(c, a).row('<=', 2),
          new Sum().before(b, a).before(a, c).before(c, b).row('<=', 2),
        );
    }
  for (const { by, before, after } of wants) rows.push(new Sum().before(before, after).add(1, `d_${by}`).row('>=', 1));
  const { text, plus } = goal.value();
  const lines = rows.map((row, i) => `r${i}: ${row}`).join('\n');
  const binaries = [...pairs, ...who.map((by) => `d_${by}`)];
  return {
    text: `Minimize\nobj: ${text}\nSubject To\n${lines}\nBinary\n${binaries.join(' ')}\nEnd\n`,
    plus,
  };
};

/**
 * One order that serves as many as possible, and of these the one in which the fewest boxes change sides.
 * @returns undefined when the solver found nothing in its time
 */
export const planOrder = (problem: OrderProblem, solver: Solver, seconds: number): OrderPlan | undefined => {
  const { boxes, wants } = problem;
  if (boxes < 2 || wants.length === 0) return { order: problem.now, giveWay: [], bound: 0 };
  const { bound, value } = solver(orderProgramme(problem), seconds);
  if (!value) return undefined;
  const leads = (a: number, b: number): boolean => {
    const { name, isTurned } = isBefore(a, b);
    return value(name) > 0.5 !== isTurned;
  };
  const all = Array.from({ length: boxes }, (_, i) => i);
  const before = all.map((b) => all.filter((a) => a !== b && leads(a, b)).length);
  const order = [...all].sort((a, b) => (before[a] ?? 0) - (before[b] ?? 0));
  return { order, giveWay: unmetBy(problem, order), bound: Math.max(0, Math.floor((bound + 1e-6) / WAY)) };
};

import { theItem } from '../../known/the.js';
import { network, type Element } from './circuit.js';

/** What a passive part does to the sound, all against its own level at 100 Hz. Frequencies in Hz. */
export interface Response {
  /** Level at 100 Hz against an ideal source, in dB. */
  readonly at100: number;
  /** The highest peak above 100 Hz, if there is one. */
  readonly peak?: {
    readonly hz: number;
    readonly db: number;
    /** How far it stands out of the lowest point before it, in dB. */
    readonly prominence: number;
  };
  /** Where it has fallen by 3 dB behind its peak; absent where it has not by 1 MHz. */
  readonly minus3?: number;
  /** In dB at any frequency above 0. */
  readonly at: (hz: number) => number;
}

const FROM = 100;
const PER_DECADE = 200;
const DECADES = 4;
/** A peak that stands out by less is none. */
const LEAST_PROMINENCE = 1e-4;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The frequency between two at which a curve with one peak is highest, on a scale of ratios. */
const highest = (of: (hz: number) => number, low: number, high: number): number => {
  let [a, b] = [Math.log(low), Math.log(high)];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [atC, atD] = [of(Math.exp(c)), of(Math.exp(d))];
  while (b - a > 1e-7) {
    if (atC > atD) {
      [b, d, atD] = [d, c, atC];
      c = b - GOLDEN * (b - a);
      atC = of(Math.exp(c));
    } else {
      [a, c, atC] = [c, d, atD];
      d = a + GOLDEN * (b - a);
      atD = of(Math.exp(d));
    }
  }
  return Math.exp((a + b) / 2);
};

/** Where a curve crosses a level between two frequencies on either side of it. */
const crossing = (of: (hz: number) => number, level: number, above: number, below: number): number => {
  let [a, b] = [above, below];
  for (let i = 0; i < 50; i += 1) {
    const middle = Math.sqrt(a * b);
    if (of(middle) > level) a = middle;
    else b = middle;
  }
  return Math.sqrt(a * b);
};

/** The response of a circuit from its source to a node. @throws when the circuit has no definite solution */
export const responseOf = (elements: readonly Element[], output: string): Response => {
  const circuit = network(elements);
  const at100 = circuit.decibels(output, FROM);
  const at = (hz: number): number => circuit.decibels(output, hz) - at100;
  const grid = Array.from({ length: DECADES * PER_DECADE + 1 }, (_, i) => FROM * 10 ** (i / PER_DECADE));
  const levels = grid.map(at);
  const peak = peakOf(at, grid, levels);
  const from = peak && peak.db > -3 ? grid.findIndex((hz) => hz >= peak.hz) : 1;
  const fallen = levels.findIndex((level, i) => i >= from && level <= -3 && theItem(levels, i - 1) > -3);
  const before = Math.max(theItem(grid, Math.max(0, fallen - 1)), peak && fallen === from ? peak.hz : 0);
  return {
    at100,
    at,
    ...(peak ? { peak } : {}),
    ...(fallen > 0 ? { minus3: crossing(at, -3, before, theItem(grid, fallen)) } : {}),
  };
};

const peakOf = (at: (hz: number) => number, grid: readonly number[], levels: readonly number[]): Response['peak'] => {
  let lowest = Infinity;
  let best: NonNullable<Response['peak']> | undefined;
  for (let i = 0; i < levels.length - 1; i += 1) {
    const here = theItem(levels, i);
    lowest = Math.min(lowest, here);
    if (i === 0 || here < theItem(levels, i - 1) || here <= theItem(levels, i + 1)) continue;
    const hz = highest(at, theItem(grid, i - 1), theItem(grid, i + 1));
    const db = at(hz);
    const prominence = db - lowest;
    if (prominence > LEAST_PROMINENCE && (!best || db > best.db)) best = { hz, db, prominence };
  }
  return best;
};

import { grouped } from '../../known/grouped.js';
import { theItem } from '../../known/the.js';
import type { Programme, Solver } from '../solver.js';

/** A length that is to be cut, in whole centimetres. */
export interface CutPiece {
  readonly id: string;
  readonly cm: number;
}

/** A length of cable that there is, in whole centimetres. */
export interface Reel {
  readonly id: string;
  readonly cm: number;
}

export interface CutProblem {
  readonly pieces: readonly CutPiece[];
  readonly reels: readonly Reel[];
}

/** What is cut of which reel. */
export interface CutPlan {
  /** By reel: the pieces, the longest first. Reels that stay whole are not named. */
  readonly cuts: ReadonlyMap<string, readonly string[]>;
  /** Pieces for which there is no cable. */
  readonly left: readonly string[];
  /** What is left of the reels that are cut, in centimetres. */
  readonly offcuts: number;
  /** Nothing leaves fewer pieces uncut, and then cuts into less cable. */
  readonly isProved: boolean;
}

/** What a plan costs, worked out from itself alone: pieces that stay uncut, and the length of all reels that are cut. */
export const cutCost = (
  { pieces, reels }: CutProblem,
  cuts: CutPlan['cuts'],
): { readonly uncut: number; readonly opened: number; readonly wrong: readonly string[] } => {
  const length = new Map(pieces.map((p) => [p.id, p.cm]));
  const there = new Map(reels.map((r) => [r.id, r.cm]));
  const wrong: string[] = [];
  const done = new Set<string>();
  let opened = 0;
  for (const [reel, of] of cuts) {
    const taken = of.reduce((sum, id) => sum + (length.get(id) ?? 0), 0);
    if (taken > (there.get(reel) ?? 0))
      wrong.push(`${taken} cm are cut of ${reel}, which has ${there.get(reel) ?? 0}.`);
    for (const id of of) {
      if (done.has(id)) wrong.push(`${id} is cut twice.`);
      done.add(id);
    }
    opened += there.get(reel) ?? 0;
  }
  return { uncut: pieces.length - done.size, opened, wrong };
};

/** Pieces of one length count together, and so do reels of one length in their order: fewer ways that are alike. */
interface Kinds {
  readonly lengths: readonly { readonly cm: number; readonly ids: readonly string[] }[];
  readonly reels: readonly Reel[];
}

const kindsOf = ({ pieces, reels }: CutProblem): Kinds => {
  const longest = Math.max(0, ...reels.map((r) => r.cm));
  const fitting = pieces.filter((p) => p.cm > 0 && p.cm <= longest);
  return {
    lengths: [...grouped(fitting, (p) => String(p.cm)).values()]
      .map((of) => ({ cm: theItem(of, 0).cm, ids: of.map((p) => p.id) }))
      .sort((a, b) => b.cm - a.cm),
    reels: [...reels].filter((r) => r.cm > 0).sort((a, b) => a.cm - b.cm),
  };
};

const bit = (length: number, reel: number, k: number): string => `n_${length}_${reel}_${k}`;
const bitsFor = (most: number): readonly number[] =>
  Array.from({ length: Math.ceil(Math.log2(most + 1)) }, (_, k) => k);
const plus = (terms: readonly string[]): string => terms.map((t) => `+ ${t}`).join(' ');

/** How many pieces of a length come of a reel: a number in bits. */
const countOf = ({ lengths }: Kinds, length: number, reel: number, times = 1): readonly string[] =>
  bitsFor(theItem(lengths, length).ids.length).map((k) => `${times * 2 ** k} ${bit(length, reel, k)}`);

/** The cuts as an integer programme: fewest pieces uncut, or, with so many cut, the least cable opened. */
const cutProgramme = (kinds: Kinds, atLeast: number | undefined): Programme => {
  const { lengths, reels } = kinds;
  const rows = [
    ...lengths.map(({ ids }, l) => `${plus(reels.flatMap((_, r) => countOf(kinds, l, r)))} <= ${ids.length}`),
    ...reels.map(
      (reel, r) => `${plus(lengths.flatMap(({ cm }, l) => countOf(kinds, l, r, cm)))} - ${reel.cm} y_${r} <= 0`,
    ),
    // Of reels that are alike the earlier is cut first.
    ...reels.flatMap((reel, r) => (reels[r + 1]?.cm === reel.cm ? [`y_${r + 1} - y_${r} <= 0`] : [])),
  ];
  const all = lengths.flatMap((_, l) => reels.flatMap((__, r) => countOf(kinds, l, r)));
  if (atLeast !== undefined) rows.push(`${plus(all)} >= ${atLeast}`);
  const goal =
    atLeast === undefined ? all.map((t) => `- ${t}`).join(' ') : plus(reels.map((reel, r) => `${reel.cm} y_${r}`));
  const names = [
    ...lengths.flatMap(({ ids }, l) => reels.flatMap((_, r) => bitsFor(ids.length).map((k) => bit(l, r, k)))),
    ...reels.map((_, r) => `y_${r}`),
  ];
  const lines = rows.map((row, i) => `r${i}: ${row}`).join('\n');
  return { text: `Minimize\nobj: ${goal}\nSubject To\n${lines}\nBinary\n${names.join(' ')}\nEnd\n`, plus: 0 };
};

const NOTHING_CUT: CutPlan['cuts'] = new Map();

/**
 * Cuts pieces of reels: as many as can be, and then into as little cable as can be, so that whole reels stay whole. One
 * integer programme for each aim.
 *
 * @param seconds for each aim
 * @returns undefined when the solver found nothing in its time
 */
export const planCuts = (problem: CutProblem, solver: Solver, seconds: number): CutPlan | undefined => {
  const kinds = kindsOf(problem);
  const finish = (cuts: CutPlan['cuts'], isProved: boolean): CutPlan => {
    const done = new Set([...cuts.values()].flat());
    const taken = problem.pieces.reduce((sum, p) => sum + (done.has(p.id) ? p.cm : 0), 0);
    return {
      cuts,
      left: problem.pieces.filter((p) => !done.has(p.id)).map((p) => p.id),
      offcuts: cutCost(problem, cuts).opened - taken,
      isProved,
    };
  };
  if (kinds.lengths.length === 0 || kinds.reels.length === 0) return finish(NOTHING_CUT, true);
  const most = solver(cutProgramme(kinds, undefined), seconds);
  if (!most.value) return undefined;
  const first = cutsFrom(kinds, most.value);
  const many = [...first.values()].flat().length;
  const isMost = Math.ceil(most.bound - 1e-6) >= -many;
  const least = solver(cutProgramme(kinds, many), seconds);
  if (!least.value) return finish(first, false);
  const cuts = cutsFrom(kinds, least.value);
  return finish(cuts, isMost && Math.ceil(least.bound - 1e-6) >= cutCost(problem, cuts).opened);
};

const cutsFrom = (kinds: Kinds, value: (name: string) => number): CutPlan['cuts'] => {
  const waiting = kinds.lengths.map(({ ids }) => [...ids]);
  return new Map(
    kinds.reels.flatMap((reel, r) => {
      const of = kinds.lengths.flatMap(({ ids }, l) => {
        const count = bitsFor(ids.length).reduce((sum, k) => sum + (value(bit(l, r, k)) > 0.5 ? 2 ** k : 0), 0);
        return theItem(waiting, l).splice(0, count);
      });
      return of.length ? [[reel.id, of] as const] : [];
    }),
  );
};

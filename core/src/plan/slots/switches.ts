import type { Programme, Solver } from '../solver.js';

/** Something that a foot hits: a sound in its bank, or a move on a switch of its own. */
export interface Hit {
  /** Switches on which it may stand, by number. */
  readonly may: readonly number[];
  /** Where it stands now, if that is one of these. */
  readonly now: number | undefined;
  /** Sounds of one role are wanted on one switch; undefined where nobody asks. */
  readonly role?: number;
  /** Hits on the same floor at the same time: no two of them on one switch. A bank is such a floor. */
  readonly floors: readonly number[];
}

/** Banks are settled; which switch each hit gets is asked. */
export interface SwitchesProblem {
  readonly hits: readonly Hit[];
  /** Switches on which roles may be at home, by number. */
  readonly homes: readonly number[];
  /** Two switches, by number, between which a shoe does not fit. */
  readonly close: readonly (readonly [a: number, b: number])[];
  /** Two hits that one song needs, and in how many songs: wanted a shoe apart. */
  readonly together: readonly { readonly a: number; readonly b: number; readonly songs: number }[];
}

export interface SwitchesPlan {
  /** The switch of each hit. */
  readonly at: readonly number[];
  /** Sounds that stand on another switch than their role. */
  readonly strays: number;
  /** Pairs of switches too close for a shoe, counted in every song that needs both. */
  readonly tight: number;
  /** Whether no other choice of switches is better. */
  readonly isProved: boolean;
}

/** What a stray, a tight pair and a move away cost: a stray is never taken to save moves. */
const [STRAY, TIGHT, MOVED] = [1000, 50, 1] as const;

const stands = (hit: number, at: number): string => `x_${hit}_${at}`;
const homeOf = (role: number, at: number): string => `r_${role}_${at}`;

const isClose = ({ close }: SwitchesProblem, a: number, b: number): boolean =>
  close.some(([p, q]) => (p === a && q === b) || (p === b && q === a));

/** Which sounds stand away from their role, for the homes of roles that leave the fewest. */
const straysIn = ({ hits, homes }: SwitchesProblem, at: readonly number[]): number => {
  const roles = new Map<number, number[]>();
  hits.forEach(({ role }, i) => {
    if (role !== undefined) roles.set(role, [...(roles.get(role) ?? []), at[i] ?? -1]);
  });
  return [...roles.values()].reduce((sum, those) => {
    const most = Math.max(0, ...homes.map((home) => those.filter((k) => k === home).length));
    return sum + those.length - most;
  }, 0);
};

const tightIn = (problem: SwitchesProblem, at: readonly number[]): number =>
  problem.together.reduce((n, { a, b, songs }) => n + (isClose(problem, at[a] ?? -1, at[b] ?? -1) ? songs : 0), 0);

/** What a choice of switches comes to. */
export const judged = (problem: SwitchesProblem, at: readonly number[]): Omit<SwitchesPlan, 'isProved'> => ({
  at,
  strays: straysIn(problem, at),
  tight: tightIn(problem, at),
});

export const switchesCost = (problem: SwitchesProblem, at: readonly number[]): number =>
  STRAY * straysIn(problem, at) +
  TIGHT * tightIn(problem, at) +
  MOVED * problem.hits.filter((h, i) => h.now !== undefined && h.now !== at[i]).length;

/** The choice of switches as an integer programme: strays first, then what a shoe cannot part, then what has to move. */
export const switchesProgramme = (problem: SwitchesProblem): Programme => {
  const { hits, homes, close, together } = problem;
  const rows: string[] = [];
  const costs: string[] = [];
  const binaries: string[] = [];
  const row = (terms: readonly string[], is: string): void =>
    void (terms.length && rows.push(`c${rows.length}: ${terms.join(' + ')} ${is}`));
  hits.forEach(({ may, now }, i) => {
    row(
      may.map((k) => stands(i, k)),
      '= 1',
    );
    binaries.push(...may.map((k) => stands(i, k)));
    if (now !== undefined) costs.push(...may.filter((k) => k !== now).map((k) => `${MOVED} ${stands(i, k)}`));
  });
  const floors = new Map<number, number[]>();
  hits.forEach((hit, i) => hit.floors.forEach((f) => floors.set(f, [...(floors.get(f) ?? []), i])));
  for (const those of floors.values())
    for (const k of new Set(those.flatMap((i) => hits[i]?.may ?? [])))
      row(
        those.filter((i) => hits[i]?.may.includes(k)).map((i) => stands(i, k)),
        '<= 1',
      );
  for (const role of new Set(hits.flatMap((h) => h.role ?? []))) {
    row(
      homes.map((k) => homeOf(role, k)),
      '= 1',
    );
    binaries.push(...homes.map((k) => homeOf(role, k)));
    hits.forEach((hit, i) => {
      if (hit.role !== role) return;
      binaries.push(`s_${i}`);
      costs.push(`${STRAY} s_${i}`);
      for (const k of hit.may)
        rows.push(`c${rows.length}: ${stands(i, k)} - s_${i}${homes.includes(k) ? ` - ${homeOf(role, k)}` : ''} <= 0`);
    });
  }
  together.forEach(({ a, b, songs }, n) => {
    const pairs = close
      .flatMap(([p, q]): (readonly [number, number])[] => [
        [p, q],
        [q, p],
      ])
      .filter(([p, q]) => hits[a]?.may.includes(p) && hits[b]?.may.includes(q));
    if (pairs.length === 0) return;
    binaries.push(`t_${n}`);
    costs.push(`${TIGHT * songs} t_${n}`);
    for (const [p, q] of pairs) rows.push(`c${rows.length}: ${stands(a, p)} + ${stands(b, q)} - t_${n} <= 1`);
  });
  return {
    text: `Minimize\nobj: ${costs.join(' + ') || `0 ${binaries[0] ?? 'nothing'}`}\nSubject To\n${rows.join('\n')}\nBinary\n${binaries.join(' ')}\nEnd\n`,
    plus: 0,
  };
};

/**
 * Gives every hit its switch. @param first a choice that can be stored, taken where the solver finds nothing in its time
 */
export const planSwitches = (
  problem: SwitchesProblem,
  first: readonly number[],
  solver: Solver,
  seconds: number,
): SwitchesPlan => {
  if (problem.hits.length === 0) return { ...judged(problem, []), isProved: true };
  const { bound, value } = solver(switchesProgramme(problem), seconds);
  const found = value
    ? problem.hits.map((hit, i) => hit.may.find((k) => value(stands(i, k)) > 0.5) ?? first[i] ?? -1)
    : first;
  const at = switchesCost(problem, found) <= switchesCost(problem, first) ? found : first;
  return { ...judged(problem, at), isProved: switchesCost(problem, at) <= bound + 0.5 };
};

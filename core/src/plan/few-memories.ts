import { agree, fewestGroups, type Needed } from './fewest.js';
import type { Programme, Solver } from './solver.js';

/** What goes into a box of few memories, and what is left out. */
export interface FewMemories {
  /** For each need the number of its group, from 0; undefined where no memory is left for it. */
  readonly groups: readonly (number | undefined)[];
  /** Whether no other choice leaves out less. */
  readonly isProved: boolean;
}

const stands = (need: number, group: number): string => `x_${need}_${group}`;
const left = (need: number): string => `left_${need}`;

/** Which needs share which memory: those that disagree do not, and as little as possible is left out. */
const memoriesProgramme = (needs: readonly Needed[], weights: readonly number[], room: number): Programme => {
  const rows: string[] = [];
  // Memories are alike: a need is in none beyond its own number, so that the same answer is not found again and again.
  const groupsOf = (i: number): readonly number[] => Array.from({ length: Math.min(room, i + 1) }, (_, g) => g);
  const names = needs.flatMap((_, i) => [...groupsOf(i).map((g) => stands(i, g)), left(i)]);
  const row = (text: string): void => void rows.push(`r${rows.length}: ${text}`);
  needs.forEach((a, i) => {
    row(`${[...groupsOf(i).map((g) => stands(i, g)), left(i)].join(' + ')} = 1`);
    needs.forEach((b, j) => {
      if (j < i && !agree(a, b)) for (const g of groupsOf(j)) row(`${stands(i, g)} + ${stands(j, g)} <= 1`);
    });
  });
  const cost = needs.map((_, i) => `${weights[i] ?? 1} ${left(i)}`).join(' + ');
  return { text: `Minimize\nobj: ${cost}\nSubject To\n${rows.join('\n')}\nBinary\n${names.join(' ')}\nEnd\n`, plus: 0 };
};

/** Kept ones in as few groups as possible; the others in none. */
const grouped = (needs: readonly Needed[], isKept: (need: number) => boolean): readonly (number | undefined)[] => {
  const kept = needs.map((_, i) => i).filter(isKept);
  const groups = fewestGroups(kept.map((i) => needs[i] ?? {}));
  return needs.map((_, i) => (isKept(i) ? groups[kept.indexOf(i)] : undefined));
};

const countOf = (groups: readonly (number | undefined)[]): number =>
  new Set(groups.filter((g) => g !== undefined)).size;

/** The heaviest first, each that still finds room. */
const greedily = (
  needs: readonly Needed[],
  weights: readonly number[],
  room: number,
): readonly (number | undefined)[] => {
  const kept = new Set<number>();
  const byWeight = needs.map((_, i) => i).sort((a, b) => (weights[b] ?? 1) - (weights[a] ?? 1) || a - b);
  for (const i of byWeight) {
    kept.add(i);
    if (countOf(grouped(needs, (n) => kept.has(n))) > room) kept.delete(i);
  }
  return grouped(needs, (n) => kept.has(n));
};

/**
 * Sorts needs into as few memories as possible; where they do not all find room, what is left out weighs as little as
 * possible.
 * @param weights how much it matters that a need is stored, such as how often songs call it
 * @param room memories that are free
 */
export const inFewMemories = (
  needs: readonly Needed[],
  weights: readonly number[],
  room: number,
  solver: Solver | undefined,
  seconds: number,
): FewMemories => {
  const all = fewestGroups(needs);
  if (countOf(all) <= room) return { groups: all, isProved: true };
  const first = greedily(needs, weights, room);
  const weighs = (groups: readonly (number | undefined)[]): number =>
    needs.reduce((sum, _, i) => sum + (groups[i] === undefined ? (weights[i] ?? 1) : 0), 0);
  if (!solver || room === 0) return { groups: first, isProved: room === 0 };
  const { bound, value } = solver(memoriesProgramme(needs, weights, room), seconds);
  const found = value ? grouped(needs, (i) => value(left(i)) < 0.5) : first;
  const groups = countOf(found) <= room && weighs(found) < weighs(first) ? found : first;
  return { groups, isProved: weighs(groups) <= bound + 1e-6 };
};

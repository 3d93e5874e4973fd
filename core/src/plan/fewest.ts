import { theItem, theEntry } from '../known/the.js';

/** What one sound needs of a program: values by control; what it does not name may be anything. */
export type Needed = Readonly<Record<string, string | number>>;

/** Whether one program can serve both. */
export const agree = (a: Needed, b: Needed): boolean =>
  Object.entries(a).every(([control, value]) => b[control] === undefined || String(b[control]) === String(value));

const MOST_NODES = 20_000;

/**
 * Sorts needs into as few programs as possible, all that share one agreeing with each other: a colouring of the graph
 * of those that disagree. Branch and
 * bound from the most constrained need on; after 20,000 nodes the best that was found so far.
 * @returns for each need the number of its group, from 0
 */
export const fewestGroups = (needs: readonly Needed[]): readonly number[] => {
  const apart = needs.map((a, i) => needs.map((b, j) => i !== j && !agree(a, b)));
  const degree = apart.map((row) => row.filter(Boolean).length);
  let best = greedy(apart, degree);
  let groupsOfBest = 1 + Math.max(-1, ...best);
  const least = bound(apart, degree);
  const colour: number[] = needs.map(() => -1);
  let nodes = 0;
  const branch = (done: number, used: number): void => {
    nodes += 1;
    if (used >= groupsOfBest || groupsOfBest === least || nodes > MOST_NODES) return;
    if (done === needs.length) {
      best = [...colour];
      groupsOfBest = used;
      return;
    }
    const i = mostConstrained(apart, degree, colour);
    for (let c = 0; c <= Math.min(used, groupsOfBest - 2); c += 1) {
      if (theItem(apart, i).some((isApart, j) => isApart && colour[j] === c)) continue;
      colour[i] = c;
      branch(done + 1, Math.max(used, c + 1));
      colour[i] = -1;
    }
  };
  branch(0, 0);
  return renumbered(settled(apart, renumbered(best)));
};

/** Each in the first group that it agrees with: of many ways that are as short, the one that a person would take. */
const settled = (apart: Graph, groups: readonly number[]): readonly number[] => {
  const place = [...groups];
  place.forEach((mine, i) => {
    for (let g = 0; g < mine; g += 1) {
      if (place.some((other, j) => other === g && theItem(apart, i)[j])) continue;
      place[i] = g;
      return;
    }
  });
  return place;
};

type Graph = readonly (readonly boolean[])[];

/** The one whose neighbours have the most colours already; of several the one with the most neighbours. */
const mostConstrained = (apart: Graph, degree: readonly number[], colour: readonly number[]): number => {
  let chosen = -1;
  let most: readonly [number, number] = [-1, -1];
  for (let i = 0; i < colour.length; i += 1) {
    if (colour[i] !== -1) continue;
    const colours = new Set(
      theItem(apart, i).flatMap((isApart, j) => (isApart && colour[j] !== -1 ? [theItem(colour, j)] : [])),
    ).size;
    if (colours > most[0] || (colours === most[0] && theItem(degree, i) > most[1]))
      [chosen, most] = [i, [colours, theItem(degree, i)]];
  }
  return chosen;
};

const greedy = (apart: Graph, degree: readonly number[]): number[] => {
  const colour = degree.map(() => -1);
  for (let done = 0; done < colour.length; done += 1) {
    const i = mostConstrained(apart, degree, colour);
    let c = 0;
    while (theItem(apart, i).some((isApart, j) => isApart && colour[j] === c)) c += 1;
    colour[i] = c;
  }
  return colour;
};

/** So many at least: a set of needs that all disagree with each other, taken greedily. */
const bound = (apart: Graph, degree: readonly number[]): number => {
  const clique: number[] = [];
  for (const i of degree.map((_, k) => k).sort((a, b) => theItem(degree, b) - theItem(degree, a)))
    if (clique.every((j) => theItem(apart, i)[j])) clique.push(i);
  return clique.length;
};

/** Groups by the order in which they are met. */
const renumbered = (groups: readonly number[]): readonly number[] => {
  const names = new Map<number, number>();
  for (const g of groups) if (!names.has(g)) names.set(g, names.size);
  return groups.map((g) => theEntry(names, g));
};

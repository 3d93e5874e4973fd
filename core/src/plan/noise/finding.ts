import { theFirst } from '../../known/the.js';

/** Something that may make the noise, with how much of it is expected of it. */
export interface Suspect<T extends string = string> {
  readonly id: T;
  /** Its part of all noise power as it is reckoned, from 0 to 1. */
  readonly share: number;
}

/** One try: what was taken out, and how loud the noise was then. */
export interface Tried<T extends string = string> {
  readonly out: readonly T[];
  /** On whatever scale the first level was read. */
  readonly db: number;
}

/** Where the search for a noise stands. */
export type Search<T extends string = string> =
  /** One of these makes most of it; take those of `next` out and listen again. */
  | { readonly is: 'open'; readonly still: readonly T[]; readonly next: readonly T[]; readonly most: number }
  /** It makes this part of the noise power, from 0 to 1; without it the noise is softer by `db`. */
  | { readonly is: 'found'; readonly by: T; readonly part: number; readonly db: number }
  /** Taking these out brought less than half of it away, and so did the others: several share it. */
  | { readonly is: 'shared'; readonly between: readonly T[] };

interface Tree<T extends string> {
  readonly weight: number;
  readonly of: readonly T[];
  readonly depth: number;
  readonly halves?: readonly [Tree<T>, Tree<T>];
}

/**
 * The questions with the fewest tries on average: any set can be taken out at once, so the best tree is the one that
 * always joins the two least likely (Huffman, 1952).
 */
const treeOf = <T extends string>(suspects: readonly Suspect<T>[]): Tree<T> => {
  // Nobody is beyond suspicion: figures are assumed.
  let trees: readonly Tree<T>[] = suspects.map(({ id, share }) => ({ weight: share + 0.01, of: [id], depth: 0 }));
  while (trees.length > 1) {
    const sorted = [...trees].sort((a, b) => a.weight - b.weight || a.depth - b.depth);
    const [one, two, ...rest] = sorted;
    if (!one || !two) break;
    trees = [
      ...rest,
      {
        weight: one.weight + two.weight,
        of: [...one.of, ...two.of],
        depth: Math.max(one.depth, two.depth) + 1,
        halves: [one, two],
      },
    ];
  }
  return theFirst(trees);
};

/** How many tries are needed on average, and at most, if one of them makes the noise. */
export const triesFor = (suspects: readonly Suspect[]): { readonly average: number; readonly most: number } => {
  if (suspects.length < 2) return { average: 0, most: 0 };
  const root = treeOf(suspects);
  const walk = (tree: Tree<string>, at: number): number =>
    tree.halves ? walk(tree.halves[0], at + 1) + walk(tree.halves[1], at + 1) : tree.weight * at;
  return { average: walk(root, 0) / root.weight, most: root.depth };
};

/** What is left of the noise power without some of its makers, from 0 to 1 (more where the meter wavers). */
const left = (all: number, db: number): number => 10 ** ((db - all) / 10);

/**
 * Finds what makes most of a noise by taking boxes out, with the fewest tries: each answer leaves one half of the tree.
 * More than half of the power gone (3 dB) means that the maker is among those that were out.
 * @param all level with everything in
 */
export const searchNoise = <T extends string>(
  suspects: readonly Suspect<T>[],
  all: number,
  tried: readonly Tried<T>[],
): Search<T> => {
  let tree = treeOf(suspects);
  let last: { readonly part: number; readonly db: number } | undefined;
  for (const { db } of tried) {
    const { halves } = tree;
    if (!halves) break;
    const [asked, others] = lighter(halves);
    const rest = left(all, db);
    if (rest < 0.5) {
      last = { part: 1 - rest, db: all - db };
      tree = asked;
    } else {
      last = undefined;
      tree = others;
    }
  }
  if (tree.halves) return { is: 'open', still: tree.of, next: lighter(tree.halves)[0].of, most: tree.depth };
  const by = theFirst(tree.of);
  // The last answers only ruled others out: whether it is this one shows when it is taken out by itself.
  const alone = tried.find((t) => t.out.length === 1 && t.out[0] === by);
  if (!last && !alone) return { is: 'open', still: [by], next: [by], most: 1 };
  const rest = alone ? left(all, alone.db) : 1 - (last?.part ?? 0);
  if (rest >= 0.5) return { is: 'shared', between: suspects.map((s) => s.id) };
  return {
    is: 'found',
    by,
    part: Math.min(1, 1 - rest),
    db: alone ? all - alone.db : (last?.db ?? 0),
  };
};

/** The half with fewer boxes is taken out: less to stomp. */
const lighter = <T extends string>([one, two]: readonly [Tree<T>, Tree<T>]): readonly [Tree<T>, Tree<T>] =>
  one.of.length < two.of.length || (one.of.length === two.of.length && one.weight >= two.weight)
    ? [one, two]
    : [two, one];

/** Which boxes each sound has in its path. */
export interface LoopsProblem {
  readonly boxes: readonly string[];
  /** For each sound, box by box, whether it is in. */
  readonly sounds: readonly (readonly boolean[])[];
}

/** Boxes that are in and out together in every sound: one loop serves them. */
export interface LoopGroup {
  readonly boxes: readonly number[];
}

/** What every sound needs: boxes that never change need no loop. */
export interface LoopsNeeded {
  readonly loops: readonly LoopGroup[];
  readonly alwaysIn: readonly number[];
  readonly neverIn: readonly number[];
}

const columnOf = ({ sounds }: LoopsProblem, box: number): string => sounds.map((s) => (s[box] ? '1' : '0')).join('');

/**
 * The fewest loops that serve every sound, each switched by itself: boxes share one exactly when no sound tells them
 * apart, so there is one loop for every way in which boxes are in and out.
 */
export const loopsNeeded = (problem: LoopsProblem): LoopsNeeded => {
  const groups = new Map<string, number[]>();
  const alwaysIn: number[] = [];
  const neverIn: number[] = [];
  problem.boxes.forEach((_, box) => {
    const column = columnOf(problem, box);
    if (!column.includes('1')) neverIn.push(box);
    else if (!column.includes('0')) alwaysIn.push(box);
    else groups.set(column, [...(groups.get(column) ?? []), box]);
  });
  return { loops: [...groups.values()].map((boxes) => ({ boxes })), alwaysIn, neverIn };
};

/** Boxes in so few loops, the others always in or out, and which sounds are still there. */
export interface FewerLoops {
  readonly loops: readonly LoopGroup[];
  readonly alwaysIn: readonly number[];
  readonly neverIn: readonly number[];
  /** Sounds that come out right, by their number. */
  readonly kept: readonly number[];
}

/** Which sounds come out right when boxes share loops so: those that never want the boxes of a loop apart. */
export const keptBy = (
  { sounds }: LoopsProblem,
  { loops, alwaysIn, neverIn }: Pick<FewerLoops, 'loops' | 'alwaysIn' | 'neverIn'>,
): readonly number[] =>
  sounds.flatMap((sound, s) => {
    const isEven = loops.every(({ boxes }) => boxes.every((box) => sound[box] === sound[boxes[0] ?? box]));
    const isRight = isEven && alwaysIn.every((box) => sound[box]) && neverIn.every((box) => !sound[box]);
    return isRight ? [s] : [];
  });

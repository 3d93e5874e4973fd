import type { LaidOut } from './laid-out.js';
import { middleOf, type Point } from './shapes.js';

/** What a board weighs with all that stands on it, in kg, and where that weight is. */
export interface BoardWeight {
  readonly kg: number;
  /** Centre of the weight that is known, in mm from the front left corner; nothing weighs anything: absent. */
  readonly centre?: Point;
  /** What nobody weighed: the bare board, boxes on it. */
  readonly unknown: readonly string[];
}

/** Each box weighs in its middle, and so does the board (assumed). */
export const weightOf = ({ boards, boxes }: LaidOut, name: string): BoardWeight => {
  const board = boards.get(name);
  const [w, d] = board?.mm ?? [0, 0];
  const weights = [
    { kg: board?.kg ?? 0, at: { x: w / 2, y: d / 2 } },
    ...boxes
      .filter((b) => b.board === name)
      .map((b) => ({ kg: b.device.figures.kg ?? 0, at: middleOf(b.rect), of: b.device })),
  ];
  const kg = weights.reduce((sum, one) => sum + one.kg, 0);
  const along = (axis: keyof Point): number => weights.reduce((sum, one) => sum + one.kg * one.at[axis], 0) / kg;
  const unknown = [
    ...(board && board.kg === undefined ? [name] : []),
    ...weights.flatMap((one) => ('of' in one && one.of.figures.kg === undefined ? [one.of.name] : [])),
  ];
  return { kg, unknown, ...(kg > 0 ? { centre: { x: along('x'), y: along('y') } } : {}) };
};

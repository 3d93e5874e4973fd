import { boardsBeneath, type LaidOut } from './laid-out.js';
import { middleOf, type Point } from './shapes.js';

/** What a board weighs with all that stands and hangs on it, in kg, and where that weight is. */
export interface BoardWeight {
  readonly kg: number;
  /** Centre of the weight that is known, in mm from the front left corner; nothing weighs anything: absent. */
  readonly centre?: Point;
  /** What nobody weighed: bare boards, boxes on them. */
  readonly unknown: readonly string[];
}

interface Weighed {
  readonly kg: number | undefined;
  readonly at: Point;
  readonly name: string;
}

/** Each box weighs in its middle, and so does each board (assumed). */
export const weightOf = (out: LaidOut, name: string): BoardWeight => {
  const weights = weighedOn(out, name);
  const kg = weights.reduce((sum, one) => sum + (one.kg ?? 0), 0);
  const along = (axis: keyof Point): number => weights.reduce((sum, one) => sum + (one.kg ?? 0) * one.at[axis], 0) / kg;
  const unknown = weights.flatMap((one) => (one.kg === undefined ? [one.name] : []));
  return { kg, unknown, ...(kg > 0 ? { centre: { x: along('x'), y: along('y') } } : {}) };
};

/** Everything on a board and on its tiers, seen from its corner. */
const weighedOn = (out: LaidOut, name: string): readonly Weighed[] =>
  boardsBeneath(out.boards, name).flatMap(({ name: tier, board, x, y }): readonly Weighed[] => {
    const [w, d] = board.mm;
    const moved = (at: Point): Point => ({ x: at.x + x, y: at.y + y });
    return [
      { kg: board.kg, at: moved({ x: w / 2, y: d / 2 }), name: tier },
      ...out.boxes
        .filter((b) => b.board === tier)
        .map((b) => ({ kg: b.device.figures.kg, at: moved(middleOf(b.rect)), name: b.device.name })),
    ];
  });

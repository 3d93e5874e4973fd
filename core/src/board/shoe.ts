import { SHOE_MM } from '../rig/board.js';
import type { Id } from '../rig/ids.js';
import type { LaidOut, Standing } from './laid-out.js';
import { turnedPoint, type Point } from './shapes.js';

/** The one foot switch of a box of which nobody said where it is, from its front edge, in mm (assumed). */
const SWITCH_BACK_MM = 25;

/** Foot switches of two boxes of which a shoe may hit both. */
export interface CloseSwitches {
  readonly box: Id<'device'>;
  readonly other: Id<'device'>;
  /** From the middle of one to that of the other. */
  readonly mm: number;
}

/** Where a foot hits a box, on its board: its switches as they are said, else one in the middle of its front. */
const switchesOf = ({ device, rect, turn }: Standing): readonly Point[] => {
  const feet = new Set(device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])));
  if (feet.size === 0) return [];
  const said = device.figures.switches ?? [];
  const [w, d] = turn % 180 === 0 ? [rect.w, rect.d] : [rect.d, rect.w];
  const points = said.length > 0 ? said : feet.size === 1 ? [{ x: w / 2, y: Math.min(SWITCH_BACK_MM, d / 2) }] : [];
  return points.map((p) => {
    const at = turnedPoint(p, w, d, turn);
    return { x: at.x + rect.x, y: at.y + rect.y };
  });
};

/** Boxes on one board that stand too close to each other for a shoe, the closest first. */
export const tooCloseForAShoe = ({ boxes }: LaidOut, name: string): readonly CloseSwitches[] => {
  const here = boxes.filter((b) => b.board === name).map((b) => ({ box: b.device.id, at: switchesOf(b) }));
  return here
    .flatMap(({ box, at }, i) =>
      here.slice(i + 1).flatMap((other): readonly CloseSwitches[] => {
        const mm = Math.min(...at.flatMap((a) => other.at.map((b) => Math.hypot(a.x - b.x, a.y - b.y))));
        return mm < SHOE_MM ? [{ box, other: other.box, mm }] : [];
      }),
    )
    .sort((a, b) => a.mm - b.mm);
};

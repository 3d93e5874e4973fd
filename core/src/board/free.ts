import type { Hookup } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';
import type { Spot } from '../rig/board.js';
import { partOf, type Rig } from '../rig/rig.js';
import { laidOut, standingAt } from './laid-out.js';
import { apart, movedBy, overlaps } from './shapes.js';

/** Places are looked for on a grid of so many mm. */
const GRID = 5;

/**
 * The free place on a board that is nearest to one: on the board, clear of every box there and of every plug.
 * @returns undefined where there is none, or no such board
 */
export const freeSpot = (rig: Rig, hookup: Hookup, id: Id<'device'>, near: Spot): Spot | undefined => {
  const device = partOf(rig, id);
  if (!device) return undefined;
  const spot = { ...near, x: 0, y: 0 };
  const out = laidOut(rig, hookup, { ...hookup.place, [id]: spot });
  const board = out.boards.get(near.at);
  if (!board) return undefined;
  const { rect } = standingAt(device, spot);
  const mine = [rect, ...out.plugs.filter((p) => p.device === id).map((p) => p.rect)];
  const theirs = [
    ...out.boxes.filter((b) => b.board === near.at && b.device.id !== id).map((b) => b.rect),
    ...out.plugs.filter((p) => p.board === near.at && p.device !== id).map((p) => p.rect),
  ];
  const [w, d] = board.mm;
  let best: Spot | undefined;
  for (let y = 0; y + rect.d <= d; y += GRID)
    for (let x = 0; x + rect.w <= w; x += GRID) {
      const at = { x, y };
      if (best && apart(at, near) >= apart(best, near)) continue;
      if (mine.every((m) => theirs.every((t) => !overlaps(movedBy(m, at), t)))) best = { ...near, x, y };
    }
  return best;
};

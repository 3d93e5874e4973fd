import { apply } from '../change/apply.js';
import { nothing, together, type Edit } from '../change/edit.js';
import { setBoard, standAt } from '../edits/boards.js';
import type { Hookup } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { thePart, type Rig } from '../rig/rig.js';
import { sizeOf } from './jacks.js';
import { freeSpot } from './free.js';
import { boardsOf } from './laid-out.js';

/** Room that stays between what hangs beneath and the board, in mm (assumed: a plate and its screws). */
const CLEAR_MM = 10;

/**
 * Hangs boxes beneath a board, such as its supply: on a shelf of the board's size that is there already or is made,
 * low enough for the highest of them. What finds no room there stays where it is.
 */
export const hungBeneath = (rig: Rig, hookup: Hookup, name: string, ids: readonly Id<'device'>[]): Edit => {
  const boards = boardsOf(rig);
  const board = boards.get(name);
  if (!board || ids.length === 0) return nothing;
  const there = [...boards].find(([, b]) => b.on?.board === name && b.on.z < 0);
  const shelf = there?.[0] ?? cutTo(`Beneath ${name}`, LONGEST.word);
  if (!there && boards.has(shelf)) return nothing;
  const high = Math.max(...ids.map((id) => sizeOf(thePart(rig, id))[2]));
  const z = -Math.max(high + CLEAR_MM, -(there?.[1].on?.z ?? 0));
  const made = setBoard(rig, shelf, {
    ...there?.[1],
    mm: there?.[1].mm ?? board.mm,
    on: { x: 0, y: 0, ...there?.[1].on, board: name, z },
  });
  const applied = apply(rig, made);
  if (!applied.ok) return nothing;
  const stood = ids.reduce((now, id) => {
    const spot = freeSpot(applied.value.rig, now, id, { at: shelf, x: 0, y: board.mm[1], turn: 0 });
    return spot ? standAt(now, { [id]: spot }).put[0] : now;
  }, hookup);
  return together(made, { put: [stood], remove: [] });
};

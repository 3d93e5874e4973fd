import { making, nothing, together, type Edit, type Making } from '../change/edit.js';
import { keysOf } from '../known/keys.js';
import type { Board, Spot } from '../rig/board.js';
import type { Hookup } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';
import { ABOUT, all, partOf, type Rig } from '../rig/rig.js';

/** A board as it is, or none under that name. What was said of it before is forgotten. */
export const setBoard = (rig: Rig, name: string, board: Board | undefined): Edit => {
  const about = partOf(rig, ABOUT);
  if (!about) return nothing;
  const { [name]: _, ...others } = about.boards ?? {};
  const boards = board ? { ...about.boards, [name]: board } : others;
  return { put: [{ ...about, boards: Object.keys(boards).length ? boards : undefined }], remove: [] };
};

type Spots = Readonly<Record<Id<'device'>, Spot | undefined>>;

/** Stands boxes somewhere, or nowhere. */
export const standAt = (hookup: Hookup, spots: Spots): Making<Hookup> => {
  const next: Record<Id<'device'>, Spot> = { ...hookup.place };
  for (const id of keysOf(spots)) {
    const spot = spots[id];
    if (spot) next[id] = spot;
    else delete next[id];
  }
  const { place: _, ...rest } = hookup;
  return making({ ...rest, ...(keysOf(next).length ? { place: next } : {}) });
};

/** What stands on a board in a hook-up. */
export const standsOn = (hookup: Hookup, name: string): readonly Id<'device'>[] =>
  keysOf(hookup.place ?? {}).filter((id) => hookup.place?.[id]?.at === name);

/** Takes a board away; what stood on it stands nowhere, and its tiers hang on nothing. */
export const removeBoard = (rig: Rig, name: string): Edit => {
  const about = partOf(rig, ABOUT);
  if (!about) return nothing;
  const left = Object.entries(about.boards ?? {})
    .filter(([other]) => other !== name)
    .map(([other, { on, ...board }]): [string, Board] => [other, on && on.board !== name ? { ...board, on } : board]);
  const boards = left.length ? Object.fromEntries(left) : undefined;
  const cleared = all(rig, 'hookup')
    .filter((h) => standsOn(h, name).length)
    .map((h) => standAt(h, Object.fromEntries(standsOn(h, name).map((id) => [id, undefined]))));
  return together({ put: [{ ...about, boards }], remove: [] }, ...cleared);
};

/** Calls a board otherwise, wherever something stands or hangs on it. */
export const renameBoard = (rig: Rig, from: string, to: string): Edit => {
  const about = partOf(rig, ABOUT);
  if (!about?.boards?.[from] || about.boards[to]) return nothing;
  const named = (name: string): string => (name === from ? to : name);
  const boards = Object.fromEntries(
    Object.entries(about.boards).map(([name, board]): [string, Board] => [
      named(name),
      board.on ? { ...board, on: { ...board.on, board: named(board.on.board) } } : board,
    ]),
  );
  const moved = all(rig, 'hookup')
    .filter((h) => standsOn(h, from).length)
    .map((h) =>
      making({
        ...h,
        place: Object.fromEntries(Object.entries(h.place ?? {}).map(([id, s]) => [id, { ...s, at: named(s.at) }])),
      }),
    );
  return together({ put: [{ ...about, boards }], remove: [] }, ...moved);
};

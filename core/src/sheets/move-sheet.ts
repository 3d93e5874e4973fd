import equal from 'fast-deep-equal';
import type { Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { all, thePart, type Rig } from '../rig/rig.js';
import { mannerOf, type Manner, type Move, type Sound } from '../rig/sound.js';
import { theOne } from '../known/the.js';

/** Two rows of the sheet of moves: what a press gives, and what takes it back. Each reads and is typed like a sound. */
export interface MoveRow {
  readonly move: Id<'move'>;
  readonly list: 'on' | 'off';
  readonly row: Sound;
}

export const moveRows = (rig: Rig): readonly MoveRow[] =>
  all(rig, 'move').flatMap((move, i) =>
    (['on', 'off'] as const).map((list, k): MoveRow => ({
      move: move.id,
      list,
      row: {
        kind: 'sound',
        id: `sound:${move.id.slice(5)}-${list}`,
        name: `${move.name}, ${list}`,
        role: 'other',
        at: 2 * i + k,
        wants: move[list],
        calls: [],
      },
    })),
  );

/** The lists of moves as rows were typed. */
export const putLists = (rig: Rig, rows: readonly MoveRow[], changed: readonly Sound[]): Edit => {
  const moves = new Map<Id<'move'>, Move>();
  for (const sound of changed) {
    const { move, list } = theOne(rows, (r) => r.row.id === sound.id);
    const before = moves.get(move) ?? thePart(rig, move);
    moves.set(move, { ...before, [list]: sound.wants });
  }
  return { put: [...moves.values()], remove: [] };
};

export const setManner = (move: Move, manner: Manner): Edit => {
  const own = mannerOf(move) === 'one way' ? [] : move.off;
  const lists: Readonly<Record<Manner, Pick<Move, 'latch' | 'off'>>> = {
    latched: { latch: true, off: own },
    'while held': { latch: false, off: own },
    'one way': { latch: true, off: move.on },
  };
  return { put: [{ ...move, ...lists[manner] }], remove: [] };
};

/** Every switch that a program can assign, on every controller. */
export const assignableSwitches = (rig: Rig): readonly Move['at'][number][] =>
  all(rig, 'device').flatMap((d) =>
    d.memories.flatMap((m) => (m.assignable ?? []).map((a) => ({ device: d.id, switch: a.switch }))),
  );

/**
 * A new move in all sounds, on the first switch that no other move has; undefined when no controller has one that can
 * be assigned.
 */
export const addMove = (rig: Rig, id: Id<'move'>, name: string): Edit | undefined => {
  const places = assignableSwitches(rig);
  const at = places.find((p) => !all(rig, 'move').some((m) => m.at.some((a) => equal(a, p)))) ?? places[0];
  return at && { put: [{ kind: 'move', id, name, sounds: 'all', latch: true, at: [at], on: [], off: [] }], remove: [] };
};

/** Takes a move away; cues that call it let go of it. */
export const removeMove = (rig: Rig, id: Id<'move'>): Edit => ({
  put: all(rig, 'song').flatMap((song) =>
    song.cues.some((c) => 'move' in c.call && c.call.move === id)
      ? [{ ...song, cues: song.cues.filter((c) => !('move' in c.call && c.call.move === id)) }]
      : [],
  ),
  remove: [id],
});

import type { Board } from '../rig/board.js';
import type { Hookup } from '../rig/hookup.js';
import { splitRef, type Id } from '../rig/ids.js';
import { cablesOf, type Rig } from '../rig/rig.js';
import { grouped } from '../known/grouped.js';
import type { LaidOut, PlugThere } from './laid-out.js';
import { routeOf, type Route } from './route.js';
import { apart, type Point } from './shapes.js';

/** What a lead is longer than its way, so that it hangs loose: a tenth, at least so much, in mm (assumed). */
const SLACK_SHARE = 0.1;
const LEAST_SLACK_MM = 30;

/** Lengths in which leads are bought, in metres (common practice). */
export const STOCK_STEPS = [
  0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.75, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 7.5, 9, 10, 12, 15, 20, 25, 30,
] as const;

/** How long a lead has to be, by where its jacks are. */
export interface LeadLength {
  readonly cable: Id<'cable'>;
  /** Along its way with both plugs and nothing to spare, in metres. */
  readonly least: number;
  /** With slack, in metres. */
  readonly wanted: number;
  /** The shortest that is sold and is long enough; what is wanted when none is. */
  readonly step: number;
  /** The board on which it lies; nothing when it goes from board to board. */
  readonly route?: Route & { readonly board: string };
}

/** Where a board hangs, seen from the one that stands on the floor. */
const frameOf = (
  boards: ReadonlyMap<string, Board>,
  name: string,
): { readonly root: string; readonly x: number; readonly y: number; readonly z: number } => {
  let [root, x, y, z] = [name, 0, 0, 0];
  for (const seen = new Set<string>(); !seen.has(root);) {
    seen.add(root);
    const on = boards.get(root)?.on;
    if (!on || !boards.has(on.board)) break;
    [root, x, y, z] = [on.board, x + on.x, y + on.y, z + on.z];
  }
  return { root, x, y, z };
};

const wayOf = (out: LaidOut, a: PlugThere, b: PlugThere): (Route & { readonly board?: string }) | undefined => {
  if (a.board === b.board) {
    const boxes = out.boxes.filter((box) => box.board === a.board).map((box) => box.rect);
    return { ...routeOf(a.end, b.end, boxes, out.boards.get(a.board)?.slotted ?? false), board: a.board };
  }
  const [one, other] = [frameOf(out.boards, a.board), frameOf(out.boards, b.board)];
  if (one.root !== other.root) return undefined;
  const from: Point = { x: a.end.x + one.x, y: a.end.y + one.y };
  const to: Point = { x: b.end.x + other.x, y: b.end.y + other.y };
  return { mm: apart(from, to) + Math.abs(one.z - other.z), corners: [], goes: 'along' };
};

/** From a plug's tip to where its lead begins, in metres. */
const plugMetres = ({ at, end }: PlugThere): number => apart(at, end) / 1000;

/** How long every lead between boxes that stand on boards has to be. */
export const leadLengths = (rig: Rig, hookup: Hookup, out: LaidOut): readonly LeadLength[] => {
  const plugs = grouped(out.plugs, (p) => p.cable);
  return cablesOf(rig, hookup.id).flatMap((cable): readonly LeadLength[] => {
    const ends = plugs.get(cable.id) ?? [];
    const a = ends.find((p) => p.jack === cable.ends[0]);
    const b = ends.find((p) => p.jack === cable.ends[1]);
    const way = a && b && splitRef(a.jack).device !== splitRef(b.jack).device ? wayOf(out, a, b) : undefined;
    if (!a || !b || !way) return [];
    const { board, ...route } = way;
    const least = way.mm / 1000 + plugMetres(a) + plugMetres(b);
    const wanted = least + Math.max(LEAST_SLACK_MM / 1000, (way.mm / 1000) * SLACK_SHARE);
    return [
      {
        cable: cable.id,
        least,
        wanted,
        step: STOCK_STEPS.find((s) => s >= wanted) ?? Math.ceil(wanted),
        ...(board === undefined ? {} : { route: { ...route, board } }),
      },
    ];
  });
};

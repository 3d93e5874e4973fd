import type { Board } from '../rig/board.js';
import { splitRef, type Id, type Ref } from '../rig/ids.js';
import type { LaidOut, PlugThere, Standing } from './laid-out.js';
import { overlaps, type Rect } from './shapes.js';

/** What keeps a layout from being built as it is drawn. */
export type BoardFault =
  | { readonly is: 'overlap'; readonly box: Id<'device'>; readonly other: Id<'device'> }
  | { readonly is: 'overhang'; readonly box: Id<'device'>; readonly mm: number }
  | { readonly is: 'too high'; readonly box: Id<'device'>; readonly mm: number; readonly under?: string }
  | { readonly is: 'blocked'; readonly jack: Ref; readonly box: Id<'device'>; readonly other: Id<'device'> }
  | { readonly is: 'plugs'; readonly jack: Ref; readonly box: Id<'device'>; readonly other: Ref };

const pairs = <T>(all: readonly T[]): readonly (readonly [T, T])[] =>
  all.flatMap((a, i) => all.slice(i + 1).map((b): readonly [T, T] => [a, b]));

const overhang = ({ rect: { x, y, w, d } }: Standing, [width, depth]: readonly [number, number]): number =>
  Math.max(0, -x, -y, x + w - width, y + d - depth);

/** Plates over a board, with what they cover of it: tiers of its own, and the board beneath which it hangs. */
const above = ({ boards }: LaidOut, name: string): readonly { tier: string; rect: Rect; z: number }[] => {
  const own = boards.get(name)?.on;
  const over = own && own.z < 0 ? boards.get(own.board) : undefined;
  const [w, d] = over?.mm ?? [0, 0];
  return [
    ...(own && over ? [{ tier: own.board, rect: { x: -own.x, y: -own.y, w, d }, z: -own.z }] : []),
    ...[...boards].flatMap(([tier, { mm, on }]) =>
      on?.board === name && on.z > 0 ? [{ tier, rect: { x: on.x, y: on.y, w: mm[0], d: mm[1] }, z: on.z }] : [],
    ),
  ];
};

const heights = (out: LaidOut, box: Standing): readonly BoardFault[] => {
  const room = out.boards.get(box.board)?.high;
  const over = room === undefined ? 0 : box.high - room;
  return [
    ...(over > 0 ? [{ is: 'too high' as const, box: box.device.id, mm: over }] : []),
    ...above(out, box.board)
      .filter(({ rect, z }) => box.high > z && overlaps(rect, box.rect))
      .map(({ tier, z }) => ({ is: 'too high' as const, box: box.device.id, mm: box.high - z, under: tier })),
  ];
};

const blockedBy = (plug: PlugThere, boxes: readonly Standing[]): Standing | undefined =>
  boxes.find((b) => b.device.id !== plug.device && overlaps(b.rect, plug.rect));

const betweenThem = (fault: BoardFault): string | undefined => {
  const other = !('other' in fault) ? undefined : fault.is === 'plugs' ? splitRef(fault.other).device : fault.other;
  return other && [fault.box, other].sort().join(' ');
};

/** Of what is wrong between two boxes the worst: the rest goes with it, or is told next. */
const oneForTwo = (faults: readonly BoardFault[]): readonly BoardFault[] => {
  const told = new Set<string>();
  return faults.filter((fault) => {
    const pair = betweenThem(fault);
    if (pair === undefined) return true;
    const isNew = !told.has(pair);
    told.add(pair);
    return isNew;
  });
};

const onBoard = (out: LaidOut, name: string, board: Board): readonly BoardFault[] => {
  const boxes = out.boxes.filter((b) => b.board === name);
  const plugs = out.plugs.filter((p) => p.board === name);
  return [
    ...pairs(boxes)
      .filter(([a, b]) => overlaps(a.rect, b.rect))
      .map(([a, b]) => ({ is: 'overlap' as const, box: a.device.id, other: b.device.id })),
    ...boxes.flatMap((b): readonly BoardFault[] => {
      const mm = overhang(b, board.mm);
      return [...(mm > 0 ? [{ is: 'overhang' as const, box: b.device.id, mm }] : []), ...heights(out, b)];
    }),
    ...plugs.flatMap((p): readonly BoardFault[] => {
      const other = blockedBy(p, boxes);
      return other ? [{ is: 'blocked', jack: p.jack, box: p.device, other: other.device.id }] : [];
    }),
    ...pairs(plugs)
      .filter(([a, b]) => a.device !== b.device && overlaps(a.rect, b.rect))
      .map(([a, b]) => ({ is: 'plugs' as const, jack: a.jack, box: a.device, other: b.jack })),
  ];
};

/** Everything that is wrong with where boxes stand, board by board; one thing for every two boxes. */
export const boardFaults = (out: LaidOut): readonly BoardFault[] =>
  [...out.boards].flatMap(([name, board]) => oneForTwo(onBoard(out, name, board)));

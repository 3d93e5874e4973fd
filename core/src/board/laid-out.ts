import { jackAt, jackIn } from '../rig/box.js';
import type { Board, Side, Spot, Turn } from '../rig/board.js';
import type { Device, Zone } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { splitRef, type Id, type Ref } from '../rig/ids.js';
import { ABOUT, cablesOf, partOf, type Rig } from '../rig/rig.js';
import { keysOf } from '../known/keys.js';
import { jackPoint, sizeOf } from './jacks.js';
import { isOftenAngled, plugSize } from './plugs.js';
import { movedBy, outOf, turnedPoint, turnedSide, turnedSize, turnNear, type Point, type Rect } from './shapes.js';

/** A box as it stands on a board. */
export interface Standing {
  readonly device: Device;
  readonly board: string;
  readonly rect: Rect;
  readonly turn: Turn;
  /** Its height in mm. */
  readonly high: number;
}

/** A plug in a jack of a box that stands on a board. */
export interface PlugThere {
  readonly jack: Ref;
  readonly cable: Id<'cable'>;
  readonly device: Id<'device'>;
  readonly board: string;
  readonly side: Side;
  /** Where it meets the box. */
  readonly at: Point;
  /** Where its lead begins. */
  readonly end: Point;
  /** What it covers. */
  readonly rect: Rect;
}

/** Everything that stands on boards in a hook-up, and where its leads are plugged. */
export interface LaidOut {
  readonly boards: ReadonlyMap<string, Board>;
  readonly boxes: readonly Standing[];
  readonly plugs: readonly PlugThere[];
}

export const boardsOf = (rig: Rig): ReadonlyMap<string, Board> =>
  new Map(Object.entries(partOf(rig, ABOUT)?.boards ?? {}));

/** A board or a tier, and how far right of, behind and above the board it is that carries it, in mm. */
interface Carried extends Point {
  readonly name: string;
  readonly board: Board;
  readonly z: number;
}

/** A board with every tier that hangs on it, also over another; each once. */
export const boardsBeneath = (boards: ReadonlyMap<string, Board>, name: string): readonly Carried[] => {
  const board = boards.get(name);
  const found: Carried[] = board ? [{ name, board, x: 0, y: 0, z: 0 }] : [];
  for (const { name: below, x, y, z } of found)
    for (const [tier, of] of boards)
      if (of.on?.board === below && !found.some((f) => f.name === tier))
        found.push({ name: tier, board: of, x: x + of.on.x, y: y + of.on.y, z: z + of.on.z });
  return found;
};

/** The board on which a tier hangs in the end; a board that hangs on nothing is its own. */
export const carrierOf = (boards: ReadonlyMap<string, Board>, name: string): string => {
  let at = name;
  for (let steps = 0; steps < boards.size; steps += 1) at = boards.get(at)?.on?.board ?? at;
  return at;
};

export const standingAt = (device: Device, spot: Spot): Standing => {
  const [w, d, high] = sizeOf(device);
  const turn = turnNear(spot.turn);
  return { device, board: spot.at, rect: { x: spot.x, y: spot.y, ...turnedSize(w, d, turn) }, turn, high };
};

/** Leads up to so many metres are patch leads, and so is one between two boxes that belong on a board (common practice). */
const PATCH_M = 1;
const ON_BOARDS: readonly Zone[] = ['floor', 'supply'];

const isPatch = (rig: Rig, { m, ends }: Cable): boolean =>
  m === undefined
    ? ends.every((end) => ON_BOARDS.some((zone) => partOf(rig, splitRef(end).device)?.zone === zone))
    : m <= PATCH_M;

/** Whether the plug at one end of a lead is bent: as said, else as usual for a patch lead. */
export const isAngled = (rig: Rig, cable: Cable, end: 0 | 1): boolean => {
  const connector = cable.plugs?.[end] ?? jackAt(rig, cable.ends[end])?.connector;
  return cable.angled?.[end] ?? (isPatch(rig, cable) && connector !== undefined && isOftenAngled(connector));
};

/** What a plug of that size covers at a jack that looks that way. */
const plugRect = ({ x, y }: Point, side: Side, out: number, wide: number): Rect => {
  const { x: dx, y: dy } = outOf(side);
  const [far, across] = [out, wide / 2];
  return dx === 0
    ? { x: x - across, y: dy > 0 ? y : y - far, w: wide, d: far }
    : { x: dx > 0 ? x : x - far, y: y - across, w: far, d: wide };
};

/** A plug in a jack, in mm from the front left corner of what the turned box covers. */
export interface PlugOnBox {
  readonly side: Side;
  readonly at: Point;
  readonly end: Point;
  readonly rect: Rect;
}

/** Where a plug is on a box that is turned so. Nothing where a jack has no plug. */
export const plugOn = (
  device: Device,
  jack: string,
  turn: Turn,
  connector: NonNullable<Cable['plugs']>[number] | undefined,
  angled: boolean,
): PlugOnBox | undefined => {
  const found = jackIn(device, jack);
  const point = found && jackPoint(device, found);
  if (!point) return undefined;
  const [w, d] = sizeOf(device);
  const at = turnedPoint(point, w, d, turn);
  const side = turnedSide(point.side, turn);
  const { out, wide } = plugSize(connector ?? found.connector, angled);
  const step = outOf(side);
  return { side, at, end: { x: at.x + step.x * out, y: at.y + step.y * out }, rect: plugRect(at, side, out, wide) };
};

/** Where everything stands in a hook-up. A box on a board that is not there stands nowhere. */
export const laidOut = (rig: Rig, hookup: Hookup, place = hookup.place ?? {}): LaidOut => {
  const boards = boardsOf(rig);
  const boxes = keysOf(place).flatMap((id): readonly Standing[] => {
    const [device, spot] = [partOf(rig, id), place[id]];
    return device && spot && boards.has(spot.at) ? [standingAt(device, spot)] : [];
  });
  const here = new Map(boxes.map((b) => [b.device.id, b]));
  const plugs = cablesOf(rig, hookup.id).flatMap((cable) =>
    ([0, 1] as const).flatMap((end): readonly PlugThere[] => {
      const jack = cable.ends[end];
      const { device, name } = splitRef(jack);
      const box = here.get(device);
      if (!box) return [];
      const plug = plugOn(box.device, name, box.turn, cable.plugs?.[end], isAngled(rig, cable, end));
      if (!plug) return [];
      const by = (p: Point): Point => ({ x: p.x + box.rect.x, y: p.y + box.rect.y });
      return [
        {
          jack,
          cable: cable.id,
          device,
          board: box.board,
          side: plug.side,
          at: by(plug.at),
          end: by(plug.end),
          rect: movedBy(plug.rect, box.rect),
        },
      ];
    }),
  );
  return { boards, boxes, plugs };
};

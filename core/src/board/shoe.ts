import { SHOE_MM, type Turn } from '../rig/board.js';
import type { Device } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { sizeOf } from './jacks.js';
import type { LaidOut } from './laid-out.js';
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

/**
 * Where a foot hits a box that is turned so, from the front left corner of what it covers then: its switches as they are
 * said, else one in the middle of its front.
 */
export const switchesOf = (device: Device, turn: Turn): readonly Point[] => {
  const feet = new Set(device.actuators.flatMap(({ by }) => ('foot' in by ? [by.foot] : [])));
  if (feet.size === 0) return [];
  const said = device.figures.switches ?? [];
  const [w, d] = sizeOf(device);
  const points = said.length > 0 ? said : feet.size === 1 ? [{ x: w / 2, y: Math.min(SWITCH_BACK_MM, d / 2) }] : [];
  return points.map((p) => turnedPoint(p, w, d, turn));
};

/**
 * How near the nearest two are once the others are moved by so much, from middle to middle, in mm; Infinity where there
 * are none. Nothing is made for it, it is asked so often.
 */
export const nearest = (some: readonly Point[], others: readonly Point[], x: number, y: number): number => {
  let least = Infinity;
  for (const a of some) for (const b of others) least = Math.min(least, Math.hypot(a.x - b.x - x, a.y - b.y - y));
  return least;
};

/** Boxes on one board that stand too close to each other for a shoe, the closest first. */
export const tooCloseForAShoe = ({ boxes }: LaidOut, name: string): readonly CloseSwitches[] => {
  const here = boxes
    .filter((b) => b.board === name)
    .map(({ device, rect, turn }) => ({ box: device.id, rect, switches: switchesOf(device, turn) }));
  return here
    .flatMap(({ box, rect, switches }, i) =>
      here.slice(i + 1).flatMap((other): readonly CloseSwitches[] => {
        const mm = nearest(switches, other.switches, other.rect.x - rect.x, other.rect.y - rect.y);
        return mm < SHOE_MM ? [{ box, other: other.box, mm }] : [];
      }),
    )
    .sort((a, b) => a.mm - b.mm);
};

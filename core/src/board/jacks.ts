import type { Side } from '../rig/board.js';
import type { Device, Jack } from '../rig/device.js';
import type { Point } from './shapes.js';

/** A box whose size nobody said: that of a usual pedal, in mm (assumed). */
export const USUAL_BOX = [70, 120, 55] as const;

/** Width, depth and height of a box, in mm. */
export const sizeOf = ({ figures }: Device): readonly [number, number, number] => figures.mm ?? USUAL_BOX;

/** From this width on a box has its jacks at the back (common practice), in mm. */
const WIDE = 150;

/**
 * On which side of a box a jack sits, as the player sees it. Unless said: the back of a wide box; of a small one the
 * sound comes in on the right and goes out on the left, all else is at the back (common practice). Nothing where
 * there is no plug.
 */
export const sideOf = (device: Device, jack: Jack): Side | undefined => {
  if (jack.kind === 'air') return undefined;
  if (jack.side) return jack.side;
  const [width] = sizeOf(device);
  if (width >= WIDE || jack.kind !== 'audio') return 'back';
  return jack.poles.tip === 'out' ? 'left' : 'right';
};

/**
 * Where on its side a jack sits: those of a side at equal distances in their order, from the right where they look to
 * the front or the back, else from the back (assumed). In mm from the front left corner of the box as it stands unturned.
 */
export const jackPoint = (device: Device, jack: Jack): (Point & { readonly side: Side }) | undefined => {
  const side = sideOf(device, jack);
  if (!side) return undefined;
  const beside = device.jacks.filter((j) => sideOf(device, j) === side);
  const far = 1 - (beside.findIndex((j) => j.id === jack.id) + 1) / (beside.length + 1);
  const [w, d] = sizeOf(device);
  switch (side) {
    case 'back':
      return { side, x: far * w, y: d };
    case 'front':
      return { side, x: far * w, y: 0 };
    case 'left':
      return { side, x: 0, y: far * d };
    case 'right':
      return { side, x: w, y: far * d };
  }
};

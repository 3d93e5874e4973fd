import { splitRef, type Ref } from '@yunta/core/rig/ids';
import type { MapBox, MapCable, MapJack, MapLoop } from '@yunta/core/signal/drawing/map';
import { theItem, theFirst } from '@yunta/core/known/the';

export type JackSide = 'left' | 'right' | 'top' | 'bottom';
export type MapPoint = readonly [x: number, y: number];

/** A jack on the rim of its box; x and y are measured from the box's corner. */
export interface LaidJack {
  readonly jack: MapJack;
  readonly x: number;
  readonly y: number;
  readonly side: JackSide;
}

/** Where a loop leaves the bar of its host and comes back. */
export interface LaidLoop {
  readonly loop: MapLoop;
  readonly from: number;
  readonly to: number;
  readonly side: 'top' | 'bottom';
}

export interface LaidBox {
  readonly box: MapBox;
  readonly shape: 'tag' | 'bar';
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly jacks: readonly LaidJack[];
  readonly loops: readonly LaidLoop[];
  /** Its name stands above it, out of the way of what hangs there. */
  readonly nameAbove?: true;
}

export interface LaidCable {
  readonly cable: MapCable;
  /** An SVG path of straight lines. */
  readonly d: string;
  /** Where its letter stands. */
  readonly at: MapPoint;
}

/** A box with all that hangs on it, laid out from its own corner. */
export interface MapBlock {
  readonly of: MapBox;
  readonly width: number;
  readonly height: number;
  /** The box itself comes first. */
  readonly boxes: readonly LaidBox[];
  readonly cables: readonly LaidCable[];
}

export const TAG = { width: 70, height: 34, label: 32 } as const;
export const PITCH = 14;
export const LOOP_PITCH = 22;
const FREE_SHOWN = 3;

/** All jacks in use, and the free ones of the signal while they are few. */
export const shownJacks = (box: MapBox): readonly MapJack[] => {
  const few = (way: MapJack['way']) =>
    box.jacks.filter((j) => j.layer === 'audio' && j.way === way).length <= FREE_SHOWN;
  return box.jacks.filter((j) => j.plugged || (j.layer === 'audio' && few(j.way)));
};

/** The jacks of a loop, sends first. */
export const loopJacks = (loop: MapLoop): readonly MapJack[] => {
  const made =
    (way: MapJack['way']) =>
    (r: Ref): MapJack => ({ ref: r, id: splitRef(r).name, layer: 'audio', way, plugged: loop.patched });
  return [...loop.sends.map(made('out')), ...loop.returns.map(made('in'))];
};

const along = (count: number, length: number, pitch: number): readonly number[] =>
  Array.from({ length: count }, (_, i) => length / 2 + (i - (count - 1) / 2) * pitch);

export const onSide = (
  jacks: readonly MapJack[],
  side: JackSide,
  width: number,
  height: number,
  pitch: number = PITCH,
): readonly LaidJack[] => {
  const upright = side === 'left' || side === 'right';
  const places = along(jacks.length, upright ? height : width, pitch);
  return jacks.map((jack, i): LaidJack => ({
    jack,
    side,
    x: upright ? (side === 'left' ? 0 : width) : theItem(places, i),
    y: upright ? theItem(places, i) : side === 'top' ? 0 : height,
  }));
};

/** An ordinary box: what it takes on its left, what it gives on its right, what hangs in a loop by its top. */
export const tag = (box: MapBox, hungBy: readonly MapJack[] = []): LaidBox => {
  const shown = shownJacks(box).filter((j) => !hungBy.includes(j));
  const above = [...hungBy, ...box.loops.flatMap(loopJacks)];
  const of = (way: MapJack['way']) => shown.filter((j) => j.layer === 'audio' && j.way === way);
  const bottom = shown.filter((j) => j.layer !== 'audio');
  const pitch = hungBy.length ? LOOP_PITCH : PITCH;
  const height = Math.max(TAG.height, Math.max(of('in').length, of('out').length) * PITCH + 8);
  const width = Math.max(TAG.width, above.length * pitch + 20, bottom.length * PITCH + 14);
  return {
    box,
    shape: 'tag',
    x: 0,
    y: 0,
    width,
    height,
    loops: [],
    jacks: [
      ...onSide(of('in'), 'left', width, height),
      ...onSide(of('out'), 'right', width, height),
      ...onSide(above, 'top', width, height, pitch),
      ...onSide(bottom, 'bottom', width, height),
    ],
  };
};

export const moved = <T extends { readonly x: number; readonly y: number }>(thing: T, dx: number, dy: number): T => ({
  ...thing,
  x: thing.x + dx,
  y: thing.y + dy,
});

const round = (n: number): number => Math.round(n * 10) / 10;
export const pathOf = (points: readonly MapPoint[]): string =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${round(x)} ${round(y)}`).join('');
const throughPath = (d: string, change: (x: number, y: number) => MapPoint): string =>
  d.replaceAll(/([ML])(-?[\d.]+) (-?[\d.]+)/g, (_, c: string, x: string, y: string) => {
    const [nx, ny] = change(Number(x), Number(y));
    return `${c}${round(nx)} ${round(ny)}`;
  });
export const movedCable = (c: LaidCable, dx: number, dy: number): LaidCable => ({
  ...c,
  d: throughPath(c.d, (x, y) => [x + dx, y + dy]),
  at: [c.at[0] + dx, c.at[1] + dy],
});

/** The same, upside down about a height. */
export const turnedCable = (c: LaidCable, about: number): LaidCable => ({
  ...c,
  d: throughPath(c.d, (x, y) => [x, 2 * about - y]),
  at: [c.at[0], 2 * about - c.at[1]],
});
const OTHER: Readonly<Record<JackSide, JackSide>> = { left: 'left', right: 'right', top: 'bottom', bottom: 'top' };
export const turnedBox = (b: LaidBox, about: number): LaidBox => ({
  ...b,
  y: 2 * about - b.y - b.height,
  nameAbove: true,
  jacks: b.jacks.map((j) => ({ ...j, y: b.height - j.y, side: OTHER[j.side] })),
});

/** Where a letter on a cable is out of the way: the middle of its longest stretch. */
export const middle = (points: readonly MapPoint[]): MapPoint => {
  const stretches = points.slice(1).map((to, i) => ({
    from: theItem(points, i),
    to,
    length: Math.abs(to[0] - theItem(points, i)[0]) + Math.abs(to[1] - theItem(points, i)[1]),
  }));
  const longest = stretches.reduce((a, b) => (b.length > a.length ? b : a), theFirst(stretches));
  return [(longest.from[0] + longest.to[0]) / 2, (longest.from[1] + longest.to[1]) / 2];
};

import { theItem } from '@yunta/core/known/the';
import type { Item } from '@yunta/core/signal/drawing/picture';

/** How much room a run has: it is folded into rows of this width, and names stand under its tags or not. */
export interface RunRoom {
  /** In units of the drawing, which are pixels. */
  readonly width: number;
  readonly names: boolean;
}

export const AMPLE: RunRoom = { width: Infinity, names: true };
export const TAG = { width: 54, height: 30, gap: 15 } as const;
/** How far a loop that is on hangs below the line, under a tag with a name and under one without. */
const DROP = { names: 74, bare: 50 } as const;
const LABEL = 31;
/** Room above a tag for what is said of sides. */
const SIDES = 16;
/** Room for the name of a host above its bar. */
const HOST = 30;
export const STUB = { width: 40, depth: 22 } as const;
/** The way from the end of a row to the beginning of the next. */
export const TURN = { room: 14, between: 16 } as const;
/** The slope into an arm and out of it. */
export const SLOPE = 20;
const END_CHAR = 7.2;
/** Letters of the name of an end that are drawn. */
export const END_CHARS = 22;
const BETWEEN_ARMS = 8;

export interface Size {
  readonly width: number;
  readonly up: number;
  readonly down: number;
}

/** One row of a block: which items stand in it, and how far its line lies below that of the first row. */
export interface Row extends Size {
  readonly from: number;
  readonly to: number;
  readonly y: number;
}

/** A stretch of the run, folded where it is longer than its room; sizes from the line of its first row. */
export interface Block extends Size {
  readonly widths: readonly number[];
  readonly rows: readonly Row[];
}

const sum = (ns: readonly number[]): number => ns.reduce((a, b) => a + b, 0);

export const dropOf = ({ names }: RunRoom): number => (names ? DROP.names : DROP.bare);

/** What stands under the name of an end. @example 'ch1 and ch3, mono' */
export const underEnd = ({ by, sides }: Extract<Item, { is: 'end' }>): string =>
  [by.join(' and '), sides.join(' and ')].filter(Boolean).join(', ');

/** The arms of a split, each folded into what is left between the slopes. */
export const armsOf = (item: Extract<Item, { is: 'split' }>, room: RunRoom): readonly Block[] =>
  item.arms.map((arm) => blockOf(arm, { ...room, width: room.width - 2 * SLOPE }));

/** How far the line of each arm lies below the line that splits. */
export const armHeights = (arms: readonly Size[]): readonly number[] => {
  const all = sum(arms.map((a) => a.up + a.down)) + BETWEEN_ARMS * (arms.length - 1);
  return arms.map((arm, i) => sum(arms.slice(0, i).map((a) => a.up + a.down + BETWEEN_ARMS)) + arm.up - all / 2);
};

const sizeOf = (item: Item, room: RunRoom): Size => {
  const label = room.names ? LABEL : 4;
  switch (item.is) {
    case 'box':
      return {
        width: TAG.width + TAG.gap,
        up: TAG.height / 2 + (item.sides ? SIDES : 0),
        down: TAG.height / 2 + label,
      };
    case 'loop': {
      if (!item.on)
        return {
          width: item.holds.length ? STUB.width : 10,
          up: HOST,
          down: item.holds.length ? 26 + STUB.depth + item.holds.length * 13 : 12,
        };
      const inside = insideOf(item, room);
      return { width: Math.max(inside.width, TAG.width) + TAG.gap + 4, up: HOST, down: dropOf(room) + inside.down };
    }
    case 'split': {
      const arms = armsOf(item, room);
      const half = (sum(arms.map((a) => a.up + a.down)) + BETWEEN_ARMS * (arms.length - 1)) / 2;
      return { width: Math.max(24, ...arms.map((a) => a.width)) + 2 * SLOPE, up: half, down: half };
    }
    case 'end':
      return {
        width: 22 + Math.max(Math.min(item.name.length, END_CHARS), underEnd(item).length) * END_CHAR,
        up: 12,
        down: 20,
      };
  }
};

/** What hangs in a loop is not folded. */
export const insideOf = (item: Extract<Item, { is: 'loop'; on: true }>, room: RunRoom): Block =>
  blockOf(item.inside, { ...room, width: Infinity });

/** Where rows begin and end: as many items in each as find room. */
const folded = (widths: readonly number[], room: number): readonly (readonly [from: number, to: number])[] => {
  if (sum(widths) <= room) return [[0, widths.length]];
  const starts = [0];
  let used = 0;
  widths.forEach((width, i) => {
    if (used > 0 && used + width > room - 2 * TURN.room) {
      starts.push(i);
      used = 0;
    }
    used += width;
  });
  return starts.map((from, i) => [from, starts[i + 1] ?? widths.length]);
};

/** A stretch of the run in its room. @param columns widths given from outside, where two runs are lined up */
export const blockOf = (items: readonly (Item | undefined)[], room: RunRoom, columns?: readonly number[]): Block => {
  const sizes = items.map((item) => (item ? sizeOf(item, room) : undefined));
  const widths = columns ?? sizes.map((s) => s?.width ?? 0);
  const rows: Row[] = [];
  for (const [from, to] of folded(widths, room.width)) {
    const own = sizes.slice(from, to).filter((s) => s !== undefined);
    const up = Math.max(8, ...own.map((s) => s.up));
    const before = rows.at(-1);
    rows.push({
      from,
      to,
      up,
      down: Math.max(8, ...own.map((s) => s.down)),
      width: sum(widths.slice(from, to)),
      y: before ? before.y + before.down + TURN.between + up : 0,
    });
  }
  const last = theItem(rows, rows.length - 1);
  return {
    widths,
    rows,
    width: Math.max(...rows.map((r) => r.width)) + (rows.length > 1 ? 2 * TURN.room : 0),
    up: theItem(rows, 0).up,
    down: last.y + last.down,
  };
};

/** The columns of two runs that are lined up: each as wide as the wider of the two. */
export const sharedColumns = (
  a: readonly (Item | undefined)[],
  b: readonly (Item | undefined)[],
): readonly number[] => {
  const width = (item: Item | undefined): number => (item ? sizeOf(item, AMPLE).width : 0);
  return a.map((item, i) => Math.max(width(item), width(b[i])));
};

import type { Item, StageMark } from '@yunta/core/signal/drawing/picture';
import type { Id } from '@yunta/core/rig/ids';
import { theItem } from '@yunta/core/known/the';

/** Where everything of a run is drawn, in units of the drawing; the line runs at y = 0. */
export interface Laid {
  readonly tags: readonly LaidTag[];
  readonly wires: readonly string[];
  /** Where both sides run side by side: what is drawn in place of the one line, and the two lines. */
  readonly pairs: readonly { readonly instead: string; readonly lines: string }[];
  /** Stubs of loops that are off. */
  readonly stubs: readonly {
    readonly d: string;
    readonly x: number;
    readonly y: number;
    readonly codes: readonly Id<'device'>[];
  }[];
  readonly hosts: readonly {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly device: Id<'device'>;
  }[];
  readonly ends: readonly { readonly x: number; readonly y: number; readonly name: string; readonly under: string }[];
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

export interface LaidTag {
  readonly x: number;
  readonly y: number;
  readonly device: Id<'device'>;
  readonly stages: readonly StageMark[];
  readonly sides?: 'part' | 'meet' | undefined;
}

export const TAG = { width: 54, height: 30, gap: 15 } as const;
const WIDE = { apart: 4, back: TAG.gap / 2, length: TAG.gap + 4 } as const;
const DROP = 74;
const LABEL = 31;
/** Room above a tag for what is said of sides. */
const SIDES = 16;
/** Room for the name of a host above its bar. */
const HOST = 30;
const STUB = { width: 40, depth: 22 } as const;
const END_CHAR = 7.2;

interface Size {
  readonly width: number;
  readonly up: number;
  readonly down: number;
}

/** Two cables, one for each side, from the tag before to the tag behind. */
const pairAt = (x: number, y: number): Laid['pairs'][number] => {
  const line = (at: number): string => `M${x - WIDE.back} ${at}h${WIDE.length}`;
  return { instead: line(y), lines: `${line(y - WIDE.apart)}${line(y + WIDE.apart)}` };
};

const sum = (ns: readonly number[]): number => ns.reduce((a, b) => a + b, 0);

/** What stands under the name of an end. @example 'ch1 and ch3, mono' */
const underEnd = ({ by, sides }: Extract<Item, { is: 'end' }>): string =>
  [by.join(' and '), sides.join(' and ')].filter(Boolean).join(', ');

const sizeOf = (item: Item): Size => {
  switch (item.is) {
    case 'box':
      return {
        width: TAG.width + TAG.gap,
        up: TAG.height / 2 + (item.sides ? SIDES : 0),
        down: TAG.height / 2 + LABEL,
      };
    case 'loop': {
      if (!item.on)
        return {
          width: item.holds.length ? STUB.width : 10,
          up: HOST,
          down: item.holds.length ? 26 + STUB.depth + item.holds.length * 13 : 12,
        };
      const inside = seriesSize(item.inside);
      return { width: Math.max(inside.width, TAG.width) + TAG.gap + 4, up: HOST, down: DROP + inside.down };
    }
    case 'split': {
      const arms = item.arms.map(seriesSize);
      const height = sum(arms.map((a) => a.up + a.down)) + 8 * (arms.length - 1);
      return { width: Math.max(24, ...arms.map((a) => a.width)) + 40, up: height / 2, down: height / 2 };
    }
    case 'end':
      return { width: 22 + Math.max(item.name.length, underEnd(item).length) * END_CHAR, up: 12, down: 20 };
  }
};

const seriesSize = (items: readonly Item[]): Size => {
  const sizes = items.map(sizeOf);
  return {
    width: sum(sizes.map((s) => s.width)),
    up: Math.max(8, ...sizes.map((s) => s.up)),
    down: Math.max(8, ...sizes.map((s) => s.down)),
  };
};

/** The columns of two runs that are lined up: each as wide as the wider of the two. */
export const sharedColumns = (a: readonly (Item | undefined)[], b: readonly (Item | undefined)[]): readonly number[] =>
  a.map((item, i) => Math.max(item ? sizeOf(item).width : 0, b[i] ? sizeOf(b[i]).width : 0));

/**
 * Lays a run out from left to right: loops hang below the line, arms stand above and below each other. With columns
 * given, a place without an item is bare wire.
 */
// eslint-disable-next-line max-lines-per-function -- one pen draws the whole run: its parts write into the same lists
export const layRun = (run: readonly (Item | undefined)[], columns?: readonly number[]): Laid => {
  const items = run.filter((i) => i !== undefined);
  const tags: LaidTag[] = [];
  const wires: string[] = [];
  const pairs: Laid['pairs'][number][] = [];
  const stubs: Laid['stubs'][number][] = [];
  const hosts: { x: number; y: number; width: number; device: Id<'device'> }[] = [];
  const ends: Laid['ends'][number][] = [];

  const series = (list: readonly (Item | undefined)[], x0: number, y: number, wide?: readonly number[]): number => {
    let x = x0;
    list.forEach((item, i) => {
      const width = wide?.[i] ?? (item ? sizeOf(item).width : 0);
      if (item?.is === 'loop') host(item.device, list[i - 1], x, y, width);
      if (item) place(item, x, y, width);
      else if (list.slice(i).some((later) => later && later.is !== 'end')) wires.push(`M${x} ${y}h${width}`);
      x += width;
    });
    return x;
  };

  /** Loops of one box side by side share one bar. */
  const host = (device: Id<'device'>, before: Item | undefined, x: number, y: number, width: number): void => {
    const last = hosts.findLast((h) => h.y === y);
    if (before?.is === 'loop' && before.device === device && last && Math.abs(last.x + last.width - x) < 0.5)
      last.width += width;
    else hosts.push({ x, y, width, device });
  };

  const place = (item: Item, x: number, y: number, width: number): void => {
    switch (item.is) {
      case 'box':
        wires.push(`M${x} ${y}h${width}`);
        if (item.wide) pairs.push(pairAt(x, y));
        tags.push({ x: x + TAG.gap / 2, y, device: item.device, stages: item.stages, sides: item.sides });
        return;
      case 'loop': {
        if (!item.on) {
          wires.push(`M${x} ${y}h${width}`);
          if (item.holds.length)
            stubs.push({
              d: `M${x + 9} ${y + 12}v${STUB.depth}h${STUB.width - 18}v${-STUB.depth}`,
              x: x + STUB.width / 2,
              y: y + 26 + STUB.depth,
              codes: item.holds,
            });
          return;
        }
        const inside = seriesSize(item.inside).width;
        const left = x + (width - inside) / 2;
        wires.push(`M${x} ${y}H${left}V${y + DROP}`, `M${left + inside} ${y + DROP}V${y}H${x + width}`);
        series(item.inside, left, y + DROP);
        return;
      }
      case 'split': {
        const sizes = item.arms.map(seriesSize);
        let top = y - sum(sizes.map((s) => s.up + s.down)) / 2 - 4 * (sizes.length - 1);
        item.arms.forEach((arm, i) => {
          const armY = top + theItem(sizes, i).up;
          const end = series(arm, x + 20, armY);
          wires.push(`M${x} ${y}L${x + 20} ${armY}`);
          if (item.joins) wires.push(`M${end} ${armY}H${x + width - 20}L${x + width} ${y}`);
          top = armY + theItem(sizes, i).down + 8;
        });
        return;
      }
      case 'end':
        wires.push(`M${x} ${y}h10`);
        if (item.wide) pairs.push(pairAt(x, y));
        ends.push({ x: x + 13, y, name: item.name, under: underEnd(item) });
    }
  };

  const own = seriesSize(items);
  const size = columns ? { ...own, width: sum(columns) } : own;
  series(run, 0, 0, columns);
  const top = size.up + 4;
  return {
    tags,
    wires,
    pairs,
    stubs,
    hosts,
    ends,
    box: { x: -4, y: -top, width: size.width + 16, height: top + size.down + 8 },
  };
};

import type { Item, StageMark } from '@yunta/core/signal/drawing/picture';
import type { Id, Ref } from '@yunta/core/rig/ids';
import { theItem } from '@yunta/core/known/the';
import {
  AMPLE,
  armHeights,
  armsOf,
  blockOf,
  dropOf,
  insideOf,
  SLOPE,
  STUB,
  TAG,
  TURN,
  underEnd,
  type Block,
  type RunRoom,
} from './run-rows.js';

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
  readonly ends: readonly {
    readonly end: Ref;
    readonly x: number;
    readonly y: number;
    readonly name: string;
    readonly under: string;
  }[];
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

export interface LaidTag {
  readonly x: number;
  readonly y: number;
  readonly device: Id<'device'>;
  readonly stages: readonly StageMark[];
  readonly sides?: 'part' | 'meet' | undefined;
}

const WIDE = { apart: 4, back: TAG.gap / 2, length: TAG.gap + 4 } as const;

/** Two cables, one for each side, from the tag before to the tag behind. */
const pairAt = (x: number, y: number): Laid['pairs'][number] => {
  const line = (at: number): string => `M${x - WIDE.back} ${at}h${WIDE.length}`;
  return { instead: line(y), lines: `${line(y - WIDE.apart)}${line(y + WIDE.apart)}` };
};

/** The pen that draws a run: its parts write into the same lists. */
class Pen {
  readonly tags: LaidTag[] = [];
  readonly wires: string[] = [];
  readonly pairs: Laid['pairs'][number][] = [];
  readonly stubs: Laid['stubs'][number][] = [];
  readonly hosts: { x: number; y: number; width: number; device: Id<'device'> }[] = [];
  readonly ends: Laid['ends'][number][] = [];

  constructor(private readonly room: RunRoom) {}

  /** Draws a stretch row by row. @returns where its line ends */
  block(list: readonly (Item | undefined)[], block: Block, x0: number, y0: number): { x: number; y: number } {
    let at = { x: x0, y: y0 };
    block.rows.forEach((row, i) => {
      const y = y0 + row.y;
      if (i > 0) {
        const [right, left, between] = [
          x0 + block.width - TURN.room / 2,
          x0 + TURN.room / 2,
          y - row.up - TURN.between / 2,
        ];
        this.wires.push(`M${at.x} ${at.y}H${right}V${between}H${left}V${y}H${x0 + TURN.room}`);
      }
      at = { x: this.row(list, block, row, x0 + (i > 0 ? TURN.room : 0), y), y };
    });
    return at;
  }

  private row(
    list: readonly (Item | undefined)[],
    { widths }: Block,
    { from, to }: Block['rows'][number],
    x0: number,
    y: number,
  ): number {
    let x = x0;
    for (let i = from; i < to; i += 1) {
      const [item, width] = [list[i], theItem(widths, i)];
      if (item?.is === 'loop') this.host(item.device, i > from ? list[i - 1] : undefined, x, y, width);
      if (item) this.place(item, x, y, width);
      else if (list.slice(i).some((later) => later && later.is !== 'end')) this.wires.push(`M${x} ${y}h${width}`);
      x += width;
    }
    return x;
  }

  /** Loops of one box side by side share one bar. */
  private host(device: Id<'device'>, before: Item | undefined, x: number, y: number, width: number): void {
    const last = this.hosts.findLast((h) => h.y === y);
    if (before?.is === 'loop' && before.device === device && last && Math.abs(last.x + last.width - x) < 0.5)
      last.width += width;
    else this.hosts.push({ x, y, width, device });
  }

  private place(item: Item, x: number, y: number, width: number): void {
    switch (item.is) {
      case 'box':
        this.wires.push(`M${x} ${y}h${width}`);
        if (item.wide) this.pairs.push(pairAt(x, y));
        this.tags.push({ x: x + TAG.gap / 2, y, device: item.device, stages: item.stages, sides: item.sides });
        return;
      case 'loop':
        return this.loop(item, x, y, width);
      case 'split':
        return this.split(item, x, y, width);
      case 'end':
        this.wires.push(`M${x} ${y}h10`);
        if (item.wide) this.pairs.push(pairAt(x, y));
        this.ends.push({ end: item.end, x: x + 13, y, name: item.name, under: underEnd(item) });
    }
  }

  private loop(item: Extract<Item, { is: 'loop' }>, x: number, y: number, width: number): void {
    if (!item.on) {
      this.wires.push(`M${x} ${y}h${width}`);
      if (item.holds.length)
        this.stubs.push({
          d: `M${x + 9} ${y + 12}v${STUB.depth}h${STUB.width - 18}v${-STUB.depth}`,
          x: x + STUB.width / 2,
          y: y + 26 + STUB.depth,
          codes: item.holds,
        });
      return;
    }
    const inside = insideOf(item, this.room);
    const left = x + (width - inside.width) / 2;
    const below = y + dropOf(this.room);
    this.wires.push(`M${x} ${y}H${left}V${below}`, `M${left + inside.width} ${below}V${y}H${x + width}`);
    this.block(item.inside, inside, left, below);
  }

  private split(item: Extract<Item, { is: 'split' }>, x: number, y: number, width: number): void {
    const arms = armsOf(item, this.room);
    const heights = armHeights(arms);
    item.arms.forEach((arm, i) => {
      const armY = y + theItem(heights, i);
      const end = this.block(arm, theItem(arms, i), x + SLOPE, armY);
      this.wires.push(`M${x} ${y}L${x + SLOPE} ${armY}`);
      if (item.joins) this.wires.push(`M${end.x} ${end.y}H${x + width - SLOPE}L${x + width} ${y}`);
    });
  }
}

/**
 * Lays a run out from left to right: loops hang below the line, arms stand above and below each other. A run longer
 * than its room goes on in the next row. With columns given, a place without an item is bare wire.
 */
export const layRun = (
  run: readonly (Item | undefined)[],
  { room = AMPLE, columns }: { room?: RunRoom; columns?: readonly number[] | undefined } = {},
): Laid => {
  const block = blockOf(run, room, columns);
  const { tags, wires, pairs, stubs, hosts, ends } = drawn(run, block, room);
  const top = block.up + 4;
  const box = { x: -4, y: -top, width: block.width + RIM, height: top + block.down + 8 };
  return { tags, wires, pairs, stubs, hosts, ends, box };
};

/** What a drawing is wider than its block. */
export const RIM = 16;

const drawn = (run: readonly (Item | undefined)[], block: Block, room: RunRoom): Pen => {
  const pen = new Pen(room);
  pen.block(run, block, 0, 0);
  return pen;
};

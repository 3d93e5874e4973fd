import type { MapBox, MapCable, MapJack, MapLoop } from '@yunta/core/signal/drawing/map';
import {
  LOOP_PITCH,
  loopJacks,
  middle,
  moved,
  movedCable,
  onSide,
  pathOf,
  PITCH,
  shownJacks,
  tag,
  TAG,
  turnedBox,
  turnedCable,
  type MapBlock,
  type LaidBox,
  type LaidCable,
  type LaidJack,
  type LaidLoop,
  type MapPoint,
} from './map-parts.js';
import { theItem, theFirst, theOne, surely } from '@yunta/core/known/the';

const BAR = { height: 30, pad: 14, code: 10 } as const;
const COLUMN = { least: 54, twoSided: 31, empty: 40, gap: 10 } as const;
/** Boxes of neighbouring loops hang at two depths, so that the bar stays short. */
const DEPTHS = [30, 100] as const;
/** With more loops than this, every second one stands above the bar. */
const ONE_SIDED = 10;

/** What lives in a loop, laid out from its own corner. */
export type BarInside = Omit<MapBlock, 'of'>;

/** A host of loops as a bar: what lives in them hangs from it as in the run; loops that lead away leave by its top. */
export class Bar {
  private x: number;
  private readonly depth = { bottom: 0, top: 0 };
  private readonly jacks: LaidJack[] = [];
  private readonly loops: LaidLoop[] = [];
  private readonly hung: LaidBox[] = [];
  private readonly cables: LaidCable[] = [];

  constructor(
    private readonly box: MapBox,
    private readonly cableAt: (jack: MapJack) => MapCable | undefined,
  ) {
    this.x = box.code.length * BAR.code + BAR.pad * 2;
  }

  private get twoSided(): boolean {
    return this.box.loops.length > ONE_SIDED;
  }

  private side(): 'top' | 'bottom' {
    return this.twoSided && this.loops.length % 2 === 1 ? 'top' : 'bottom';
  }

  private leave(loop: MapLoop, side: 'top' | 'bottom', places: readonly number[]): void {
    loopJacks(loop).forEach((jack, i) =>
      this.jacks.push({ jack, side, x: theItem(places, i), y: side === 'top' ? 0 : BAR.height }),
    );
    this.loops.push({ loop, side, from: theFirst(places), to: surely(places.at(-1)) });
  }

  private hang(side: 'top' | 'bottom', boxes: readonly LaidBox[], cables: readonly LaidCable[]): void {
    const about = BAR.height / 2;
    this.hung.push(...(side === 'top' ? boxes.map((b) => turnedBox(b, about)) : boxes));
    this.cables.push(...(side === 'top' ? cables.map((c) => turnedCable(c, about)) : cables));
  }

  /** A loop in which nothing hangs: open jacks, or cables that lead elsewhere. */
  bare(loop: MapLoop): void {
    const count = loop.sends.length + loop.returns.length;
    const width = Math.max(COLUMN.empty, count * LOOP_PITCH) + (this.twoSided ? TAG.width - COLUMN.twoSided : 0);
    const first = this.x + (width - (count - 1) * LOOP_PITCH) / 2;
    this.leave(
      loop,
      loop.patched ? 'top' : 'bottom',
      Array.from({ length: count }, (_, i) => first + i * LOOP_PITCH),
    );
    this.x += width;
  }

  /** One box straight under its loop. */
  single(loop: MapLoop, box: MapBox): void {
    const own = loopJacks(loop);
    const ends = own.flatMap((jack, i) => {
      const cable = this.cableAt(jack);
      const its = cable && box.jacks.find((j) => j.ref === (cable.from === jack.ref ? cable.to : cable.from));
      return its ? [{ i, its, cable }] : [];
    });
    const side = this.side();
    const one = tag(
      box,
      ends.map((e) => e.its),
    );
    const isWide = one.width > TAG.width;
    const least = this.twoSided ? COLUMN.twoSided : COLUMN.least;
    const width = Math.max(least, own.length * LOOP_PITCH - LOOP_PITCH + 9, isWide ? one.width + COLUMN.gap * 2 : 0);
    const first = this.x + (width - (own.length - 1) * LOOP_PITCH) / 2;
    const places = own.map((_, i) => first + i * LOOP_PITCH);
    this.leave(loop, side, places);
    const laid = moved(one, this.x + (width - one.width) / 2, BAR.height + theItem(DEPTHS, this.depth[side]));
    this.hang(
      side,
      [laid],
      ends.map(({ i, its, cable }): LaidCable => {
        const to = laid.x + theOne(laid.jacks, (j) => j.jack === its).x;
        const points: readonly MapPoint[] = [
          [theItem(places, i), BAR.height],
          [theItem(places, i), laid.y - 8],
          [to, laid.y - 8],
          [to, laid.y],
        ];
        return {
          cable,
          d: pathOf(Math.abs(theItem(places, i) - to) < 0.1 ? [theFirst(points), theItem(points, 3)] : points),
          at: [to, (BAR.height + laid.y) / 2],
        };
      }),
    );
    this.depth[side] = 1 - this.depth[side];
    this.x += width;
  }

  /** Several boxes, or a host of its own, between the loop's drops. */
  several(loop: MapLoop, inside: BarInside): void {
    const margin = 12 + Math.max(loop.sends.length, loop.returns.length) * 10;
    const width = inside.width + 2 * margin;
    const sends = loop.sends.length;
    const count = sends + loop.returns.length;
    const places = Array.from({ length: count }, (_, i) =>
      i < sends ? this.x + 8 + i * 10 : this.x + width - 8 - (count - 1 - i) * 10,
    );
    this.leave(loop, 'bottom', places);
    const top = BAR.height + DEPTHS[0];
    const boxes = inside.boxes.map((b) => moved(b, this.x + margin, top));
    const at = new Map(
      boxes.flatMap((b) => b.jacks.map((j) => [j.jack.ref, { x: b.x + j.x, y: b.y + j.y, side: j.side }] as const)),
    );
    const drops = loopJacks(loop).flatMap((jack, i): LaidCable[] => {
      const cable = this.cableAt(jack);
      const far = cable && at.get(cable.from === jack.ref ? cable.to : cable.from);
      if (!far) return [];
      const x = theItem(places, i);
      const points: readonly MapPoint[] =
        far.side === 'top'
          ? [
              [x, BAR.height],
              [x, top - 6],
              [far.x, top - 6],
              [far.x, far.y],
            ]
          : [
              [x, BAR.height],
              [x, far.y],
              [far.x, far.y],
            ];
      return [{ cable, d: pathOf(points), at: middle(points) }];
    });
    this.hang('bottom', boxes, [...inside.cables.map((c) => movedCable(c, this.x + margin, top)), ...drops]);
    this.x += width + COLUMN.gap;
    this.depth.bottom = 0;
  }

  finish(): MapBlock {
    const { box, hung } = this;
    const width = Math.max(this.x + BAR.pad, ...hung.map((b) => b.x + b.width + 6));
    const shown = shownJacks(box);
    const of = (way: MapJack['way']) => shown.filter((j) => j.layer === 'audio' && j.way === way);
    const low = shown
      .filter((j) => j.layer !== 'audio')
      .map((jack, i): LaidJack => ({ jack, side: 'bottom', x: 12 + i * PITCH, y: BAR.height }));
    const bar: LaidBox = {
      box,
      shape: 'bar',
      x: 0,
      y: 0,
      width,
      height: BAR.height,
      loops: this.loops,
      jacks: [
        ...onSide(of('in'), 'left', width, BAR.height),
        ...onSide(of('out'), 'right', width, BAR.height),
        ...this.jacks,
        ...low,
      ],
    };
    const [left, top] = [
      Math.min(0, ...hung.map((b) => b.x)),
      Math.min(0, ...hung.map((b) => b.y - (b.nameAbove ? TAG.label : 0))),
    ];
    const bottom = Math.max(BAR.height + 16, ...hung.map((b) => b.y + b.height + (b.nameAbove ? 0 : TAG.label)));
    return {
      of: box,
      width: width - left,
      height: bottom - top,
      boxes: [bar, ...hung].map((b) => moved(b, -left, -top)),
      cables: this.cables.map((c) => movedCable(c, -left, -top)),
    };
  }
}

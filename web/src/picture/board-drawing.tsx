import './board.css';
import type { LaidOut, Standing } from '@yunta/core/board/laid-out';
import type { LeadLength } from '@yunta/core/board/lengths';
import { middleOf, type Point, type Rect } from '@yunta/core/board/shapes';
import type { BoardWeight } from '@yunta/core/board/weight';
import type { Board } from '@yunta/core/rig/board';
import type { Id } from '@yunta/core/rig/ids';
import type { ReactNode, SVGProps } from 'react';

/** What a drawing of a board shows, and how. */
export interface BoardShown {
  readonly name: string;
  readonly board: Board;
  readonly out: LaidOut;
  readonly lengths: readonly LeadLength[];
  readonly weight: BoardWeight;
  /** Boxes with which something is wrong. */
  readonly wrong: ReadonlySet<Id<'device'>>;
  /** The board turned over: left and right change places. */
  readonly isFromBelow: boolean;
  readonly chosen?: Id<'device'> | undefined;
}

/** Room around the board for plugs that stand over its edge, in mm. */
export const MARGIN = 70;

/** From the board's own mm, with y to the back, to the picture's, with y downwards. */
export const pictured = ({ board: { mm }, isFromBelow }: Pick<BoardShown, 'board' | 'isFromBelow'>) => {
  const [w, d] = mm;
  const point = ({ x, y }: Point): Point => ({ x: isFromBelow ? w - x : x, y: d - y });
  const rect = (r: Rect) => ({ x: isFromBelow ? w - r.x - r.w : r.x, y: d - r.y - r.d, width: r.w, height: r.d });
  return { point, rect };
};

/** The largest letters with which a word fits beside others of its kind, in mm. */
const lettersFor = (word: string, { w, d }: Rect): number => Math.min(26, w / (0.68 * word.length), d / 2.2);

interface BoardDrawingProps extends BoardShown {
  /** What a box answers to; nothing on paper. */
  readonly handle?: (box: Standing) => SVGProps<SVGGElement>;
  readonly title: string;
  readonly children?: ReactNode;
}

/** A board from above or below, drawn to scale: one unit is one millimetre. */
export const BoardDrawing = ({ handle, title, children, ...shown }: BoardDrawingProps) => {
  const { board, out, name, lengths, weight } = shown;
  const [w, d] = board.mm;
  const { point, rect } = pictured(shown);
  const line = (points: readonly Point[]) => points.map((p) => `${point(p).x},${point(p).y}`).join(' ');
  const centre = weight.centre && point(weight.centre);
  return (
    <svg
      className="board-drawing"
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`${-MARGIN} ${-MARGIN} ${w + 2 * MARGIN} ${d + 2 * MARGIN}`}
      width={`${w + 2 * MARGIN}mm`}
      height={`${d + 2 * MARGIN}mm`}
      role="group"
      aria-label={title}
    >
      <rect className="board-plate" x={0} y={0} width={w} height={d} rx={6} />
      {board.slotted && <Slots w={w} d={d} />}
      {lengths.map(({ cable, route }) =>
        route?.board === name ? (
          <polyline key={cable} className={`board-lead ${route.goes}`} points={line(route.corners)} />
        ) : null,
      )}
      {out.plugs
        .filter((p) => p.board === name)
        .map((p) => (
          <rect key={`${p.cable} ${p.jack}`} className="board-plug" {...rect(p.rect)} rx={3} />
        ))}
      {out.boxes
        .filter((b) => b.board === name)
        .map((b) => (
          <g
            key={b.device.id}
            className={`board-box ${shown.wrong.has(b.device.id) ? 'wrong' : ''} ${shown.chosen === b.device.id ? 'chosen' : ''}`}
            {...handle?.(b)}
          >
            <Box box={b} shown={shown} />
          </g>
        ))}
      {centre && (
        <g className="board-centre" role="img" aria-label="Centre of weight">
          <circle cx={centre.x} cy={centre.y} r={9} />
          <path d={`M${centre.x - 15} ${centre.y}h30M${centre.x} ${centre.y - 15}v30`} />
        </g>
      )}
      <text className="board-edge" x={w / 2} y={d + MARGIN - 14}>
        {shown.isFromBelow ? 'front, seen from below' : 'front'}
      </text>
      {children}
    </svg>
  );
};

const Slots = ({ w, d }: { w: number; d: number }) => (
  <g className="board-slots">
    {[1, 2, 3].map((n) => (
      <rect key={n} x={w * 0.04} y={(d * n) / 4 - 6} width={w * 0.92} height={12} rx={6} />
    ))}
  </g>
);

const Box = ({ box, shown }: { box: Standing; shown: BoardShown }) => {
  const { point, rect } = pictured(shown);
  const at = rect(box.rect);
  const { x, y } = point(middleOf(box.rect));
  const size = lettersFor(box.device.code, box.rect);
  const front = frontEdge(box, at, shown.isFromBelow);
  return (
    <>
      <rect {...at} rx={5} />
      <path className="board-front" d={front} />
      <text x={x} y={y + size * 0.36} fontSize={size}>
        {box.device.code}
      </text>
      {shown.wrong.has(box.device.id) && (
        <text className="board-mark" aria-hidden x={at.x + at.width - 5} y={at.y + 24}>
          !
        </text>
      )}
    </>
  );
};

/** The edge that a box turns to the player when it stands unturned: told by a bar. */
const frontEdge = (
  { turn }: Standing,
  { x, y, width, height }: ReturnType<ReturnType<typeof pictured>['rect']>,
  isFromBelow: boolean,
): string => {
  const inset = 5;
  const seen = isFromBelow && turn % 180 !== 0 ? (turn + 180) % 360 : turn;
  switch (seen) {
    case 90:
      return `M${x + inset} ${y + inset}v${height - 2 * inset}`;
    case 180:
      return `M${x + inset} ${y + inset}h${width - 2 * inset}`;
    case 270:
      return `M${x + width - inset} ${y + inset}v${height - 2 * inset}`;
    default:
      return `M${x + inset} ${y + height - inset}h${width - 2 * inset}`;
  }
};

import { grouped } from '../../known/grouped.js';
import { theItem } from '../../known/the.js';
import type { BoxTurned, LayoutProblem } from './problem.js';

/** The sum of the distances of one place from some, and the place of least sum: their median. */
const awayFrom = (places: readonly number[], at: number): number =>
  places.reduce((sum, place) => sum + Math.abs(place - at), 0);
const median = (places: readonly number[]): number =>
  theItem(
    [...places].sort((a, b) => a - b),
    Math.floor(places.length / 2),
  );

/**
 * How little lead two boxes need between them while they do not overlap, in mm: exact for these two alone. Boxes that
 * do not overlap lie apart along one of the axes; to either side of it the sum of distances along the edges is least at
 * the median of the leads, or as near to it as the boxes let it come.
 */
const leastBetween = (a: BoxTurned, b: BoxTurned, leads: readonly number[]): number => {
  const ends = leads.flatMap((lead) => {
    const [p, q] = [a.ends.get(lead), b.ends.get(lead)];
    return p && q ? [{ x: p.x - q.x, y: p.y - q.y }] : [];
  });
  if (ends.length === 0) return 0;
  const [xs, ys] = [ends.map((e) => e.x), ends.map((e) => e.y)];
  const [x, y] = [median(xs), median(ys)];
  const [freeX, freeY] = [awayFrom(xs, x), awayFrom(ys, y)];
  return Math.min(
    awayFrom(xs, Math.max(x, a.body.w)) + freeY,
    awayFrom(xs, Math.min(x, -b.body.w)) + freeY,
    freeX + awayFrom(ys, Math.max(y, a.body.d)),
    freeX + awayFrom(ys, Math.min(y, -b.body.d)),
  );
};

/**
 * No layout on any board needs less lead, in mm, plugs not counted: for every two boxes how near they can bring the
 * leads between them by themselves, whatever else stands there.
 */
export const leastLead = ({ boxes, leads }: LayoutProblem): number => {
  const between = leads.flatMap(({ from, to }, lead) =>
    typeof to === 'number' && from !== to ? [{ lead, from: Math.min(from, to), to: Math.max(from, to) }] : [],
  );
  return [...grouped(between, ({ from, to }) => `${from} ${to}`).values()].reduce((sum, together) => {
    const [{ from, to }] = together;
    const numbers = together.map((t) => t.lead);
    const all = (boxes[from]?.turned ?? []).flatMap((a) =>
      (boxes[to]?.turned ?? []).map((b) => leastBetween(a, b, numbers)),
    );
    return sum + (all.length ? Math.min(...all) : 0);
  }, 0);
};

/** What the boxes cover is more than the board: no layout holds them all. In mm². */
export const coversTooMuch = ({
  boxes,
  board,
}: LayoutProblem): { readonly covers: number; readonly board: number } | undefined => {
  const covers = boxes.reduce((sum, { turned: [one] }) => sum + (one ? one.body.w * one.body.d : 0), 0);
  const area = board.w * board.d;
  return covers > area ? { covers, board: area } : undefined;
};

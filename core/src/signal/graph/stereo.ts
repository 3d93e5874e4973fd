import type { Id, Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { downstream, sideBit, type Trace } from './trace.js';
import { surely, theItem } from '../../known/the.js';

/** Where the signal of a state becomes two sides, and where two sides are added to one again. */
export interface Stereo {
  /** Stages that make two sides of what was one, and whose sides go on apart. */
  readonly begins: ReadonlySet<Ref>;
  /**
   * Boxes into which both sides come over cables of their own, and in which they become one; not where somebody hears
   * them apart.
   */
  readonly summed: ReadonlySet<Id<'device'>>;
}

const BOTH = sideBit('left') | sideBit('right');
const isOneSide = (bits: number): boolean => bits === sideBit('left') || bits === sideBit('right');

export const stereoOf = once((t: Trace): Stereo => ({ begins: beginnings(t), summed: sums(t) }));

const beginnings = (t: Trace): ReadonlySet<Ref> => {
  const {
    wiring: { points, blocks, gated, from, to },
    active,
    onPath,
    spreads,
  } = t;
  const makes = new Map(gated.flatMap((g) => (g.makes ? [[g.edge, g.makes] as const] : [])));
  const ways = blocks.filter(
    (b) =>
      makes.has(b.edge) &&
      active[b.edge] &&
      onPath[theItem(from, b.edge)] &&
      onPath[theItem(to, b.edge)] &&
      t.stages.get(b.stage) === 'in',
  );
  const makesTwo = (stage: Ref): boolean => {
    const own = ways.filter((b) => b.stage === stage);
    const isMade = [...spreads.values()].some(
      ({ sides }) =>
        new Set(
          own
            .filter((b) => sides[theItem(from, b.edge)] && !isOneSide(theItem(sides, theItem(from, b.edge))))
            .map((b) => makes.get(b.edge)),
        ).size === 2,
    );
    if (!isMade) return false;
    const [left, right] = (['left', 'right'] as const).map((side) =>
      downstream(
        t,
        own.filter((b) => makes.get(b.edge) === side).map((b) => theItem(to, b.edge)),
      ),
    );
    return points.some(({ inside }, p) => !inside && surely(left)[p] !== surely(right)[p]);
  };
  return new Set([...new Set(ways.map((b) => b.stage))].filter(makesTwo));
};

const sums = ({ wiring: { points, edges }, leaving, onPath, spreads, reaches }: Trace): ReadonlySet<Id<'device'>> => {
  const hearsBoth = new Set(
    reaches.filter((r) => r.sides.includes('left') && r.sides.includes('right')).map((r) => r.end.device),
  );
  const found = new Set<Id<'device'>>();
  for (const { sides } of spreads.values()) {
    const comes = new Map<Id<'device'>, number>();
    for (const e of leaving.edges) {
      const { carries, to } = theItem(edges, e);
      const bits = theItem(sides, to);
      if (carries.by === 'cable' && onPath[to] && isOneSide(bits))
        comes.set(theItem(points, to).device, (comes.get(theItem(points, to).device) ?? 0) | bits);
    }
    points.forEach(({ device }, p) => {
      if (onPath[p] && (theItem(sides, p) & BOTH) === BOTH && comes.get(device) === BOTH && !hearsBoth.has(device))
        found.add(device);
    });
  }
  return found;
};

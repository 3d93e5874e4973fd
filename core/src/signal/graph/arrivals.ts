import type { Id } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import { jackOf, type WiredEnd, type Wiring } from './wiring.js';
import type { Trace } from './trace.js';
import { theItem } from '../../known/the.js';

/**
 * The jacks of its own box by which the signal comes to an end, in the order of the box: the channels of a desk that
 * sound.
 * @example arrivals(t, frontOfHouse) // ['ch1', 'ch3']
 */
export const arrivals = ({ wiring, active, onPath }: Trace, { point, device }: WiredEnd): readonly string[] => {
  if (!onPath[point]) return [];
  const at: number[] = [];
  const seen = new Set([point]);
  for (const p of seen) {
    for (const e of theItem(wiring.into, p)) {
      const from = theItem(wiring.from, e);
      if (!active[e] || !onPath[from]) continue;
      if (theItem(wiring.edges, e).carries.by === 'cable') at.push(p);
      else if (theItem(wiring.points, from).device === device) seen.add(from);
    }
  }
  return [
    ...new Set(at.sort((a, b) => a - b).map((p) => jackOf(theItem(wiring.points, p).id.slice(device.length + 1)))),
  ];
};

/** By box: the points at which a cable leads into it. */
export const ledInto = once(({ edges, points, to }: Wiring): ReadonlyMap<Id<'device'>, ReadonlySet<number>> => {
  const found = new Map<Id<'device'>, Set<number>>();
  edges.forEach((e, i) => {
    if (e.carries.by === 'cable')
      keptIn(found, theItem(points, theItem(to, i)).device, () => new Set<number>()).add(theItem(to, i));
  });
  return found;
});

import { theItem } from '../../known/the.js';
import type { Trace } from './trace.js';
import type { WiredEnd } from './wiring.js';

/**
 * The ends to which a source comes over the edges that a test lets pass: what is left of a sound without some of its
 * ways.
 */
export const endsReached = (
  { wiring, active, onPath }: Trace,
  source: WiredEnd,
  passes: (edge: number) => boolean,
): ReadonlySet<WiredEnd> => {
  const seen = new Set([source.point]);
  for (const point of seen)
    for (const e of theItem(wiring.out, point)) {
      const to = theItem(wiring.to, e);
      if (active[e] && onPath[to] && passes(e)) seen.add(to);
    }
  return new Set(wiring.ends.filter((end) => end.end.is !== 'tuner' && seen.has(end.point)));
};

import type { Id, Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import type { Wiring } from './wiring.js';
import { theItem } from '../../known/the.js';

/**
 * Where a signal could go in a hook-up, whatever the controls say: by point, from some sources, to some ends, and
 * both.
 */
export interface Passable {
  readonly from: Uint8Array;
  readonly to: Uint8Array;
  readonly stages: ReadonlySet<Ref>;
  readonly devices: ReadonlySet<Id<'device'>>;
}

const known = new WeakMap<Wiring, Map<string, Passable>>();

/**
 * What some setting of the controls lets a signal pass on its way.
 * @param from sources by their ref; every source when absent
 * @param to ends by their ref; every end but tuners when absent
 */
export const passable = (wiring: Wiring, from?: readonly Ref[], to?: readonly Ref[]): Passable => {
  const key = `${from?.join() ?? '*'} ${to?.join() ?? '*'}`;
  return keptIn(
    keptIn(known, wiring, () => new Map<string, Passable>()),
    key,
    () => {
      const starts = wiring.sources.filter((s) => !from || from.includes(s.ref)).map((s) => s.point);
      const ends = wiring.ends.filter((e) => (to ? to.includes(e.ref) : e.end.is !== 'tuner')).map((e) => e.point);
      const ahead = flood(wiring.points.length, starts, (p) =>
        theItem(wiring.out, p).map((e) => theItem(wiring.to, e)),
      );
      const back = flood(wiring.points.length, ends, (p) =>
        theItem(wiring.into, p).map((e) => theItem(wiring.from, e)),
      );
      const isOn = (p: number): boolean => ahead[p] === 1 && back[p] === 1;
      const stages = wiring.blocks
        .filter((b) => isOn(theItem(wiring.from, b.edge)) && isOn(theItem(wiring.to, b.edge)))
        .map((b) => b.stage);
      return {
        from: ahead,
        to: back,
        stages: new Set(stages),
        devices: new Set(wiring.points.flatMap((p, i) => (isOn(i) ? [p.device] : []))),
      };
    },
  );
};

const flood = (points: number, from: readonly number[], next: (point: number) => readonly number[]): Uint8Array => {
  const seen = new Uint8Array(points);
  const queue = [...from];
  for (const p of queue) seen[p] = 1;
  for (const point of queue) {
    for (const there of next(point)) {
      if (seen[there]) continue;
      seen[there] = 1;
      queue.push(there);
    }
  }
  return seen;
};

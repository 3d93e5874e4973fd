import { theItem } from '../known/the.js';
import { ref, type Ref } from '../rig/ids.js';
import { thePart, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { onTopOf } from '../signal/graph/state.js';
import { trace, type Trace } from '../signal/graph/trace.js';
import type { WiredEnd } from '../signal/graph/wiring.js';

/** One selector turned to a source, and how the signal runs then. */
export interface TurnedTo {
  readonly control: Ref;
  readonly value: Value;
  readonly then: Trace;
}

/** The selector that a source is heard by as soon as it is turned to it; undefined where none does it. */
export const turnedTo = (rig: Rig, t: Trace, source: WiredEnd): TurnedTo | undefined => {
  const seen = new Set([source.point]);
  for (const p of seen) for (const e of theItem(t.wiring.out, p)) if (t.active[e]) seen.add(theItem(t.wiring.to, e));
  const boxes = new Set([...seen].map((p) => theItem(t.wiring.points, p).device));
  for (const device of boxes)
    for (const { id, domain, use } of thePart(rig, device).controls) {
      if (use === 'setting' || !('values' in domain)) continue;
      for (const value of domain.values) {
        const control = ref(device, id);
        const then = trace(t.wiring, onTopOf(t.state, new Map([[control, value]])), { from: [source.ref] });
        if (then.onPath[source.point]) return { control, value, then };
      }
    }
  return undefined;
};

/** A state in which a source is heard: this one, else with one selector turned to it; undefined where none does it. */
export const inHand = (rig: Rig, t: Trace, source: WiredEnd): Trace | undefined =>
  t.onPath[source.point] ? t : turnedTo(rig, t, source)?.then;

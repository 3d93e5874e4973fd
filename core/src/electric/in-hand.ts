import { theItem } from '../known/the.js';
import { ref } from '../rig/ids.js';
import { thePart, type Rig } from '../rig/rig.js';
import { onTopOf } from '../signal/graph/state.js';
import { trace, type Trace } from '../signal/graph/trace.js';
import type { WiredEnd } from '../signal/graph/wiring.js';

/** A state in which a source is heard: this one, else with one selector turned to it; undefined where none does it. */
export const inHand = (rig: Rig, t: Trace, source: WiredEnd): Trace | undefined => {
  if (t.onPath[source.point]) return t;
  const seen = new Set([source.point]);
  for (const p of seen) for (const e of theItem(t.wiring.out, p)) if (t.active[e]) seen.add(theItem(t.wiring.to, e));
  const boxes = new Set([...seen].map((p) => theItem(t.wiring.points, p).device));
  for (const device of boxes)
    for (const { id, domain, use } of thePart(rig, device).controls) {
      if (use === 'setting' || !('values' in domain)) continue;
      for (const value of domain.values) {
        const turned = trace(t.wiring, onTopOf(t.state, new Map([[ref(device, id), value]])), { from: [source.ref] });
        if (turned.onPath[source.point]) return turned;
      }
    }
  return undefined;
};

import { theItem } from '../../known/the.js';
import { ref, type Ref } from '../../rig/ids.js';
import { blocksIn } from '../../rig/domain.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import { wayOf } from '../front/chains.js';
import { passesOn, type Joint } from './along.js';
import { isDriven } from './stage-gain.js';

/** Whether what comes in at a jack goes into a stage that is meant to be driven: too much of it is the point there. */
export const isDrivenInput = (rig: Rig, t: Trace, jack: Ref): boolean => {
  const point = t.wiring.at.get(jack);
  if (point === undefined) return false;
  return theItem(t.wiring.out, point).some((e) => {
    const way = t.active[e] ? wayOf(rig, t.wiring, e) : undefined;
    const first = way && blocksIn(way.chain.slots).find((b) => t.stages.get(ref(way.device, b.id)) === 'in');
    return first !== undefined && isDriven(first.stage);
  });
};

/** Whether too much is too much there: not where it goes on over wire, nor into a stage that is meant to be driven. */
export const mindsTooMuch = (rig: Rig, trace: Trace, joint: Joint): boolean =>
  !passesOn(rig, trace, joint) && !isDrivenInput(rig, trace, joint.to);

import { theItem } from '../../known/the.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { factsHold, whenHolds } from './state.js';
import type { Trace } from './trace.js';
import type { WiredBlock } from './wiring.js';

/**
 * What becomes of the repeats of delays and reverbs that sounded. One that sounds on in the same way is in neither
 * list.
 */
export interface Tails {
  /** They are out, and their repeats are still heard. */
  readonly ring: readonly Ref[];
  /** Their repeats are cut off. */
  readonly cut: readonly Ref[];
}

/** Delays and reverbs that sound in this state. */
export const timeStages = ({ wiring, stages }: Trace): readonly Ref[] => [
  ...new Set(
    wiring.blocks
      .filter((b) => (b.block.stage === 'delay' || b.block.stage === 'reverb') && stages.get(b.stage) === 'in')
      .map((b) => b.stage),
  ),
];

/**
 * What becomes of repeats that were made in one state when the rig goes over to another. A box rings on if its bypass
 * keeps its output
 * open (`tails`) and there is still a way from it to an end; a box that goes silent while it loads a program does
 * not, even if it sounds
 * again afterwards (common practice).
 */
export const tailsOf = (rig: Rig, before: Trace, after: Trace): Tails => {
  const ring: Ref[] = [];
  const cut: Ref[] = [];
  for (const stage of timeStages(before)) {
    const places = after.wiring.blocks.filter((b) => b.stage === stage);
    const [place] = places;
    const { device } = splitRef(stage);
    const loads = partOf(rig, device)?.memories.some(
      (m) =>
        m.mutesMs > 0 &&
        String(before.state.get(ref(device, m.control))) !== String(after.state.get(ref(device, m.control))),
    );
    if (!place || loads || !places.some((p) => after.leads[theItem(after.wiring.to, p.edge)])) cut.push(stage);
    else if (after.stages.get(stage) !== 'in') (keepsOpen(after, place) ? ring : cut).push(stage);
  }
  return { ring, cut };
};

/** It is on, or its bypass leaves its output open. */
const keepsOpen = ({ wiring, state }: Trace, { edge, device, block: { tails } }: WiredBlock): boolean => {
  const { carries } = theItem(wiring.edges, edge);
  const isOn = carries.by === 'block' && carries.on !== undefined && factsHold(carries.on, state);
  return isOn || (typeof tails === 'object' ? whenHolds(device, tails, state) : tails === true);
};

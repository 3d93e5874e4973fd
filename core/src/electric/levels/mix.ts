import { controlIn, type Block, type Device } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { ref } from '../../rig/ids.js';
import type { RigState } from '../../signal/graph/state.js';

/** The knob that says how much of the wet is mixed in: the one that makes a stage only wet, or one called so. */
export const mixControl = (device: Device, stage: string): string | undefined => {
  const block = device.chains.flatMap((c) => blocksIn(c.slots)).find((b) => b.id === stage);
  const named = block?.wetOnly?.flatMap((f) => ('control' in f ? [f.control] : []))[0];
  return named ?? device.controls.find((c) => /\b(mix|wet|blend)\b/i.test(c.name ?? c.id) && 'min' in c.domain)?.id;
};

/** How much of the wet is mixed in, in percent; undefined where its box has no such knob, or it is not known. */
export const mixOf = (device: Device, block: Block, state: RigState): number | undefined => {
  const id = mixControl(device, block.id);
  const domain = id === undefined ? undefined : controlIn(device, id)?.domain;
  const value = id === undefined ? undefined : Number(state.get(ref(device.id, id)));
  if (!domain || !('min' in domain) || value === undefined || Number.isNaN(value)) return undefined;
  return (100 * (value - domain.min)) / (domain.max - domain.min);
};

import type { Device } from '../rig/device.js';
import { ref } from '../rig/ids.js';
import type { RigState } from '../signal/graph/state.js';

/**
 * How far the volume of a box stands open, from 0 to 1: as its amount stands in a state. Under a foot it counts as open,
 * since levels are told at full; so it does where the box has no amount.
 */
export const openness = (device: Device, state: RigState): number => {
  const amount = device.controls.find((c) => 'min' in c.domain);
  if (!amount || amount.use === 'play' || !('min' in amount.domain)) return 1;
  const { min, max } = amount.domain;
  const value = Number(state.get(ref(device.id, amount.id)) ?? max);
  return max > min ? Math.min(1, Math.max(0, (value - min) / (max - min))) : 1;
};

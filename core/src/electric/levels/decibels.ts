import type { Gain } from '../../rig/device.js';
import { controlAt } from '../../rig/box.js';
import { ref, type Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { RigState } from '../../signal/graph/state.js';

/** A gain in dB in this state; 0 where nothing is known. */
export const decibels = (rig: Rig, device: Id<'device'>, gain: Gain | undefined, state: RigState): number => {
  if (gain === undefined) return 0;
  if (typeof gain === 'number') return gain;
  const control = ref(device, gain.control);
  const value = Number(state.get(control));
  if (!Number.isFinite(value)) return 0;
  const domain = controlAt(rig, control)?.domain;
  if (!gain.scale || !domain || !('min' in domain) || domain.max === domain.min) return value;
  return gain.scale[0] + ((gain.scale[1] - gain.scale[0]) * (value - domain.min)) / (domain.max - domain.min);
};

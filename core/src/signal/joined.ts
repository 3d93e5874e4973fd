import { jackIn } from '../rig/box.js';
import type { Device, Jack } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Ref } from '../rig/ids.js';
import { cablesOf, partOf, type Rig } from '../rig/rig.js';

export interface Plugged {
  readonly device: Device;
  readonly jack: Jack;
  readonly ref: Ref;
}

/** A cable with what is at its two ends: what gives first, where one gives and one takes. */
export interface Joined {
  readonly cable: Cable;
  readonly from: Plugged;
  readonly to: Plugged;
}

export const pluggedAt = (rig: Rig, end: Ref): Plugged | undefined => {
  const { device: id, name } = splitRef(end);
  const device = partOf(rig, id);
  const jack = jackIn(device, name);
  return device && jack && { device, jack, ref: ref(id, name) };
};

/** A box that is nothing but wire: a lead with more than two ends, a panel, a multicore. */
export const isLead = (device: Device): boolean =>
  device.chains.length > 0 &&
  device.chains.every((c) => c.passive && c.slots.length === 0) &&
  device.controls.length === 0;

const known = new WeakMap<Rig['parts']['cable'], WeakMap<Rig['parts']['device'], Map<string, readonly Joined[]>>>();

/** Every cable of a hook-up. */
export const joined = (rig: Rig, hookup: Hookup): readonly Joined[] => {
  const byDevices = known.get(rig.parts.cable) ?? new WeakMap<Rig['parts']['device'], Map<string, readonly Joined[]>>();
  known.set(rig.parts.cable, byDevices);
  const byHookup = byDevices.get(rig.parts.device) ?? new Map<string, readonly Joined[]>();
  byDevices.set(rig.parts.device, byHookup);
  const found =
    byHookup.get(hookup.id) ??
    cablesOf(rig, hookup.id).flatMap((cable): readonly Joined[] => {
      const [a, b] = cable.ends.map((end) => pluggedAt(rig, end));
      if (!a || !b) return [];
      return [
        a.jack.poles.tip === 'in' && b.jack.poles.tip === 'out' ? { cable, from: b, to: a } : { cable, from: a, to: b },
      ];
    });
  byHookup.set(hookup.id, found);
  return found;
};

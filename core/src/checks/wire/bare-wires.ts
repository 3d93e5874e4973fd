import type { Device } from '../../rig/device.js';
import { ref } from '../../rig/ids.js';
import type { CheckInputs } from '../check.js';

interface BareWire {
  readonly from: string;
  readonly to: string;
}

/** Boxes with jacks that nothing but wire joins, plugged at both ends. */
export const bareWires = ({
  rig,
  compilation,
}: CheckInputs): readonly { readonly device: Device; readonly wires: readonly BareWire[] }[] => {
  const { plugged } = compilation.bearings.anatomy.wiring;
  return [...rig.parts.device.values()].map((device) => ({
    device,
    wires: device.chains
      .filter((c) => c.passive && c.slots.length === 0)
      .flatMap((c) => c.from.flatMap((from) => c.to.map((to) => ({ from: from.at, to: to.at }))))
      .filter((w) => plugged.has(ref(device.id, w.from)) && plugged.has(ref(device.id, w.to))),
  }));
};

import type { Act } from '../../rig/act.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { controllerActuators, listensTo, programActuators } from '../../rig/midi-manners.js';
import { partOf } from '../../rig/rig.js';
import type { CheckInputs } from '../check.js';

/** Every device that takes notice of a message sent from this controller. */
export const heardBy = ({ rig, compilation }: CheckInputs, from: Id<'device'>, act: Act): readonly Id<'device'>[] => {
  if (!('send' in act) || 'bpm' in act.send) return [];
  const { send, at } = act;
  const setting = (r: Ref) => compilation.bearings.grounds.resting.get(r);
  return (compilation.bearings.control.midi.get(ref(from, at)) ?? []).map((a) => a.device).filter((id) => {
    const device = partOf(rig, id)!;
    if (!listensTo(device, (send as { channel: number }).channel, setting)) return false;
    return 'pc' in send ? programActuators(device).length > 0 : 'cc' in send && controllerActuators(device, send.cc).length > 0;
  });
};

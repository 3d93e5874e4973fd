import type { Message } from '../rig/act.js';
import type { Actuator, Device } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { clockActuators, controllerActuators, listensTo, programActuators } from '../rig/midi-manners.js';
import { keptIn } from '../rig/kept.js';
import { partOf } from '../rig/rig.js';
import type { ControlWiring } from '../signal/reach.js';
import type { Bearings } from './bearings.js';

/** A box that takes notice of a message, with what in it answers. */
export interface Listener {
  readonly device: Device;
  readonly answers: readonly Actuator[];
}

const known = new WeakMap<ControlWiring, Map<Ref, Map<number, readonly Listener[]>>>();

/** Messages of the same kind are taken notice of by the same boxes, whatever they say. */
const kindOf = (message: Message): number => ('bpm' in message ? -1 : message.channel * 256 + ('cc' in message ? message.cc : 255));

/** Every box that takes notice of a message sent from a jack, nearest first, whether it was meant or not. A clock has no channel. */
export const listeners = ({ rig, control, grounds }: Pick<Bearings, 'rig' | 'control' | 'grounds'>, from: Id<'device'>, at: string, message: Message): readonly Listener[] => {
  const found = keptIn(keptIn(known, control, () => new Map<Ref, Map<number, readonly Listener[]>>()), ref(from, at), () => new Map<number, readonly Listener[]>());
  return keptIn(found, kindOf(message), () => {
    const setting = (r: Ref) => grounds.resting.get(r);
    return (control.midi.get(ref(from, at)) ?? []).flatMap((arrival): readonly Listener[] => {
      const device = partOf(rig, arrival.device)!;
      const answers = 'bpm' in message ? clockActuators(device) : 'cc' in message ? controllerActuators(device, message.cc) : programActuators(device);
      return answers.length && ('bpm' in message || listensTo(device, message.channel, setting)) ? [{ device, answers }] : [];
    });
  });
};

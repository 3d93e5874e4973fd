import type { Message } from '../../rig/act.js';
import { controlIn, memoriesThatStore, type Actuator, type Device } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { clockActuators, controllerActuators, listensTo, programActuators } from '../../rig/midi-manners.js';
import { keptIn, once } from '../../kept/kept.js';
import { thePart } from '../../rig/rig.js';
import type { ControlWiring } from '../../signal/control/reach.js';
import type { Bearings } from './bearings.js';

/** A box that takes notice of a message, with what in it answers. */
export interface Listener {
  readonly device: Device;
  readonly answers: readonly Actuator[];
  /** It hears only while this control of its own says the message's channel; absent: it hears. */
  readonly channelBy?: Ref;
}

const known = new WeakMap<ControlWiring, Map<Ref, Map<number, readonly Listener[]>>>();

/** Messages of the same kind are taken notice of by the same boxes, whatever they say. */
const kindOf = (message: Message): number =>
  'bpm' in message ? -1 : message.channel * 256 + ('cc' in message ? message.cc : 255);

/** The control that holds the channel of a box, where something else than a setting can move it. */
export const movingChannel = once((device: Device): Ref | undefined => {
  const { midi } = device;
  if (!midi || midi.omni || typeof midi.channel !== 'string') return undefined;
  const { channel } = midi;
  const isMoved =
    controlIn(device, channel)?.use === 'sound' ||
    memoriesThatStore(device, channel).length > 0 ||
    device.actuators.some((a) => a.acts.some((act) => 'control' in act && act.control === channel));
  return isMoved ? ref(device.id, channel) : undefined;
});

const answersTo = (device: Device, message: Message): readonly Actuator[] =>
  'bpm' in message
    ? clockActuators(device)
    : 'cc' in message
      ? controllerActuators(device, message.cc)
      : programActuators(device);

/**
 * What of a box takes notice of a message that arrives at it. An actuator with a channel of its own answers on that
 * one only; a clock has no channel.
 */
export const listenerAt = (
  { grounds }: Pick<Bearings, 'grounds'>,
  device: Device,
  message: Message,
): Listener | undefined => {
  const all = answersTo(device, message);
  if ('bpm' in message) return all.length ? { device, answers: all } : undefined;
  const channelBy = movingChannel(device);
  const listens = channelBy !== undefined || listensTo(device, message.channel, (r) => grounds.resting.get(r));
  const own = (a: Actuator) => ('midi' in a.by && a.by.midi === 'cc' ? a.by.channel : undefined);
  const answers = all.filter((a) => (own(a) === undefined ? listens : own(a) === message.channel));
  if (answers.length === 0) return undefined;
  return { device, answers, ...(channelBy && answers.some((a) => own(a) === undefined) ? { channelBy } : {}) };
};

/**
 * Every box that takes notice of a message sent from a jack, nearest first, whether it was meant or not: once for each
 * way by which it arrives.
 */
export const listeners = (
  { rig, control, grounds }: Pick<Bearings, 'rig' | 'control' | 'grounds'>,
  from: Id<'device'>,
  at: string,
  message: Message,
): readonly Listener[] => {
  const found = keptIn(known, control, () => new Map<Ref, Map<number, readonly Listener[]>>());
  return keptIn(
    keptIn(found, ref(from, at), () => new Map<number, readonly Listener[]>()),
    kindOf(message),
    () =>
      (control.midi.get(ref(from, at)) ?? []).flatMap(
        (arrival) => listenerAt({ grounds }, thePart(rig, arrival.device), message) ?? [],
      ),
  );
};

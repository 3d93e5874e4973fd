import { hasBanks, type Actuator, type Control, type Device, type Memory } from './device.js';
import { scaledValue, type Act, type Message } from './act.js';
import { ref, type Ref } from './ids.js';
import type { Value } from './value.js';

/** The channel, 1–16, on which a device answers, when a number or a setting says so. */
export const channelOf = (device: Device, setting: (r: Ref) => Value | undefined): number | undefined => {
  const channel = device.midi?.channel;
  if (channel === undefined) return undefined;
  if (typeof channel === 'number') return channel;
  const value = Number(setting(ref(device.id, channel)));
  return value >= 1 && value <= 16 ? value : undefined;
};

/** Whether a device takes notice of messages on this channel. */
export const listensTo = (device: Device, channel: number, setting: (r: Ref) => Value | undefined): boolean =>
  device.midi !== undefined && (device.midi.omni === true || channelOf(device, setting) === channel);

export const programActuators = (device: Device): readonly Actuator[] =>
  device.actuators.filter((a) => 'midi' in a.by && a.by.midi === 'pc');

export const controllerActuators = (device: Device, controller: number): readonly Actuator[] =>
  device.actuators.filter((a) => 'midi' in a.by && a.by.midi === 'cc' && a.by.number === controller);

export const clockActuators = (device: Device): readonly Actuator[] =>
  device.actuators.filter((a) => 'midi' in a.by && a.by.midi === 'clock');

export const stepOf = (control: Control | undefined): number =>
  control && 'min' in control.domain ? (control.domain.step ?? 1) : 1;

/** What an act that takes its value from the stimulus sets; undefined when it leaves the control alone. */
export const valueFrom = (act: Act, byte: number, control: Control | undefined): Value | undefined => {
  if ('map' in act) return act.map.find(([from, to]) => byte >= from && byte <= to)?.[2];
  if ('take' in act) return byte;
  if ('scale' in act) return scaledValue(byte, act.scale, stepOf(control));
  return undefined;
};

/** Messages of the same number are the same. */
export const messageNumber = (message: Message): number => {
  if ('bpm' in message) return -message.bpm;
  const what =
    'pc' in message ? ((message.bank ?? 0) * 128 + message.pc) * 2 : (message.cc * 128 + message.value) * 2 + 1;
  return what * 16 + message.channel - 1;
};

/** What a message makes a box load: a program of one of its memories, by its number. */
export interface Load {
  readonly memory: Memory;
  readonly number: number;
}

/** What a message on its channel makes a box load: a program change a program, a control change a scene. */
export const loadsBy = (device: Device, message: Message): readonly Load[] => {
  if ('bpm' in message) return [];
  const isProgram = 'pc' in message;
  const actuators = isProgram ? programActuators(device) : controllerActuators(device, message.cc);
  const told = isProgram ? message.pc + (hasBanks(device) ? 128 * (message.bank ?? 0) : 0) : message.value;
  return actuators
    .flatMap((a) => a.acts)
    .flatMap((act): readonly Load[] => {
      const memory = 'load' in act ? device.memories.find((m) => m.id === act.load) : undefined;
      if (!memory || !('load' in act) || typeof act.slot === 'object') return [];
      const number = act.slot === 'value' ? told : act.slot;
      return number < memory.size ? [{ memory, number }] : [];
    });
};

import type { Act } from '../../rig/act.js';
import { relaysOf, type Device } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { type Program } from '../../rig/program.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import { clockActuators } from '../../rig/midi-manners.js';
import type { Value, When } from '../../rig/value.js';
import type { Compiled } from '../intend/compiled.js';
import { UNKNOWN, SMALL } from './domains.js';
import { memoryIn } from '../../rig/box.js';

type Note = (control: Ref, value: Value) => void;

/** Says of a control that conditions tell apart what lies below an amount from what does not, or what lies above it. */
export const EDGE = 'edge: ';

const noteWhen = (device: Id<'device'>, when: When | undefined, note: Note): void =>
  when?.forEach((f) => {
    if ('in' in f) f.in.forEach((v) => note(ref(device, f.control), v));
    else if ('from' in f) {
      note(ref(device, f.control), `${EDGE}${f.from}`);
      note(ref(device, f.control), `${EDGE}above ${f.to}`);
    }
  });

const noteActs = (device: Id<'device'>, acts: readonly Act[], note: Note): void =>
  acts.forEach((act) => {
    noteWhen(device, act.when, note);
    if (!('control' in act)) return;
    const control = ref(device, act.control);
    if ('set' in act) note(control, act.set);
    else if ('toggle' in act) act.toggle.forEach((v) => note(control, v));
    else if ('step' in act) act.step.forEach((v) => note(control, v));
    else if ('map' in act) act.map.forEach(([, , v]) => note(control, v));
  });

/** What a sound wants with a program is named by that. */
export const namedBySound = ({ wants }: Compiled, note: Note): void => {
  for (const { control, value, why } of wants) if (why.by !== 'program') note(control, value);
};

/** A program names its number and what it holds. */
export const namedByProgram = (rig: Rig, program: Program, note: Note): void => {
  const memory = memoryIn(partOf(rig, program.device), program.memory);
  if (!memory) return;
  note(ref(program.device, memory.control), program.number);
  if (program.contents === 'unplanned') memory.stores.forEach((s) => note(ref(program.device, s), UNKNOWN));
  else for (const [control, value] of Object.entries(program.contents)) note(ref(program.device, control), value);
  const acts = actsIn(program);
  noteActs(program.device, acts, note);
  for (const act of acts) {
    if (!('send' in act) || !('bpm' in act.send)) continue;
    for (const device of all(rig, 'device'))
      for (const a of clockActuators(device))
        for (const take of a.acts) if ('take' in take) note(ref(device.id, take.control), act.send.bpm);
  }
};

/** A number that is sent must be known by name to whoever listens. */
export const namedByNumber = (rig: Rig, number: number, note: Note): void => {
  for (const device of all(rig, 'device'))
    if (device.midi)
      for (const memory of device.memories) if (number < memory.size) note(ref(device.id, memory.control), number);
};

export const namedByDevice = (device: Device, note: Note): void => {
  for (const actuator of device.actuators) {
    noteWhen(device.id, actuator.when, note);
    noteActs(device.id, actuator.acts, note);
    for (const act of actuator.acts) {
      if (!('load' in act) || typeof act.slot !== 'number') continue;
      const loads = memoryIn(device, act.load);
      if (loads) note(ref(device.id, loads.control), act.slot);
    }
  }
  for (const memory of device.memories)
    if (memory.size <= SMALL) for (let n = 0; n < memory.size; n += 1) note(ref(device.id, memory.control), n);
  for (const relay of relaysOf(device)) noteWhen(device.id, relay.closedWhen, note);
  for (const when of whensIn(device)) noteWhen(device.id, when, note);
  const { midi } = device;
  if (typeof midi?.channel === 'string')
    for (let channel = 1; channel <= 16; channel += 1) note(ref(device.id, midi.channel), channel);
};

/** What the signal's way through a box asks of its amounts. */
const whensIn = once((device: Device): readonly When[] => {
  const found: When[] = [];
  const walk = (of: unknown): void => {
    if (Array.isArray(of) && of.some((x) => x && typeof x === 'object' && 'control' in x && 'from' in x))
      found.push(of.filter((f) => 'from' in f));
    if (of && typeof of === 'object') Object.values(of).forEach(walk);
  };
  walk(device.chains);
  return found;
});

export const actsIn = (program: Program): readonly Act[] => [
  ...program.acts,
  ...program.assigns.flatMap((a) => [...a.on, ...a.off]),
];

import type { Control, Device, Jack, JackKind, Memory } from './device.js';
import type { Cable } from './hookup.js';
import { controlIn } from './device.js';
import { splitRef, type Id, type Ref } from './ids.js';
import type { Program } from './program.js';
import { all, cablesOf, partOf, thePart, type Rig } from './rig.js';

/** The questions one asks a box. Those that begin with `the` know that there is an answer, and throw when not. */

export { controlIn };

const none = (device: Device, what: string): Error => new Error(`${device.name} has no ${what}`);

/** A jack of a box by its name there. */
export const jackIn = (device: Device | undefined, name: string): Jack | undefined =>
  device?.jacks.find((jack) => jack.id === name);

/** A memory of a box by its name there. */
export const memoryIn = (device: Device | undefined, name: string | undefined): Memory | undefined =>
  device?.memories.find((memory) => memory.id === name);

/** The memory of which a control says which program is loaded. */
export const memoryChosenBy = (device: Device | undefined, control: string | undefined): Memory | undefined =>
  device?.memories.find((memory) => memory.control === control);

/** @throws when the box has no such control */
export const theControl = (device: Device, name: string): Control => {
  const found = controlIn(device, name);
  if (!found) throw none(device, `control ${name}`);
  return found;
};

/** @throws when the box has no such memory */
export const theMemory = (device: Device, name: string): Memory => {
  const found = memoryIn(device, name);
  if (!found) throw none(device, `memory ${name}`);
  return found;
};

/** A jack by `device.jack`; undefined when the box or the jack is gone. */
export const jackAt = (rig: Rig, at: Ref): Jack | undefined => {
  const { device, name } = splitRef(at);
  return jackIn(partOf(rig, device), name);
};

/** @throws when there is no such jack */
export const theJack = (rig: Rig, at: Ref): Jack => {
  const found = jackAt(rig, at);
  if (!found) throw new Error(`There is no jack ${at}, though it was known to be there`);
  return found;
};

/** A control by `device.control`; undefined when the box or the control is gone. */
export const controlAt = (rig: Rig, at: Ref): Control | undefined => {
  const { device, name } = splitRef(at);
  const box = partOf(rig, device);
  return box && controlIn(box, name);
};

/** Whether a control says in which order a switcher leads through its loops. */
export const isArrangement = (rig: Rig, at: Ref): boolean => {
  const domain = controlAt(rig, at)?.domain;
  return domain !== undefined && 'arrange' in domain;
};

/** The box in which a program stands, and the memory there that holds it. */
export const placeOf = (rig: Rig, program: Program): { readonly device: Device; readonly memory: Memory } => {
  const device = thePart(rig, program.device);
  return { device, memory: theMemory(device, program.memory) };
};

/** Whether a program is the one that a scene belongs to. */
export const isAround = (rig: Rig, program: Program, scene: Program): boolean =>
  program.device === scene.device &&
  placeOf(rig, scene).memory.inside === program.memory &&
  scene.of === program.number;

/** An output for a tuner, which no mute silences: the signal does not go on from it. */
export const isTunerOut = ({ id, poles }: Jack): boolean => id === 'tuner' && poles.tip === 'out';

/** Controls of a looper that say what its tracks do. */
export const tracksIn = (device: Device): readonly Control[] =>
  device.chains.some((c) => c.slots.some((s) => s.is === 'block' && s.stage === 'looper'))
    ? device.controls.filter((c) => c.latches)
    : [];

const FEEDS: ReadonlySet<JackKind> = new Set<JackKind>(['power', 'mains']);
/** A lead that only feeds a box: what sounds and what commands is the same with it and without it. */
const isFeed = (rig: Rig, { ends }: Cable): boolean =>
  ends.some((end) => {
    const jack = jackAt(rig, end);
    return jack !== undefined && FEEDS.has(jack.kind);
  });

/** The cables of a hook-up, or of all of them, that carry a signal or a command. */
export const signalCables = (rig: Rig, hookup?: Id<'hookup'>): readonly Cable[] =>
  (hookup ? cablesOf(rig, hookup) : all(rig, 'cable')).filter((cable) => !isFeed(rig, cable));

/** The boxes to which such cables lead. */
export const wiredBoxes = (rig: Rig, hookup?: Id<'hookup'>): ReadonlySet<Id<'device'>> =>
  new Set(signalCables(rig, hookup).flatMap((c) => c.ends.map((end) => splitRef(end).device)));

/** Every box into which a lead is plugged, also one that only feeds others: what is carried, laid out and labelled. */
export const boxesAlong = (rig: Rig, hookup: Id<'hookup'>): ReadonlySet<Id<'device'>> =>
  new Set(cablesOf(rig, hookup).flatMap((c) => c.ends.map((end) => splitRef(end).device)));

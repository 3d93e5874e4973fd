import type { Act } from '../rig/act.js';
import type { Device } from '../rig/device.js';
import { ref, type Ref } from '../rig/ids.js';
import { keptIn } from '../rig/kept.js';
import { actsAt, type Program } from '../rig/program.js';
import { partOf } from '../rig/rig.js';
import type { ControlWiring } from '../signal/reach.js';
import type { Bearings } from './bearings.js';
import type { Compiled } from './compiled.js';
import { listeners, type Listener } from './listeners.js';

/** Controls that some stored message or contact can change, meant or not: nobody may call them left alone. */
export const touchedOnTheWire = (b: Bearings, compiled: readonly Compiled[]): ReadonlySet<Ref> => {
  const heard = new Set<readonly Listener[]>();
  const add = (program: Program) => {
    for (const one of heardFrom(b, program)) heard.add(one);
  };
  for (const program of b.rig.parts.program.values()) add(program);
  for (const { stored } of compiled) for (const { program } of stored) add(program);
  const byMessage = [...heard].flat().flatMap(({ device, answers }) => answers.flatMap((a) => changedBy(device, a.acts)));
  const byContact = [...b.control.contacts.values()].flat().flatMap(({ device: id, jack }) => {
    const device = partOf(b.rig, id)!;
    return device.actuators.flatMap((a) => ('contact' in a.by && a.by.contact === jack ? changedBy(device, a.acts) : []));
  });
  return new Set([...byMessage, ...byContact]);
};

const known = new WeakMap<ControlWiring, WeakMap<Program, readonly (readonly Listener[])[]>>();

/** Who takes notice of the messages of one program; the same message is heard by the very same list. */
const heardFrom = (b: Bearings, program: Program): readonly (readonly Listener[])[] =>
  keptIn(keptIn(known, b.control, () => new WeakMap<Program, readonly (readonly Listener[])[]>()), program, () => {
    const heard = new Set<readonly Listener[]>();
    const hear = (acts: readonly Act[]): void => {
      for (const act of acts) if ('send' in act) heard.add(listeners(b, program.device, act.at, act.send));
    };
    hear(program.acts);
    for (const { on, off } of program.assigns) [on, off].forEach(hear);
    for (const sweep of program.sweeps ?? []) hear(actsAt([sweep], sweep.jack, 0));
    return [...heard];
  });

const changedBy = (device: Device, acts: readonly Act[]): readonly Ref[] => acts.flatMap((act): readonly Ref[] => {
  if ('control' in act) return [ref(device.id, act.control)];
  const memory = 'load' in act ? device.memories.find((m) => m.id === act.load) : undefined;
  return memory ? [memory.control, ...memory.stores].map((control) => ref(device.id, control)) : [];
});

import type { Act } from '../rig/act.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { controllerActuators, listensTo, programActuators } from '../rig/midi-manners.js';
import { partOf } from '../rig/rig.js';
import type { Bearings } from './bearings.js';
import type { Compiled } from './compiled.js';

/** Controls that some stored message or contact can change, meant or not: nobody may call them left alone. */
export const touchedOnTheWire = (b: Bearings, compiled: readonly Compiled[]): ReadonlySet<Ref> => {
  const touched = new Set<Ref>();
  const touch = (id: Id<'device'>, acts: readonly Act[]): void => {
    for (const act of acts) {
      if ('control' in act) touched.add(ref(id, act.control));
      if (!('load' in act)) continue;
      const memory = partOf(b.rig, id)!.memories.find((m) => m.id === act.load);
      for (const control of memory ? [memory.control, ...memory.stores] : []) touched.add(ref(id, control));
    }
  };
  const seen = new Set<string>();
  const send = (from: Id<'device'>, act: Act): void => {
    if (!('send' in act) || 'bpm' in act.send) return;
    const { send: message, at } = act;
    const key = `${from} ${at} ${message.channel} ${'cc' in message ? message.cc : 'program'}`;
    if (seen.has(key)) return;
    seen.add(key);
    for (const { device: id } of b.control.midi.get(ref(from, at)) ?? []) {
      const device = partOf(b.rig, id)!;
      if (!listensTo(device, message.channel, (r) => b.grounds.resting.get(r))) continue;
      for (const a of 'cc' in message ? controllerActuators(device, message.cc) : programActuators(device)) touch(id, a.acts);
    }
  };
  for (const { device, acts, assigns } of [...b.rig.parts.program.values(), ...compiled.flatMap((c) => c.stored.map((s) => s.program))]) {
    for (const act of [...acts, ...assigns.flatMap((a) => [...a.on, ...a.off])]) send(device, act);
  }
  for (const arrivals of b.control.contacts.values()) {
    for (const { device: id, jack } of arrivals) {
      for (const a of partOf(b.rig, id)!.actuators) if ('contact' in a.by && a.by.contact === jack) touch(id, a.acts);
    }
  }
  return touched;
};

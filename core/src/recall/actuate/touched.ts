import type { Act } from '../../rig/act.js';
import type { Actuator, Device } from '../../rig/device.js';
import { USUAL_DISTURBANCES, type Disturbances } from '../../rig/hookup.js';
import { ref, type Ref } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import { actsAt, type Program } from '../../rig/program.js';
import { all, thePart } from '../../rig/rig.js';
import type { ControlWiring } from '../../signal/control/reach.js';
import { pluggedBoxes, type Bearings } from './bearings.js';
import type { Compiled } from '../intend/compiled.js';
import { listeners, type Listener } from './listeners.js';
import { memoryIn } from '../../rig/box.js';

/**
 * Controls that something can change that is reckoned with, meant or not: a message, a contact, a foot, a pedal, a
 * waking box. Nobody may call them left alone.
 */
export const touched = (b: Bearings, compiled: readonly Compiled[]): ReadonlySet<Ref> => {
  const moved = new Set(touchedOnTheWire(b, compiled));
  for (const r of touchedByPedal(b)) moved.add(r);
  for (const r of touchedByThemselves(b.control, b)) moved.add(r);
  return moved;
};

const admitted = ({ hookup }: Bearings): Disturbances => hookup.admits ?? USUAL_DISTURBANCES;

/** What programs put under a pedal. */
const touchedByPedal = (b: Bearings): readonly Ref[] =>
  admitted(b).moves
    ? all(b.rig, 'program').flatMap((p) =>
        (p.sweeps ?? []).flatMap((s) => ('control' in s ? [ref(p.device, s.control)] : [])),
      )
    : [];

/** What switches, contacts and waking boxes change, whatever the programs say. */
const touchedByThemselves = once(
  (_: ControlWiring, b: Bearings): ReadonlySet<Ref> =>
    new Set([...touchedBySwitch(b), ...touchedOnWaking(b), ...touchedByContact(b)]),
);

const touchedBySwitch = (b: Bearings): readonly Ref[] => {
  const { feet, moves } = admitted(b);
  const counts = ({ by }: Actuator): boolean =>
    (('foot' in by || 'hand' in by) && feet) || ('expression' in by && moves);
  const plugged = pluggedBoxes(b.anatomy);
  return all(b.rig, 'device')
    .filter((d) => plugged.has(d.id))
    .flatMap((device) => device.actuators.filter(counts).flatMap((a) => changedBy(device, a.acts)));
};

/** What a box does by itself when it wakes, and what it may have forgotten by then. */
const touchedOnWaking = (b: Bearings): readonly Ref[] => {
  const { powerCycle } = admitted(b);
  return all(b.rig, 'device').flatMap((device) => [
    ...device.actuators.flatMap((a) => ('power' in a.by ? changedBy(device, a.acts) : [])),
    ...(powerCycle
      ? device.controls
          .filter((c) => c.powerUp === 'unknown' || c.powerUp === 'loaded')
          .map((c) => ref(device.id, c.id))
      : []),
  ]);
};

const touchedOnTheWire = (b: Bearings, compiled: readonly Compiled[]): ReadonlySet<Ref> => {
  const heard = new Set<readonly Listener[]>();
  const add = (program: Program) => heardFrom(b, program).forEach((one) => heard.add(one));
  for (const program of b.rig.parts.program.values()) add(program);
  for (const { stored } of compiled) for (const { program } of stored) add(program);
  for (const device of all(b.rig, 'device'))
    for (const a of device.actuators)
      for (const act of a.acts) if ('send' in act) heard.add(listeners(b, device.id, act.at, act.send));
  const moved = new Set<Ref>();
  for (const listening of heard) for (const r of changedIn(listening)) moved.add(r);
  return moved;
};

const changedIn = once((listening: readonly Listener[]): readonly Ref[] =>
  listening.flatMap(({ device, answers }) => answers.flatMap((a) => changedBy(device, a.acts))),
);

const touchedByContact = (b: Bearings): readonly Ref[] =>
  [...b.control.contacts.values()].flat().flatMap(({ device: id, jack }) => {
    const device = thePart(b.rig, id);
    return device.actuators.flatMap((a) =>
      'contact' in a.by && a.by.contact === jack ? changedBy(device, a.acts) : [],
    );
  });

const known = new WeakMap<ControlWiring, WeakMap<Program, readonly (readonly Listener[])[]>>();

/** Who takes notice of the messages of one program; the same message is heard by the very same list. */
export const heardFrom = (b: Bearings, program: Program): readonly (readonly Listener[])[] =>
  keptIn(
    keptIn(known, b.control, () => new WeakMap<Program, readonly (readonly Listener[])[]>()),
    program,
    () => {
      const heard = new Set<readonly Listener[]>();
      const hear = (acts: readonly Act[]): void => {
        for (const act of acts) if ('send' in act) heard.add(listeners(b, program.device, act.at, act.send));
      };
      hear(program.acts);
      for (const { on, off } of program.assigns) [on, off].forEach(hear);
      for (const sweep of program.sweeps ?? []) hear(actsAt([sweep], sweep.jack, 0));
      return [...heard];
    },
  );

const changedBy = (device: Device, acts: readonly Act[]): readonly Ref[] =>
  acts.flatMap((act): readonly Ref[] => {
    if ('control' in act) return [ref(device.id, act.control)];
    const memory = 'load' in act ? memoryIn(device, act.load) : undefined;
    return memory ? [memory.control, ...memory.stores].map((control) => ref(device.id, control)) : [];
  });

import type { Act } from '../../rig/act.js';
import {
  controlIn,
  memoriesThatStore,
  relaysOf,
  setByContact,
  type Device,
  type Lasting,
  type Memory,
} from '../../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { channelOf, clockActuators, programActuators } from '../../rig/midi-manners.js';
import { keptIn } from '../../kept/kept.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import type { ControlWiring } from '../../signal/control/reach.js';
import { theFirst } from '../../known/the.js';
import { memoryChosenBy } from '../../rig/box.js';

/** A way by which a stored slot of a controller reaches a control. */
export type Way =
  | { readonly by: 'stored' }
  /** A latching contact: the controller's own stored control decides. */
  | {
      readonly by: 'contact';
      readonly control: string;
      readonly closed: Value;
      readonly open: Value;
      readonly sets: Lasting;
    }
  | { readonly by: 'program'; readonly channel: number; readonly at: string }
  | { readonly by: 'cc'; readonly number: number; readonly channel: number; readonly at: string; readonly act: Act }
  /** MIDI clock: every box on the wire that follows it takes its tempo. */
  | { readonly by: 'clock'; readonly at: string }
  /** Only turns it over: where it ends depends on the past. */
  | {
      readonly by: 'toggle';
      readonly number: number;
      readonly channel: number;
      readonly at: string;
      readonly values: readonly [Value, Value];
    }
  | { readonly by: 'pulse'; readonly jack: string; readonly values: readonly [Value, Value] };

export interface WayFinder {
  /** From a controller's memory: every way to a control, the surest first. */
  readonly from: (controller: Id<'device'>, memory: Memory) => (control: Ref) => readonly Way[];
  /** Where a control sits; asked again and again. */
  readonly target: (control: Ref) => Target;
}

export interface Target {
  readonly device: Device | undefined;
  readonly name: string;
  /** The memories of its box whose programs hold it, each with the control that tells what is loaded. */
  readonly heldIn: readonly { readonly memory: Memory; readonly loaded: Ref }[];
}

export const wayFinder = (rig: Rig, control: ControlWiring, setting: (r: Ref) => Value | undefined): WayFinder => {
  const known = new Map<Ref, Map<Ref, readonly Way[]>>();
  const targets = new Map<Ref, Target>();
  return {
    from: (controller, memory) => {
      const ways = keptIn(known, ref(controller, memory.id), () => new Map<Ref, readonly Way[]>());
      return (target) => {
        let found = ways.get(target);
        if (!found) ways.set(target, (found = findWays(rig, control, setting, controller, memory, target)));
        return found;
      };
    },
    target: (target) => {
      let found = targets.get(target);
      if (!found) targets.set(target, (found = targetOf(rig, target)));
      return found;
    },
  };
};

const targetOf = (rig: Rig, target: Ref): Target => {
  const { device: id, name } = splitRef(target);
  const device = partOf(rig, id);
  return {
    device,
    name,
    heldIn: device
      ? memoriesThatStore(device, name).map((memory) => ({ memory, loaded: ref(id, memory.control) }))
      : [],
  };
};

const findWays = (
  rig: Rig,
  wiring: ControlWiring,
  setting: (r: Ref) => Value | undefined,
  controller: Id<'device'>,
  memory: Memory,
  target: Ref,
): readonly Way[] => {
  const { device: id, name } = splitRef(target);
  const device = partOf(rig, id);
  const host = partOf(rig, controller);
  if (!device || !host) return [];
  if (id === controller) return memory.stores.includes(name) || memory.control === name ? [{ by: 'stored' }] : [];
  return [
    ...contactWays(host, memory, wiring, device, name),
    ...midiWays(host, wiring, device, name, setting),
    ...clockWays(host, memory, wiring, device, name),
  ].sort((a, b) => (a.by === 'toggle' ? 1 : 0) - (b.by === 'toggle' ? 1 : 0));
};

const midiWays = (
  host: Device,
  wiring: ControlWiring,
  device: Device,
  control: string,
  setting: (r: Ref) => Value | undefined,
): readonly Way[] => {
  const channel = channelOf(device, setting);
  const out = host.jacks.find(
    (j) =>
      j.kind === 'midi' &&
      j.poles.tip === 'out' &&
      wiring.midi.get(ref(host.id, j.id))?.some((a) => a.device === device.id),
  );
  if (channel === undefined || !out) return [];
  const at = out.id;
  const ways: Way[] = [];
  const holder = memoryChosenBy(device, control);
  if (
    holder &&
    programActuators(device).some((a) =>
      a.acts.some((act) => 'load' in act && act.load === holder.id && act.slot === 'value'),
    )
  )
    ways.push({ by: 'program', channel, at });
  for (const actuator of device.actuators) {
    if (!('midi' in actuator.by) || actuator.by.midi !== 'cc') continue;
    const { number } = actuator.by;
    for (const act of actuator.acts) {
      if (holder && 'load' in act && act.load === holder.id && act.slot === 'value')
        ways.push({ by: 'cc', number, channel, at, act: loadsByNumber(control) });
      if (!('control' in act) || act.control !== control) continue;
      if ('map' in act || 'scale' in act || 'set' in act) ways.push({ by: 'cc', number, channel, at, act });
      else if ('toggle' in act) ways.push({ by: 'toggle', number, channel, at, values: act.toggle });
    }
  }
  return ways;
};

/** A control change of which the value is the number of what it loads. */
const loadsByNumber = (control: string): Act => ({ control, scale: [0, 127] });

const clockWays = (
  host: Device,
  memory: Memory,
  wiring: ControlWiring,
  device: Device,
  control: string,
): readonly Way[] => {
  if (
    !memory.limits?.clock ||
    !clockActuators(device).some((a) => a.acts.some((act) => 'take' in act && act.control === control))
  )
    return [];
  const out = host.jacks.find(
    (j) =>
      j.kind === 'midi' &&
      j.poles.tip === 'out' &&
      wiring.midi.get(ref(host.id, j.id))?.some((a) => a.device === device.id),
  );
  return out ? [{ by: 'clock', at: out.id }] : [];
};

const contactWays = (
  host: Device,
  memory: Memory,
  wiring: ControlWiring,
  device: Device,
  control: string,
): readonly Way[] =>
  relaysOf(host).flatMap(({ at, closedWhen }): Way[] => {
    const arrival = wiring.contacts.get(ref(host.id, at))?.find((a) => a.device === device.id);
    if (!arrival) return [];
    const sets = setByContact(device, arrival.jack).get(control);
    let toggle: readonly [Value, Value] | undefined;
    for (const { by, acts } of device.actuators) {
      if (!('contact' in by) || by.contact !== arrival.jack || !('edge' in by)) continue;
      for (const act of acts) if ('control' in act && act.control === control && 'toggle' in act) toggle = act.toggle;
    }
    const lasting = closedWhen?.[0];
    if (sets && lasting && 'in' in lasting && memory.stores.includes(lasting.control)) {
      const other = controlIn(host, lasting.control);
      const open =
        other && 'values' in other.domain ? other.domain.values.find((v) => !lasting.in.includes(v)) : undefined;
      if (open !== undefined)
        return [{ by: 'contact', control: lasting.control, closed: theFirst(lasting.in), open, sets }];
    }
    return toggle ? [{ by: 'pulse', jack: at, values: toggle }] : [];
  });

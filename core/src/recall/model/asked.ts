import { relaysOf, type Device } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { all, type Rig } from '../../rig/rig.js';
import type { ControlWiring } from '../../signal/control/reach.js';
import type { Bearings } from '../actuate/bearings.js';

const known = new WeakMap<ControlWiring, WeakMap<Rig['parts']['program'], WeakMap<Device, ReadonlySet<string>>>>();

/** Controls of a box that some condition reads, or a relay that leads somewhere: what happens may rest on them. */
export const askedIn = ({ rig, control }: Pick<Bearings, 'rig' | 'control'>, device: Device): ReadonlySet<string> => {
  const byPrograms = keptIn(
    known,
    control,
    () => new WeakMap<Rig['parts']['program'], WeakMap<Device, ReadonlySet<string>>>(),
  );
  return keptIn(
    keptIn(byPrograms, rig.parts.program, () => new WeakMap<Device, ReadonlySet<string>>()),
    device,
    () => findAsked(rig, control, device),
  );
};

const findAsked = (rig: Rig, control: ControlWiring, device: Device): ReadonlySet<string> => {
  const facts = [
    ...device.actuators.flatMap((a) => [...(a.when ?? []), ...a.acts.flatMap((act) => act.when ?? [])]),
    ...relaysOf(device)
      .filter((r) => control.contacts.get(ref(device.id, r.at))?.length)
      .flatMap((r) => r.closedWhen ?? []),
    ...all(rig, 'program')
      .filter((p) => p.device === device.id)
      .flatMap((p) => [...p.acts, ...p.assigns.flatMap((x) => [...x.on, ...x.off])].flatMap((act) => act.when ?? [])),
  ];
  const banks = device.actuators.flatMap((a) =>
    a.acts.flatMap((act) => ('load' in act && typeof act.slot === 'object' ? [act.slot.bank] : [])),
  );
  const channel = typeof device.midi?.channel === 'string' ? [device.midi.channel] : [];
  return new Set([
    ...facts.flatMap((f) => ('control' in f ? [f.control] : [])),
    ...device.memories.map((m) => m.control),
    ...banks,
    ...channel,
  ]);
};

/** A box that wakes in more ways than this wakes with what it leaves open not known. */
export const MOST_WAKINGS = 64;

/** Controls of a box that may wake in too many ways together to be looked at one by one. */
export const wakesAnyhow = (b: Pick<Bearings, 'rig' | 'control'>, device: Device): readonly Ref[] => {
  const open = device.controls.filter((c) => c.powerUp === 'unknown' || c.powerUp === 'loaded');
  const asked = open.filter((c) => askedIn(b, device).has(c.id));
  /** Of an amount nobody can say before how many values are told apart. */
  const sizes = asked.map((c) => ('values' in c.domain ? c.domain.values.length : MOST_WAKINGS));
  return sizes.reduce((n, x) => n * x, 1) > MOST_WAKINGS ? open.map((c) => ref(device.id, c.id)) : [];
};

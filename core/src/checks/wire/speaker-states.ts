import { controlIn, memoriesThatStore, type Device } from '../../rig/device.js';
import type { Hookup } from '../../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { cablesOf, type Rig } from '../../rig/rig.js';
import { holds, type Value } from '../../rig/value.js';
import { joined } from '../joined.js';

/** Where switches behind a loudspeaker jack stand, by control. */
type Standing = ReadonlyMap<Ref, Value>;

/** More states than these are not gone through. */
const MOST_STATES = 256;

const mattersTo = (device: Device): readonly string[] => [
  ...new Set(
    device.chains
      .filter((c) => c.passive && c.slots.length === 0)
      .flatMap((c) => c.when ?? [])
      .flatMap((fact) => ('control' in fact ? [fact.control] : [])),
  ),
];

/** Values that a switch can come to: by a foot, a message, a contact or a program; one that nothing moves stays. */
const valuesOf = (device: Device, id: string, hookup: Hookup): readonly Value[] => {
  const control = controlIn(device, id);
  const at = ref(device.id, id);
  const settled = hookup.assumes.find((a) => a.control === at)?.value ?? hookup.settings[at];
  if (!control || !('values' in control.domain)) return [];
  if (settled !== undefined) return [settled];
  const isMoved =
    memoriesThatStore(device, id).length > 0 ||
    device.actuators.some((a) => a.acts.some((act) => 'control' in act && act.control === id));
  const [first] = control.domain.values;
  const wakes = typeof control.powerUp === 'object' ? control.powerUp.at : first;
  return isMoved || control.use === 'play' ? control.domain.values : wakes === undefined ? [] : [wakes];
};

/** What a loudspeaker jack leads to while switches on the way stand somewhere. */
const endsAt = (rig: Rig, hookup: Hookup, from: Ref, standing: Standing, met: Set<Id<'device'>>): readonly Ref[] => {
  const plugged = new Set(cablesOf(rig, hookup.id).flatMap((c) => c.ends));
  const loads: Ref[] = [];
  const seen = new Set<Ref>([from]);
  for (const at of seen)
    for (const { from: out, to } of joined(rig, hookup)) {
      if (out.ref !== at) continue;
      if (to.jack.load === 'speaker') loads.push(to.ref);
      met.add(to.device.id);
      for (const chain of to.device.chains) {
        if (!chain.passive || chain.slots.length > 0 || !chain.from.some((t) => t.at === to.jack.id)) continue;
        const isOpen = holds(chain.when, {
          value: (control) => standing.get(ref(to.device.id, control)),
          plugged: (jack) => plugged.has(ref(to.device.id, jack)),
        });
        if (isOpen) for (const t of chain.to) seen.add(ref(to.device.id, t.at));
      }
    }
  return loads;
};

/** Where switches behind a jack can stand so that it has no load. */
export interface Unloaded {
  readonly standing: readonly { readonly device: Id<'device'>; readonly control: Ref; readonly value: Value }[];
}

/**
 * A state that feet, messages or programs can bring about in which a loudspeaker jack leads to no load; undefined where
 * every one of them loads it.
 */
export const unloadedState = (rig: Rig, hookup: Hookup, from: Ref): Unloaded | undefined => {
  let states: readonly Standing[] = [new Map()];
  const known = new Set<Ref>();
  for (let isNew = true; isNew;) {
    isNew = false;
    const met = new Set<Id<'device'>>();
    for (const standing of states) endsAt(rig, hookup, from, standing, met);
    for (const id of met) {
      const device = rig.parts.device.get(id);
      for (const name of device ? mattersTo(device) : []) {
        const control = ref(id, name);
        if (!device || known.has(control)) continue;
        known.add(control);
        const values = valuesOf(device, name, hookup);
        if (values.length === 0) continue;
        isNew = true;
        states = states.flatMap((s) => values.map((v) => new Map([...s, [control, v]]))).slice(0, MOST_STATES);
      }
    }
  }
  const bad = states.find((s) => endsAt(rig, hookup, from, s, new Set()).length === 0);
  return (
    bad && {
      standing: [...bad].map(([control, value]) => ({ device: splitRef(control).device, control, value })),
    }
  );
};

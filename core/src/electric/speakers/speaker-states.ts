import { controlIn, memoriesThatStore, type Device } from '../../rig/device.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { cablesOf, type Rig } from '../../rig/rig.js';
import { holds, type Value } from '../../rig/value.js';
import { joined, type Plugged } from '../../signal/joined.js';

/** Where switches behind a loudspeaker jack stand, by control. */
export type Standing = ReadonlyMap<Ref, Value>;

/** A loudspeaker, or what takes its place, with the leads over which power comes to it. */
export interface Load {
  readonly at: Plugged;
  readonly leads: readonly Cable[];
}

/** What a loudspeaker jack leads to while switches on the way stand somewhere. */
export interface SpeakerState {
  readonly standing: Standing;
  readonly loads: readonly Load[];
}

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

/** Follows a loudspeaker jack over leads and switches to what loads it. */
const loadsAt = (rig: Rig, hookup: Hookup, from: Ref, standing: Standing, met: Set<Id<'device'>>): readonly Load[] => {
  const plugged = new Set(cablesOf(rig, hookup.id).flatMap((c) => c.ends));
  const loads: Load[] = [];
  const leadsTo = new Map<Ref, readonly Cable[]>([[from, []]]);
  for (const [at, leads] of leadsTo)
    for (const { from: out, to, cable } of joined(rig, hookup)) {
      if (out.ref !== at) continue;
      const way = [...leads, cable];
      if (to.jack.load === 'speaker') loads.push({ at: to, leads: way });
      met.add(to.device.id);
      for (const chain of to.device.chains) {
        if (!chain.passive || chain.slots.length > 0 || !chain.from.some((t) => t.at === to.jack.id)) continue;
        const isOpen = holds(chain.when, {
          value: (control) => standing.get(ref(to.device.id, control)),
          plugged: (jack) => plugged.has(ref(to.device.id, jack)),
        });
        for (const t of isOpen ? chain.to : []) {
          const onward = ref(to.device.id, t.at);
          if (!leadsTo.has(onward)) leadsTo.set(onward, way);
        }
      }
    }
  return loads;
};

/**
 * What a loudspeaker jack leads to, in every state that feet, messages or programs can give the switches on the way.
 * Which of these states come about together, the prover knows.
 */
export const speakerStates = (rig: Rig, hookup: Hookup, from: Ref): readonly SpeakerState[] => {
  let states: readonly Standing[] = [new Map()];
  const known = new Set<Ref>();
  for (let isNew = true; isNew;) {
    isNew = false;
    const met = new Set<Id<'device'>>();
    for (const standing of states) loadsAt(rig, hookup, from, standing, met);
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
  return states.map((standing) => ({ standing, loads: loadsAt(rig, hookup, from, standing, new Set()) }));
};

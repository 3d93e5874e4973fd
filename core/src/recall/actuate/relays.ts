import { relaysOf, setByContact, type Device, type Lasting } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';

import type { Caller } from './actuate.js';
import type { Bearings } from './bearings.js';
import type { Wanted } from '../intend/compiled.js';
import { theFirst } from '../../known/the.js';
import { controlAt } from '../../rig/box.js';

/** What wanted controls ask of relays on the way to them, and which of them are reached so. */
export interface OverRelays {
  readonly wants: readonly Wanted[];
  readonly reached: ReadonlySet<Ref>;
}

/**
 * A wanted control that no called controller reaches by itself may hang on a contact of a box that one of them does
 * reach: a relay box that
 * MIDI tells what to close. Then the relay is wanted, open or closed.
 */
export const overRelays = (b: Bearings, callers: readonly Caller[], wanted: ReadonlyMap<Ref, Wanted>): OverRelays => {
  const relaysTo = relaysOn(b);
  const wants: Wanted[] = [];
  const reached = new Set<Ref>();
  if (relaysTo.size === 0) return { wants, reached };
  const waysTo = callers.map((c) => b.finder.from(c.device.id, c.memory));
  const isReached = (control: Ref) => waysTo.some((ways) => ways(control).length > 0);
  const known = new Set<Ref>();
  for (const want of wanted.values()) {
    const relays = relaysTo.get(want.control);
    if (!relays || isReached(want.control)) continue;
    for (const { relay, closed, open, sets } of relays) {
      const value =
        String(sets.closed) === String(want.value)
          ? closed
          : String(sets.open) === String(want.value)
            ? open
            : undefined;
      if (value === undefined || !isReached(relay)) continue;
      if (!known.has(relay) && !wanted.has(relay))
        wants.push({ control: relay, value, why: { by: 'contact', control: want.control } });
      known.add(relay);
      reached.add(want.control);
      break;
    }
  }
  return { wants, reached };
};

interface RelayTo {
  readonly relay: Ref;
  readonly closed: Value;
  readonly open: Value;
  readonly sets: Lasting;
}

const known = new WeakMap<Bearings['control'], ReadonlyMap<Ref, readonly RelayTo[]>>();

/** For each control that a contact sets the latching relays of other boxes that close it. */
const relaysOn = (b: Bearings): ReadonlyMap<Ref, readonly RelayTo[]> =>
  keptIn(known, b.control, () => {
    const found = new Map<Ref, RelayTo[]>();
    for (const host of all(b.rig, 'device')) {
      for (const { at, closedWhen } of relaysOf(host)) {
        const fact = closedWhen?.[0];
        if (!fact || !('in' in fact)) continue;
        const relay = ref(host.id, fact.control);
        const domain = controlAt(b.rig, relay)?.domain;
        const open =
          domain && 'values' in domain
            ? domain.values.find((v) => !fact.in.map(String).includes(String(v)))
            : undefined;
        if (open === undefined) continue;
        for (const [device, jack] of firstArrivals(b, ref(host.id, at))) {
          for (const [control, sets] of setByContact(device, jack))
            keptIn(found, ref(device.id, control), () => []).push({ relay, closed: theFirst(fact.in), open, sets });
        }
      }
    }
    return found;
  });

/** The boxes at the other end of a contact, each with the first of its jacks that it arrives at. */
const firstArrivals = (b: Bearings, at: Ref): ReadonlyMap<Device, string> => {
  const first = new Map<Device, string>();
  for (const { device, jack } of b.control.contacts.get(at) ?? []) keptIn(first, thePart(b.rig, device), () => jack);
  return first;
};

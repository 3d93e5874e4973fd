import { relaysOf } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, partOf } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { controlOf } from '../signal/state.js';
import type { Caller } from './actuate.js';
import type { Bearings } from './bearings.js';
import type { Wanted } from './compiled.js';

/** What wanted controls ask of relays on the way to them, and which of them are reached so. */
export interface OverRelays {
  readonly wants: readonly Wanted[];
  readonly reached: ReadonlySet<Ref>;
}

/**
 * A wanted control that no called controller reaches by itself may hang on a contact of a box that one of them does reach: a relay box that
 * MIDI tells what to close. Then the relay is wanted, open or closed.
 */
export const overRelays = (b: Bearings, callers: readonly Caller[], wanted: readonly Wanted[]): OverRelays => {
  const waysTo = callers.map((c) => b.finder.from(c.device.id, c.memory));
  const isReached = (control: Ref) => waysTo.some((ways) => ways(control).length > 0);
  const unreached = wanted.filter((w) => !isReached(w.control));
  const known = new Set(unreached.length ? wanted.map((w) => w.control) : []);
  const wants: Wanted[] = [];
  const reached = new Set<Ref>();
  for (const want of unreached) {
    const { device: id, name } = splitRef(want.control);
    for (const { relay, closed, open, setsClosed, setsOpen } of relaysTo(b, id, name)) {
      const value = String(setsClosed) === String(want.value) ? closed : String(setsOpen) === String(want.value) ? open : undefined;
      if (value === undefined || !isReached(relay)) continue;
      if (!known.has(relay)) wants.push({ control: relay, value, why: { by: 'contact', control: want.control } });
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
  readonly setsClosed: Value | undefined;
  readonly setsOpen: Value | undefined;
}

const known = new WeakMap<Bearings['control'], Map<Ref, readonly RelayTo[]>>();

/** Latching relays of other boxes whose contact sets a control. */
const relaysTo = (b: Bearings, id: Id<'device'>, name: string): readonly RelayTo[] => {
  let found = known.get(b.control);
  if (!found) known.set(b.control, found = new Map());
  const target = ref(id, name);
  const before = found.get(target) ?? findRelays(b, id, name);
  found.set(target, before);
  return before;
};

const findRelays = (b: Bearings, id: Id<'device'>, name: string): readonly RelayTo[] => {
  const device = partOf(b.rig, id);
  const sets = (jack: string, level: 'closed' | 'open'): Value | undefined => device?.actuators.flatMap((a) => ('contact' in a.by && 'level' in a.by && a.by.contact === jack && a.by.level === level
    ? a.acts.flatMap((act) => ('control' in act && act.control === name && 'set' in act ? [act.set] : [])) : []))[0];
  return all(b.rig, 'device').flatMap((host) => relaysOf(host).flatMap(({ at, closedWhen }): readonly RelayTo[] => {
    const arrival = b.control.contacts.get(ref(host.id, at))?.find((a) => a.device === id);
    const fact = closedWhen?.[0];
    if (!arrival || !fact || !('in' in fact)) return [];
    const relay = ref(host.id, fact.control);
    const domain = controlOf(b.rig, relay)?.domain;
    const open = domain && 'values' in domain ? domain.values.find((v) => !fact.in.map(String).includes(String(v))) : undefined;
    const [setsClosed, setsOpen] = [sets(arrival.jack, 'closed'), sets(arrival.jack, 'open')];
    return open === undefined || (setsClosed === undefined && setsOpen === undefined) ? [] : [{ relay, closed: fact.in[0]!, open, setsClosed, setsOpen }];
  }));
};

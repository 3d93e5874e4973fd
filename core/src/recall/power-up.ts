import { controlIn, memoriesThatStore, relaysOf, setByContact, type Device, type Memory } from '../rig/device.js';
import { ref, type Ref } from '../rig/ids.js';
import { once } from '../rig/kept.js';
import { all, partOf } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import { OTHER, UNKNOWN, type Domains } from './domains.js';
import { shelfKey, type Effects, type Shelf } from './effects.js';
import type { Condition, SystemAct, Together, Variable } from './proof/system.js';

/** The memory whose loaded program brings a control up at power-up. */
export const loaderOf = (device: Device, control: string): Memory | undefined =>
  controlIn(device, control)?.powerUp === 'loaded' ? memoriesThatStore(device, control)[0] : undefined;

/** What a program brings into a control, as the domain names it. */
const bringer = (domains: Domains, shelf: Shelf, device: Device, memory: Memory, program: string): ((control: string) => string) => {
  const known = program === OTHER ? undefined : shelf.get(shelfKey(device.id, memory.id, Number(program)));
  const contents = known && known.contents !== 'unplanned' ? known.contents : undefined;
  return (control) => {
    const value = contents?.[control];
    return value === undefined ? UNKNOWN : domains.named(ref(device.id, control), value);
  };
};

/** A latching input of another box that follows one of this rig's relays. */
interface Follower {
  readonly leader: Ref;
  readonly control: Ref;
  readonly closedIn: readonly string[];
  readonly closed: Value | undefined;
  readonly open: Value | undefined;
}

const followersOf = once((b: Bearings): readonly Follower[] =>
  all(b.rig, 'device').flatMap((device) => relaysOf(device).flatMap(({ at, closedWhen }) => {
    const fact = closedWhen?.[0];
    if (!fact || !('in' in fact)) return [];
    return (b.control.contacts.get(ref(device.id, at)) ?? []).flatMap((arrival): Follower[] => {
      const receiver = partOf(b.rig, arrival.device)!;
      return [...setByContact(receiver, arrival.jack)].map(([control, to]) => ({
        leader: ref(device.id, fact.control), control: ref(receiver.id, control), closedIn: fact.in.map(String), closed: to.closed, open: to.open,
      }));
    });
  })));

/** Variables with their values at power-up; those that come together are rows. */
export const powerUp = (b: Bearings, domains: Domains, shelf: Shelf): { readonly variables: readonly Variable[]; readonly together: readonly Together[] } => {
  const initial = new Map<Ref, readonly string[]>();
  const groups: { variables: Ref[]; rows: string[][] }[] = [];
  for (const device of all(b.rig, 'device')) {
    for (const control of device.controls) {
      const r = ref(device.id, control.id);
      const domain = domains.of.get(r);
      if (domain) initial.set(r, typeof control.powerUp === 'object' ? [domains.named(r, control.powerUp.at)] : domain.filter((v) => v !== UNKNOWN || control.powerUp === 'loaded'));
    }
    for (const memory of device.memories) {
      const loaded = ref(device.id, memory.control);
      const stores = memory.stores.filter((s) => domains.of.has(ref(device.id, s)) && loaderOf(device, s) === memory);
      if (stores.length === 0) continue;
      const rowFor = (p: string) => stores.map(bringer(domains, shelf, device, memory, p));
      const loadable = initial.get(loaded);
      groups.push({
        variables: [...(loadable ? [loaded] : []), ...stores.map((s) => ref(device.id, s))],
        rows: loadable ? loadable.map((p) => [p, ...rowFor(p)]) : [rowFor(String(domains.constant(loaded)))],
      });
    }
  }
  for (const f of followersOf(b)) follow(f, domains, initial, groups);
  for (const group of groups) group.variables.forEach((v, i) => initial.set(v, [...new Set(group.rows.map((row) => row[i]!))]));
  return {
    variables: [...domains.of].map(([id, domain]) => ({ id, domain, initial: initial.get(id)! })),
    together: groups.filter((g) => g.variables.length > 1),
  };
};

/** A latching input reads its contact when its box wakes, so its value comes together with the relay's. */
const follow = (f: Follower, domains: Domains, initial: Map<Ref, readonly string[]>, groups: { variables: Ref[]; rows: string[][] }[]): void => {
  if (!initial.has(f.control)) return;
  const own = groups.find((g) => g.variables.includes(f.control));
  if (own) {
    const at = own.variables.indexOf(f.control);
    own.variables.splice(at, 1);
    own.rows.forEach((row) => row.splice(at, 1));
  }
  const valuesFor = (leader: string): readonly string[] => {
    const value = f.closedIn.includes(leader) ? f.closed : f.open;
    return value === undefined ? initial.get(f.control)! : [domains.named(f.control, value)];
  };
  let group = groups.find((g) => g.variables.includes(f.leader));
  if (!group) {
    if (!initial.has(f.leader)) return;
    group = { variables: [f.leader], rows: initial.get(f.leader)!.map((v) => [v]) };
    groups.push(group);
  }
  const at = group.variables.indexOf(f.leader);
  group.rows = group.rows.flatMap((row) => valuesFor(row[at]!).map((v) => [...row, v]));
  group.variables.push(f.control);
};

const MOST_BRANCHES = 64;

/** What happens when one box loses its supply and wakes again, once for each way in which it may wake. */
export const powerCycle = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects, device: Device): readonly (readonly SystemAct[])[] => {
  const fixed: SystemAct[] = [];
  const loads: SystemAct[] = [];
  let branches: SystemAct[][] = [[]];
  for (const control of device.controls) {
    const r = ref(device.id, control.id);
    const domain = domains.of.get(r);
    if (!domain) continue;
    const { powerUp: wakes } = control;
    if (typeof wakes === 'object') fixed.push(...effects.set(device, r, wakes.at, []));
    else if (wakes === 'unknown') {
      const ways = domain.filter((v) => v !== UNKNOWN).map((v): SystemAct => ({ variable: r, set: v }));
      if (branches.length * ways.length <= MOST_BRANCHES) branches = branches.flatMap((acts) => ways.map((way) => [...acts, way]));
    } else if (wakes === 'loaded') {
      const memory = loaderOf(device, control.id);
      const loaded = memory && ref(device.id, memory.control);
      if (!memory || !loaded) continue;
      if (!domains.of.has(loaded)) {
        const value = bringer(domains, shelf, device, memory, String(domains.constant(loaded)))(control.id);
        loads.push(...effects.set(device, r, value, []));
        continue;
      }
      const byValue = new Map<string, string[]>();
      const woken = device.controls.find((k) => k.id === memory.control)!.powerUp;
      for (const p of typeof woken === 'object' ? [domains.named(loaded, woken.at)] : domains.of.get(loaded)!) {
        const value = bringer(domains, shelf, device, memory, p)(control.id);
        const programs = byValue.get(value);
        if (programs) programs.push(p);
        else byValue.set(value, [p]);
      }
      for (const [value, programs] of byValue) {
        const when: Condition[] = [{ variable: loaded, in: programs }];
        loads.push(...effects.set(device, r, value, when));
      }
    }
  }
  const rereads = followersOf(b).filter((f) => f.control.startsWith(`${device.id}.`) && domains.of.has(f.control) && domains.of.has(f.leader)).flatMap((f): SystemAct[] => {
    const domain = domains.of.get(f.leader)!;
    const act = (value: Value | undefined, closed: boolean): SystemAct[] => (value === undefined ? [] : [{
      variable: f.control, when: [{ variable: f.leader, in: domain.filter((v) => f.closedIn.includes(v) === closed) }], set: domains.named(f.control, value),
    }]);
    return [...act(f.closed, true), ...act(f.open, false)];
  });
  const wakes = device.actuators.filter((a) => 'power' in a.by).flatMap((a) => {
    const guards = effects.guards(device.id, a.when);
    return guards ? effects.acts(device, a.acts, guards) : [];
  });
  return branches.map((branch) => [...fixed, ...branch, ...loads, ...rereads, ...wakes]).filter((acts) => acts.length > 0);
};

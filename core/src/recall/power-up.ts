import { controlIn, memoriesThatStore, relaysOf, setByContact, type Control, type Device, type Memory } from '../rig/device.js';
import { ref, type Ref } from '../rig/ids.js';
import { keptIn, once } from '../rig/kept.js';
import { all, partOf } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import type { Effects, Said } from './effects.js';
import { bankOf } from './memos.js';
import { askedIn, MOST_WAKINGS } from './asked.js';
import { heldTags, ModelMemory } from './model-memory.js';
import { around, holdsOf, programOn, type Shelf } from './shelf.js';
import { afterEvent, type Condition, type SystemAct, type Together, type Variable } from './proof/system.js';

/** The memory whose loaded program brings a control up at power-up. */
export const loaderOf = (device: Device, control: string): Memory | undefined =>
  controlIn(device, control)?.powerUp === 'loaded' ? memoriesThatStore(device, control)[0] : undefined;

/** What is written down of a program by its name in the domain. @param of the program that is loaded around it */
const contentsOf = (shelf: Shelf, device: Device, memory: Memory, program: string, of?: string): Readonly<Record<string, Value>> | undefined => {
  const numbered = (name: string) => (name === UNKNOWN || isOther(name) ? undefined : Number(name));
  const number = numbered(program);
  const known = number === undefined ? undefined : programOn(shelf, device, memory, number, of === undefined ? undefined : numbered(of));
  return known && known.contents !== 'unplanned' ? known.contents : undefined;
};

/** What a program brings into a control, as the domain names it. @param of the program that is loaded around it */
const bringer = (domains: Domains, shelf: Shelf, device: Device, memory: Memory, program: string, of?: string): ((control: string, named: Ref) => string) => {
  const contents = contentsOf(shelf, device, memory, program, of);
  return (control, named) => {
    const value = contents?.[control];
    return value === undefined ? UNKNOWN : domains.named(named, value);
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

/** Variables with their values at power-up; those that come together are rows. What boxes do by themselves when they wake has happened then. */
export const powerUp = (b: Bearings, { domains, shelf, effects }: Said, memory = new ModelMemory()): { readonly variables: readonly Variable[]; readonly together: readonly Together[]; readonly tooMany: readonly string[] } => {
  const initial = new Map<Ref, readonly string[]>();
  const groups: Group[] = [];
  for (const device of all(b.rig, 'device')) {
    const own = memory.keep(`wakes ${device.id}${heldTags(shelf, memory).get(device.id) ?? ''}`, () => wakingOf(b, domains, shelf, device));
    for (const [control, values] of own.initial) initial.set(control, values);
    groups.push(...own.groups.map(({ variables, rows }) => ({ variables: [...variables], rows })));
  }
  for (const f of followersOf(b)) follow(f, domains, initial, groups);
  const tooMany = wakeActs(b, effects, domains, initial, groups);
  for (const { variables, rows } of groups) columnsOf(rows).forEach((values, i) => initial.set(variables[i]!, values));
  return {
    variables: [...domains.of].map(([id, domain]) => ({ id, domain, initial: initial.get(id)! })),
    together: groups.filter((g) => g.variables.length > 1), tooMany,
  };
};

/** Variables that come up together in one of these rows. */
interface Group {
  readonly variables: Ref[];
  rows: Rows;
}
type Rows = readonly (readonly string[])[];

/** What each place of some rows may be. */
const columnsOf = once((rows: Rows): readonly (readonly string[])[] => (rows[0] ?? []).map((_, i) => [...new Set(rows.map((row) => row[i]!))]));

/** How one box by itself may stand when the power comes on. */
const wakingOf = (b: Bearings, domains: Domains, shelf: Shelf, device: Device): { readonly initial: ReadonlyMap<Ref, readonly string[]>; readonly groups: readonly Group[] } => {
  const initial = new Map<Ref, readonly string[]>();
  const groups: Group[] = [];
  for (const control of device.controls) {
    const r = ref(device.id, control.id);
    const domain = domains.of.get(r);
    if (domain) initial.set(r, foundIn(b, domains, r, control, domain));
  }
  const inOrder = [...device.memories].sort((x, y) => (x.inside === undefined ? 0 : 1) - (y.inside === undefined ? 0 : 1));
  for (const memory of inOrder) wakeWith(b, domains, shelf, device, memory, initial, groups);
  return { initial, groups };
};

/** How a control may stand when the power comes on: a setting as the hook-up sets it. */
const foundIn = (b: Bearings, domains: Domains, r: Ref, { powerUp: wakes }: Control, domain: readonly string[]): readonly string[] => {
  const set = b.hookup.settings[r];
  if (set !== undefined && wakes !== 'loaded') return [domains.named(r, set)];
  if (typeof wakes === 'object') return [domains.named(r, wakes.at)];
  return domain.filter((v) => v !== UNKNOWN || wakes === 'loaded');
};

/** A box wakes in a program, with what that holds. */
const wakeWith = (b: Bearings, domains: Domains, shelf: Shelf, device: Device, memory: Memory, initial: Map<Ref, readonly string[]>, groups: Group[]): void => {
  const loaded = ref(device.id, memory.control);
  const stores = memory.stores.filter((s) => domains.of.has(ref(device.id, s)) && loaderOf(device, s) === memory);
  if (stores.length === 0) return;
  const outer = around(device, memory);
  const outerLoaded = outer && domains.of.has(ref(device.id, outer.control)) ? ref(device.id, outer.control) : undefined;
  const fixedOuter = outer && !outerLoaded ? String(domains.constant(ref(device.id, outer.control))) : undefined;
  const isFree = domains.of.has(loaded);
  const refs = stores.map((s) => ref(device.id, s));
  const rowFor = (p: string, of: string | undefined) => {
    const brings = bringer(domains, shelf, device, memory, p, of);
    return stores.map((s, i) => brings(s, refs[i]!));
  };
  const asked = askedIn(b, device);
  /** What nobody wrote down and other things rest on may be anything. */
  const spelt = (row: string[], first: number): string[][] => (!row.includes(UNKNOWN) ? [row] : stores.reduce<string[][]>((rows, s, i) => rows.flatMap((r) => (r[first + i] === UNKNOWN && asked.has(s)
    ? domains.of.get(ref(device.id, s))!.filter((v) => v !== UNKNOWN).map((v) => r.with(first + i, v)) : [r])), [row]));
  const own = (name: string, of: string | undefined): string[] => (isFree ? [name, ...rowFor(name, of)] : rowFor(name, of));
  const names = isFree ? initial.get(loaded)! : [String(domains.constant(loaded))];
  const variables = [...(isFree ? [loaded] : []), ...stores.map((s) => ref(device.id, s))];
  if (!outerLoaded) {
    groups.push({ variables, rows: names.flatMap((p) => spelt(own(p, fixedOuter), isFree ? 1 : 0)) });
    return;
  }
  const group = groupOf(outerLoaded, initial, groups);
  const at = group.variables.indexOf(outerLoaded);
  const known = isFree ? group.variables.indexOf(loaded) : -1;
  group.rows = group.rows.flatMap((row) => (known >= 0 ? [row[known]!] : names).flatMap((p) => spelt([...row, ...(known >= 0 ? rowFor(p, row[at]) : own(p, row[at]))], row.length + (known < 0 && isFree ? 1 : 0))));
  group.variables.push(...(known >= 0 ? variables.slice(1) : variables));
};

/** The group of a variable; one of its own when it has none yet. */
const groupOf = (variable: Ref, initial: ReadonlyMap<Ref, readonly string[]>, groups: Group[]): Group => {
  const found = groups.find((g) => g.variables.includes(variable));
  if (found) return found;
  const made = { variables: [variable], rows: initial.get(variable)!.map((v) => [v]) };
  groups.push(made);
  return made;
};

/** More ways to wake than this are not looked at one by one. */
const MOST_ROWS = 4096;

/** What boxes do when they wake is done at the first power-up too. @returns what it touches, when there are too many ways to wake for that to be worked out */
const wakeActs = (b: Bearings, effects: Effects, domains: Domains, initial: Map<Ref, readonly string[]>, groups: Group[]): readonly string[] => {
  const acts = effects.setOffInTime(all(b.rig, 'device').flatMap((device) => device.actuators.flatMap((a) => ('power' in a.by ? [[device, a] as const] : []))));
  const touched = [...new Set(acts.flatMap((act) => [act.variable, ...(act.when ?? []).map((c) => c.variable)]))];
  const controls = touched.filter((v): v is Ref => domains.of.has(v as Ref));
  if (controls.length === 0) return [];
  const own = [...new Set(controls.map((v) => groupOf(v, initial, groups)))];
  if (own.reduce((n, g) => n * g.rows.length, 1) > MOST_ROWS) return controls;
  const variables = own.flatMap((g) => g.variables);
  const rows = own.reduce<string[][]>((before, g) => before.flatMap((row) => g.rows.map((more) => [...row, ...more])), [[]]);
  const hidden = Object.fromEntries(touched.filter((v) => !domains.of.has(v as Ref)).map((v) => [v, '']));
  const after = rows.map((row) => {
    const state = afterEvent({ id: 'wake', acts }, { ...hidden, ...Object.fromEntries(variables.map((v, i) => [v, row[i]!])) });
    return variables.map((v) => state[v]!);
  });
  for (const g of own) groups.splice(groups.indexOf(g), 1);
  groups.push({ variables, rows: [...new Map(after.map((row) => [row.join('\n'), row])).values()] });
  return [];
};

/** A latching input reads its contact when its box wakes, so its value comes together with the relay's. */
const follow = (f: Follower, domains: Domains, initial: Map<Ref, readonly string[]>, groups: Group[]): void => {
  if (!initial.has(f.control)) return;
  const own = groups.find((g) => g.variables.includes(f.control));
  if (own) {
    const at = own.variables.indexOf(f.control);
    own.variables.splice(at, 1);
    own.rows = own.rows.map((row) => row.toSpliced(at, 1));
  }
  const valuesFor = (leader: string): readonly string[] => {
    if (leader === UNKNOWN) return [UNKNOWN];
    const value = f.closedIn.includes(leader) ? f.closed : f.open;
    return value === undefined ? initial.get(f.control)! : [domains.named(f.control, value)];
  };
  if (!initial.has(f.leader)) {
    initial.set(f.control, valuesFor(String(domains.constant(f.leader))));
    return;
  }
  const group = groupOf(f.leader, initial, groups);
  const at = group.variables.indexOf(f.leader);
  group.rows = group.rows.flatMap((row) => valuesFor(row[at]!).map((v) => [...row, v]));
  group.variables.push(f.control);
};

/** The ways in which a box may wake: every value of what it leaves open. What nothing asks about need not be told apart from the rest, so those go through their values side by side. */
const branchesOf = (b: Bearings, domains: Domains, effects: Effects, device: Device): readonly (readonly SystemAct[])[] => {
  const open = device.controls.filter((c) => c.powerUp === 'unknown' && domains.of.has(ref(device.id, c.id)));
  const ways = open.map((c) => domains.of.get(ref(device.id, c.id))!.filter((v) => v !== UNKNOWN).map((v) => effects.set(device, ref(device.id, c.id), v, [])));
  const isAsked = (c: Control) => askedIn(b, device).has(c.id);
  for (const { control, when } of unwrittenOnWaking(b, domains, device)) {
    open.push(control);
    ways.push(effects.knownValues(ref(device.id, control.id)).map((v) => effects.set(device, ref(device.id, control.id), v, when)));
  }
  const asked = ways.filter((_, i) => isAsked(open[i]!));
  const aside = ways.filter((_, i) => !isAsked(open[i]!));
  const all = ways.reduce((n, w) => n * w.length, 1) <= MOST_WAKINGS;
  const apart = all ? ways : asked;
  if (apart.reduce((n, w) => n * w.length, 1) > MOST_WAKINGS) return [open.flatMap((c) => effects.set(device, ref(device.id, c.id), UNKNOWN, []))];
  const told = apart.reduce<SystemAct[][]>((before, way) => before.flatMap((acts) => way.map((one) => [...acts, ...one])), [[]]);
  const beside = all ? [] : aside;
  const count = Math.max(told.length, ...beside.map((w) => w.length));
  return Array.from({ length: count }, (_, i) => [...told[i % told.length]!, ...beside.flatMap((w) => w[i % w.length]!)]);
};

/** Controls that other things rest on, with the conditions under which the box wakes in a program that nobody named: it may hold anything there. */
const unwrittenOnWaking = (b: Bearings, domains: Domains, device: Device): readonly { readonly control: Control; readonly when: readonly Condition[] }[] =>
  device.controls.flatMap((control) => {
    const memory = loaderOf(device, control.id);
    const loaded = memory && ref(device.id, memory.control);
    if (!loaded || !domains.of.has(ref(device.id, control.id)) || !askedIn(b, device).has(control.id)) return [];
    const unnamed = (domains.of.get(loaded) ?? [String(domains.constant(loaded))]).filter((v) => v === UNKNOWN || isOther(v));
    return unnamed.length ? [{ control, when: domains.of.has(loaded) ? [{ variable: loaded, in: unnamed }] : [] }] : [];
  });

/** One way in which a box may wake. */
interface Waking {
  readonly acts: readonly SystemAct[];
  /** What it leaves open comes up so, by the system's names. */
  readonly wakes: Readonly<Record<Ref, string>>;
}

/** What happens when one box loses its supply and wakes again, once for each way in which it may wake. */
export const powerCycle = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects, device: Device): readonly Waking[] => {
  const fixed: SystemAct[] = [];
  for (const control of device.controls) {
    const r = ref(device.id, control.id);
    if (typeof control.powerUp === 'object' && domains.of.has(r)) fixed.push(...effects.set(device, r, control.powerUp.at, []));
  }
  const loads = device.memories.flatMap((memory) => wakingLoads(b, domains, shelf, effects, device, memory));
  const rereads = followersOf(b).filter((f) => f.control.startsWith(`${device.id}.`) && domains.of.has(f.control)).flatMap((f): readonly SystemAct[] => {
    const domain = domains.of.get(f.leader);
    const act = (value: Value | undefined, closed: boolean): readonly SystemAct[] => {
      if (value === undefined) return [];
      const is: SystemAct = { variable: f.control, set: domains.named(f.control, value) };
      if (!domain) return f.closedIn.includes(String(domains.constant(f.leader))) === closed ? [is] : [];
      return effects.guarded([{ variable: f.leader, in: domain.filter((v) => v !== UNKNOWN && f.closedIn.includes(v) === closed), ...(domain.includes(UNKNOWN) ? { open: [UNKNOWN] } : {}) }], [is]);
    };
    return [...act(f.closed, true), ...act(f.open, false)];
  });
  const wakes = effects.setOffInTime(device.actuators.flatMap((a) => ('power' in a.by ? [[device, a] as const] : [])));
  const { coarse, fine } = domains.banks(device);
  const banks: SystemAct[] = [...(coarse.length > 1 ? [{ variable: bankOf(device.id).coarse, set: '0' }] : []), ...(fine.length > 1 ? [{ variable: bankOf(device.id).fine, set: '0' }] : [])];
  const isOwn = (act: SystemAct) => act.variable.startsWith(`${device.id}.`) && 'set' in act;
  return branchesOf(b, domains, effects, device).map((branch): Waking => ({
    acts: [...banks, ...fixed, ...branch, ...loads, ...rereads, ...wakes], wakes: Object.fromEntries(branch.filter(isOwn).map((act) => [act.variable, (act as { set: string }).set])),
  })).filter(({ acts }) => acts.length > 0);
};

/** What a box that wakes in a program of a memory finds in it. */
const wakingLoads = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects, device: Device, memory: Memory): readonly SystemAct[] => {
  const loaded = ref(device.id, memory.control);
  const outer = around(device, memory);
  const outerLoaded = outer && ref(device.id, outer.control);
  const names = (r: Ref, memoryControl: string): readonly string[] => {
    const woken = controlIn(device, memoryControl)!.powerUp;
    if (!domains.of.has(r)) return [String(domains.constant(r))];
    return typeof woken === 'object' ? [domains.named(r, woken.at)] : domains.of.get(r)!;
  };
  const stores = memory.stores.map((s) => ref(device.id, s)).filter((r) => domains.of.has(r) && loaderOf(device, r.slice(device.id.length + 1)) === memory);
  const ofs = outerLoaded ? names(outerLoaded, outer.control) : [undefined];
  const programs = names(loaded, memory.control);
  const found = ofs.map((of) => ({ of, contents: programs.map((p) => contentsOf(shelf, device, memory, p, of)) }));
  return stores.flatMap((r) => {
    const byValue = new Map<string, Condition[][]>();
    const name = r.slice(device.id.length + 1);
    for (const { of, contents } of found) {
      const alike = new Map<Value | undefined, string[]>();
      for (let i = 0; i < programs.length; i += 1) {
        const value = contents[i]?.[name];
        const those = alike.get(value);
        if (those) those.push(programs[i]!);
        else alike.set(value, [programs[i]!]);
      }
      const values = new Map<string, string[]>();
      for (const [value, those] of alike) keptIn(values, value === undefined ? UNKNOWN : domains.named(r, value), () => []).push(...those);
      for (const [value, those] of values) {
        keptIn(byValue, value, () => []).push([...(domains.of.has(loaded) ? [{ variable: loaded, in: those }] : []), ...(outerLoaded && of !== undefined && domains.of.has(outerLoaded) ? [{ variable: outerLoaded, in: [of] }] : [])]);
      }
    }
    const numbered = (v: string | undefined) => (v === undefined || v === UNKNOWN || isOther(v) ? undefined : Number(v));
    return [...byValue].flatMap(([value, cases]) => cases.flatMap((when): readonly SystemAct[] => {
      if (value !== UNKNOWN || !askedIn(b, device).has(name)) return effects.set(device, r, value, when);
      const [first, ...others] = when;
      const isLoaded = first?.variable === loaded;
      return (isLoaded ? first.in : [String(domains.constant(loaded))]).flatMap((p) => {
        const number = numbered(p);
        const given: Condition[] = [...(isLoaded ? [{ variable: loaded, in: [p] }] : []), ...(isLoaded ? others : when)];
        if (number === undefined) return [];
        const of = given.find((c) => c.variable === outerLoaded)?.in[0] ?? (outerLoaded && !domains.of.has(outerLoaded) ? String(domains.constant(outerLoaded)) : undefined);
        const holds = holdsOf({ device: device.id, memory: memory.id, number, of: numbered(of), control: name });
        return effects.knownValues(r).flatMap((v) => effects.set(device, r, v, [...given, { variable: holds, in: [v] }]));
      });
    }));
  });
};

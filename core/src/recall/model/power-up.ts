import { type Control, type Device, type Memory } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { all } from '../../rig/rig.js';
import type { Bearings } from '../actuate/bearings.js';
import { UNKNOWN, type Domains } from './domains.js';
import type { Effects, ModelTools } from './effects.js';
import { askedIn } from './asked.js';
import { heldTags, ModelMemory } from './model-memory.js';
import { around, type Shelf } from './shelf.js';
import { afterEvent, type Together, type Variable } from '../../prover/system.js';
import { followersOf, loaderOf, bringer, type Follower } from './found-on-waking.js';
import { theItem, theEntry, surely } from '../../known/the.js';

/**
 * Variables with their values at power-up; those that come together are rows. What boxes do by themselves when they
 * wake has happened then.
 */
export const powerUp = (
  b: Bearings,
  { domains, shelf, effects }: ModelTools,
  memory = new ModelMemory(),
): {
  readonly variables: readonly Variable[];
  readonly together: readonly Together[];
  readonly tooMany: readonly string[];
} => {
  const initial = new Map<Ref, readonly string[]>();
  const groups: Group[] = [];
  for (const device of all(b.rig, 'device')) {
    const own = memory.keep(`wakes ${device.id}${heldTags(shelf, memory).get(device.id) ?? ''}`, () =>
      wakingOf(b, domains, shelf, device),
    );
    for (const [control, values] of own.initial) initial.set(control, values);
    groups.push(...own.groups.map(({ variables, rows }) => ({ variables: [...variables], rows })));
  }
  for (const f of followersOf(b)) follow(f, domains, initial, groups);
  const tooMany = wakeActs(b, effects, domains, initial, groups);
  for (const { variables, rows } of groups)
    columnsOf(rows).forEach((values, i) => initial.set(theItem(variables, i), values));
  return {
    variables: [...domains.of].map(([id, domain]) => ({ id, domain, initial: theEntry(initial, id) })),
    together: groups.filter((g) => g.variables.length > 1),
    tooMany,
  };
};

/** Variables that come up together in one of these rows. */
interface Group {
  readonly variables: Ref[];
  rows: Rows;
}
type Rows = readonly (readonly string[])[];

/** What each place of some rows may be. */
const columnsOf = once((rows: Rows): readonly (readonly string[])[] =>
  (rows[0] ?? []).map((_, i) => [...new Set(rows.map((row) => theItem(row, i)))]),
);

/** How one box by itself may stand when the power comes on. */
const wakingOf = (
  b: Bearings,
  domains: Domains,
  shelf: Shelf,
  device: Device,
): { readonly initial: ReadonlyMap<Ref, readonly string[]>; readonly groups: readonly Group[] } => {
  const initial = new Map<Ref, readonly string[]>();
  const groups: Group[] = [];
  for (const control of device.controls) {
    const r = ref(device.id, control.id);
    const domain = domains.of.get(r);
    if (domain) initial.set(r, foundIn(b, domains, r, control, domain));
  }
  const inOrder = [...device.memories].sort(
    (x, y) => (x.inside === undefined ? 0 : 1) - (y.inside === undefined ? 0 : 1),
  );
  for (const memory of inOrder) wakeWith(b, domains, shelf, device, memory, initial, groups);
  return { initial, groups };
};

/** How a control may stand when the power comes on: a setting as the hook-up sets it. */
const foundIn = (
  b: Bearings,
  domains: Domains,
  r: Ref,
  { powerUp: wakes }: Control,
  domain: readonly string[],
): readonly string[] => {
  const set = b.hookup.settings[r];
  if (set !== undefined && wakes !== 'loaded') return [domains.named(r, set)];
  if (typeof wakes === 'object') return [domains.named(r, wakes.at)];
  return domain.filter((v) => v !== UNKNOWN || wakes === 'loaded');
};

/** A box wakes in a program, with what that holds. */
const wakeWith = (
  b: Bearings,
  domains: Domains,
  shelf: Shelf,
  device: Device,
  memory: Memory,
  initial: Map<Ref, readonly string[]>,
  groups: Group[],
): void => {
  const loaded = ref(device.id, memory.control);
  const stores = memory.stores.filter((s) => domains.of.has(ref(device.id, s)) && loaderOf(device, s) === memory);
  if (stores.length === 0) return;
  const outer = around(device, memory);
  const outerLoaded =
    outer && domains.of.has(ref(device.id, outer.control)) ? ref(device.id, outer.control) : undefined;
  const fixedOuter = outer && !outerLoaded ? String(domains.constant(ref(device.id, outer.control))) : undefined;
  const isFree = domains.of.has(loaded);
  const refs = stores.map((s) => ref(device.id, s));
  const rowFor = (p: string, of: string | undefined) => {
    const brings = bringer(domains, shelf, device, memory, p, of);
    return stores.map((s, i) => brings(s, theItem(refs, i)));
  };
  const asked = askedIn(b, device);
  /** What nobody wrote down and other things rest on may be anything. */
  const askedPlaces = stores.flatMap((s, i) => (asked.has(s) ? [i] : []));
  const spelt = (row: string[], first: number): string[][] =>
    askedPlaces.reduce<string[][]>(
      (rows, i) =>
        row[first + i] === UNKNOWN
          ? rows.flatMap((r) =>
              theEntry(domains.of, theItem(refs, i))
                .filter((v) => v !== UNKNOWN)
                .map((v) => r.with(first + i, v)),
            )
          : rows,
      [row],
    );
  const own = (name: string, of: string | undefined): string[] =>
    isFree ? [name, ...rowFor(name, of)] : rowFor(name, of);
  const names = isFree ? theEntry(initial, loaded) : [String(domains.constant(loaded))];
  const variables = [...(isFree ? [loaded] : []), ...stores.map((s) => ref(device.id, s))];
  if (!outerLoaded) {
    groups.push({ variables, rows: names.flatMap((p) => spelt(own(p, fixedOuter), isFree ? 1 : 0)) });
    return;
  }
  const group = groupOf(outerLoaded, initial, groups);
  const at = group.variables.indexOf(outerLoaded);
  const known = isFree ? group.variables.indexOf(loaded) : -1;
  group.rows = group.rows.flatMap((row) =>
    (known >= 0 ? [theItem(row, known)] : names).flatMap((p) =>
      spelt(
        [...row, ...(known >= 0 ? rowFor(p, row[at]) : own(p, row[at]))],
        row.length + (known < 0 && isFree ? 1 : 0),
      ),
    ),
  );
  group.variables.push(...(known >= 0 ? variables.slice(1) : variables));
};

/** The group of a variable; one of its own when it has none yet. */
const groupOf = (variable: Ref, initial: ReadonlyMap<Ref, readonly string[]>, groups: Group[]): Group => {
  const found = groups.find((g) => g.variables.includes(variable));
  if (found) return found;
  const made = { variables: [variable], rows: theEntry(initial, variable).map((v) => [v]) };
  groups.push(made);
  return made;
};

/** More ways to wake than this are not looked at one by one. */
const MOST_ROWS = 4096;

/**
 * What boxes do when they wake is done at the first power-up too.
 * @returns what it touches, when there are too many ways to wake for that to be worked out
 */
const wakeActs = (
  b: Bearings,
  effects: Effects,
  domains: Domains,
  initial: Map<Ref, readonly string[]>,
  groups: Group[],
): readonly string[] => {
  const acts = effects.setOffInTime(
    all(b.rig, 'device').flatMap((device) =>
      device.actuators.flatMap((a) => ('power' in a.by ? [[device, a] as const] : [])),
    ),
  );
  const touched = [...new Set(acts.flatMap((act) => [act.variable, ...(act.when ?? []).map((c) => c.variable)]))];
  const controls = touched.filter((v): v is Ref => domains.of.has(v as Ref));
  if (controls.length === 0) return [];
  const own = [...new Set(controls.map((v) => groupOf(v, initial, groups)))];
  if (own.reduce((n, g) => n * g.rows.length, 1) > MOST_ROWS) return controls;
  const variables = own.flatMap((g) => g.variables);
  const rows = own.reduce<string[][]>(
    (before, g) => before.flatMap((row) => g.rows.map((more) => [...row, ...more])),
    [[]],
  );
  const hidden = Object.fromEntries(touched.filter((v) => !domains.of.has(v as Ref)).map((v) => [v, '']));
  const after = rows.map((row) => {
    const state = afterEvent(
      { id: 'wake', acts },
      { ...hidden, ...Object.fromEntries(variables.map((v, i) => [v, theItem(row, i)])) },
    );
    return variables.map((v) => surely(state[v]));
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
    return value === undefined ? theEntry(initial, f.control) : [domains.named(f.control, value)];
  };
  if (!initial.has(f.leader)) {
    initial.set(f.control, valuesFor(String(domains.constant(f.leader))));
    return;
  }
  const group = groupOf(f.leader, initial, groups);
  const at = group.variables.indexOf(f.leader);
  group.rows = group.rows.flatMap((row) => valuesFor(theItem(row, at)).map((v) => [...row, v]));
  group.variables.push(f.control);
};

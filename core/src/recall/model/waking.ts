import type { Control, Device, Memory } from '../../rig/device.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import type { Value } from '../../rig/value.js';
import type { Bearings } from '../actuate/bearings.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import type { Effects } from './effects.js';
import { bankOf } from './memos.js';
import { askedIn, MOST_WAKINGS } from './asked.js';
import { around, holdsOf, type Shelf } from './shelf.js';
import { type Condition, type SystemAct } from '../../prover/system.js';
import { loaderOf, followersOf, contentsOf } from './found-on-waking.js';
import { theEntry, theItem } from '../../known/the.js';
import { theControl } from '../../rig/box.js';

/**
 * The ways in which a box may wake: every value of what it leaves open. What nothing asks about need not be told apart
 * from the rest, so those go through their values side by side.
 */
export const branchesOf = (
  b: Bearings,
  domains: Domains,
  effects: Effects,
  device: Device,
): readonly (readonly SystemAct[])[] => {
  const open = device.controls.filter((c) => c.powerUp === 'unknown' && domains.of.has(ref(device.id, c.id)));
  const ways = open.map((c) =>
    theEntry(domains.of, ref(device.id, c.id))
      .filter((v) => v !== UNKNOWN)
      .map((v) => effects.set(device, ref(device.id, c.id), v, [])),
  );
  const isAsked = (c: Control) => askedIn(b, device).has(c.id);
  for (const { control, when } of unwrittenOnWaking(b, domains, device)) {
    open.push(control);
    ways.push(
      effects
        .knownValues(ref(device.id, control.id))
        .map((v) => effects.set(device, ref(device.id, control.id), v, when)),
    );
  }
  const asked = ways.filter((_, i) => isAsked(theItem(open, i)));
  const aside = ways.filter((_, i) => !isAsked(theItem(open, i)));
  const all = ways.reduce((n, w) => n * w.length, 1) <= MOST_WAKINGS;
  const apart = all ? ways : asked;
  if (apart.reduce((n, w) => n * w.length, 1) > MOST_WAKINGS)
    return [open.flatMap((c) => effects.set(device, ref(device.id, c.id), UNKNOWN, []))];
  const told = apart.reduce<SystemAct[][]>(
    (before, way) => before.flatMap((acts) => way.map((one) => [...acts, ...one])),
    [[]],
  );
  const beside = all ? [] : aside;
  const count = Math.max(told.length, ...beside.map((w) => w.length));
  return Array.from({ length: count }, (_, i) => [
    ...theItem(told, i % told.length),
    ...beside.flatMap((w) => theItem(w, i % w.length)),
  ]);
};

/**
 * Controls that other things rest on, with the conditions under which the box wakes in a program that nobody named: it
 * may hold anything there.
 */
const unwrittenOnWaking = (
  b: Bearings,
  domains: Domains,
  device: Device,
): readonly { readonly control: Control; readonly when: readonly Condition[] }[] =>
  device.controls.flatMap((control) => {
    const memory = loaderOf(device, control.id);
    const loaded = memory && ref(device.id, memory.control);
    if (!loaded || !domains.of.has(ref(device.id, control.id)) || !askedIn(b, device).has(control.id)) return [];
    const unnamed = (domains.of.get(loaded) ?? [String(domains.constant(loaded))]).filter(
      (v) => v === UNKNOWN || isOther(v),
    );
    return unnamed.length ? [{ control, when: domains.of.has(loaded) ? [{ variable: loaded, in: unnamed }] : [] }] : [];
  });

/** One way in which a box may wake. */
interface Waking {
  readonly acts: readonly SystemAct[];
  /** What it leaves open comes up so, by the system's names. */
  readonly wakes: Readonly<Record<Ref, string>>;
}

/** What happens when one box loses its supply and wakes again, once for each way in which it may wake. */
export const powerCycle = (
  b: Bearings,
  domains: Domains,
  shelf: Shelf,
  effects: Effects,
  device: Device,
): readonly Waking[] => {
  const fixed: SystemAct[] = [];
  for (const control of device.controls) {
    const r = ref(device.id, control.id);
    if (typeof control.powerUp === 'object' && domains.of.has(r))
      fixed.push(...effects.set(device, r, control.powerUp.at, []));
  }
  const loads = device.memories.flatMap((memory) => wakingLoads(b, domains, shelf, effects, device, memory));
  const rereads = followersOf(b)
    .filter((f) => f.control.startsWith(`${device.id}.`) && domains.of.has(f.control))
    .flatMap((f): readonly SystemAct[] => {
      const domain = domains.of.get(f.leader);
      const act = (value: Value | undefined, closed: boolean): readonly SystemAct[] => {
        if (value === undefined) return [];
        const is: SystemAct = { variable: f.control, set: domains.named(f.control, value) };
        if (!domain) return f.closedIn.includes(String(domains.constant(f.leader))) === closed ? [is] : [];
        return effects.guarded(
          [
            {
              variable: f.leader,
              in: domain.filter((v) => v !== UNKNOWN && f.closedIn.includes(v) === closed),
              ...(domain.includes(UNKNOWN) ? { open: [UNKNOWN] } : {}),
            },
          ],
          [is],
        );
      };
      return [...act(f.closed, true), ...act(f.open, false)];
    });
  const wakes = effects.setOffInTime(device.actuators.flatMap((a) => ('power' in a.by ? [[device, a] as const] : [])));
  const { coarse, fine } = domains.banks(device);
  const banks: SystemAct[] = [
    ...(coarse.length > 1 ? [{ variable: bankOf(device.id).coarse, set: '0' }] : []),
    ...(fine.length > 1 ? [{ variable: bankOf(device.id).fine, set: '0' }] : []),
  ];
  const own = (act: SystemAct) =>
    act.variable.startsWith(`${device.id}.`) && 'set' in act ? [[act.variable, act.set] as const] : [];
  return branchesOf(b, domains, effects, device)
    .map((branch): Waking => ({
      acts: [...banks, ...fixed, ...branch, ...loads, ...rereads, ...wakes],
      wakes: Object.fromEntries(branch.flatMap(own)),
    }))
    .filter(({ acts }) => acts.length > 0);
};

/** What a box that wakes in a program of a memory finds in it. */
const wakingLoads = (
  b: Bearings,
  domains: Domains,
  shelf: Shelf,
  effects: Effects,
  device: Device,
  memory: Memory,
): readonly SystemAct[] => {
  const loaded = ref(device.id, memory.control);
  const outer = around(device, memory);
  const outerLoaded = outer && ref(device.id, outer.control);
  const names = (r: Ref, memoryControl: string): readonly string[] => {
    const woken = theControl(device, memoryControl).powerUp;
    if (!domains.of.has(r)) return [String(domains.constant(r))];
    return typeof woken === 'object' ? [domains.named(r, woken.at)] : theEntry(domains.of, r);
  };
  const isOwn = (r: Ref): boolean => domains.of.has(r) && loaderOf(device, r.slice(device.id.length + 1)) === memory;
  const ofs = outerLoaded ? names(outerLoaded, outer.control) : [undefined];
  const programs = names(loaded, memory.control);
  const found = ofs.map((of) => ({ of, contents: programs.map((p) => contentsOf(shelf, device, memory, p, of)) }));
  const isLoadedOpen = domains.of.has(loaded);
  const isOuterOpen = outerLoaded !== undefined && domains.of.has(outerLoaded);
  const asks = askedIn(b, device);
  return memory.stores
    .map((s) => ref(device.id, s))
    .filter(isOwn)
    .flatMap((r) => {
      const name = r.slice(device.id.length + 1);
      return found.flatMap(({ of, contents }) =>
        [...programsByValue(domains, r, programs, contents)].flatMap(([value, those]) => {
          const outside: readonly Condition[] =
            isOuterOpen && of !== undefined ? [{ variable: outerLoaded, in: [of] }] : [];
          if (value !== UNKNOWN || !asks.has(name))
            return effects.set(
              device,
              r,
              value,
              isLoadedOpen ? [{ variable: loaded, in: those }, ...outside] : outside,
            );
          return those.flatMap((p) => {
            const number = numbered(p);
            if (number === undefined) return [];
            const given = isLoadedOpen ? [{ variable: loaded, in: [p] }, ...outside] : outside;
            const holds = holdsOf({ device: device.id, memory: memory.id, number, of: numbered(of), control: name });
            return effects
              .knownValues(r)
              .flatMap((v) => effects.set(device, r, v, [...given, { variable: holds, in: [v] }]));
          });
        }),
      );
    });
};

/** The number of a program by its name in the domain; undefined where nobody names one. */
const numbered = (name: string | undefined): number | undefined =>
  name === undefined || name === UNKNOWN || isOther(name) ? undefined : Number(name);

/** Which programs leave which value in a control, by the system's names. */
const programsByValue = (
  domains: Domains,
  control: Ref,
  programs: readonly string[],
  contents: readonly (Readonly<Record<string, Value>> | undefined)[],
): ReadonlyMap<string, readonly string[]> => {
  const name = splitRef(control).name;
  const alike = new Map<Value | undefined, string[]>();
  for (let i = 0; i < programs.length; i += 1) {
    const value = contents[i]?.[name];
    const those = alike.get(value);
    if (those) those.push(theItem(programs, i));
    else alike.set(value, [theItem(programs, i)]);
  }
  const byName = new Map<string, string[]>();
  for (const [value, those] of alike)
    keptIn(byName, value === undefined ? UNKNOWN : domains.named(control, value), () => []).push(...those);
  return byName;
};

import type { Act, Message } from '../../rig/act.js';
import { hasBanks, type Control, type Device, type Memory } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import { NOT_KNOWN, type Program } from '../../rig/program.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import { clockActuators } from '../../rig/midi-manners.js';
import type { ControlFact, Value } from '../../rig/value.js';
import type { Bearings } from '../actuate/bearings.js';
import type { Compilation } from '../actuate/compile.js';
import { wakesAnyhow } from './asked.js';
import { DomainMemory } from './domain-memory.js';
import { namedBySound, namedByProgram, namedByNumber, namedByDevice, EDGE, actsIn } from './named-by.js';
import { openThrough, movedSettings, BANK } from './open-through.js';
import { theItem } from '../../known/the.js';

/**
 * Every value that nobody names: one value of the domain stands for them all, or one for each stretch between the
 * edges that conditions ask about.
 */
export const OTHER = 'another value';
export const isOther = (value: string): boolean => value.startsWith(OTHER);
/** What a program holds whose contents are not known. It is never the wanted one. */
export const UNKNOWN = NOT_KNOWN;

/**
 * Finite domains for the controls that can change: every value named by a want, program, act or condition, and one for
 * all others.
 */
export interface Domains {
  readonly of: ReadonlyMap<Ref, readonly string[]>;
  /** The value's name within the domain. */
  readonly named: (control: Ref, value: Value) => string;
  /** Whether a condition holds of a value by its name: surely, surely not, or nobody knows. */
  readonly allowed: (fact: ControlFact, name: string) => Allowed;
  /** The banks that may be selected at a box: numbers by which control changes 0 and 32 may have told it. */
  readonly banks: (device: Device) => Banks;
  /** Nobody may know which bank is selected there. */
  readonly isBankOpen: (device: Device) => boolean;
  /** The value of a control that is no variable: taken for granted, set for the hook-up, or left alone. */
  readonly constant: (control: Ref) => Value | undefined;
}

export type Allowed = 'yes' | 'no' | 'open';

/**
 * What may stand selected at a box, apart for the coarse and the fine byte; always 0 at a box with a single bank.
 * Source: MIDI 1.0 Detailed Specification, "Bank Select".
 */
export interface Banks {
  readonly coarse: readonly number[];
  readonly fine: readonly number[];
}

export const ONE_BANK: Banks = { coarse: [0], fine: [0] };

/** The name of whatever nobody names in a stretch of amounts. */
const otherIn = (from: number, to: number): string => `${OTHER} from ${from} to ${to}`;
/** Between which amounts an unnamed value lies; undefined where nothing tells them apart. */
export const stretchOf = (name: string): readonly [number, number] | undefined => {
  const found = /^another value from (\S+) to (\S+)$/.exec(name);
  return found ? [Number(found[1]), Number(found[2])] : undefined;
};

const allowedOf = (fact: ControlFact, name: string): Allowed => {
  if (name === UNKNOWN) return 'open';
  if ('in' in fact) return fact.in.some((x) => String(x) === name) ? 'yes' : 'no';
  const stretch = stretchOf(name);
  if (stretch)
    return stretch[0] >= fact.from && stretch[1] <= fact.to
      ? 'yes'
      : stretch[1] < fact.from || stretch[0] > fact.to
        ? 'no'
        : 'open';
  if (name === OTHER) return 'open';
  return Number(name) >= fact.from && Number(name) <= fact.to ? 'yes' : 'no';
};

export const SMALL = 16;

export const domainsOf = (c: Compilation, programs: readonly Program[], memory = new DomainMemory()): Domains => {
  const { rig, grounds } = c.bearings;
  memory.on([rig.parts.device, grounds, ...[...c.leftAlone].flat()]);
  const marks: true[] = [];
  const mark = (numbers: readonly number[]) => {
    for (const n of numbers) marks[n] = true;
  };
  const banks = banksOf(rig, programs);
  for (const compiled of c.sounds.values()) mark(memory.of(compiled, (note) => namedBySound(compiled, note)));
  for (const program of programs) mark(memory.of(program, (note) => namedByProgram(rig, program, note)));
  for (const number of numbersTold(rig, programs, banks))
    mark(memory.of(memory.standFor(number), (note) => namedByNumber(rig, number, note)));
  for (const device of all(rig, 'device')) mark(memory.of(device, (note) => namedByDevice(device, note)));
  for (const bank of [...banks.coarse.map((n) => -1 - n), ...banks.fine.map((n) => -200 - n)])
    mark(memory.of(memory.standFor(bank), (note) => note('device:none.bank', bank)));
  const open = openStores(c.bearings, programs);
  for (const control of open) mark(memory.of(memory.standForOpen(control), (note) => note(control, UNKNOWN)));
  return memory.same(marks, (pairs) => {
    const named = new Map<Ref, Set<string>>();
    const edges = new Map<Ref, Set<string>>();
    const unknown = new Set<Ref>();
    for (const [control, value] of pairs) {
      if (value === UNKNOWN) unknown.add(control);
      else if (value.startsWith(EDGE)) keptIn(edges, control, () => new Set<string>()).add(value.slice(EDGE.length));
      else keptIn(named, control, () => new Set<string>()).add(value);
    }
    const spread = openThrough(rig, unknown);
    const moved = movedSettings(
      rig,
      c.bearings.hookup.assumes.map((a) => a.control),
    );
    const of = new Map<Ref, readonly string[]>();
    for (const device of all(rig, 'device')) {
      for (const control of device.controls) {
        const r = ref(device.id, control.id);
        if ((!grounds.given.has(r) || moved.has(r)) && !c.leftAlone.has(r))
          of.set(r, domainOf(control, named.get(r) ?? new Set(), spread.has(r), edges.get(r)));
      }
    }
    return {
      of,
      allowed: allowedOf,
      isBankOpen: (device) => spread.has(ref(device.id, BANK)),
      banks: (device) => (hasBanks(device) ? banks : ONE_BANK),
      constant: (control) => c.leftAlone.get(control) ?? grounds.resting.get(control),
      named: namer(of),
    };
  });
};

/** What a value is called in the domain of its control: itself, the stretch that it lies in, or one of all others. */
const namer = (of: Domains['of']): Domains['named'] => {
  const names = new Map([...of].map(([control, domain]) => [control, new Set(domain)]));
  const stretched = new Map(
    [...of].flatMap(([control, domain]) => {
      const found = domain.flatMap((name) => {
        const stretch = stretchOf(name);
        return stretch ? [[name, stretch] as const] : [];
      });
      return found.length ? [[control, found] as const] : [];
    }),
  );
  return (control, value) => {
    if (names.get(control)?.has(String(value))) return String(value);
    const amount = Number(value);
    return stretched.get(control)?.find(([, [from, to]]) => amount >= from && amount <= to)?.[0] ?? OTHER;
  };
};

/** Every bank that some message selects. */
const banksOf = (rig: Rig, programs: readonly Program[]): Banks => {
  const [coarse, fine] = [new Set([0]), new Set([0])];
  const note = (selected: readonly Banks[]): void => {
    for (const one of selected) {
      for (const n of one.coarse) coarse.add(n);
      for (const n of one.fine) fine.add(n);
    }
  };
  for (const program of programs) note(banksIn(program));
  for (const device of all(rig, 'device')) note(banksInBox(device));
  return { coarse: [...coarse].sort((a, b) => a - b), fine: [...fine].sort((a, b) => a - b) };
};

const NO_BANKS: readonly Banks[] = [];
const bankIn = (message: Message): Banks | undefined => {
  if ('bank' in message && message.bank !== undefined)
    return { coarse: [message.bank >> 7], fine: [message.bank & 0x7f] };
  if (!('cc' in message)) return undefined;
  return message.cc === 0
    ? { coarse: [message.value], fine: [] }
    : message.cc === 32
      ? { coarse: [], fine: [message.value] }
      : undefined;
};
const banksSelected = (messages: readonly Message[]): readonly Banks[] => {
  let selected = NO_BANKS;
  for (const message of messages) {
    const bank = bankIn(message);
    if (bank) selected = [...selected, bank];
  }
  return selected;
};
const banksIn = once((program: Program) => banksSelected(messagesOf(program)));
const banksInBox = once((device: Device) => banksSelected(messagesOfBox(device)));

/** Every number that a program change can mean, in whatever bank stands selected. */
const numbersTold = (rig: Rig, programs: readonly Program[], banks: Banks): ReadonlySet<number> => {
  const told = new Set<number>();
  for (const program of programs) for (const number of numbersSent(program)) told.add(number);
  for (const device of all(rig, 'device'))
    for (const message of messagesOfBox(device)) for (const number of numberIn(message)) told.add(number);
  const inBanks = new Set<number>();
  for (const number of told)
    for (const coarse of banks.coarse)
      for (const fine of banks.fine) inBanks.add((number & 0x7f) + 128 * ((coarse << 7) | fine));
  return inBanks;
};

/** What a memory stores and some number of it may leave open: nobody wrote it down there. */
const openStores = (b: Bearings, programs: readonly Program[]): readonly Ref[] => {
  const byMemory = new Map<string, Program[]>();
  for (const program of programs) keptIn(byMemory, `${program.device} ${program.memory}`, () => []).push(program);
  const anyhow = all(b.rig, 'device').flatMap((device) => wakesAnyhow(b, device));
  return [
    ...anyhow,
    ...lostBeats(b),
    ...all(b.rig, 'device').flatMap((device) =>
      device.memories.flatMap((m) => {
        const written = byMemory.get(`${device.id} ${m.id}`) ?? [];
        const isFull = written.length >= m.size;
        return isFull ? gapsInSome(written, m).map((s) => ref(device.id, s)) : m.stores.map((s) => ref(device.id, s));
      }),
    ),
  ];
};

/** Tempos of boxes that a clock can come to by two ways. */
const lostBeats = once(({ rig, control }: Bearings): readonly Ref[] =>
  [...control.midi.values()].flatMap((arrivals) => {
    const often = arrivals.map((a) => a.device).filter((id, i, ids) => ids.indexOf(id) < i);
    return often.flatMap((id) =>
      clockActuators(thePart(rig, id)).flatMap((a) =>
        a.acts.flatMap((act) => ('take' in act ? [ref(id, act.control)] : [])),
      ),
    );
  }),
);

/** What a program does not say of all that its memory stores. */
const gapsIn = once(({ contents }: Program, { stores }: Memory): readonly string[] =>
  stores.filter((s) => contents === 'unplanned' || contents[s] === undefined),
);

/** What some program leaves open, in the order of the memory. */
const gapsInSome = (programs: readonly Program[], memory: Memory): readonly string[] => {
  const gaps = new Set<string>();
  for (const program of programs) {
    if (gaps.size === memory.stores.length) break;
    for (const gap of gapsIn(program, memory)) gaps.add(gap);
  }
  return memory.stores.filter((s) => gaps.has(s));
};

const messagesIn = (acts: readonly Act[]): readonly Message[] => {
  const messages: Message[] = [];
  for (const act of acts) if ('send' in act) messages.push(act.send);
  return messages;
};
const messagesOf = once((program: Program): readonly Message[] => messagesIn(actsIn(program)));
/** What a box sends by itself when something sets it off. */
export const messagesOfBox = once((device: Device): readonly Message[] =>
  device.actuators.flatMap((a) => messagesIn(a.acts)),
);

const numberIn = (message: Message): readonly number[] =>
  'pc' in message ? [message.pc + 128 * (message.bank ?? 0)] : [];
const numbersSent = once((program: Program): readonly number[] => [...new Set(messagesOf(program).flatMap(numberIn))]);

const domainOf = (
  control: Control,
  named: ReadonlySet<string>,
  unknown: boolean,
  edges?: ReadonlySet<string>,
): readonly string[] => {
  const { domain, powerUp } = control;
  const values = new Set(named);
  if (typeof powerUp === 'object') values.add(String(powerUp.at));
  if ('values' in domain && (domain.values.length <= SMALL || edges))
    domain.values.forEach((v) => values.add(String(v)));
  const complete =
    'values' in domain
      ? domain.values.every((v) => values.has(String(v)))
      : 'min' in domain && stretches(domain, new Set(), values).length === 0;
  const others = complete ? [] : 'min' in domain && edges ? stretches(domain, edges, values) : [OTHER];
  return [...[...values].sort(compareValues), ...others, ...(unknown ? [UNKNOWN] : [])];
};

/** Unnamed amounts, those apart that an edge lies between. */
const stretches = (
  { min, max, step = 1 }: { readonly min: number; readonly max: number; readonly step?: number },
  edges: ReadonlySet<string>,
  named: ReadonlySet<string>,
): readonly string[] => {
  const tidy = (x: number) => Number(x.toFixed(6));
  const begins = [...edges]
    .map((e) => (e.startsWith('above ') ? tidy(Number(e.slice('above '.length)) + step) : Number(e)))
    .filter((x) => x > min && x <= max);
  const starts = [...new Set([min, ...begins])].sort((a, b) => a - b);
  return starts.flatMap((from, i) => {
    const to = i + 1 < starts.length ? tidy(theItem(starts, i + 1) - step) : max;
    const namedHere = [...named].filter((v) => Number(v) >= from && Number(v) <= to).length;
    return namedHere >= Math.round((to - from) / step) + 1 ? [] : [otherIn(from, to)];
  });
};

const compareValues = (a: string, b: string): number => {
  const [x, y] = [Number(a), Number(b)];
  return Number.isNaN(x) || Number.isNaN(y) ? (a < b ? -1 : a > b ? 1 : 0) : x - y;
};

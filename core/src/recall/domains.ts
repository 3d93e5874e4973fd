import type { Act, Message } from '../rig/act.js';
import { hasBanks, relaysOf, type Control, type Device, type Memory } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { keptIn, once } from '../rig/kept.js';
import { NOT_KNOWN, type Program } from '../rig/program.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import { clockActuators } from '../rig/midi-manners.js';
import type { ControlFact, Value, When } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import { wakesAnyhow } from './asked.js';
import type { Compiled } from './compiled.js';

/** Every value that nobody names: one value of the domain stands for them all, or one for each stretch between the edges that conditions ask about. */
export const OTHER = 'another value';
export const isOther = (value: string): boolean => value.startsWith(OTHER);
/** What a program holds whose contents are not known. It is never the wanted one. */
export const UNKNOWN = NOT_KNOWN;

/** Finite domains for the controls that can change: every value named by a want, program, act or condition, and one for all others. */
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

/** What may stand selected at a box, apart for the coarse and the fine byte; always 0 at a box with a single bank. Source: MIDI 1.0 Detailed Specification, "Bank Select". */
export interface Banks {
  readonly coarse: readonly number[];
  readonly fine: readonly number[];
}

const ONE_BANK: Banks = { coarse: [0], fine: [0] };

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
  if (stretch) return stretch[0] >= fact.from && stretch[1] <= fact.to ? 'yes' : stretch[1] < fact.from || stretch[0] > fact.to ? 'no' : 'open';
  if (name === OTHER) return 'open';
  return Number(name) >= fact.from && Number(name) <= fact.to ? 'yes' : 'no';
};

const SMALL = 16;

/** Keeps what each part names from one edit to the next, and the domains as long as all of it together stays the same. */
export class DomainMemory {
  private readonly numbers = new Map<Ref, Map<Value, number>>();
  private readonly pairs: (readonly [control: Ref, value: string])[] = [];
  private readonly sent = new Map<number, object>();
  private readonly open = new Map<Ref, object>();
  private mentions = new WeakMap<object, readonly number[]>();
  private ground: readonly unknown[] = [];
  private marks: readonly true[] = [];
  private domains: Domains | undefined;

  /** A part that stands for a number that is sent. */
  standFor(number: number): object {
    return keptIn(this.sent, number, () => ({}));
  }

  /** A part that stands for a control that may be left open. */
  standForOpen(control: Ref): object {
    return keptIn(this.open, control, () => ({}));
  }

  /** What one part names, as numbers of pairs of a control and a value. */
  of(part: object, say: (note: (control: Ref, value: Value) => void) => void): readonly number[] {
    let known = this.mentions.get(part);
    if (!known) {
      const found = new Set<number>();
      say((control, value) => found.add(this.numberOf(control, value)));
      this.mentions.set(part, known = [...found]);
    }
    return known;
  }

  /** The same for a number and the text of it. */
  private numberOf(control: Ref, value: Value): number {
    const values = keptIn(this.numbers, control, () => new Map<Value, number>());
    let number = values.get(value);
    if (number === undefined) {
      const text = String(value);
      number = values.get(text) ?? this.pairs.push([control, text]) - 1;
      values.set(text, number).set(value, number);
    }
    return number;
  }

  /** What parts name rests on the boxes alone. */
  on(ground: readonly unknown[]): void {
    if (ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i])) return;
    this.mentions = new WeakMap();
    this.domains = undefined;
    this.ground = ground;
  }

  same(marks: readonly true[], make: (pairs: readonly (readonly [Ref, string])[]) => Domains): Domains {
    const isSame = this.domains && marks.length === this.marks.length && marks.every((_, i) => this.marks[i]) && this.marks.every((_, i) => marks[i]);
    if (!isSame) {
      this.domains = make(this.pairs.filter((_, i) => marks[i]));
      this.marks = marks;
    }
    return this.domains!;
  }
}

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
  for (const number of numbersTold(rig, programs, banks)) mark(memory.of(memory.standFor(number), (note) => namedByNumber(rig, number, note)));
  for (const device of all(rig, 'device')) mark(memory.of(device, (note) => namedByDevice(device, note)));
  for (const bank of [...banks.coarse.map((n) => -1 - n), ...banks.fine.map((n) => -200 - n)]) mark(memory.of(memory.standFor(bank), (note) => note('device:none.bank', bank)));
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
    const moved = movedSettings(rig, c.bearings.hookup.assumes.map((a) => a.control));
    const of = new Map<Ref, readonly string[]>();
    for (const device of all(rig, 'device')) {
      for (const control of device.controls) {
        const r = ref(device.id, control.id);
        if ((!grounds.given.has(r) || moved.has(r)) && !c.leftAlone.has(r)) of.set(r, domainOf(control, named.get(r) ?? new Set(), spread.has(r), edges.get(r)));
      }
    }
    const names = new Map([...of].map(([control, domain]) => [control, new Set(domain)]));
    const stretches = new Map([...of].flatMap(([control, domain]) => {
      const found = domain.flatMap((name) => { const stretch = stretchOf(name); return stretch ? [[name, stretch] as const] : []; });
      return found.length ? [[control, found] as const] : [];
    }));
    return {
      of, allowed: allowedOf, isBankOpen: (device) => spread.has(ref(device.id, BANK)), banks: (device) => (hasBanks(device) ? banks : ONE_BANK),
      constant: (control) => c.leftAlone.get(control) ?? grounds.resting.get(control),
      named: (control, value) => {
        if (names.get(control)?.has(String(value))) return String(value);
        const amount = Number(value);
        return stretches.get(control)?.find(([, [from, to]]) => amount >= from && amount <= to)?.[0] ?? OTHER;
      },
    };
  });
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
  if ('bank' in message && message.bank !== undefined) return { coarse: [message.bank >> 7], fine: [message.bank & 0x7f] };
  if (!('cc' in message)) return undefined;
  return message.cc === 0 ? { coarse: [message.value], fine: [] } : message.cc === 32 ? { coarse: [], fine: [message.value] } : undefined;
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
  for (const device of all(rig, 'device')) for (const message of messagesOfBox(device)) for (const number of numberIn(message)) told.add(number);
  const inBanks = new Set<number>();
  for (const number of told) for (const coarse of banks.coarse) for (const fine of banks.fine) inBanks.add((number & 0x7f) + 128 * ((coarse << 7) | fine));
  return inBanks;
};

/** What a memory stores and some number of it may leave open: nobody wrote it down there. */
const openStores = (b: Bearings, programs: readonly Program[]): readonly Ref[] => {
  const byMemory = new Map<string, Program[]>();
  for (const program of programs) keptIn(byMemory, `${program.device} ${program.memory}`, () => []).push(program);
  const anyhow = all(b.rig, 'device').flatMap((device) => wakesAnyhow(b, device));
  return [...anyhow, ...lostBeats(b), ...all(b.rig, 'device').flatMap((device) => device.memories.flatMap((m) => {
    const written = byMemory.get(`${device.id} ${m.id}`) ?? [];
    const isFull = written.length >= m.size;
    const gaps = new Set(isFull ? written.flatMap((program) => gapsIn(program, m)) : m.stores);
    return m.stores.filter((s) => gaps.has(s)).map((s) => ref(device.id, s));
  }))];
};

/** Tempos of boxes that a clock can come to by two ways. */
const lostBeats = once(({ rig, control }: Bearings): readonly Ref[] => [...control.midi.values()].flatMap((arrivals) => {
  const often = arrivals.map((a) => a.device).filter((id, i, ids) => ids.indexOf(id) < i);
  return often.flatMap((id) => clockActuators(partOf(rig, id)!).flatMap((a) => a.acts.flatMap((act) => ('take' in act ? [ref(id, act.control)] : []))));
}));

/** What a program does not say of all that its memory stores. */
const gapsIn = once(({ contents }: Program, { stores }: Memory): readonly string[] => stores.filter((s) => contents === 'unplanned' || contents[s] === undefined));

/** What guards a control whose value may be not known leaves open in its turn. */
const openThrough = (rig: Rig, unknown: ReadonlySet<Ref>): ReadonlySet<Ref> => {
  const open = new Set(unknown);
  const rules = [...all(rig, 'device').flatMap(rulesOf), ...all(rig, 'program').flatMap((p) => rulesInProgram(p, partOf(rig, p.device)!.memories.find((m) => m.id === p.memory)!.control))];
  for (let before = -1; before !== open.size; ) {
    before = open.size;
    for (const { reads, writes, sends } of rules) {
      if (!reads.some((r) => open.has(r))) continue;
      for (const r of writes) open.add(r);
      if (sends) for (const rule of rules) if (rule.isTold) for (const r of rule.writes) open.add(r);
    }
  }
  return open;
};

/** Stands for the bank that is selected at a box. */
const BANK = '#bank';

/** A list asks the controls of its own box. */
const rulesInProgram = once((program: Program, loaded: string): readonly Rule[] => {
  const reads = actsIn(program).flatMap((act) => (act.when ?? []).flatMap((f) => ('control' in f ? [ref(program.device, f.control)] : [])));
  const isAsked = reads.length > 0 || actsIn(program).some((act) => 'control' in act);
  return isAsked ? [{ reads: [...reads, ref(program.device, loaded)], writes: actsIn(program).flatMap((act) => ('control' in act ? [ref(program.device, act.control)] : [])), sends: true, isTold: false }] : [];
});

interface Rule {
  readonly reads: readonly Ref[];
  readonly writes: readonly Ref[];
  /** It tells other boxes something. */
  readonly sends: boolean;
  /** Other boxes can set it off. */
  readonly isTold: boolean;
}

/** What each actuator and relay of a box reads and writes. */
const rulesOf = once((device: Device): readonly Rule[] => {
  const here = (control: string) => ref(device.id, control);
  const read = (when: When | undefined): readonly Ref[] => (when ?? []).flatMap((f) => ('control' in f ? [here(f.control)] : []));
  const relays = relaysOf(device).filter((r) => r.closedWhen).map(({ closedWhen }): Rule => ({ reads: read(closedWhen), writes: [], sends: true, isTold: false }));
  const loads = device.memories.map((m): Rule => {
    const outer = device.memories.find((o) => o.id === m.inside);
    return { reads: [...(m.again === 'nothing' ? [here(m.control)] : []), ...(outer ? [here(outer.control)] : []), ...((m.assignable ?? []).length ? [here(m.control)] : [])], writes: [m.control, ...m.stores, ...(m.assignable ?? []).map((x) => x.latch)].map(here), sends: true, isTold: true };
  });
  const selects: readonly Rule[] = hasBanks(device) ? [{ reads: typeof device.midi?.channel === 'string' ? [here(device.midi.channel)] : [], writes: [here(BANK)], sends: false, isTold: true }] : [];
  return [...relays, ...loads, ...selects, ...device.actuators.map((a): Rule => {
    const isTold = 'midi' in a.by || 'contact' in a.by;
    const channel = isTold && typeof device.midi?.channel === 'string' ? [here(device.midi.channel)] : [];
    const banks = [...a.acts.flatMap((act) => ('load' in act && typeof act.slot === 'object' ? [here(act.slot.bank)] : [])), ...('midi' in a.by && a.by.midi === 'pc' && hasBanks(device) ? [here(BANK)] : [])];
    return {
      reads: [...read(a.when), ...a.acts.flatMap((act) => read(act.when)), ...channel, ...banks],
      writes: a.acts.flatMap((act): readonly Ref[] => {
        if ('control' in act) return [here(act.control)];
        const loads = 'load' in act ? device.memories.find((m) => m.id === act.load) : undefined;
        return loads ? [loads.control, ...loads.stores].map(here) : [];
      }),
      sends: a.acts.some((act) => 'send' in act || 'pulse' in act || 'load' in act || 'follow' in act), isTold,
    };
  })];
});

/** Settings, and what is in the player's hands, that something else than a hand can move and something asks about; the bank that a controller shows is not among them: each of its slots is called by itself. */
const movedSettings = (rig: Rig, assumed: readonly Ref[]): ReadonlySet<Ref> => {
  const moved = new Set(all(rig, 'device').flatMap((device) => {
    const shown = new Set(device.actuators.flatMap((a) => a.acts.flatMap((act) => ('load' in act && typeof act.slot === 'object' ? [act.slot.bank] : []))));
    const rules = rulesOf(device);
    const [read, written] = [new Set(rules.flatMap((r) => r.reads)), new Set([...rules.flatMap((r) => r.writes), ...device.memories.flatMap((m) => m.stores.map((s) => ref(device.id, s)))])];
    return device.controls.filter((control) => control.use !== 'sound' && !shown.has(control.id)).map((control) => ref(device.id, control.id)).filter((r) => read.has(r) && written.has(r));
  }));
  for (const control of assumed) moved.delete(control);
  return moved;
};

type Note = (control: Ref, value: Value) => void;

/** Says of a control that conditions tell apart what lies below an amount from what does not, or what lies above it. */
const EDGE = 'edge: ';

const noteWhen = (device: Id<'device'>, when: When | undefined, note: Note): void => when?.forEach((f) => {
  if ('in' in f) f.in.forEach((v) => note(ref(device, f.control), v));
  else if ('from' in f) {
    note(ref(device, f.control), `${EDGE}${f.from}`);
    note(ref(device, f.control), `${EDGE}above ${f.to}`);
  }
});

const noteActs = (device: Id<'device'>, acts: readonly Act[], note: Note): void => acts.forEach((act) => {
  noteWhen(device, act.when, note);
  if (!('control' in act)) return;
  const control = ref(device, act.control);
  if ('set' in act) note(control, act.set);
  else if ('toggle' in act) act.toggle.forEach((v) => note(control, v));
  else if ('step' in act) act.step.forEach((v) => note(control, v));
  else if ('map' in act) act.map.forEach(([, , v]) => note(control, v));
});

/** What a sound wants with a program is named by that. */
const namedBySound = ({ wants }: Compiled, note: Note): void => {
  for (const { control, value, why } of wants) if (why.by !== 'program') note(control, value);
};

/** A program names its number and what it holds. */
const namedByProgram = (rig: Rig, program: Program, note: Note): void => {
  const memory = partOf(rig, program.device)?.memories.find((m) => m.id === program.memory);
  if (!memory) return;
  note(ref(program.device, memory.control), program.number);
  if (program.contents === 'unplanned') memory.stores.forEach((s) => note(ref(program.device, s), UNKNOWN));
  else for (const [control, value] of Object.entries(program.contents)) note(ref(program.device, control), value);
  const acts = actsIn(program);
  noteActs(program.device, acts, note);
  for (const act of acts) {
    if (!('send' in act) || !('bpm' in act.send)) continue;
    for (const device of all(rig, 'device')) for (const a of clockActuators(device)) for (const take of a.acts) if ('take' in take) note(ref(device.id, take.control), act.send.bpm);
  }
};

/** A number that is sent must be known by name to whoever listens. */
const namedByNumber = (rig: Rig, number: number, note: Note): void => {
  for (const device of all(rig, 'device')) if (device.midi) for (const memory of device.memories) if (number < memory.size) note(ref(device.id, memory.control), number);
};

const namedByDevice = (device: Device, note: Note): void => {
  for (const actuator of device.actuators) {
    noteWhen(device.id, actuator.when, note);
    noteActs(device.id, actuator.acts, note);
    for (const act of actuator.acts) {
      const loads = 'load' in act && typeof act.slot === 'number' ? device.memories.find((m) => m.id === act.load) : undefined;
      if (loads && 'load' in act) note(ref(device.id, loads.control), act.slot as number);
    }
  }
  for (const memory of device.memories) if (memory.size <= SMALL) for (let n = 0; n < memory.size; n += 1) note(ref(device.id, memory.control), n);
  for (const relay of relaysOf(device)) noteWhen(device.id, relay.closedWhen, note);
  for (const when of whensIn(device)) noteWhen(device.id, when, note);
  const { midi } = device;
  if (typeof midi?.channel === 'string') for (let channel = 1; channel <= 16; channel += 1) note(ref(device.id, midi.channel), channel);
};

/** What the signal's way through a box asks of its amounts. */
const whensIn = once((device: Device): readonly When[] => {
  const found: When[] = [];
  const walk = (of: unknown): void => {
    if (Array.isArray(of) && of.some((x) => x && typeof x === 'object' && 'control' in x && 'from' in x)) found.push((of as When).filter((f) => 'from' in f));
    if (of && typeof of === 'object') Object.values(of).forEach(walk);
  };
  walk(device.chains);
  return found;
});

const actsIn = (program: Program): readonly Act[] => [...program.acts, ...program.assigns.flatMap((a) => [...a.on, ...a.off])];

const messagesIn = (acts: readonly Act[]): readonly Message[] => {
  const messages: Message[] = [];
  for (const act of acts) if ('send' in act) messages.push(act.send);
  return messages;
};
const messagesOf = once((program: Program): readonly Message[] => messagesIn(actsIn(program)));
/** What a box sends by itself when something sets it off. */
export const messagesOfBox = once((device: Device): readonly Message[] => device.actuators.flatMap((a) => messagesIn(a.acts)));

const numberIn = (message: Message): readonly number[] => ('pc' in message ? [message.pc + 128 * (message.bank ?? 0)] : []);
const numbersSent = once((program: Program): readonly number[] => [...new Set(messagesOf(program).flatMap(numberIn))]);

const domainOf = (control: Control, named: ReadonlySet<string>, unknown: boolean, edges?: ReadonlySet<string>): readonly string[] => {
  const { domain, powerUp } = control;
  const values = new Set(named);
  if (typeof powerUp === 'object') values.add(String(powerUp.at));
  if ('values' in domain && (domain.values.length <= SMALL || edges)) domain.values.forEach((v) => values.add(String(v)));
  const complete = 'values' in domain ? domain.values.every((v) => values.has(String(v))) : 'min' in domain && stretches(domain, new Set(), values).length === 0;
  const others = complete ? [] : 'min' in domain && edges ? stretches(domain, edges, values) : [OTHER];
  return [...[...values].sort(compareValues), ...others, ...(unknown ? [UNKNOWN] : [])];
};

/** Unnamed amounts, those apart that an edge lies between. */
const stretches = ({ min, max, step = 1 }: { readonly min: number; readonly max: number; readonly step?: number }, edges: ReadonlySet<string>, named: ReadonlySet<string>): readonly string[] => {
  const tidy = (x: number) => Number(x.toFixed(6));
  const begins = [...edges].map((e) => (e.startsWith('above ') ? tidy(Number(e.slice('above '.length)) + step) : Number(e))).filter((x) => x > min && x <= max);
  const starts = [...new Set([min, ...begins])].sort((a, b) => a - b);
  return starts.flatMap((from, i) => {
    const to = i + 1 < starts.length ? tidy(starts[i + 1]! - step) : max;
    const namedHere = [...named].filter((v) => Number(v) >= from && Number(v) <= to).length;
    return namedHere >= Math.round((to - from) / step) + 1 ? [] : [otherIn(from, to)];
  });
};

const compareValues = (a: string, b: string): number => {
  const [x, y] = [Number(a), Number(b)];
  return Number.isNaN(x) || Number.isNaN(y) ? (a < b ? -1 : a > b ? 1 : 0) : x - y;
};

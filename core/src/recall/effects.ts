import type { Act, BankPlace, Message } from '../rig/act.js';
import { hasBanks, relaysOf, type Actuator, type Device, type Memory } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { messageNumber, valueFrom } from '../rig/midi-manners.js';
import type { Program } from '../rig/program.js';
import { keptIn } from '../rig/kept.js';
import { partOf } from '../rig/rig.js';
import type { Value, When } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import { ALWAYS, came, guardedBy, guardedOnce, isOpen, MAYBE, noteWhether, THEN_DOMAIN, thenOf, type DomainOf, type Guard } from './guards.js';
import { allOf, type Loading } from './loading.js';
import { bankOf, EAR_DOMAIN, earOf, FRESH, SAME } from './memos.js';
import { listeners, movingChannel, type Listener } from './listeners.js';
import { OnTheWire, sharedOutputs, sharesWires } from './on-the-wire.js';
import { Plainness } from './plain.js';
import { around, holdsOf, programOn, type Shelf } from './shelf.js';
import { askedIn } from './asked.js';
import { slotTiming, type Missed } from './slot-timing.js';
import type { Condition, SystemAct } from './proof/system.js';

const DEEPEST = 8;

/** A control that goes from one value to another. */
type Move = readonly [from: string, to: string];

type Sending = Extract<Act, { send: Message }>;

/** What a load does before and after its list, with the conditions under which it takes place. */
interface Frame extends Omit<Loading, 'list'> {
  readonly when: readonly Guard[];
}

/** What a box hears of a list, under conditions on what was going on before. */
export interface Hearing {
  readonly when: readonly Condition[];
  readonly missed: ReadonlyMap<number, Missed>;
}

/** How a slot fares on an evening that is not as usual. */
export interface Evening {
  /** The place of a message that is lost on its wire. */
  readonly lost?: number;
  /** The ways in which this box may hear it; undefined when it hears it as usual. */
  readonly hearing?: (to: Device) => readonly Hearing[] | undefined;
  /** Only what stands in these places of the list counts; all that one box hears, or nothing of it. */
  readonly places?: readonly number[];
  /** What of the acts that a message or a place brings about counts. */
  readonly within?: (acts: readonly SystemAct[]) => readonly SystemAct[];
}

const AS_USUAL: Evening = {};
const AS_SAID = (acts: readonly SystemAct[]): readonly SystemAct[] => acts;

/** What else is to be noted when a box loads a program, under the conditions on which it does. */
export type NoteLoad = (device: Device, memory: Memory, when: readonly Guard[]) => readonly SystemAct[];

/** How deep one box set off another, and the wires that messages travel on in their own time; without wires each message is there at once. */
export interface How {
  readonly depth: number;
  readonly wires?: OnTheWire;
}
const AT_ONCE: readonly How[] = Array.from({ length: DEEPEST + 4 }, (_, depth) => ({ depth }));
const deeper = ({ depth, wires }: How): How => (wires ? { depth: depth + 1, wires } : AT_ONCE[depth + 1]!);

/** A program as it may be loaded, by what is loaded around it. */
interface Case {
  readonly when: readonly Guard[];
  readonly program: Program | undefined;
  /** The program around it; undefined where none is, or one that nobody names. */
  readonly of: number | undefined;
  /** It is not known which program is around it, so nothing is known of what it holds. */
  readonly isOpen?: true;
}

/**
 * Says in guarded acts on variables what follows when a box carries out its acts: on itself, over contacts and over MIDI (docs/behaviour.md).
 * What is said once is kept, so that all slots that send the same message share the very same acts.
 */
export class Effects {
  private readonly setsSaid: Map<Ref, Map<Value, readonly SystemAct[]>>[] = [];
  private readonly framesSaid = new Map<Ref, Map<number, Frame>>();
  private readonly anotherSaid = new Map<Ref, Map<string, readonly Guard[]>>();
  private readonly sentSaid: Map<Device, Map<Sending, readonly SystemAct[]>>[] = [];
  private readonly heardBySaid: Map<Ref, Map<Device, Map<number, readonly SystemAct[]>>>[] = [];
  private readonly heardSaid: Map<Device, Map<Sending, readonly (readonly [Device, readonly SystemAct[]])[]>>[] = [];
  private readonly shared = new Map<Device, ReadonlySet<string>>();
  private readonly plain: Plainness;

  constructor(readonly b: Bearings, private readonly domains: Domains, private readonly shelf: Shelf, private readonly noteLoad?: NoteLoad) {
    this.plain = new Plainness(b, domains, shelf);
  }

  isVariable(control: Ref): boolean {
    return this.domains.of.has(control);
  }

  /** Whether something else than what is passed on can come out of an output. */
  isShared(device: Device, jack: string): boolean {
    return keptIn(this.shared, device, () => sharedOutputs(device, this.shelf.values())).has(jack);
  }

  private readonly domainOf: DomainOf = (variable) => this.domains.of.get(variable as Ref) ?? (variable.startsWith('ear:') ? EAR_DOMAIN : THEN_DOMAIN);

  guarded(when: readonly Guard[], acts: readonly SystemAct[]): readonly SystemAct[] {
    return guardedBy(when, acts, this.domainOf);
  }

  private one(act: SystemAct, when: readonly Guard[]): readonly SystemAct[] {
    return this.guarded(when, [act]);
  }

  /** Conditions on variables; `undefined` when they cannot hold. */
  guards(device: Id<'device'>, when: When | undefined): readonly Guard[] | undefined {
    if (!when?.length) return ALWAYS;
    const guards: Guard[] = [];
    for (const fact of when) {
      if ('jack' in fact) {
        if (this.b.anatomy.wiring.plugged.has(ref(device, fact.jack)) !== fact.plugged) return undefined;
        continue;
      }
      const control = ref(device, fact.control);
      const domain = this.domains.of.get(control);
      if (!domain) {
        if (this.domains.allowed(fact, String(this.domains.constant(control))) !== 'yes') return undefined;
        continue;
      }
      const allows = domain.filter((v) => this.domains.allowed(fact, v) === 'yes');
      const open = domain.filter((v) => this.domains.allowed(fact, v) === 'open');
      if (allows.length + open.length === 0) return undefined;
      if (allows.length < domain.length) guards.push({ variable: control, in: allows, ...(open.length ? { open } : {}) });
    }
    return guards;
  }

  /** Everything that follows from some acts of a box, each message in its own time. */
  follow(device: Device, acts: readonly Act[], under: readonly Guard[], byte?: number): readonly SystemAct[] {
    if (this.isSaidAtOnce(device, acts)) return this.acts(device, acts, under, byte);
    const wires = new OnTheWire(this);
    return wires.after(() => {
      if (under.length === 0) return this.acts(device, acts, ALWAYS, byte, { depth: 0, wires });
      const then = wires.name(thenOf(`${device.id}`));
      return [...noteWhether(then, under), ...this.acts(device, acts, came(then, under), byte, { depth: 0, wires })];
    });
  }

  /** Whether what a slot sends may be told message by message: nobody who hears it tells anybody else anything. */
  isPlainSlot({ device, acts }: Program): boolean {
    return this.plain.isList(partOf(this.b.rig, device)!, acts);
  }

  /** Whether the messages of a slot have their wires to themselves, so that it is known when they arrive whatever else is sent. */
  hasWiresOfItsOwn({ device, acts }: Program): boolean {
    return acts.every((act) => !('send' in act) || !sharesWires(this, ref(device, act.at)));
  }

  /** Whether acts may be said one by one, in whatever way they are mixed with others. */
  isSaidAtOnce(device: Device, acts: readonly Act[]): boolean {
    return this.plain.isList(device, acts) && slotTiming(this.b, device.id, acts).every((t) => t.missed.length === 0);
  }

  /** Actuators that a foot, a pedal or a waking box sets off at the same time, with all that follows. */
  setOffInTime(those: readonly (readonly [Device, Actuator])[], byte?: number): readonly SystemAct[] {
    if (those.every(([device, { acts }]) => acts.every((act) => this.plain.is(device, act)))) return those.flatMap(([device, a]) => this.setOff(device, a, ALWAYS, byte));
    const wires = new OnTheWire(this);
    return wires.after(() => those.flatMap(([device, a]) => this.setOff(device, a, ALWAYS, byte, { depth: 0, wires })));
  }

  acts(device: Device, acts: readonly Act[], under: readonly Guard[], byte?: number, how = AT_ONCE[0]!): readonly SystemAct[] {
    if (how.depth > DEEPEST) return [];
    return acts.flatMap((act) => {
      const own = this.guards(device.id, act.when);
      return own ? this.act(device, act, [...under, ...own], byte, how) : [];
    });
  }

  /** An actuator that is set off: its conditions are read once, before its first act. */
  setOff(device: Device, { id, acts, when }: Actuator, under: readonly Guard[], byte?: number, how = AT_ONCE[0]!): readonly SystemAct[] {
    const own = this.guards(device.id, when);
    if (!own) return [];
    const guards = own.length ? [...under, ...own] : under;
    if (guards.length === 0 || !acts.some((act, i) => this.movesOneOf(device, act, guards, i === acts.length - 1))) return this.acts(device, acts, guards, byte, how);
    const then = how.wires?.name(thenOf(`${device.id}.${id}`)) ?? thenOf(`${device.id}.${id}`);
    return [...noteWhether(then, guards), ...this.acts(device, acts, came(then, guards), byte, how)];
  }

  /** Whether an act can move what its conditions read before all that hangs on them is done. */
  private movesOneOf(device: Device, act: Act, guards: readonly Guard[], isLast: boolean): boolean {
    if ('load' in act) {
      const memory = device.memories.find((m) => m.id === act.load);
      return !isLast || guards.some((g) => g.variable === ref(device.id, memory!.control) || memory!.stores.some((s) => g.variable === ref(device.id, s)));
    }
    if (isLast) return false;
    if (!('control' in act)) return true;
    const control = ref(device.id, act.control);
    return guards.some((g) => g.variable === control) || relaysOf(device).some((r) => r.closedWhen?.some((f) => 'control' in f && f.control === act.control));
  }

  private act(device: Device, act: Act, when: readonly Guard[], byte: number | undefined, how: How): readonly SystemAct[] {
    if ('control' in act) {
      const control = ref(device.id, act.control);
      if (!this.isVariable(control)) return [];
      if ('set' in act) return this.set(device, control, act.set, when, how);
      if ('toggle' in act) {
        const [a, b] = act.toggle.map((v) => this.domains.named(control, v)) as [string, string];
        return [...this.contacts(device, control, () => [[a, b], [b, a]], when, how), ...this.one({ variable: control, toggle: [a, b] }, when)];
      }
      if ('step' in act) {
        const step = act.step.map((v) => this.domains.named(control, v));
        const known = this.domains.of.get(control)!.filter((v) => v !== UNKNOWN);
        const moves = () => known.map((v): Move => [v, step[(step.indexOf(v) + 1) % step.length]!]);
        const isKnown = known.length < this.domains.of.get(control)!.length ? [...when, { variable: control, in: known }] : when;
        return [...this.contacts(device, control, moves, when, how), ...this.one({ variable: control, step }, isKnown)];
      }
      if ('take' in act && byte === undefined) {
        const other = this.domains.of.get(control)!.find(isOther);
        return other === undefined ? [] : this.one({ variable: control, set: other }, when);
      }
      const value = byte === undefined ? undefined : valueFrom(act, byte, device.controls.find((c) => c.id === act.control));
      return value === undefined ? [] : this.set(device, control, value, when, how);
    }
    if ('load' in act) {
      const memory = device.memories.find((m) => m.id === act.load)!;
      if (typeof act.slot === 'number') return this.load(device, memory, act.slot, when, how);
      if (act.slot === 'value') return byte === undefined || byte >= memory.size ? [] : this.load(device, memory, byte, when, how);
      return this.loadInBank(device, memory, act.slot, when, how);
    }
    if ('send' in act) return how.wires ? how.wires.send(device, act, when) : this.guarded(when, this.sent(device, act, how.depth));
    if ('pulse' in act) return this.pulse(device, act.pulse, when, how);
    return [];
  }

  /** The slot at this place of the bank that shows. */
  private loadInBank(device: Device, memory: Memory, { bank, banks, plus, size }: BankPlace, when: readonly Guard[], how: How): readonly SystemAct[] {
    const shown = ref(device.id, bank);
    const domain = this.domains.of.get(shown);
    return banks.flatMap((value, i) => {
      const number = i * size + plus;
      if (number >= memory.size) return [];
      if (!domain) return String(this.domains.constant(shown)) === String(value) ? this.load(device, memory, number, when, how) : [];
      const open = domain.filter((v) => v === UNKNOWN);
      return this.load(device, memory, number, [...when, { variable: shown, in: [this.domains.named(shown, value)], ...(open.length ? { open } : {}) }], how);
    });
  }

  set(device: Device, control: Ref, value: Value, when: readonly Guard[], how = AT_ONCE[0]!): readonly SystemAct[] {
    if (how.wires) return this.guarded(when, this.setting(device, control, value, how));
    const said = this.setsSaid[how.depth] ??= new Map<Ref, Map<Value, readonly SystemAct[]>>();
    let byValue = said.get(control);
    if (!byValue) said.set(control, byValue = new Map());
    let acts = byValue.get(value);
    if (!acts) byValue.set(value, acts = this.setting(device, control, value, how));
    return this.guarded(when, acts);
  }

  private setting(device: Device, control: Ref, value: Value, how: How): readonly SystemAct[] {
    const named = value === UNKNOWN ? UNKNOWN : this.domains.named(control, value);
    const act: SystemAct = { variable: control, set: named };
    const followed = this.contacts(device, control, () => this.domains.of.get(control)!.map((v): Move => [v, named]), ALWAYS, how);
    return followed.length ? [...followed, act] : [act];
  }

  /** Loading sets what the memory stores and only that, clears latches, then carries out the program's acts. */
  load(device: Device, memory: Memory, number: number, under: readonly Guard[], how = AT_ONCE[0]!): readonly SystemAct[] {
    return allOf(this.loading(device, memory, number, under, how));
  }

  /** Loading a number of which nobody wrote anything down, as if it held these values. */
  loadAsIf(device: Device, memory: Memory, number: number, holds: Readonly<Record<string, string>>): readonly SystemAct[] {
    const program: Program = { kind: 'program', id: 'program:unwritten', device: device.id, memory: memory.id, number, name: '', contents: holds, acts: [], assigns: [] };
    const { first, last } = this.frame(device, memory, number, [{ when: ALWAYS, program, of: undefined }], ALWAYS, AT_ONCE[0]!);
    return [...first, ...last];
  }

  /** The same with what each place of the list brings about. */
  loading(device: Device, memory: Memory, number: number, under: readonly Guard[], how = AT_ONCE[0]!, evening: Evening = AS_USUAL): Loading {
    if (how.depth > DEEPEST) return NOTHING;
    const cases = this.casesOf(device, memory, number);
    if (how.wires) return { ...NOTHING, first: this.loadingInTime(device, memory, number, cases, under, how) };
    if (evening === AS_USUAL && cases.some(({ program }) => program && !this.plain.isList(device, program.acts))) {
      const wires = new OnTheWire(this);
      return { ...NOTHING, first: wires.after(() => this.loadingInTime(device, memory, number, cases, under, { depth: 0, wires })) };
    }
    const { within = AS_SAID } = evening;
    if (under.some((g) => memory.stores.some((s) => g.variable === ref(device.id, s)))) {
      const then = thenOf(`${device.id}.${memory.id}`);
      const { first, list, last } = this.loading(device, memory, number, came(then, under), how, evening);
      return { first: [...within(noteWhether(then, under)), ...first], list, last };
    }
    const called = () => this.frame(device, memory, number, cases, under, how);
    const { when, first, last } = under.length || how.depth ? called() : keptIn(keptIn(this.framesSaid, ref(device.id, memory.id), () => new Map<number, Frame>()), number, called);
    const [only, ...others] = cases;
    const list = others.length === 0
      ? only?.program ? this.burst(device, only.program.acts, when, deeper(how), evening) : []
      : cases.flatMap((c) => (c.program ? this.burst(device, c.program.acts, [...when, ...c.when], deeper(how), evening) : []));
    return { first: within(first), list, last: within(last) };
  }

  /** What a number may stand for: a scene belongs to the program that is loaded around it. */
  private casesOf(device: Device, memory: Memory, number: number): readonly Case[] {
    const outer = around(device, memory);
    if (!outer) return [{ when: ALWAYS, program: programOn(this.shelf, device, memory, number, undefined), of: undefined }];
    const loaded = ref(device.id, outer.control);
    const domain = this.domains.of.get(loaded);
    const numbered = (name: string) => (name === UNKNOWN || isOther(name) ? undefined : Number(name));
    const within = (name: string): Omit<Case, 'when'> => ({ program: programOn(this.shelf, device, memory, number, numbered(name)), of: numbered(name) });
    if (!domain) return [{ when: ALWAYS, ...within(String(this.domains.constant(loaded))) }];
    return domain.map((name): Case => {
      const found = within(name);
      const isOpen = name === UNKNOWN || (isOther(name) && !found.program);
      return { ...found, when: [{ variable: loaded, in: [name] }], ...(isOpen ? { program: undefined, isOpen } : {}) };
    });
  }

  /** What loading a number leaves in the controls that the memory stores; what nobody wrote down is not known afterwards. */
  private contents(device: Device, memory: Memory, number: number, { program, of, isOpen }: Omit<Case, 'when'>, when: readonly Guard[], how: How): readonly SystemAct[] {
    const written = program && program.contents !== 'unplanned' ? program.contents : undefined;
    const said: SystemAct[] = [];
    const say = (acts: readonly SystemAct[]): void => { for (const act of acts) said.push(act); };
    for (const name of memory.stores) {
      const control = ref(device.id, name);
      if (!this.isVariable(control)) continue;
      const value = written?.[name];
      if (value !== undefined) say(this.set(device, control, value, when, how));
      else if (isOpen || !askedIn(this.b, device).has(name)) say(this.set(device, control, UNKNOWN, when, how));
      else {
        const holds = holdsOf({ device: device.id, memory: memory.id, number, of, control: name });
        for (const v of this.knownValues(control)) say(this.set(device, control, v, [...when, { variable: holds, in: [v] }], how));
      }
    }
    return said;
  }

  /** Every value that a control may have, by name. */
  knownValues(control: Ref): readonly string[] {
    return this.domains.of.get(control)!.filter((v) => v !== UNKNOWN);
  }

  private latches(device: Device, memory: Memory, program: Program | undefined, when: readonly Guard[]): readonly SystemAct[] {
    return (memory.assignable ?? []).flatMap(({ switch: name, latch }) => {
      const after = program?.assigns.find((a) => a.switch === name)?.afterLoad ?? 'off';
      return after === 'kept' || !this.isVariable(ref(device.id, latch)) ? [] : this.one({ variable: ref(device.id, latch), set: after }, when);
    });
  }

  private loadingInTime(device: Device, memory: Memory, number: number, cases: readonly Case[], under: readonly Guard[], how: How): readonly SystemAct[] {
    const wires = how.wires!;
    const loaded = ref(device.id, memory.control);
    const when = this.loads(memory, loaded, this.domains.named(loaded, number), under);
    const then = when.length ? wires.name(thenOf(`${device.id}.${memory.id}`)) : undefined;
    const guards = then === undefined ? ALWAYS : came(then, when);
    const said: SystemAct[] = then === undefined ? [] : [...noteWhether(then, when)];
    said.push(...wires.loads(device, memory, guards));
    const forks = cases.map((c) => {
      if (cases.length === 1) return { ...c, guards };
      const which = wires.name(thenOf(`${device.id}.${memory.id}.case`));
      said.push(...noteWhether(which, [...guards, ...c.when]));
      return { ...c, guards: came(which, [...guards, ...c.when]) };
    });
    if (this.isVariable(loaded)) said.push(...this.one({ variable: loaded, set: this.domains.named(loaded, number) }, guards));
    for (const fork of forks) said.push(...this.contents(device, memory, number, fork, fork.guards, how), ...this.latches(device, memory, fork.program, fork.guards));
    for (const fork of forks) if (fork.program) said.push(...this.acts(device, fork.program.acts, fork.guards, undefined, deeper(how)));
    return said;
  }

  private frame(device: Device, memory: Memory, number: number, cases: readonly Case[], under: readonly Guard[], how: How): Frame {
    const loaded = ref(device.id, memory.control);
    const shown = this.domains.named(loaded, number);
    const when = this.loads(memory, loaded, shown, under);
    const first = cases.flatMap((c) => {
      const guards = c.when.length ? [...when, ...c.when] : when;
      return [...this.contents(device, memory, number, c, guards, how), ...this.latches(device, memory, c.program, guards)];
    });
    return {
      when, first: [...this.noteLoad?.(device, memory, when) ?? [], ...first],
      last: this.isVariable(loaded) ? this.one({ variable: loaded, set: shown }, when) : [],
    };
  }

  /** What a message brings about in all that hear it. */
  private sent(device: Device, act: Sending, depth: number): readonly SystemAct[] {
    const said = keptIn(this.sentSaid[depth] ??= new Map(), device, () => new Map<Sending, readonly SystemAct[]>());
    return keptIn(said, act, () => this.heard(device, act, depth).flatMap(([, acts]) => acts));
  }

  /** What each box that hears a message of a list does then. */
  heard(device: Device, act: Sending, depth = 1): readonly (readonly [Device, readonly SystemAct[]])[] {
    const said = keptIn(this.heardSaid[depth] ??= new Map(), device, () => new Map<Sending, readonly (readonly [Device, readonly SystemAct[]])[]>());
    return keptIn(said, act, () => {
      const boxes = new Set(listeners(this.b, device.id, act.at, act.send).map((l) => l.device));
      return [...boxes].map((to) => [to, this.heardBy(to, device, act.send, act.at, depth)]);
    });
  }

  /** Conditions under which a box that is told to load a program does load it. */
  private loads(memory: Memory, loaded: Ref, shown: string, under: readonly Guard[]): readonly Guard[] {
    if (memory.again !== 'nothing' || !this.isVariable(loaded)) return under;
    const another = keptIn(keptIn(this.anotherSaid, loaded, () => new Map<string, readonly Guard[]>()), shown, () => {
      const domain = this.domains.of.get(loaded)!;
      return [{ variable: loaded, in: domain.filter((v) => v !== UNKNOWN && (v !== shown || isOther(v))), ...(domain.includes(UNKNOWN) ? { open: [UNKNOWN] } : {}) }];
    });
    return under.length ? [...under, ...another] : another;
  }

  /**
   * What a stored list sends and does in one go, place by place. Messages that fall into the load gap of a box are missed by it. Where that depends on whether it has to load at all,
   * a variable of the system remembers it from the message that would make it load to those that follow.
   */
  private burst(device: Device, acts: readonly Act[], under: readonly Guard[], how: How, evening: Evening): Loading['list'] {
    if (how.depth > DEEPEST) return [];
    const { lost, hearing, within = AS_SAID, places = [...acts.keys()] } = evening;
    const timing = slotTiming(this.b, device.id, acts, lost);
    const before = new Map<number, SystemAct[]>();
    const once = isOpen(under) ? (when: readonly Guard[], those: readonly SystemAct[]) => this.guarded(when, those) : guardedOnce;
    const tell = (said: SystemAct[], to: Device, heard: readonly SystemAct[], given: readonly Guard[], miss: Missed | undefined): void => {
      if (!miss) for (const act of once(given, heard)) said.push(act);
      else if (miss.depends) {
        const { control, number, only } = miss.depends;
        const same = this.guardThatHolds(control, number);
        const known = [...under, ...given];
        before.set(miss.first, [...before.get(miss.first) ?? [], ...this.one({ variable: earOf(to.id), set: FRESH }, known), ...(same ? this.one({ variable: earOf(to.id), set: SAME }, [...known, ...same]) : [])]);
        said.push(...this.guarded([...given, { variable: earOf(to.id), in: [only === 'not loaded yet' ? SAME : FRESH], ...(isOpen(known) ? { open: [MAYBE] } : {}) }], heard));
      }
    };
    const sayAt = (i: number): readonly SystemAct[] => {
      const act = acts[i]!;
      const own = this.guards(device.id, act.when);
      if (!own || i === lost) return [];
      const when = own.length ? [...under, ...own] : under;
      if (!('send' in act) || 'bpm' in act.send || (!timing[i]!.missed.length && !hearing)) return within(this.act(device, act, when, undefined, how));
      const said: SystemAct[] = [];
      for (const [to, all] of this.heard(device, act, how.depth)) {
        const heard = within(all);
        if (heard.length === 0) continue;
        const ways = hearing?.(to);
        if (!ways) tell(said, to, heard, ALWAYS, timing[i]!.missed.find((m) => m.device === to.id));
        else for (const way of ways) tell(said, to, heard, way.when, way.missed.get(i));
      }
      return this.guarded(when, said);
    };
    const said = places.map(sayAt);
    return before.size ? said.map((those, i) => [...before.get(places[i]!) ?? [], ...those]) : said;
  }

  /** Conditions under which a control has this value; undefined when it cannot have it. */
  private guardThatHolds(control: Ref, value: Value): readonly Guard[] | undefined {
    if (this.isVariable(control)) return [{ variable: control, in: [this.domains.named(control, value)] }];
    return String(this.domains.constant(control)) === String(value) ? [] : undefined;
  }

  private heardBy(to: Device, device: Device, message: Message, at: string, depth: number): readonly SystemAct[] {
    const said = keptIn(keptIn(this.heardBySaid[depth] ??= new Map(), ref(device.id, at), () => new Map<Device, Map<number, readonly SystemAct[]>>()), to, () => new Map<number, readonly SystemAct[]>());
    return keptIn(said, messageNumber(message), () => {
      const heard = listeners(this.b, device.id, at, message).filter((l) => l.device.id === to.id);
      return 'bpm' in message && heard.length > 1 ? this.loseBeat(heard[0]!, ALWAYS, AT_ONCE[depth + 1]!) : heard.flatMap((l) => this.answer(l, message, ALWAYS, AT_ONCE[depth + 1]!));
    });
  }

  /** A clock that comes by two ways at once beats twice as often, or at odd moments: nobody knows what tempo a box takes from it. */
  loseBeat({ device, answers }: Listener, under: readonly Guard[], how: How): readonly SystemAct[] {
    return answers.flatMap(({ acts }) => acts.flatMap((act) => ('take' in act && this.isVariable(ref(device.id, act.control)) ? this.set(device, ref(device.id, act.control), UNKNOWN, under, how) : [])));
  }

  /** What a box does that hears a message: in the bank that stands selected there, on the channel that it answers on now. */
  answer({ device, answers, channelBy }: Listener, message: Message, under: readonly Guard[], how: How): readonly SystemAct[] {
    return answers.flatMap((a) => {
      const hasOwn = 'midi' in a.by && a.by.midi === 'cc' && a.by.channel !== undefined;
      const tuned = channelBy && !hasOwn && !('bpm' in message) ? this.guards(device.id, [{ control: channelBy.slice(device.id.length + 1), in: [message.channel] }]) : ALWAYS;
      if (!tuned) return [];
      const when = tuned.length ? [...under, ...tuned] : under;
      if ('bpm' in message) return this.setOff(device, a, when, message.bpm, how);
      if ('cc' in message) return this.setOff(device, a, when, message.value, how);
      return this.numbersFor(device, message).flatMap(({ number, when: selected }) => this.setOff(device, a, selected.length ? [...when, ...selected] : when, number, how));
    });
  }

  /** What the number of a program change means in each bank that may stand selected. */
  private numbersFor(device: Device, { pc, bank }: Extract<Message, { pc: number }>): readonly { readonly number: number; readonly when: readonly Guard[] }[] {
    if (!hasBanks(device)) return [{ number: pc, when: ALWAYS }];
    const { coarse, fine } = this.domains.banks(device);
    if (bank !== undefined) return [{ number: pc + 128 * bank, when: ALWAYS }];
    const names = bankOf(device.id);
    const is = (variable: string, values: readonly number[], value: number): readonly Guard[] => (values.length > 1 ? [{ variable, in: [String(value)], ...(this.domains.isBankOpen(device) ? { open: [MAYBE] } : {}) }] : []);
    return coarse.flatMap((c) => fine.map((f) => ({ number: pc + 128 * ((c << 7) | f), when: [...is(names.coarse, coarse, c), ...is(names.fine, fine, f)] })));
  }

  /** A box that has more than one bank notes which one a control change selects, on the channel that it answers on now. */
  selectBank(device: Device, { cc: controller, value, channel }: Extract<Message, { cc: number }>, under: readonly Guard[]): readonly SystemAct[] {
    if (!hasBanks(device) || (controller !== 0 && controller !== 32)) return [];
    const { coarse, fine } = this.domains.banks(device);
    const names = bankOf(device.id);
    const [variable, values] = controller === 0 ? [names.coarse, coarse] : [names.fine, fine];
    const channelBy = movingChannel(device);
    const tuned = channelBy ? this.guards(device.id, [{ control: channelBy.slice(device.id.length + 1), in: [channel] }]) : ALWAYS;
    return values.length > 1 && tuned ? guardedBy([...under, ...tuned], [{ variable, set: String(value) }], () => [...values.map(String), MAYBE]) : [];
  }

  private pulse(device: Device, jack: string, when: readonly Guard[], how: How): readonly SystemAct[] {
    return [...this.arrive(device, jack, 'closing', 'closed', when, how), ...this.arrive(device, jack, 'opening', 'open', when, how)];
  }

  private arrive(device: Device, jack: string, edge: 'closing' | 'opening', level: 'closed' | 'open', when: readonly Guard[], how: How): readonly SystemAct[] {
    if (how.depth > DEEPEST) return [];
    return (this.b.control.contacts.get(ref(device.id, jack)) ?? []).flatMap((arrival) => {
      const receiver = partOf(this.b.rig, arrival.device)!;
      return receiver.actuators.flatMap((a) => {
        if (!('contact' in a.by) || a.by.contact !== arrival.jack) return [];
        if ('edge' in a.by ? a.by.edge !== edge : a.by.level !== level) return [];
        return this.setOff(receiver, a, when, undefined, deeper(how));
      });
    });
  }

  /** What boxes at the other end of a contact do when the control that closes it goes from one value to another: before it is set, guarded by the old value. */
  private contacts(device: Device, control: Ref, moves: () => readonly Move[], when: readonly Guard[], how: How): readonly SystemAct[] {
    return relaysOf(device).flatMap(({ at, closedWhen }) => {
      const fact = closedWhen?.find((f) => 'control' in f && ref(device.id, f.control) === control);
      if (!fact || !('in' in fact)) return [];
      const others = this.guards(device.id, closedWhen!.filter((f) => f !== fact));
      if (!others) return [];
      const closed = (v: string) => this.domains.allowed(fact, v);
      /** From these values the contact surely closes or opens; from those nobody knows. */
      const going = (to: 'yes' | 'no'): readonly Guard[] => {
        const from = to === 'yes' ? 'no' : 'yes';
        const sure = moves().filter(([a, b]) => closed(a) === from && closed(b) === to).map(([a]) => a);
        const open = moves().filter(([a, b]) => a !== b && closed(a) !== to && closed(b) !== from && (closed(a) === 'open' || closed(b) === 'open')).map(([a]) => a);
        return sure.length + open.length ? [{ variable: control, in: sure, ...(open.length ? { open } : {}) }] : [];
      };
      const [closing, opening] = [going('yes'), going('no')];
      return [
        ...(closing.length ? this.arrive(device, at, 'closing', 'closed', [...when, ...others, ...closing], how) : []),
        ...(opening.length ? this.arrive(device, at, 'opening', 'open', [...when, ...others, ...opening], how) : []),
      ];
    });
  }
}

/** What events are said with. */
export interface Said {
  readonly domains: Domains;
  readonly shelf: Shelf;
  readonly effects: Effects;
}

const NOTHING: Loading = { first: [], list: [], last: [] };

import type { Act, Message } from '../rig/act.js';
import { relaysOf, type Device, type Memory } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { valueFrom } from '../rig/midi-manners.js';
import type { Program } from '../rig/program.js';
import { keptIn } from '../rig/kept.js';
import { partOf } from '../rig/rig.js';
import type { Value, When } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import { OTHER, UNKNOWN, type Domains } from './domains.js';
import { listeners, type Listener } from './listeners.js';
import { slotTiming, type Missed } from './slot-timing.js';
import type { Condition, SystemAct } from './proof/system.js';

/** Every program that stands in a box of the rig, typed or planned. */
export type Shelf = ReadonlyMap<string, Program>;
export const shelfKey = (device: Id<'device'>, memory: string, number: number): string => `${device} ${memory} ${number}`;

const DEEPEST = 8;

/** Remembers, within one slot, whether a box had the first program that it is told to load already. It is no control of the box. */
export const earOf = (device: Id<'device'>): string => `ear:${device}`;
const [FRESH, SAME] = ['fresh', 'same'];
export const EAR_DOMAIN: readonly string[] = [FRESH, SAME];

/** Boxes of which it can depend on what is loaded whether they miss a message. */
export const hasEar = (device: Device): boolean => device.midi?.messages === 'lost' && device.memories.some((m) => m.again === 'nothing' && m.gapMs > 0);

/** The same acts, carried out only under further conditions. */
export const guardedBy = (when: readonly Condition[], acts: readonly SystemAct[]): readonly SystemAct[] =>
  (when.length === 0 ? acts : acts.map((act) => ({ ...act, when: act.when ? [...when, ...act.when] : when })));

const guardedLists = new WeakMap<readonly SystemAct[], WeakMap<readonly Condition[], readonly SystemAct[]>>();
/** The same, for conditions that are asked again and again: the very same acts each time. */
const guardedOnce = (when: readonly Condition[], acts: readonly SystemAct[]): readonly SystemAct[] =>
  (when.length === 0 ? acts : keptIn(keptIn(guardedLists, acts, () => new WeakMap<readonly Condition[], readonly SystemAct[]>()), when, () => guardedBy(when, acts)));

/** What a load does, with the acts of the program's list place by place. */
export interface Loading {
  readonly first: readonly SystemAct[];
  readonly list: readonly (readonly SystemAct[])[];
  readonly last: readonly SystemAct[];
}

/** Everything that a load does, in order. */
export const allOf = ({ first, list, last }: Loading): readonly SystemAct[] => {
  const acts = [...first];
  for (const place of list) for (const act of place) acts.push(act);
  for (const act of last) acts.push(act);
  return acts;
};

/** A control that goes from one value to another. */
type Move = readonly [from: string, to: string];

type Sending = Extract<Act, { send: Message }>;

/** What a load does before and after its list, with the conditions under which it takes place. */
interface Frame extends Omit<Loading, 'list'> {
  readonly when: readonly Condition[];
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

const ALWAYS: readonly Condition[] = [];
const AS_USUAL: Evening = {};
const AS_SAID = (acts: readonly SystemAct[]): readonly SystemAct[] => acts;

/** What else is to be noted when a box loads a program, under the conditions on which it does. */
export type NoteLoad = (device: Device, memory: Memory, when: readonly Condition[]) => readonly SystemAct[];

/**
 * Says in guarded acts on variables what follows when a box carries out its acts: on itself, over contacts and over MIDI.
 * What is said once is kept, so that all slots that send the same message share the very same acts.
 */
export class Effects {
  private readonly setsSaid: Map<Ref, Map<Value, readonly SystemAct[]>>[] = [];
  private readonly framesSaid = new Map<Ref, Map<number, Frame>>();
  private readonly anotherSaid = new Map<Ref, Map<string, readonly Condition[]>>();
  private readonly sentSaid: Map<Device, Map<Sending, readonly SystemAct[]>>[] = [];
  private readonly heardBySaid: Map<Ref, Map<Device, Map<number, readonly SystemAct[]>>>[] = [];
  private readonly heardSaid: Map<Device, Map<Sending, readonly (readonly [Device, readonly SystemAct[]])[]>>[] = [];

  constructor(private readonly b: Bearings, private readonly domains: Domains, private readonly shelf: Shelf, private readonly noteLoad?: NoteLoad) {}

  isVariable(control: Ref): boolean {
    return this.domains.of.has(control);
  }

  /** Conditions on variables; `undefined` when what is taken for granted forbids it. */
  guards(device: Id<'device'>, when: When | undefined): readonly Condition[] | undefined {
    if (!when?.length) return ALWAYS;
    const guards: Condition[] = [];
    for (const fact of when) {
      if ('jack' in fact) {
        if (this.b.anatomy.wiring.plugged.has(ref(device, fact.jack)) !== fact.plugged) return undefined;
        continue;
      }
      const control = ref(device, fact.control);
      const allowed = (v: string) => ('in' in fact ? fact.in.some((x) => String(x) === v) : Number(v) >= fact.from && Number(v) <= fact.to);
      const domain = this.domains.of.get(control);
      if (domain) guards.push({ variable: control, in: domain.filter(allowed) });
      else if (!allowed(String(this.domains.constant(control)))) return undefined;
    }
    return guards;
  }

  acts(device: Device, acts: readonly Act[], under: readonly Condition[], byte?: number, depth = 0): readonly SystemAct[] {
    if (depth > DEEPEST) return [];
    return acts.flatMap((act) => {
      const own = this.guards(device.id, act.when);
      return own ? this.act(device, act, [...under, ...own], byte, depth) : [];
    });
  }

  private act(device: Device, act: Act, when: readonly Condition[], byte: number | undefined, depth: number): readonly SystemAct[] {
    if ('control' in act) {
      const control = ref(device.id, act.control);
      if (!this.isVariable(control)) return [];
      if ('set' in act) return this.set(device, control, act.set, when, depth);
      if ('toggle' in act) {
        const [a, b] = act.toggle.map((v) => this.domains.named(control, v)) as [string, string];
        return [...this.contacts(device, control, () => [[a, b], [b, a]], when, depth), guarded({ variable: control, toggle: [a, b] }, when)];
      }
      if ('step' in act) {
        const step = act.step.map((v) => this.domains.named(control, v));
        const moves = () => this.domains.of.get(control)!.map((v): Move => [v, step[(step.indexOf(v) + 1) % step.length]!]);
        return [...this.contacts(device, control, moves, when, depth), guarded({ variable: control, step }, when)];
      }
      if ('take' in act && byte === undefined) return this.domains.of.get(control)!.includes(OTHER) ? [guarded({ variable: control, set: OTHER }, when)] : [];
      const value = byte === undefined ? undefined : valueFrom(act, byte, device.controls.find((c) => c.id === act.control));
      return value === undefined ? [] : this.set(device, control, value, when, depth);
    }
    if ('load' in act) {
      const memory = device.memories.find((m) => m.id === act.load)!;
      if (typeof act.slot === 'number') return this.load(device, memory, act.slot, when, depth);
      if (act.slot === 'value') return byte === undefined || byte >= memory.size ? [] : this.load(device, memory, byte, when, depth);
      return [];
    }
    if ('send' in act) return guardedBy(when, this.sent(device, act, depth));
    if ('pulse' in act) return this.pulse(device, act.pulse, when, depth);
    return [];
  }

  set(device: Device, control: Ref, value: Value, when: readonly Condition[], depth = 0): readonly SystemAct[] {
    const said = this.setsSaid[depth] ??= new Map<Ref, Map<Value, readonly SystemAct[]>>();
    let byValue = said.get(control);
    if (!byValue) said.set(control, byValue = new Map());
    let acts = byValue.get(value);
    if (!acts) byValue.set(value, acts = this.setting(device, control, value, depth));
    return guardedBy(when, acts);
  }

  private setting(device: Device, control: Ref, value: Value, depth: number): readonly SystemAct[] {
    const named = this.domains.named(control, value);
    const act: SystemAct = { variable: control, set: named };
    const followed = this.contacts(device, control, () => this.domains.of.get(control)!.map((v): Move => [v, named]), ALWAYS, depth);
    return followed.length ? [...followed, act] : [act];
  }

  /** Loading sets what the program stores and only that, clears latches, then carries out the program's acts; last the box shows the new number. */
  load(device: Device, memory: Memory, number: number, under: readonly Condition[], depth = 0): readonly SystemAct[] {
    return allOf(this.loading(device, memory, number, under, depth));
  }

  /** The same with what each place of the list brings about. */
  loading(device: Device, memory: Memory, number: number, under: readonly Condition[], depth = 0, evening: Evening = AS_USUAL): Loading {
    if (depth > DEEPEST) return { first: [], list: [], last: [] };
    const { within = AS_SAID } = evening;
    const called = () => this.frame(device, memory, number, under, depth);
    const { when, first, last } = under.length || depth ? called() : keptIn(keptIn(this.framesSaid, ref(device.id, memory.id), () => new Map<number, Frame>()), number, called);
    const program = this.shelf.get(shelfKey(device.id, memory.id, number));
    return { first: within(first), list: program ? this.burst(device, program.acts, when, depth + 1, evening) : [], last: within(last) };
  }

  private frame(device: Device, memory: Memory, number: number, under: readonly Condition[], depth: number): Frame {
    const loaded = ref(device.id, memory.control);
    const shown = this.domains.named(loaded, number);
    const when = this.loads(memory, loaded, shown, under);
    const program = this.shelf.get(shelfKey(device.id, memory.id, number));
    const contents = program && program.contents !== 'unplanned' ? program.contents : undefined;
    const sets: SystemAct[] = [];
    for (const name of memory.stores) {
      const control = ref(device.id, name);
      const value = contents ? contents[name] : UNKNOWN;
      if (value === undefined || !this.isVariable(control)) continue;
      if (value === UNKNOWN) sets.push(guarded({ variable: control, set: UNKNOWN }, when));
      else sets.push(...this.set(device, control, value, when, depth));
    }
    const latches = (memory.assignable ?? []).flatMap(({ switch: name, latch }) => {
      const after = program?.assigns.find((a) => a.switch === name)?.afterLoad ?? 'off';
      return after === 'kept' || !this.isVariable(ref(device.id, latch)) ? [] : [guarded({ variable: ref(device.id, latch), set: after }, when)];
    });
    return {
      when,
      first: [...this.noteLoad?.(device, memory, when) ?? [], ...sets, ...latches],
      last: this.isVariable(loaded) ? [guarded({ variable: loaded, set: shown }, when)] : [],
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
    return keptIn(said, act, () => listeners(this.b, device.id, act.at, act.send).map(({ device: to }) => [to, this.heardBy(to, device, act.send, act.at, depth)]));
  }

  /** Conditions under which a box that is told to load a program does load it. */
  private loads(memory: Memory, loaded: Ref, shown: string, under: readonly Condition[]): readonly Condition[] {
    if (memory.again !== 'nothing' || !this.isVariable(loaded)) return under;
    const another = keptIn(keptIn(this.anotherSaid, loaded, () => new Map<string, readonly Condition[]>()), shown, () => [{ variable: loaded, in: this.domains.of.get(loaded)!.filter((v) => v !== shown || v === OTHER) }]);
    return under.length ? [...under, ...another] : another;
  }

  /**
   * What a stored list sends and does in one go, place by place. Messages that fall into the load gap of a box are missed by it. Where that depends on whether it has to load at all,
   * a variable of the system remembers it from the message that would make it load to those that follow.
   */
  private burst(device: Device, acts: readonly Act[], under: readonly Condition[], depth: number, evening: Evening): Loading['list'] {
    if (depth > DEEPEST) return [];
    const { lost, hearing, within = AS_SAID, places = [...acts.keys()] } = evening;
    const timing = slotTiming(this.b, device.id, acts, lost);
    const before = new Map<number, SystemAct[]>();
    const tell = (said: SystemAct[], to: Device, heard: readonly SystemAct[], given: readonly Condition[], miss: Missed | undefined): void => {
      if (!miss) for (const act of guardedOnce(given, heard)) said.push(act);
      else if (miss.depends) {
        const { control, number, only } = miss.depends;
        const same = this.guardThatHolds(control, number);
        const known = [...under, ...given];
        before.set(miss.first, [...before.get(miss.first) ?? [], guarded({ variable: earOf(to.id), set: FRESH }, known), ...(same ? [guarded({ variable: earOf(to.id), set: SAME }, [...known, ...same])] : [])]);
        said.push(...guardedBy([...given, { variable: earOf(to.id), in: [only === 'not loaded yet' ? SAME : FRESH] }], heard));
      }
    };
    const sayAt = (i: number): readonly SystemAct[] => {
      const act = acts[i]!;
      const own = this.guards(device.id, act.when);
      if (!own || i === lost) return [];
      const when = own.length ? [...under, ...own] : under;
      if (!('send' in act) || 'bpm' in act.send || (!timing[i]!.missed.length && !hearing)) return within(this.act(device, act, when, undefined, depth));
      const said: SystemAct[] = [];
      for (const [to, all] of this.heard(device, act, depth)) {
        const heard = within(all);
        if (heard.length === 0) continue;
        const ways = hearing?.(to);
        if (!ways) tell(said, to, heard, ALWAYS, timing[i]!.missed.find((m) => m.device === to.id));
        else for (const way of ways) tell(said, to, heard, way.when, way.missed.get(i));
      }
      return guardedBy(when, said);
    };
    const said = places.map(sayAt);
    return before.size ? said.map((those, i) => [...before.get(places[i]!) ?? [], ...those]) : said;
  }

  /** Conditions under which a control has this value; undefined when it cannot have it. */
  private guardThatHolds(control: Ref, value: Value): readonly Condition[] | undefined {
    if (this.isVariable(control)) return [{ variable: control, in: [this.domains.named(control, value)] }];
    return String(this.domains.constant(control)) === String(value) ? [] : undefined;
  }

  private heardBy(to: Device, device: Device, message: Message, at: string, depth: number): readonly SystemAct[] {
    const said = keptIn(keptIn(this.heardBySaid[depth] ??= new Map(), ref(device.id, at), () => new Map<Device, Map<number, readonly SystemAct[]>>()), to, () => new Map<number, readonly SystemAct[]>());
    return keptIn(said, messageNumber(message), () => listeners(this.b, device.id, at, message).filter((l) => l.device.id === to.id).flatMap((l) => this.answer(l, message, depth)));
  }

  private answer({ device: receiver, answers }: Listener, message: Message, depth: number): readonly SystemAct[] {
    const value = 'bpm' in message ? message.bpm : 'pc' in message ? message.pc + 128 * (message.bank ?? 0) : message.value;
    return answers.flatMap((a) => {
      const guards = this.guards(receiver.id, a.when);
      return guards ? this.acts(receiver, a.acts, guards, value, depth + 1) : [];
    });
  }

  private pulse(device: Device, jack: string, when: readonly Condition[], depth: number): readonly SystemAct[] {
    return [...this.arrive(device, jack, 'closing', 'closed', when, depth), ...this.arrive(device, jack, 'opening', 'open', when, depth)];
  }

  private arrive(device: Device, jack: string, edge: 'closing' | 'opening', level: 'closed' | 'open', when: readonly Condition[], depth: number): readonly SystemAct[] {
    return (this.b.control.contacts.get(ref(device.id, jack)) ?? []).flatMap((arrival) => {
      const receiver = partOf(this.b.rig, arrival.device)!;
      return receiver.actuators.flatMap((a) => {
        if (!('contact' in a.by) || a.by.contact !== arrival.jack) return [];
        if ('edge' in a.by ? a.by.edge !== edge : a.by.level !== level) return [];
        const guards = this.guards(receiver.id, a.when);
        return guards ? this.acts(receiver, a.acts, [...when, ...guards], undefined, depth + 1) : [];
      });
    });
  }

  /** What boxes at the other end of a contact do when the control that closes it goes from one value to another: before it is set, guarded by the old value. */
  private contacts(device: Device, control: Ref, moves: () => readonly Move[], when: readonly Condition[], depth: number): readonly SystemAct[] {
    return relaysOf(device).flatMap(({ at, closedWhen }) => {
      const fact = closedWhen?.find((f) => 'control' in f && ref(device.id, f.control) === control);
      if (!fact || !('in' in fact)) return [];
      const closed = (v: string) => fact.in.some((x) => String(x) === v);
      const others = this.guards(device.id, closedWhen!.filter((f) => f !== fact));
      if (!others) return [];
      const from = (wasClosed: boolean) => moves().filter(([a, b]) => closed(a) === wasClosed && closed(b) !== wasClosed).map(([a]) => a);
      const [closing, opening] = [from(false), from(true)];
      return [
        ...(closing.length ? this.arrive(device, at, 'closing', 'closed', [...when, ...others, { variable: control, in: closing }], depth) : []),
        ...(opening.length ? this.arrive(device, at, 'opening', 'open', [...when, ...others, { variable: control, in: opening }], depth) : []),
      ];
    });
  }
}

/** Messages of the same number are the same. */
const messageNumber = (message: Message): number => {
  if ('bpm' in message) return -message.bpm;
  const what = 'pc' in message ? ((message.bank ?? 0) * 128 + message.pc) * 2 : (message.cc * 128 + message.value) * 2 + 1;
  return what * 16 + message.channel - 1;
};

const guarded = (act: SystemAct, when: readonly Condition[]): SystemAct => (when.length ? { ...act, when } : act);

import { scaledValue, type Act, type Message } from '../rig/act.js';
import { controlIn, relaysOf, type Actuator, type Device, type Memory } from '../rig/device.js';
import { actsAt, NOT_KNOWN, type Program } from '../rig/program.js';
import { holds, type Circumstances, type Value } from '../rig/value.js';
import { ByteReader, type Read } from '../midi/reader.js';
import { surely, theFirst, theItem } from '../known/the.js';
import { memoryIn, theMemory } from '../rig/box.js';

/** What a simulated box can do to the world outside it. */
export interface Outside {
  readonly sendMidi: (jack: string, message: Message, afterMs: number) => void;
  readonly now: () => number;
  readonly plan: (at: number, run: () => void) => void;
  readonly contact: (jack: string, closed: boolean) => void;
  readonly plugged: (jack: string) => boolean;
  /** Whether the contact at this input is closed now. */
  readonly contactAt: (jack: string) => boolean;
  /** What stands under a number. @param of the program that is loaded around it, for a scene */
  readonly program: (memory: string, number: number, of: number | undefined) => Program | undefined;
  readonly changed: (control: string, value: Value) => void;
  /** Nothing comes out of it for so long. */
  readonly silent: (ms: number) => void;
}

/** What a foot does on a switch. Held and double come after the press that they begin with. */
export type FootGesture = 'press' | 'release' | 'hold' | 'twice';

const CONTROL_CHANGE = 0xb;
const PROGRAM_CHANGE = 0xc;
const NOTE_ON = 0x9;
const CLOCK = 0xf8;
/** 20 beats a minute. */
const LONGEST_TICK_US = 130_000;

/**
 * One box of the rig, simulated from its description: stimuli in, acts on its own controls, messages and contacts out.
 */
export class Box {
  readonly values = new Map<string, Value>();
  private readonly readers = new Map<string, ByteReader>();
  private readonly circumstances: Circumstances;
  private bank = 0;
  private turnedTo: number | undefined;
  private clockedAt = -Infinity;
  /** While it loads it misses messages, or keeps them for later. */
  private deafUntil = 0;
  private readonly waiting: Read[] = [];
  /** It has no supply: it hears nothing, does nothing and its relays fall open, until it wakes. */
  isDark = false;

  constructor(
    readonly device: Device,
    private readonly outside: Outside,
  ) {
    this.circumstances = { value: (control) => this.values.get(control), plugged: outside.plugged };
  }

  /**
   * Wakes up: fixed values, then what the current program holds, then contacts as they stand, then what the box does
   * by itself.
   */
  wake(
    choose: (control: string) => Value | undefined,
    unwritten: (control: string) => Value | undefined = () => undefined,
  ): void {
    this.isDark = false;
    this.deafUntil = 0;
    this.waiting.length = 0;
    this.bank = 0;
    for (const { id, powerUp } of this.device.controls) {
      if (typeof powerUp === 'object') this.set(id, powerUp.at);
      else {
        const chosen = powerUp === 'loaded' ? undefined : choose(id);
        if (chosen !== undefined) this.set(id, chosen);
      }
    }
    const outerFirst = [...this.device.memories].sort(
      (a, b) => (a.inside === undefined ? 0 : 1) - (b.inside === undefined ? 0 : 1),
    );
    for (const memory of outerFirst) {
      const contents = writtenIn(this.loadedIn(memory));
      for (const id of memory.stores)
        if (controlIn(this.device, id)?.powerUp === 'loaded' && this.isFirstToHold(memory, id))
          this.set(id, unwritten(id) ?? contents?.[id] ?? NOT_KNOWN);
    }
    this.readContacts();
  }

  /** What it does by itself once it is awake. */
  begin(): void {
    for (const a of this.device.actuators) if ('power' in a.by) this.fire(a);
  }

  /** Of several memories that hold a control the first one brings it up. */
  private isFirstToHold(memory: Memory, control: string): boolean {
    return this.device.memories.find((m) => m.stores.includes(control)) === memory;
  }

  /** Latching inputs follow the level that they find. */
  readContacts(): void {
    for (const a of this.device.actuators) {
      if (
        'contact' in a.by &&
        'level' in a.by &&
        this.outside.plugged(a.by.contact) &&
        this.outside.contactAt(a.by.contact) === (a.by.level === 'closed')
      )
        this.fire(a);
    }
  }

  private programOf(memory: Memory, number: number): Program | undefined {
    const outer = memory.inside === undefined ? undefined : memoryIn(this.device, memory.inside);
    return this.outside.program(memory.id, number, outer && Number(this.values.get(outer.control)));
  }

  private loadedIn(memory: Memory): Program | undefined {
    return this.programOf(memory, Number(this.values.get(memory.control)));
  }

  /**
   * A byte arrives at a MIDI input.
   * @returns the message that it completed, whether the box took notice, or missed it because it is loading
   */
  hear(
    jack: string,
    byte: number,
  ): { readonly read: Read; readonly reacts: boolean; readonly missed?: true } | undefined {
    if (byte === CLOCK) return void this.followClock();
    let reader = this.readers.get(jack);
    if (!reader) this.readers.set(jack, (reader = new ByteReader()));
    const read = reader.push(byte);
    if (!read || this.isDark || !this.minds(read)) return read && { read, reacts: false };
    if (this.outside.now() >= this.deafUntil && this.waiting.length === 0) return { read, reacts: this.obey(read) };
    if (this.device.midi?.messages === 'lost') return { read, reacts: false, missed: true };
    this.waiting.push(read);
    if (this.waiting.length === 1) this.outside.plan(this.deafUntil, () => this.catchUp());
    return { read, reacts: true };
  }

  /** Does what came while it was loading, one after the other; what makes it load again keeps the rest waiting. */
  private catchUp(): void {
    while (this.waiting.length > 0 && !this.isDark) {
      if (this.outside.now() < this.deafUntil) {
        this.outside.plan(this.deafUntil, () => this.catchUp());
        return;
      }
      this.obey(surely(this.waiting.shift()));
    }
  }

  /**
   * Whether the message means anything to it on this channel: an actuator with a channel of its own answers there
   * only.
   */
  private minds(read: Read): boolean {
    return (
      this.answersOn(read.channel) ||
      (read.status === CONTROL_CHANGE &&
        this.device.actuators.some(
          (a) => 'midi' in a.by && a.by.midi === 'cc' && a.by.number === read.data[0] && a.by.channel === read.channel,
        ))
    );
  }

  /** Takes its tempo from the time between two clock bytes, 24 to a beat; after a longer pause it begins anew. */
  private followClock(): void {
    if (this.isDark) return;
    const us = this.outside.now() - this.clockedAt;
    this.clockedAt = this.outside.now();
    if (us > LONGEST_TICK_US) return;
    for (const a of this.device.actuators)
      if ('midi' in a.by && a.by.midi === 'clock') this.fire(a, 60_000_000 / (us * 24));
  }

  /** Its channel switch is turned: it answers there and nowhere else. */
  listenOn(channel: number): void {
    this.turnedTo = channel;
  }

  private answersOn(channel: number): boolean {
    const { midi } = this.device;
    if (!midi) return false;
    if (this.turnedTo !== undefined) return this.turnedTo === channel;
    return (
      midi.omni === true ||
      (typeof midi.channel === 'number' ? midi.channel : Number(this.values.get(midi.channel))) === channel
    );
  }

  private obey({ status, channel, data }: Read): boolean {
    const answers = this.answersOn(channel);
    if (status === PROGRAM_CHANGE)
      return answers && this.fireAll((a) => 'midi' in a.by && a.by.midi === 'pc', theFirst(data) + 128 * this.bank);
    if (status === CONTROL_CHANGE) {
      const [controller, value] = [theItem(data, 0), theItem(data, 1)];
      if (answers) this.select(controller, value);
      return this.fireAll(
        (a) =>
          'midi' in a.by &&
          a.by.midi === 'cc' &&
          a.by.number === controller &&
          (a.by.channel === undefined ? answers : a.by.channel === channel),
        value,
      );
    }
    if (status === NOTE_ON)
      return answers && this.fireAll((a) => 'midi' in a.by && a.by.midi === 'note' && a.by.number === data[0], data[1]);
    return false;
  }

  /**
   * The bank stays selected until another one is; a box with one bank takes no notice. Source: MIDI 1.0 Detailed
   * Specification, "Bank Select".
   */
  private select(controller: number, value: number): void {
    if (!this.device.memories.some((m) => m.size > 128)) return;
    if (controller === 0) this.bank = (value << 7) | (this.bank & 0x7f);
    if (controller === 32) this.bank = (this.bank & ~0x7f) | value;
  }

  private fireAll(which: (a: Actuator) => boolean, number?: number): boolean {
    const hit = this.device.actuators.filter(which);
    hit.forEach((a) => this.fire(a, number));
    return hit.length > 0;
  }

  private fire(actuator: Actuator, number?: number): void {
    if (!this.isDark && holds(actuator.when, this.circumstances)) this.carryOut(actuator.acts, number);
  }

  /** A foot or a hand on this box. @returns whether it did anything at all */
  touch(name: string, gesture: FootGesture = 'press'): boolean {
    return this.fireAll(
      (a) =>
        ('foot' in a.by && a.by.foot === name && a.by.gesture === gesture) ||
        ('hand' in a.by && a.by.hand === name && gesture === 'press'),
    );
  }

  /** Whether this gesture means anything to the box. */
  hasGesture(name: string, gesture: FootGesture): boolean {
    return this.device.actuators.some((a) => 'foot' in a.by && a.by.foot === name && a.by.gesture === gesture);
  }

  /** A pedal at one of its expression inputs stands there now. @param byte 0 heel to 127 toe */
  pedal(jack: string, byte: number): boolean {
    if (this.isDark) return false;
    const assigned = this.device.memories.flatMap((m) => actsAt(this.loadedIn(m)?.sweeps, jack, byte));
    this.carryOut(assigned);
    return this.fireAll((a) => 'expression' in a.by && a.by.expression === jack, byte) || assigned.length > 0;
  }

  /** One actuator by its name, whatever sets it off. */
  actuate(id: string, number?: number): void {
    const actuator = this.device.actuators.find((a) => a.id === id);
    if (actuator) this.fire(actuator, number);
  }

  contactChanged(jack: string, closed: boolean): void {
    for (const a of this.device.actuators) {
      if (!('contact' in a.by) || a.by.contact !== jack) continue;
      if ('edge' in a.by ? (a.by.edge === 'closing') === closed : (a.by.level === 'closed') === closed) this.fire(a);
    }
  }

  load(memory: Memory, number: number): void {
    if (number < 0 || number >= memory.size) return;
    if (memory.again === 'nothing' && Number(this.values.get(memory.control)) === number) return;
    const program = this.programOf(memory, number);
    const contents = writtenIn(program);
    this.set(memory.control, number);
    if (memory.mutesMs > 0) this.outside.silent(memory.mutesMs);
    if (memory.gapMs > 0) {
      this.deafUntil = this.outside.now() + memory.gapMs * 1000;
      this.outside.plan(this.deafUntil, () => undefined);
    }
    for (const id of memory.stores) this.set(id, contents?.[id] ?? NOT_KNOWN);
    for (const { switch: name, latch } of memory.assignable ?? []) {
      const after = program?.assigns.find((a) => a.switch === name)?.afterLoad ?? 'off';
      if (after !== 'kept') this.set(latch, after);
    }
    this.carryOut(program?.acts ?? []);
  }

  private carryOut(acts: readonly Act[], number?: number): void {
    for (const act of acts) if (holds(act.when, this.circumstances)) this.do(act, number);
  }

  private do(act: Act, number: number | undefined): void {
    if ('control' in act) {
      const old = this.values.get(act.control);
      if ('set' in act) this.set(act.control, act.set);
      else if ('toggle' in act) {
        const [a, b] = act.toggle;
        if (String(old) === String(a)) this.set(act.control, b);
        else if (String(old) === String(b)) this.set(act.control, a);
      } else if ('take' in act) {
        if (number !== undefined) this.set(act.control, scaledValue(number, [0, 127], this.stepOf(act.control)));
      } else if ('step' in act) {
        if (old !== NOT_KNOWN)
          this.set(
            act.control,
            theItem(act.step, (act.step.findIndex((v) => String(v) === String(old)) + 1) % act.step.length),
          );
      } else if ('map' in act) {
        const range = number === undefined ? undefined : act.map.find(([from, to]) => number >= from && number <= to);
        if (range) this.set(act.control, range[2]);
      } else if (number !== undefined) {
        this.set(act.control, scaledValue(number, act.scale, this.stepOf(act.control)));
      }
    } else if ('load' in act) {
      const memory = theMemory(this.device, act.load);
      const slot =
        act.slot === 'value'
          ? (number ?? -1)
          : typeof act.slot === 'number'
            ? act.slot
            : this.bankIn(act.slot.bank, act.slot.banks) * act.slot.size + act.slot.plus;
      this.load(memory, slot);
    } else if ('send' in act) this.outside.sendMidi(act.at, act.send, act.afterMs ?? 0);
    else if ('pulse' in act) {
      this.outside.contact(act.pulse, true);
      this.outside.contact(act.pulse, false);
    } else this.follow(act.follow, act.gesture);
  }

  private bankIn(control: string, banks: readonly Value[]): number {
    return banks.findIndex((bank) => String(bank) === String(this.values.get(control)));
  }

  private stepOf(control: string): number {
    const domain = controlIn(this.device, control)?.domain;
    return domain && 'min' in domain ? (domain.step ?? 1) : 1;
  }

  /** A switch that the loaded program assigns. A latched one turns its latch first, then follows its new state. */
  private follow(name: string, gesture: 'press' | 'release'): void {
    for (const memory of this.device.memories) {
      const place = memory.assignable?.find((a) => a.switch === name);
      if (!place) continue;
      const isHeld = this.values.get(place.held) === 'on';
      if ((gesture === 'press') === isHeld) return;
      this.set(place.held, gesture === 'press' ? 'on' : 'off');
      const assign = this.loadedIn(memory)?.assigns.find((a) => a.switch === name);
      if (!assign) return;
      if (!assign.latch) this.carryOut(gesture === 'press' ? assign.on : assign.off);
      else if (gesture === 'press') {
        const latched = this.values.get(place.latch) === 'on' ? 'off' : 'on';
        this.set(place.latch, latched);
        this.carryOut(latched === 'on' ? assign.on : assign.off);
      }
    }
  }

  /** Sets a control; relays whose rule it changes move at once. */
  private set(control: string, value: Value): void {
    const relays = relaysOf(this.device).filter((r) =>
      r.closedWhen?.some((f) => 'control' in f && f.control === control),
    );
    const before = relays.map((r) => holds(r.closedWhen, this.circumstances));
    this.values.set(control, value);
    this.outside.changed(control, value);
    relays.forEach(({ at, closedWhen }, i) => {
      const closed = holds(closedWhen, this.circumstances);
      if (closed !== before[i]) this.outside.contact(at, closed);
    });
  }

  isClosed(jack: string): boolean {
    const rule = relaysOf(this.device).find((r) => r.at === jack)?.closedWhen;
    return !this.isDark && rule !== undefined && holds(rule, this.circumstances);
  }

  /** Its supply is gone. What it held it forgets or keeps as its controls say, once it wakes. */
  goDark(): void {
    const closed = relaysOf(this.device).filter((r) => this.isClosed(r.at));
    this.isDark = true;
    for (const { at } of closed) this.outside.contact(at, false);
  }
}

/** What a program is known to hold. */
const writtenIn = (program: Program | undefined): Readonly<Record<string, Value>> | undefined =>
  program?.contents === 'unplanned' ? undefined : program?.contents;

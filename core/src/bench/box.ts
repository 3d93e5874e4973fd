import { scaledValue, type Act, type Message } from '../rig/act.js';
import { relaysOf, type Actuator, type Device, type Memory } from '../rig/device.js';
import { actsAt, NOT_KNOWN, type Program } from '../rig/program.js';
import { holds, type Circumstances, type Value } from '../rig/value.js';
import { ByteReader, type Read } from '../midi/reader.js';

/** What a simulated box can do to the world outside it. */
export interface Outside {
  readonly sendMidi: (jack: string, message: Message, afterMs: number) => void;
  readonly now: () => number;
  readonly plan: (at: number, run: () => void) => void;
  readonly contact: (jack: string, closed: boolean) => void;
  readonly plugged: (jack: string) => boolean;
  /** Whether the contact at this input is closed now. */
  readonly contactAt: (jack: string) => boolean;
  readonly program: (memory: string, number: number) => Program | undefined;
  readonly changed: (control: string, value: Value) => void;
  /** Nothing comes out of it for so long. */
  readonly silent: (ms: number) => void;
}

/** What a foot does on a switch. Held and double come after the press that they begin with. */
export type Gesture = 'press' | 'release' | 'hold' | 'twice';

const CONTROL_CHANGE = 0xb;
const PROGRAM_CHANGE = 0xc;
const NOTE_ON = 0x9;
const CLOCK = 0xf8;
/** 20 beats a minute. */
const LONGEST_TICK_US = 130_000;

/** One box of the rig, simulated from its description: stimuli in, acts on its own controls, messages and contacts out. */
export class Box {
  readonly values = new Map<string, Value>();
  private readonly readers = new Map<string, ByteReader>();
  private readonly circumstances: Circumstances;
  private bank = 0;
  private turnedTo: number | undefined;
  private clockedAt = -Infinity;
  /** While it loads it misses messages, or keeps them for later. */
  private deafUntil = 0;
  /** It has no supply: it hears nothing, does nothing and its relays fall open, until it wakes. */
  isDark = false;

  constructor(readonly device: Device, private readonly outside: Outside) {
    this.circumstances = { value: (control) => this.values.get(control), plugged: outside.plugged };
  }

  /** Wakes up: fixed values, then what the current program holds, then contacts as they stand, then what the box does by itself. */
  wake(choose: (control: string) => Value | undefined): void {
    this.isDark = false;
    this.deafUntil = 0;
    for (const { id, powerUp } of this.device.controls) {
      if (typeof powerUp === 'object') this.set(id, powerUp.at);
      else {
        const chosen = powerUp === 'loaded' ? undefined : choose(id);
        if (chosen !== undefined) this.set(id, chosen);
      }
    }
    for (const memory of this.device.memories) {
      const contents = this.contentsOf(memory, Number(this.values.get(memory.control)));
      for (const id of memory.stores) if (this.device.controls.find((c) => c.id === id)?.powerUp === 'loaded') this.set(id, contents?.[id] ?? NOT_KNOWN);
    }
    this.readContacts();
    for (const a of this.device.actuators) if ('power' in a.by) this.fire(a);
  }

  /** Latching inputs follow the level that they find. */
  readContacts(): void {
    for (const a of this.device.actuators) {
      if ('contact' in a.by && 'level' in a.by && this.outside.plugged(a.by.contact) && this.outside.contactAt(a.by.contact) === (a.by.level === 'closed')) this.fire(a);
    }
  }

  private contentsOf(memory: Memory, number: number): Readonly<Record<string, Value>> | undefined {
    const contents = this.outside.program(memory.id, number)?.contents;
    return contents === 'unplanned' ? undefined : contents;
  }

  /** A byte arrives at a MIDI input. @returns the message that it completed, whether the box took notice, or missed it because it is loading */
  hear(jack: string, byte: number): { readonly read: Read; readonly reacts: boolean; readonly missed?: true } | undefined {
    if (byte === CLOCK) return void this.followClock();
    let reader = this.readers.get(jack);
    if (!reader) this.readers.set(jack, reader = new ByteReader());
    const read = reader.push(byte);
    if (!read || this.isDark || !this.answersOn(read.channel)) return read && { read, reacts: false };
    if (this.outside.now() >= this.deafUntil) return { read, reacts: this.obey(read) };
    if (this.device.midi?.messages === 'lost') return { read, reacts: false, missed: true };
    this.outside.plan(this.deafUntil, () => { if (!this.isDark) this.obey(read); });
    return { read, reacts: true };
  }

  /** Takes its tempo from the time between two clock bytes, 24 to a beat; after a longer pause it begins anew. */
  private followClock(): void {
    if (this.isDark) return;
    const us = this.outside.now() - this.clockedAt;
    this.clockedAt = this.outside.now();
    if (us > LONGEST_TICK_US) return;
    for (const a of this.device.actuators) if ('midi' in a.by && a.by.midi === 'clock') this.fire(a, 60_000_000 / (us * 24));
  }

  /** Its channel switch is turned: it answers there and nowhere else. */
  listenOn(channel: number): void {
    this.turnedTo = channel;
  }

  private answersOn(channel: number): boolean {
    const { midi } = this.device;
    if (!midi) return false;
    if (this.turnedTo !== undefined) return this.turnedTo === channel;
    return midi.omni === true || (typeof midi.channel === 'number' ? midi.channel : Number(this.values.get(midi.channel))) === channel;
  }

  private obey({ status, data }: Read): boolean {
    if (status === PROGRAM_CHANGE) {
      const number = data[0]! + 128 * this.bank;
      return this.fireAll((a) => 'midi' in a.by && a.by.midi === 'pc', number);
    }
    if (status === CONTROL_CHANGE) {
      const [controller, value] = data as readonly [number, number];
      if (this.device.memories.some((m) => m.size > 128)) {
        if (controller === 0) this.bank = (value << 7) | (this.bank & 0x7f);
        if (controller === 32) this.bank = (this.bank & ~0x7f) | value;
      }
      return this.fireAll((a) => 'midi' in a.by && a.by.midi === 'cc' && a.by.number === controller, value);
    }
    if (status === NOTE_ON) return this.fireAll((a) => 'midi' in a.by && a.by.midi === 'note' && a.by.number === data[0], data[1]);
    return false;
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
  touch(name: string, gesture: Gesture = 'press'): boolean {
    return this.fireAll((a) => ('foot' in a.by && a.by.foot === name && a.by.gesture === gesture) || ('hand' in a.by && a.by.hand === name && gesture === 'press'));
  }

  /** Whether this gesture means anything to the box. */
  minds(name: string, gesture: Gesture): boolean {
    return this.device.actuators.some((a) => 'foot' in a.by && a.by.foot === name && a.by.gesture === gesture);
  }

  /** A pedal at one of its expression inputs stands there now. @param byte 0 heel to 127 toe */
  pedal(jack: string, byte: number): boolean {
    if (this.isDark) return false;
    const assigned = this.device.memories.flatMap((m) => actsAt(this.outside.program(m.id, Number(this.values.get(m.control)))?.sweeps, jack, byte));
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
    const program = this.outside.program(memory.id, number);
    const contents = this.contentsOf(memory, number);
    this.set(memory.control, number);
    if (memory.mutesMs > 0) this.outside.silent(memory.mutesMs);
    if (memory.gapMs > 0) {
      this.deafUntil = this.outside.now() + memory.gapMs * 1000;
      this.outside.plan(this.deafUntil, () => undefined);
    }
    for (const id of memory.stores) {
      const value = contents ? contents[id] : NOT_KNOWN;
      if (value !== undefined) this.set(id, value);
    }
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
      } else if ('step' in act) this.set(act.control, act.step[(act.step.findIndex((v) => String(v) === String(old)) + 1) % act.step.length]!);
      else if ('map' in act) {
        const range = number === undefined ? undefined : act.map.find(([from, to]) => number >= from && number <= to);
        if (range) this.set(act.control, range[2]);
      } else if (number !== undefined) {
        this.set(act.control, scaledValue(number, act.scale, this.stepOf(act.control)));
      }
    } else if ('load' in act) {
      const memory = this.device.memories.find((m) => m.id === act.load)!;
      const slot = act.slot === 'value' ? number ?? -1 : typeof act.slot === 'number' ? act.slot
        : act.slot.banks.findIndex((b) => String(b) === String(this.values.get((act.slot as { bank: string }).bank))) * act.slot.size + act.slot.plus;
      this.load(memory, slot);
    } else if ('send' in act) this.outside.sendMidi(act.at, act.send, act.afterMs ?? 0);
    else if ('pulse' in act) {
      this.outside.contact(act.pulse, true);
      this.outside.contact(act.pulse, false);
    } else this.follow(act.follow, act.gesture);
  }

  private stepOf(control: string): number {
    const domain = this.device.controls.find((c) => c.id === control)?.domain;
    return domain && 'min' in domain ? domain.step ?? 1 : 1;
  }

  /** A switch that the loaded program assigns. A latched one turns its latch first, then follows its new state. */
  private follow(name: string, gesture: 'press' | 'release'): void {
    for (const memory of this.device.memories) {
      const place = memory.assignable?.find((a) => a.switch === name);
      if (!place) continue;
      const isHeld = this.values.get(place.held) === 'on';
      if ((gesture === 'press') === isHeld) return;
      this.set(place.held, gesture === 'press' ? 'on' : 'off');
      const assign = this.outside.program(memory.id, Number(this.values.get(memory.control)))?.assigns.find((a) => a.switch === name);
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
    const relays = relaysOf(this.device).filter((r) => r.closedWhen?.some((f) => 'control' in f && f.control === control));
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

import { bankAndProgram, hex, toBytes } from '../midi/bytes.js';
import type { Message } from '../rig/act.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { keptIn } from '../rig/kept.js';
import { all, cablesOf, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { Box, type Gesture } from './box.js';
import { ByteReader, type Read } from '../midi/reader.js';
import { Timeline } from './timeline.js';

/** What stands on the bench: the boxes and cables of a hook-up, and what is stored in them. */
export interface BenchSetup {
  readonly rig: Rig;
  readonly hookup: Hookup;
  readonly programs: readonly Program[];
  /** How each control stands when the power comes on, where the box itself does not decide. */
  readonly found: (control: Ref) => Value | undefined;
  /** What a control comes up with whose program nobody wrote down; not known when it is not said. */
  readonly unwritten?: (control: Ref) => Value | undefined;
}

/** One line of the monitor. */
export type Heard =
  | { readonly is: 'stomp'; readonly at: number; readonly device: Id<'device'>; readonly what: string }
  | { readonly is: 'message'; readonly at: number; readonly from: Id<'device'>; readonly bytes: string; readonly read: Read; readonly reacts: readonly Id<'device'>[]; /** Boxes that would have reacted, had they not been loading. */ readonly missed?: readonly Id<'device'>[] }
  | { readonly is: 'clock'; readonly at: number; readonly from: Id<'device'>; readonly bpm: number }
  | { readonly is: 'fault'; readonly at: number; readonly what: string }
  | { readonly is: 'contact'; readonly at: number; readonly device: Id<'device'>; readonly jack: string; readonly closed: boolean };

export interface Silence {
  readonly device: Id<'device'>;
  readonly from: number;
  readonly until: number;
}

const RING = /:ring$/;
const bothPoles = (end: Ref): readonly Ref[] => [end, `${end}:ring` as Ref];

const GESTURES: Readonly<Record<Gesture, (name: string) => string>> = { press: (n) => n, release: (n) => `let go of ${n}`, hold: (n) => `${n} held`, twice: (n) => `${n} twice` };
const storedKey = (device: Id<'device'>, memory: string, number: number, of: number | undefined): string => `${device} ${memory} ${number} of ${of ?? 'any'}`;

/** More messages after one stomp have no end. */
const MOST_SENT = 2000;
const BYTE_US = 320;
const CLOCK = 0xf8;
/** Source: MIDI 1.0 Detailed Specification, "Timing Clock". */
const CLOCKS_A_BEAT = 24;
/** A thru passes a byte on with a small delay (assumed: two microseconds of opto-coupler). */
const THRU_US = 2;

/** The simulated rig: time in microseconds, real bytes on the wires, boxes that read them on their own. */
export class Bench {
  private readonly time = new Timeline();
  private readonly boxes = new Map<Id<'device'>, Box>();
  private readonly otherEnd = new Map<Ref, Ref>();
  private readonly stored = new Map<string, Program>();
  private readonly busyUntil = new Map<Ref, number>();
  private readonly toSend = new Map<Ref, { readonly bytes: readonly number[]; readonly afterUs: number; readonly lost: boolean }[]>();
  private readonly sending = new Set<Ref>();
  private readonly shared = new Map<Ref, boolean>();
  private sentSinceQuiet = 0;
  private readonly clocks = new Map<Ref, number>();
  /** What has come in of a message that is to be passed on whole. */
  private readonly merging = new Map<string, ByteReader>();
  private toLose = 0;
  private toCorrupt = 0;
  private hurryUs: number | undefined;
  private losing: { readonly from: Id<'device'>; message: number } | undefined;
  readonly heard: Heard[] = [];
  /** Times in which a box let nothing through while it loaded, in µs. */
  readonly silences: Silence[] = [];
  private readonly pedals = new Map<Ref, number>();

  constructor(private readonly setup: BenchSetup, private readonly listens = true) {
    for (const cable of cablesOf(setup.rig, setup.hookup.id)) {
      this.otherEnd.set(cable.ends[0], cable.ends[1]);
      this.otherEnd.set(cable.ends[1], cable.ends[0]);
    }
    for (const p of setup.programs) this.stored.set(storedKey(p.device, p.memory, p.number, p.of), p);
    for (const device of all(setup.rig, 'device')) this.boxes.set(device.id, this.makeBox(device.id));
    for (const [id, box] of this.boxes) for (const c of box.device.controls) box.values.set(c.id, setup.found(ref(id, c.id)) ?? '');
    for (const [id, box] of this.boxes) box.wake((control) => setup.found(ref(id, control)), (control) => setup.unwritten?.(ref(id, control)));
    for (const box of this.boxes.values()) box.readContacts();
    for (const box of this.boxes.values()) box.begin();
    this.time.pass();
    this.heard.length = 0;
    this.silences.length = 0;
  }

  private makeBox(id: Id<'device'>): Box {
    const device = this.setup.rig.parts.device.get(id)!;
    return new Box(device, {
      sendMidi: (jack, message, afterMs) => this.transmit(id, jack, message, afterMs),
      now: () => this.time.now,
      plan: (at, run) => this.time.plan(at, run),
      contact: (jack, closed) => this.moveContact(id, jack, closed),
      plugged: (jack) => this.otherEnd.has(ref(id, jack.replace(RING, ''))),
      contactAt: (jack) => this.contactAt(ref(id, jack)),
      program: (memory, number, of) => (of === undefined ? undefined : this.stored.get(storedKey(id, memory, number, of))) ?? this.stored.get(storedKey(id, memory, number, undefined)),
      changed: () => undefined,
      silent: (ms) => this.fallSilent(id, ms),
    });
  }

  private fallSilent(device: Id<'device'>, ms: number): void {
    const until = this.time.now + ms * 1000;
    if (this.listens) this.silences.push({ device, from: this.time.now, until });
    this.time.plan(until, () => undefined);
  }

  get now(): number {
    return this.time.now;
  }

  value(control: Ref): Value | undefined {
    const { device, name } = splitRef(control);
    return this.boxes.get(device)?.values.get(name);
  }

  /** Every control of every box. */
  state(): ReadonlyMap<Ref, Value> {
    const state = new Map<Ref, Value>();
    for (const [id, box] of this.boxes) for (const [control, value] of box.values) state.set(ref(id, control), value);
    return state;
  }

  private note(line: Heard): void {
    if (this.listens) this.heard.push(line);
  }

  private transmit(from: Id<'device'>, jack: string, message: Message, afterMs: number): void {
    if ('bpm' in message) return this.sendClock(from, ref(from, jack), message.bpm, afterMs);
    const bytes = 'pc' in message
      ? message.bank === undefined ? toBytes({ is: 'pc', channel: message.channel, program: message.pc }) : bankAndProgram(message.channel, message.bank, message.pc)
      : toBytes({ is: 'cc', channel: message.channel, controller: message.cc, value: message.value });
    const port = ref(from, jack);
    const queue = keptIn(this.toSend, port, () => []);
    queue.push({ bytes, afterUs: afterMs * 1000, lost: this.isLost(from) });
    if (!this.sending.has(port)) this.sendNext(from, port);
  }

  /** The next message that a box has to send on an output: after its pause, and when the output is free. */
  private sendNext(from: Id<'device'>, port: Ref): void {
    this.sentSinceQuiet += 1;
    if (this.sentSinceQuiet === MOST_SENT) this.note({ is: 'fault', at: this.time.now, what: 'boxes tell each other what to do without end; the bench stops them' });
    const next = this.sentSinceQuiet < MOST_SENT ? this.toSend.get(port)?.shift() : undefined;
    if (!next) {
      this.toSend.delete(port);
      this.sending.delete(port);
      return;
    }
    this.sending.add(port);
    this.time.plan(this.time.now + next.afterUs, () => {
      let at = Math.max(this.time.now, this.busyUntil.get(port) ?? 0);
      for (const byte of next.bytes) {
        at += BYTE_US;
        if (!next.lost) this.time.plan(at, () => this.travel(from, port, byte, next.bytes));
      }
      if (next.lost) this.time.plan(at, () => this.note({ is: 'fault', at: this.time.now, what: `${hex(next.bytes)} is lost` }));
      this.busyUntil.set(port, at);
      this.time.plan(at, () => this.sendNext(from, port));
    });
  }

  /** Two beats of MIDI clock, 24 bytes to a beat, in between whatever else is on the wire. A new tempo takes the place of the old one. */
  private sendClock(from: Id<'device'>, port: Ref, bpm: number, afterMs: number): void {
    const begin = this.time.now + afterMs * 1000;
    this.time.plan(begin, () => {
      const mine = (this.clocks.get(port) ?? 0) + 1;
      this.clocks.set(port, mine);
      for (let tick = 0; tick <= 2 * CLOCKS_A_BEAT; tick += 1) {
        const at = Math.round(begin + BYTE_US + (tick * 60_000_000) / (bpm * CLOCKS_A_BEAT));
        this.time.plan(at, () => { if (this.clocks.get(port) === mine) this.travel(from, port, CLOCK, [CLOCK]); });
      }
    });
    this.note({ is: 'clock', at: begin, from, bpm });
  }

  private isLost(from: Id<'device'>): boolean {
    if (this.losing?.from !== from) return false;
    this.losing.message -= 1;
    return this.losing.message === -1;
  }

  /** A byte leaves by an output: over the cable into the next box, which reads it and may pass it on. */
  private travel(source: Id<'device'>, port: Ref, byte: number, bytes: readonly number[], by: ReadonlySet<Ref> = new Set([port])): void {
    const arrives = this.otherEnd.get(port);
    if (!arrives || this.boxes.get(source)?.isDark) return;
    if (port.startsWith(`${source}.`) && this.toLose > 0) {
      this.toLose -= 1;
      this.note({ is: 'fault', at: this.time.now, what: `${hex([byte])} is lost` });
      return;
    }
    if (port.startsWith(`${source}.`) && this.toCorrupt > 0 && byte !== CLOCK) {
      this.toCorrupt -= 1;
      this.note({ is: 'fault', at: this.time.now, what: `${hex([byte])} arrives as ${hex([byte ^ 1])}` });
      byte ^= 1;
    }
    const { device, name } = splitRef(arrives);
    const box = this.boxes.get(device);
    const jack = box?.device.jacks.find((j) => j.id === name);
    if (!box || jack?.kind !== 'midi' || jack.poles.tip !== 'in') return;
    for (const next of this.passesOn(box, name)) this.passOn(source, ref(device, next), box, byte, bytes, by);
    const told = box.hear(name, byte);
    if (told) this.noteMessage(source, bytes, told.read, told.reacts ? device : undefined, told.missed && device);
  }

  /**
   * A plain thru passes a byte on at once. An output on which a box has something of its own to send, or on which several inputs meet, passes on whole messages, each when it is its turn.
   * A message does not pass the same output twice.
   */
  private passOn(source: Id<'device'>, out: Ref, box: Box, byte: number, bytes: readonly number[], by: ReadonlySet<Ref>): void {
    if (by.has(out)) return;
    const along = new Set([...by, out]);
    if (byte === CLOCK || !this.isShared(box, splitRef(out).name)) {
      this.time.plan(this.time.now + THRU_US, () => this.travel(source, out, byte, bytes, along));
      return;
    }
    const key = `${out} ${source} ${[...by].join(' ')}`;
    let reader = this.merging.get(key);
    if (!reader) this.merging.set(key, reader = new ByteReader());
    const whole = reader.push(byte);
    if (!whole) return;
    const again = [(whole.status << 4) | (whole.channel - 1), ...whole.data];
    const there = Math.max(this.time.now + THRU_US, (this.busyUntil.get(out) ?? 0) + again.length * BYTE_US);
    again.forEach((one, i) => this.time.plan(Math.max(this.time.now + THRU_US, there - (again.length - 1 - i) * BYTE_US), () => this.travel(source, out, one, again, along)));
    this.busyUntil.set(out, there);
  }

  /** Whether the box can send something of its own there, or several inputs meet there. */
  private isShared({ device }: Box, jack: string): boolean {
    return keptIn(this.shared, ref(device.id, jack), () => {
      const programs = this.setup.programs.filter((p) => p.device === device.id);
      const lists = [...device.actuators.map((a) => a.acts), ...programs.flatMap((p) => [p.acts, ...p.assigns.flatMap((x) => [x.on, x.off])])];
      return device.memories.some((m) => m.by !== undefined) || lists.some((acts) => acts.some((act) => 'send' in act && act.at === jack)) || device.chains.filter((c) => c.to.some((t) => t.at === jack)).flatMap((c) => c.from).length > 1;
    });
  }

  private noteMessage(from: Id<'device'>, bytes: readonly number[], read: Read, reacts: Id<'device'> | undefined, missed: Id<'device'> | undefined): void {
    if (!this.listens) return;
    const text = hex(bytes);
    const last = this.heard.findLast((h) => h.is === 'message');
    const same = last?.is === 'message' && last.from === from && last.bytes === text && last.read.status === read.status && last.read.data.join() === read.data.join() && this.time.now - last.at < BYTE_US;
    if (!same) this.note({ is: 'message', at: this.time.now, from, bytes: text, read, reacts: reacts ? [reacts] : [], ...(missed ? { missed: [missed] } : {}) });
    else if (reacts) this.heard[this.heard.lastIndexOf(last)] = { ...last, reacts: [...last.reacts, reacts] };
    else if (missed) this.heard[this.heard.lastIndexOf(last)] = { ...last, missed: [...last.missed ?? [], missed] };
  }

  /** Outputs to which a box passes on what comes in here: its thru or merge chains. */
  private passesOn(box: Box, jack: string): readonly string[] {
    return box.device.chains.filter((c) => !box.isDark || c.passive).filter((c) => c.from.some((t) => t.at === jack)).flatMap((c) => c.to.map((t) => t.at));
  }

  private moveContact(device: Id<'device'>, jack: string, closed: boolean): void {
    this.note({ is: 'contact', at: this.time.now, device, jack, closed });
    for (const end of this.contactsFrom(ref(device, jack))) {
      const { device: other, name } = splitRef(end);
      this.boxes.get(other)?.contactChanged(name, closed);
    }
  }

  /** Contact inputs at the far end of a cable, also through passive wiring. */
  private contactsFrom(port: Ref): readonly Ref[] {
    const arrives = this.farPole(port);
    if (!arrives) return [];
    const { device, name } = splitRef(arrives);
    const box = this.boxes.get(device);
    return box ? [arrives, ...this.passesOn(box, name).flatMap((next) => this.contactsFrom(ref(device, next)))] : [];
  }

  /** The pole at the far end of a cable: tip meets tip, and ring meets ring where both have one. */
  private farPole(pole: Ref): Ref | undefined {
    if (!RING.test(pole)) return this.otherEnd.get(pole);
    const far = this.otherEnd.get(pole.replace(RING, '') as Ref);
    const { device, name } = splitRef(far ?? pole);
    return far && this.boxes.get(device)?.device.jacks.find((j) => j.id === name)?.poles.ring ? `${far}:ring` as Ref : undefined;
  }

  private contactAt(input: Ref): boolean {
    const from = this.farPole(input);
    if (!from) return false;
    const { device, name } = splitRef(from);
    const box = this.boxes.get(device);
    if (!box) return false;
    const behind = box.device.chains.filter((c) => c.passive && c.to.some((t) => t.at === name)).flatMap((c) => c.from.map((t) => t.at));
    return behind.length ? behind.some((at) => this.contactAt(ref(device, at))) : box.isClosed(name);
  }

  /** A foot on a switch of a box; everything that follows has settled when this returns. */
  stomp(device: Id<'device'>, name: string, gesture: Gesture = 'press'): void {
    const box = this.boxes.get(device);
    if (gesture === 'press' || box?.hasGesture(name, gesture)) this.note({ is: 'stomp', at: this.time.now, device, what: GESTURES[gesture](name) });
    box?.touch(name, gesture);
    this.settle();
  }

  /** Until all is quiet, or only as long as a player in a hurry waits. */
  private settle(): void {
    this.sentSinceQuiet = 0;
    this.time.pass(this.hurryUs === undefined ? Infinity : this.time.now + this.hurryUs);
  }

  /** From now on each stomp follows so soon after the one before, settled or not. Without a time, everything settles again, as usual. */
  hurry(us?: number): void {
    this.hurryUs = us;
  }

  /** The message that a box sends next but so many never arrives, though it takes its time on the wire. */
  loseMessage(from: Id<'device'>, message: number): void {
    this.losing = { from, message };
  }

  /** Messages arrive again, if none was lost meanwhile. */
  loseNoMessage(): void {
    this.losing = undefined;
  }

  /** Somebody turns a knob. */
  turn(control: Ref, to: Value): void {
    const { device, name } = splitRef(control);
    this.note({ is: 'stomp', at: this.time.now, device, what: `${name} turned to ${to}` });
    this.boxes.get(device)?.values.set(name, to);
  }

  /** Nobody does anything for so many microseconds. */
  wait(us: number): void {
    this.time.pass(this.time.now + us);
  }

  /** One actuator of a box, by hand or foot. @param number what it is turned or tapped to */
  actuate(device: Id<'device'>, actuator: string, number?: number): void {
    this.note({ is: 'stomp', at: this.time.now, device, what: actuator });
    this.boxes.get(device)?.actuate(actuator, number);
    this.settle();
  }

  /** A control stands so, whatever brought it there; what follows it stands so already. */
  stand(control: Ref, value: Value): void {
    const { device, name } = splitRef(control);
    this.boxes.get(device)?.values.set(name, value);
  }

  /** What nobody wrote down of a program is taken to be this. */
  takeAs(device: Id<'device'>, memory: string, number: number, of: number | undefined, holds: Readonly<Record<string, Value>>): void {
    const key = storedKey(device, memory, number, of);
    const known = this.setup.programs.find((p) => storedKey(p.device, p.memory, p.number, p.of) === key);
    const written = known && known.contents !== 'unplanned' ? known.contents : {};
    const before = this.stored.get(key)?.contents;
    this.stored.set(key, { ...(known ?? { kind: 'program', id: 'program:unwritten', device, memory, number, name: '', acts: [], assigns: [] }), contents: { ...(before === 'unplanned' ? {} : before), ...holds, ...written } });
  }

  /** Goes to the bank that holds the slot by stomping up or down, then stomps its switch. */
  call(device: Id<'device'>, memoryId: string, slot: number): void {
    const box = this.boxes.get(device);
    const memory = box?.device.memories.find((m) => m.id === memoryId);
    if (!box || !memory) return;
    if (!memory.switches?.length) {
      box.load(memory, slot);
      return this.settle();
    }
    const name = memory.switches[slot % memory.switches.length]!;
    const { hurryUs } = this;
    if (memory.bank) {
      this.hurryUs = 0;
      const banks = box.device.actuators.flatMap((a) => a.acts).find((act) => 'load' in act && typeof act.slot === 'object');
      const places = banks && 'load' in banks && typeof banks.slot === 'object' ? banks.slot.banks : [];
      const wanted = Math.floor(slot / memory.switches.length);
      for (let steps = 0; steps < places.length; steps += 1) {
        const shown = places.findIndex((b) => String(b) === String(box.values.get(memory.bank!.control)));
        if (shown === wanted) break;
        this.stomp(device, shown < wanted ? memory.bank.up : memory.bank.down);
      }
      this.hurryUs = hurryUs;
    }
    this.stomp(device, name);
  }

  /** Nothing is on its way any more. */
  get quiet(): boolean {
    return this.time.quiet;
  }

  /** Plugs as they sit now: both ends of every cable. */
  get plugged(): readonly (readonly [Ref, Ref])[] {
    return [...this.otherEnd].filter(([a, b]) => a < b);
  }

  /** Boxes without supply. */
  get dark(): ReadonlySet<Id<'device'>> {
    return new Set([...this.boxes].filter(([, box]) => box.isDark).map(([id]) => id));
  }

  /** A pedal at an expression input is moved. @param byte 0 heel to 127 toe */
  pedal(device: Id<'device'>, jack: string, byte: number): void {
    this.note({ is: 'stomp', at: this.time.now, device, what: `${jack} at ${Math.round((byte * 100) / 127)} %` });
    this.pedals.set(ref(device, jack), byte);
    this.boxes.get(device)?.pedal(jack, byte);
    this.settle();
  }

  /** Where a pedal was moved to last; undefined when nobody touched it. */
  pedalAt(device: Id<'device'>, jack: string): number | undefined {
    return this.pedals.get(ref(device, jack));
  }

  /** A cable comes out at both ends, whatever it carries. */
  pull({ ends: [a, b] }: Pick<Cable, 'ends'>): void {
    this.note({ is: 'fault', at: this.time.now, what: `a cable is pulled: ${this.jackName(a)} to ${this.jackName(b)}` });
    const closed = [a, b].flatMap(bothPoles).filter((end) => this.contactAt(end));
    this.otherEnd.delete(a);
    this.otherEnd.delete(b);
    for (const end of closed) this.contactIs(end, false);
    this.time.pass();
  }

  /** A contact input finds itself closed or open, and so does whatever a passive lead carries it on to. */
  private contactIs(input: Ref, closed: boolean): void {
    const { device, name } = splitRef(input);
    const box = this.boxes.get(device);
    if (!box) return;
    box.contactChanged(name, closed);
    for (const end of this.passesOn(box, name).flatMap((next) => this.contactsFrom(ref(device, next)))) this.boxes.get(splitRef(end).device)?.contactChanged(splitRef(end).name, closed);
  }

  /** A cable goes in where it belongs; what sat in its jacks comes out. */
  plug({ ends: [a, b] }: Pick<Cable, 'ends'>): void {
    for (const end of [a, b]) {
      const other = this.otherEnd.get(end);
      if (other && other !== a && other !== b) this.pull({ ends: [end, other] });
    }
    this.note({ is: 'fault', at: this.time.now, what: `a cable is plugged in: ${this.jackName(a)} to ${this.jackName(b)}` });
    this.join(a, b);
    this.time.pass();
  }

  private join(a: Ref, b: Ref): void {
    this.otherEnd.set(a, b);
    this.otherEnd.set(b, a);
    for (const end of [a, b].flatMap(bothPoles)) if (this.contactAt(end)) this.contactIs(end, true);
  }

  /** A box loses its supply and stays dark. */
  darken(device: Id<'device'>): void {
    const box = this.boxes.get(device);
    if (!box || box.isDark) return;
    this.note({ is: 'fault', at: this.time.now, what: `${box.device.name} loses its supply` });
    box.goDark();
    this.time.pass();
  }

  /** Its supply is back, and it wakes. */
  light(device: Id<'device'>): void {
    if (this.boxes.get(device)?.isDark) this.powerCycle(device);
  }

  /** The next byte that anybody sends is lost on the way. */
  loseByte(): void {
    this.note({ is: 'fault', at: this.time.now, what: 'the next byte will be lost' });
    this.toLose += 1;
  }

  /** The next byte that anybody sends arrives with its lowest bit turned over. */
  corruptByte(): void {
    this.note({ is: 'fault', at: this.time.now, what: 'the next byte will arrive wrong' });
    this.toCorrupt += 1;
  }

  /** Two cables that come to one box are plugged into each other's jacks. */
  swap(one: Pick<Cable, 'ends'>, other: Pick<Cable, 'ends'>, at: Id<'device'>): void {
    const here = ({ ends }: Pick<Cable, 'ends'>) => ends.find((e) => splitRef(e).device === at);
    const far = ({ ends }: Pick<Cable, 'ends'>) => ends.find((e) => splitRef(e).device !== at);
    const [jackOne, jackOther, farOne, farOther] = [here(one), here(other), far(one), far(other)];
    if (!jackOne || !jackOther || !farOne || !farOther) return;
    this.pull(one);
    this.pull(other);
    for (const [a, b] of [[jackOne, farOther], [jackOther, farOne]] as const) {
      this.note({ is: 'fault', at: this.time.now, what: `plugged wrong: ${this.jackName(b)} to ${this.jackName(a)}` });
      this.join(a, b);
    }
    this.time.pass();
  }

  /** Somebody turned its channel switch. */
  mischannel(device: Id<'device'>, channel: number): void {
    const box = this.boxes.get(device);
    if (!box?.device.midi) return;
    this.note({ is: 'fault', at: this.time.now, what: `${box.device.name} listens on channel ${channel}` });
    box.listenOn(channel);
  }

  /** Its spare is put in its place: the same box, with the programs that it left the factory with, none of them known here. */
  spare(device: Id<'device'>): void {
    const box = this.boxes.get(device);
    if (!box) return;
    this.note({ is: 'fault', at: this.time.now, what: `${box.device.name} is replaced by its spare` });
    for (const [key, program] of this.stored) if (program.device === device) this.stored.delete(key);
    box.wake(() => undefined);
    box.begin();
    this.time.pass();
  }

  private jackName(end: Ref): string {
    const { device, name } = splitRef(end);
    return `${this.boxes.get(device)?.device.code ?? device} ${name}`;
  }

  /** Somebody kicked its plug: the box loses its supply and wakes again. */
  powerCycle(device: Id<'device'>, wakes: (control: string) => Value | undefined = () => undefined): void {
    const box = this.boxes.get(device);
    if (!box) return;
    this.note({ is: 'stomp', at: this.time.now, device, what: box.isDark ? 'supply is back' : 'power off and on' });
    box.wake((control) => (box.device.controls.find((c) => c.id === control)?.powerUp === 'unknown' ? wakes(control) : undefined), wakes);
    box.begin();
    this.settle();
  }
}

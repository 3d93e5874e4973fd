import type { Hookup } from '../rig/hookup.js';
import { ref, splitRef, theRef, type Id, type Ref } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { all, cablesOf, thePart, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import { Box, type FootGesture } from './box.js';
import { type Read } from '../midi/reader.js';
import { Timeline } from './timeline.js';
import { Faults } from './faults.js';
import { Wires } from './wires.js';
import { surely, theItem } from '../known/the.js';
import { jackIn, memoryIn } from '../rig/box.js';
import { controlIn } from '../rig/device.js';

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
export type MonitorLine =
  | { readonly is: 'stomp'; readonly at: number; readonly device: Id<'device'>; readonly what: string }
  | {
      readonly is: 'message';
      readonly at: number;
      readonly from: Id<'device'>;
      readonly bytes: string;
      readonly read: Read;
      readonly reacts: readonly Id<'device'>[];
      /** Boxes that would have reacted, had they not been loading. */ readonly missed?: readonly Id<'device'>[];
    }
  | { readonly is: 'clock'; readonly at: number; readonly from: Id<'device'>; readonly bpm: number }
  | { readonly is: 'fault'; readonly at: number; readonly what: string }
  | {
      readonly is: 'contact';
      readonly at: number;
      readonly device: Id<'device'>;
      readonly jack: string;
      readonly closed: boolean;
    };

export interface Silence {
  readonly device: Id<'device'>;
  readonly from: number;
  readonly until: number;
}
const RING = /:ring$/;

const GESTURES: Readonly<Record<FootGesture, (name: string) => string>> = {
  press: (n) => n,
  release: (n) => `let go of ${n}`,
  hold: (n) => `${n} held`,
  twice: (n) => `${n} twice`,
};
const storedKey = (device: Id<'device'>, memory: string, number: number, of: number | undefined): string =>
  `${device} ${memory} ${number} of ${of ?? 'any'}`;

/** The simulated rig: time in microseconds, real bytes on the wires, boxes that read them on their own. */
export class Bench {
  readonly wires = new Wires(this);
  readonly faults = new Faults(this);

  readonly time = new Timeline();
  readonly boxes = new Map<Id<'device'>, Box>();
  readonly otherEnd = new Map<Ref, Ref>();
  readonly stored = new Map<string, Program>();
  private hurryUs: number | undefined;
  readonly heard: MonitorLine[] = [];
  /** Times in which a box let nothing through while it loaded, in µs. */
  readonly silences: Silence[] = [];
  private readonly pedals = new Map<Ref, number>();

  constructor(
    readonly setup: BenchSetup,
    readonly listens = true,
  ) {
    for (const cable of cablesOf(setup.rig, setup.hookup.id)) {
      this.otherEnd.set(cable.ends[0], cable.ends[1]);
      this.otherEnd.set(cable.ends[1], cable.ends[0]);
    }
    for (const p of setup.programs) this.stored.set(storedKey(p.device, p.memory, p.number, p.of), p);
    for (const device of all(setup.rig, 'device')) this.boxes.set(device.id, this.makeBox(device.id));
    for (const [id, box] of this.boxes)
      for (const c of box.device.controls) box.values.set(c.id, setup.found(ref(id, c.id)) ?? '');
    for (const [id, box] of this.boxes)
      box.wake(
        (control) => setup.found(ref(id, control)),
        (control) => setup.unwritten?.(ref(id, control)),
      );
    for (const box of this.boxes.values()) box.readContacts();
    for (const box of this.boxes.values()) box.begin();
    this.time.pass();
    this.heard.length = 0;
    this.silences.length = 0;
  }

  private makeBox(id: Id<'device'>): Box {
    const device = thePart(this.setup.rig, id);
    return new Box(device, {
      sendMidi: (jack, message, afterMs) => this.wires.transmit(id, jack, message, afterMs),
      now: () => this.time.now,
      plan: (at, run) => this.time.plan(at, run),
      contact: (jack, closed) => this.moveContact(id, jack, closed),
      plugged: (jack) => this.otherEnd.has(ref(id, jack.replace(RING, ''))),
      contactAt: (jack) => this.contactAt(ref(id, jack)),
      program: (memory, number, of) =>
        (of === undefined ? undefined : this.stored.get(storedKey(id, memory, number, of))) ??
        this.stored.get(storedKey(id, memory, number, undefined)),
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

  note(line: MonitorLine): void {
    if (this.listens) this.heard.push(line);
  }

  private moveContact(device: Id<'device'>, jack: string, closed: boolean): void {
    this.note({ is: 'contact', at: this.time.now, device, jack, closed });
    for (const end of this.contactsFrom(ref(device, jack))) {
      const { device: other, name } = splitRef(end);
      this.boxes.get(other)?.contactChanged(name, closed);
    }
  }

  /** Contact inputs at the far end of a cable, also through passive wiring. */
  contactsFrom(port: Ref): readonly Ref[] {
    const arrives = this.farPole(port);
    if (!arrives) return [];
    const { device, name } = splitRef(arrives);
    const box = this.boxes.get(device);
    return box
      ? [arrives, ...this.wires.passesOn(box, name).flatMap((next) => this.contactsFrom(ref(device, next)))]
      : [];
  }

  /** The pole at the far end of a cable: tip meets tip, and ring meets ring where both have one. */
  private farPole(pole: Ref): Ref | undefined {
    if (!RING.test(pole)) return this.otherEnd.get(pole);
    const far = this.otherEnd.get(theRef(pole.replace(RING, '')));
    const { device, name } = splitRef(far ?? pole);
    return far && jackIn(this.boxes.get(device)?.device, name)?.poles.ring ? theRef(`${far}:ring`) : undefined;
  }

  contactAt(input: Ref): boolean {
    const from = this.farPole(input);
    if (!from) return false;
    const { device, name } = splitRef(from);
    const box = this.boxes.get(device);
    if (!box) return false;
    const behind = box.device.chains
      .filter((c) => c.passive && c.to.some((t) => t.at === name))
      .flatMap((c) => c.from.map((t) => t.at));
    return behind.length ? behind.some((at) => this.contactAt(ref(device, at))) : box.isClosed(name);
  }

  /** A foot on a switch of a box; everything that follows has settled when this returns. */
  stomp(device: Id<'device'>, name: string, gesture: FootGesture = 'press'): void {
    const box = this.boxes.get(device);
    if (gesture === 'press' || box?.hasGesture(name, gesture))
      this.note({ is: 'stomp', at: this.time.now, device, what: GESTURES[gesture](name) });
    box?.touch(name, gesture);
    this.settle();
  }

  /** Until all is quiet, or only as long as a player in a hurry waits. */
  private settle(): void {
    this.wires.sentSinceQuiet = 0;
    this.time.pass(this.hurryUs === undefined ? Infinity : this.time.now + this.hurryUs);
  }

  /**
   * From now on each stomp follows so soon after the one before, settled or not. Without a time, everything settles
   * again, as usual.
   */
  hurry(us?: number): void {
    this.hurryUs = us;
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
  takeAs(
    device: Id<'device'>,
    memory: string,
    number: number,
    of: number | undefined,
    holds: Readonly<Record<string, Value>>,
  ): void {
    const key = storedKey(device, memory, number, of);
    const known = this.setup.programs.find((p) => storedKey(p.device, p.memory, p.number, p.of) === key);
    const written = known && known.contents !== 'unplanned' ? known.contents : {};
    const before = this.stored.get(key)?.contents;
    this.stored.set(key, {
      ...(known ?? {
        kind: 'program',
        id: 'program:unwritten',
        device,
        memory,
        number,
        name: '',
        acts: [],
        assigns: [],
      }),
      contents: { ...(before === 'unplanned' ? {} : before), ...holds, ...written },
    });
  }

  /** Goes to the bank that holds the slot by stomping up or down, then stomps its switch. */
  call(device: Id<'device'>, memoryId: string, slot: number): void {
    const box = this.boxes.get(device);
    const memory = memoryIn(box?.device, memoryId);
    if (!box || !memory) return;
    if (!memory.switches?.length) {
      box.load(memory, slot);
      return this.settle();
    }
    const name = theItem(memory.switches, slot % memory.switches.length);
    const { hurryUs } = this;
    if (memory.bank) {
      this.hurryUs = 0;
      const banks = box.device.actuators
        .flatMap((a) => a.acts)
        .find((act) => 'load' in act && typeof act.slot === 'object');
      const places = banks && 'load' in banks && typeof banks.slot === 'object' ? banks.slot.banks : [];
      const wanted = Math.floor(slot / memory.switches.length);
      for (let steps = 0; steps < places.length; steps += 1) {
        const shown = places.findIndex((b) => String(b) === String(box.values.get(surely(memory.bank).control)));
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

  /** Somebody kicked its plug: the box loses its supply and wakes again. */
  powerCycle(device: Id<'device'>, wakes: (control: string) => Value | undefined = () => undefined): void {
    const box = this.boxes.get(device);
    if (!box) return;
    this.note({ is: 'stomp', at: this.time.now, device, what: box.isDark ? 'supply is back' : 'power off and on' });
    box.wake((control) => (controlIn(box.device, control)?.powerUp === 'unknown' ? wakes(control) : undefined), wakes);
    box.begin();
    this.settle();
  }
}

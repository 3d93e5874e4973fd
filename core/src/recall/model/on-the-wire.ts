import type { Act, Message } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import type { Program } from '../../rig/program.js';
import { ref, splitRef, theId, type Id, type Ref } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import { cablesOf, partOf } from '../../rig/rig.js';
import { BYTE_US } from '../../units/amounts.js';
import type { Bearings } from '../actuate/bearings.js';
import type { Effects } from './effects.js';
import { came, guardedBy, isOpen, isThen, MAYBE, noteWhether, thenOf, withReasons, type Guard } from './guards.js';
import { listenerAt, listeners } from '../actuate/listeners.js';
import { DEAF_DOMAIN, deafOf, ENDLESS, HEARS, MOST_LOADS } from './memos.js';
import type { SystemAct } from '../../prover/system.js';
import { theItem, theFirst, theEntry } from '../../known/the.js';
import { jackIn } from '../../rig/box.js';

type Sending = Extract<Act, { send: Message }>;

/** Something that happens at its time; of two at the same time the one that was planned first. */
interface Planned {
  readonly us: number;
  readonly run: () => readonly SystemAct[];
}

/** A message that waits for its turn. */
interface Waiting {
  readonly message: Message;
  readonly under: readonly Guard[];
  /** A pause before it. */
  readonly afterUs: number;
}

/** A box that misses what comes while it loads: its loads so far, each with the moment at which it hears again. */
interface Loads {
  readonly deafUntilUs: number;
  /** It may not have taken place. */
  readonly isOpen: boolean;
  /** Nobody may know whether it took place. */
  readonly isUnsure: boolean;
}

/** A thru passes a byte on with a small delay (assumed: two microseconds of opto-coupler). */
const THRU_US = 2;
/** What sends more than this after one stomp goes on without end. */
const MOST_MESSAGES = 600;
/** What hangs on what: the cable in each jack, and to which outputs a box passes on what comes in. */
const wiresOf = once((b: Bearings) => {
  const other = new Map<Ref, Ref>();
  for (const {
    ends: [a, z],
  } of cablesOf(b.rig, b.hookup.id))
    other.set(a, z).set(z, a);
  return other;
});

/** Outputs to which a box passes on what comes in at a jack. */
export const passesOn = (device: Device, jack: string): readonly string[] => passing(device).get(jack) ?? NOWHERE;

const passing = once((device: Device): ReadonlyMap<string, readonly string[]> => {
  const outputs = new Map<string, string[]>();
  for (const { from, to } of device.chains)
    for (const jack of new Set(from.map((t) => t.at)))
      keptIn(outputs, jack, (): string[] => []).push(...to.map((t) => t.at));
  return outputs;
});
const NOWHERE: readonly string[] = [];

/**
 * Outputs on which more than one thing can come out: a message that is passed on there waits until it is whole, and
 * for its turn.
 */
export const sharedOutputs = (device: Device, programs: Iterable<Program>): ReadonlySet<string> => {
  const sent = new Set<string>();
  const note = (acts: readonly Act[]) => {
    for (const act of acts) if ('send' in act) sent.add(act.at);
  };
  for (const { acts } of device.actuators) note(acts);
  for (const p of programs)
    if (p.device === device.id) [p.acts, ...p.assigns.flatMap((x) => [x.on, x.off])].forEach(note);
  const isController = device.memories.some((m) => m.by !== undefined);
  return new Set(
    device.jacks
      .filter((j) => j.kind === 'midi' && j.poles.tip === 'out')
      .map((j) => j.id)
      .filter(
        (id) =>
          isController ||
          sent.has(id) ||
          device.chains.filter((c) => c.to.some((t) => t.at === id)).flatMap((c) => c.from).length > 1,
      ),
  );
};

/**
 * Messages as they are on a wire: a bank is two control changes before its program change. Source: MIDI 1.0 Detailed
 * Specification, "Bank Select".
 */
export const onTheWire = (message: Message): readonly Message[] => {
  if (!('pc' in message) || message.bank === undefined) return [message];
  const { bank, channel, pc } = message;
  return [
    { cc: 0, value: bank >> 7, channel },
    { cc: 32, value: bank & 0x7f, channel },
    { pc, channel },
  ];
};

const bytesIn = (message: Message): number => ('pc' in message ? 2 : 3);

/**
 * Follows one event through the rig in the order of time: what is sent takes its time, waits for its turn on each
 * output, and is heard by whoever hears then.
 * What comes later rests on what was so at the time it was set off; variables of the system remember that.
 */
export class OnTheWire {
  private readonly planned: Planned[] = [];
  private readonly free = new Map<Ref, number>();
  private readonly toSend = new Map<Ref, Waiting[]>();
  private readonly sending = new Set<Ref>();
  private readonly loaded = new Map<Id<'device'>, Loads[]>();
  private readonly names = new Map<string, number>();
  private readonly used = new Set<string>();
  private now = 0;
  private sentSoFar = 0;

  constructor(private readonly effects: Effects) {}

  /** A name of its own for what has to be remembered within this event. */
  name(wished: string): string {
    const n = (this.names.get(wished) ?? 0) + 1;
    this.names.set(wished, n);
    return n === 1 ? wished : `${wished}#${n}`;
  }

  /** What begins now, and all that follows from it. */
  after(begin: () => readonly SystemAct[]): readonly SystemAct[] {
    const said = [...begin()];
    for (let next = this.soonest(); next; next = this.soonest()) {
      this.now = next.us;
      said.push(...next.run());
    }
    const firsts = [...this.used].map((device): SystemAct => ({
      variable: deafOf(theId('device', device)),
      set: HEARS,
    }));
    const endless: readonly SystemAct[] = this.sentSoFar > MOST_MESSAGES ? [{ variable: ENDLESS, set: 'yes' }] : [];
    return withoutUnread(withReasons([...firsts, ...said, ...endless]));
  }

  private soonest(): Planned | undefined {
    let best = -1;
    for (let i = 0; i < this.planned.length; i += 1)
      if (best < 0 || theItem(this.planned, i).us < theItem(this.planned, best).us) best = i;
    return best < 0 ? undefined : this.planned.splice(best, 1)[0];
  }

  private plan(us: number, run: Planned['run']): void {
    this.planned.push({ us, run });
  }

  /**
   * A box sends something: when it has sent what it was told to send before on that output, and when the output is
   * free.
   */
  send(device: Device, act: Sending, when: readonly Guard[]): readonly SystemAct[] {
    const port = ref(device.id, act.at);
    if ('bpm' in act.send) {
      this.deliver(port, act.send, when, this.now + (act.afterMs ?? 0) * 1000, new Set([port]), 0);
      return [];
    }
    if (this.isTooMuch()) return [];
    const isNoted = when.length === 0 || (when.length === 1 && isThen(theFirst(when).variable));
    const then = isNoted ? undefined : this.name(thenOf(`${device.id}.${act.at}`));
    const queue = keptIn(this.toSend, port, () => []);
    onTheWire(act.send).forEach((message, i) =>
      queue.push({
        message,
        under: then === undefined ? when : came(then, when),
        afterUs: i ? 0 : (act.afterMs ?? 0) * 1000,
      }),
    );
    if (!this.sending.has(port)) this.sendNext(port);
    return then === undefined ? [] : noteWhether(then, when);
  }

  private sendNext(port: Ref): void {
    const next = this.toSend.get(port)?.shift();
    if (!next) {
      this.sending.delete(port);
      return;
    }
    this.sending.add(port);
    this.plan(this.now + next.afterUs, () => {
      const us = Math.max(this.now, this.free.get(port) ?? 0) + bytesIn(next.message) * BYTE_US;
      this.free.set(port, us);
      this.deliver(port, next.message, next.under, us, new Set([port]), 0);
      this.plan(us, () => {
        this.sendNext(port);
        return [];
      });
      return [];
    });
  }

  private isTooMuch(): boolean {
    this.sentSoFar += 1;
    return this.sentSoFar > MOST_MESSAGES;
  }

  /** A message is whole at the far end of a cable: the box there passes it on, then does what it says. */
  private deliver(
    port: Ref,
    message: Message,
    under: readonly Guard[],
    us: number,
    by: ReadonlySet<Ref>,
    hops: number,
  ): void {
    const arrives = wiresOf(this.effects.b).get(port);
    if (!arrives) return;
    const { device: id, name } = splitRef(arrives);
    const device = partOf(this.effects.b.rig, id);
    const jack = jackIn(device, name);
    if (!device || jack?.kind !== 'midi' || jack.poles.tip !== 'in') return;
    this.plan(us, () => {
      for (const next of passesOn(device, name)) {
        const out = ref(id, next);
        if (by.has(out) || this.isTooMuch()) continue;
        let there = us + THRU_US;
        if (!('bpm' in message) && this.effects.isShared(device, next)) {
          there = Math.max(there, (this.free.get(out) ?? 0) + bytesIn(message) * BYTE_US);
          this.free.set(out, there);
        }
        this.deliver(out, message, under, there, new Set([...by, out]), hops + 1);
      }
      return this.hear(device, message, under, hops, this.beatsTwice(device, message, by));
    });
  }

  /**
   * Whether a clock comes to a box by more than one way.
   * @param by the outputs that it came by, the first of them its own
   */
  private beatsTwice(device: Device, message: Message, by: ReadonlySet<Ref>): boolean {
    const [origin] = by;
    if (!('bpm' in message) || !origin) return false;
    const { device: from, name } = splitRef(origin);
    return listeners(this.effects.b, from, name, message).filter((l) => l.device.id === device.id).length > 1;
  }

  private hear(
    device: Device,
    message: Message,
    under: readonly Guard[],
    hops: number,
    isTwice = false,
  ): readonly SystemAct[] {
    const { effects } = this;
    const listener = listenerAt(effects.b, device, message);
    const selects = 'cc' in message && (message.cc === 0 || message.cc === 32);
    if (!listener && !selects) return [];
    const how = { depth: Math.min(hops, 1), wires: this };
    const ears = this.ears(device);
    if (ears === 'deaf') {
      if (device.midi?.messages === 'lost') return [];
      const until = Math.max(...theEntry(this.loaded, device.id).map((l) => l.deafUntilUs));
      this.plan(until, () => this.hear(device, message, under, hops, isTwice));
      return [];
    }
    const heard = ears.length && device.midi?.messages === 'lost' ? [...under, ...ears] : under;
    if (heard.length && ears.length) this.used.add(device.id);
    const banks = selects ? this.bank(device, message, heard) : [];
    if (listener && isTwice) return effects.answers.loseBeat(listener, heard, how);
    return [...banks, ...(listener ? effects.answers.answer(listener, message, heard, how) : [])];
  }

  private bank(device: Device, message: Message, under: readonly Guard[]): readonly SystemAct[] {
    return 'cc' in message && this.listensAtAll(device, message)
      ? this.effects.answers.selectBank(device, message, under)
      : [];
  }

  /** Whether the box answers on the channel of a message: as it would take notice of a program change there. */
  private listensAtAll(device: Device, message: Message): boolean {
    return !('bpm' in message) && listenerAt(this.effects.b, device, { pc: 0, channel: message.channel }) !== undefined;
  }

  /** Under what conditions a box hears right now; `deaf` when it surely does not. */
  private ears(device: Device): readonly Guard[] | 'deaf' {
    const all = this.loaded.get(device.id) ?? [];
    const sure = all.findLastIndex((l) => !l.isOpen);
    const possible = all
      .map((l, i) => ({ name: `${i + 1}`, hears: l.deafUntilUs <= this.now }))
      .slice(Math.max(0, sure));
    const canBeOpen = all.some((l) => l.isUnsure);
    const states = sure < 0 ? [{ name: HEARS, hears: true }, ...possible] : possible;
    if (states.every((s) => s.hears)) return [];
    if (states.every((s) => !s.hears)) return 'deaf';
    return [
      {
        variable: deafOf(device.id),
        in: states.filter((s) => s.hears).map((s) => s.name),
        ...(canBeOpen ? { open: [MAYBE] } : {}),
      },
    ];
  }

  /** A box begins to load. */
  loads(device: Device, memory: Memory, when: readonly Guard[]): readonly SystemAct[] {
    if (!device.midi || memory.gapMs === 0) return [];
    const all = this.loaded.get(device.id) ?? [];
    all.push({ deafUntilUs: this.now + memory.gapMs * 1000, isOpen: when.length > 0, isUnsure: isOpen(when) });
    this.loaded.set(device.id, all);
    return guardedBy(
      when,
      [{ variable: deafOf(device.id), set: `${Math.min(all.length, MOST_LOADS)}` }],
      () => DEAF_DOMAIN,
    );
  }
}

/**
 * Whether what leaves by an output has to share a wire further on with what other boxes send: how long it takes then
 * depends on them.
 */
export const sharesWires = (effects: Effects, port: Ref, seen = new Set<Ref>()): boolean => {
  const arrives = wiresOf(effects.b).get(port);
  if (!arrives || seen.has(port)) return false;
  seen.add(port);
  const { device: id, name } = splitRef(arrives);
  const device = partOf(effects.b.rig, id);
  return (
    device !== undefined &&
    passesOn(device, name).some((next) => effects.isShared(device, next) || sharesWires(effects, ref(id, next), seen))
  );
};

const isMemo = (variable: string): boolean => isThen(variable) || variable.startsWith('deaf:');

/** What is remembered and never asked for is not remembered. */
const withoutUnread = (acts: readonly SystemAct[]): readonly SystemAct[] => {
  for (let left = acts; ;) {
    const read = new Set(
      left.flatMap((act) => (act.when ?? []).filter((c) => c.variable !== act.variable).map((c) => c.variable)),
    );
    const kept = left.filter((act) => !isMemo(act.variable) || read.has(act.variable));
    if (kept.length === left.length) return kept;
    left = kept;
  }
};

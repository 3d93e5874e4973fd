import { hex, messageBytes } from '../midi/bytes.js';
import type { Message } from '../rig/act.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { keptIn } from '../kept/kept.js';
import { type Box } from './box.js';
import { ByteReader, type Read } from '../midi/reader.js';
import type { Bench } from './bench.js';
import { jackIn } from '../rig/box.js';

/** More messages after one stomp have no end. */
const MOST_SENT = 2000;
const BYTE_US = 320;
const CLOCK = 0xf8;
/** Source: MIDI 1.0 Detailed Specification, "Timing Clock". */
const CLOCKS_A_BEAT = 24;
/** A thru passes a byte on with a small delay (assumed: two microseconds of opto-coupler). */
const THRU_US = 2;

/**
 * The MIDI cables of a bench: bytes that wait, travel, are passed on, and are lost or turned over on request
 * (docs/behaviour.md, 2).
 */
export class Wires {
  constructor(private readonly bench: Bench) {}

  private readonly busyUntil = new Map<Ref, number>();
  private readonly toSend = new Map<
    Ref,
    { readonly bytes: readonly number[]; readonly afterUs: number; readonly lost: boolean }[]
  >();
  private readonly sending = new Set<Ref>();
  private readonly shared = new Map<Ref, boolean>();
  sentSinceQuiet = 0;
  private readonly clocks = new Map<Ref, number>();
  /** What has come in of a message that is to be passed on whole. */
  private readonly merging = new Map<string, ByteReader>();
  private toLose = 0;
  private toCorrupt = 0;
  private losing: { readonly from: Id<'device'>; message: number } | undefined;

  transmit(from: Id<'device'>, jack: string, message: Message, afterMs: number): void {
    if ('bpm' in message) return this.sendClock(from, ref(from, jack), message.bpm, afterMs);
    const port = ref(from, jack);
    const queue = keptIn(this.toSend, port, () => []);
    queue.push({ bytes: messageBytes(message), afterUs: afterMs * 1000, lost: this.isLost(from) });
    if (!this.sending.has(port)) this.sendNext(from, port);
  }

  /** The next message that a box has to send on an output: after its pause, and when the output is free. */
  private sendNext(from: Id<'device'>, port: Ref): void {
    this.sentSinceQuiet += 1;
    if (this.sentSinceQuiet === MOST_SENT)
      this.bench.note({
        is: 'fault',
        at: this.bench.time.now,
        what: 'boxes tell each other what to do without end; the bench stops them',
      });
    const next = this.sentSinceQuiet < MOST_SENT ? this.toSend.get(port)?.shift() : undefined;
    if (!next) {
      this.toSend.delete(port);
      this.sending.delete(port);
      return;
    }
    this.sending.add(port);
    this.bench.time.plan(this.bench.time.now + next.afterUs, () => {
      let at = Math.max(this.bench.time.now, this.busyUntil.get(port) ?? 0);
      for (const byte of next.bytes) {
        at += BYTE_US;
        if (!next.lost) this.bench.time.plan(at, () => this.travel(from, port, byte, next.bytes));
      }
      if (next.lost)
        this.bench.time.plan(at, () =>
          this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${hex(next.bytes)} is lost` }),
        );
      this.busyUntil.set(port, at);
      this.bench.time.plan(at, () => this.sendNext(from, port));
    });
  }

  /**
   * Two beats of MIDI clock, 24 bytes to a beat, in between whatever else is on the wire. A new tempo takes the place
   * of the old one.
   */
  private sendClock(from: Id<'device'>, port: Ref, bpm: number, afterMs: number): void {
    const begin = this.bench.time.now + afterMs * 1000;
    this.bench.time.plan(begin, () => {
      const mine = (this.clocks.get(port) ?? 0) + 1;
      this.clocks.set(port, mine);
      for (let tick = 0; tick <= 2 * CLOCKS_A_BEAT; tick += 1) {
        const at = Math.round(begin + BYTE_US + (tick * 60_000_000) / (bpm * CLOCKS_A_BEAT));
        this.bench.time.plan(at, () => {
          if (this.clocks.get(port) === mine) this.travel(from, port, CLOCK, [CLOCK]);
        });
      }
    });
    this.bench.note({ is: 'clock', at: begin, from, bpm });
  }

  private isLost(from: Id<'device'>): boolean {
    if (this.losing?.from !== from) return false;
    this.losing.message -= 1;
    return this.losing.message === -1;
  }

  /** A byte leaves by an output: over the cable into the next box, which reads it and may pass it on. */
  private travel(
    source: Id<'device'>,
    port: Ref,
    byte: number,
    bytes: readonly number[],
    by: ReadonlySet<Ref> = new Set([port]),
  ): void {
    const arrives = this.bench.otherEnd.get(port);
    if (!arrives || this.bench.boxes.get(source)?.isDark) return;
    if (port.startsWith(`${source}.`) && this.toLose > 0) {
      this.toLose -= 1;
      this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${hex([byte])} is lost` });
      return;
    }
    if (port.startsWith(`${source}.`) && this.toCorrupt > 0 && byte !== CLOCK) {
      this.toCorrupt -= 1;
      this.bench.note({ is: 'fault', at: this.bench.time.now, what: `${hex([byte])} arrives as ${hex([byte ^ 1])}` });
      byte ^= 1;
    }
    const { device, name } = splitRef(arrives);
    const box = this.bench.boxes.get(device);
    const jack = jackIn(box?.device, name);
    if (!box || jack?.kind !== 'midi' || jack.poles.tip !== 'in') return;
    for (const next of this.passesOn(box, name)) this.passOn(source, ref(device, next), box, byte, bytes, by);
    const told = box.hear(name, byte);
    if (told) this.noteMessage(source, bytes, told.read, told.reacts ? device : undefined, told.missed && device);
  }

  /**
   * A plain thru passes a byte on at once. An output on which a box has something of its own to send, or on which
   * several inputs meet, passes on whole messages, each when it is its turn.
   * A message does not pass the same output twice.
   */
  private passOn(
    source: Id<'device'>,
    out: Ref,
    box: Box,
    byte: number,
    bytes: readonly number[],
    by: ReadonlySet<Ref>,
  ): void {
    if (by.has(out)) return;
    const along = new Set([...by, out]);
    if (byte === CLOCK || !this.isShared(box, splitRef(out).name)) {
      this.bench.time.plan(this.bench.time.now + THRU_US, () => this.travel(source, out, byte, bytes, along));
      return;
    }
    const key = `${out} ${source} ${[...by].join(' ')}`;
    let reader = this.merging.get(key);
    if (!reader) this.merging.set(key, (reader = new ByteReader()));
    const whole = reader.push(byte);
    if (!whole) return;
    const again = [(whole.status << 4) | (whole.channel - 1), ...whole.data];
    const there = Math.max(this.bench.time.now + THRU_US, (this.busyUntil.get(out) ?? 0) + again.length * BYTE_US);
    again.forEach((one, i) =>
      this.bench.time.plan(Math.max(this.bench.time.now + THRU_US, there - (again.length - 1 - i) * BYTE_US), () =>
        this.travel(source, out, one, again, along),
      ),
    );
    this.busyUntil.set(out, there);
  }

  /** Whether the box can send something of its own there, or several inputs meet there. */
  private isShared({ device }: Box, jack: string): boolean {
    return keptIn(this.shared, ref(device.id, jack), () => {
      const programs = this.bench.setup.programs.filter((p) => p.device === device.id);
      const lists = [
        ...device.actuators.map((a) => a.acts),
        ...programs.flatMap((p) => [p.acts, ...p.assigns.flatMap((x) => [x.on, x.off])]),
      ];
      return (
        device.memories.some((m) => m.by !== undefined) ||
        lists.some((acts) => acts.some((act) => 'send' in act && act.at === jack)) ||
        device.chains.filter((c) => c.to.some((t) => t.at === jack)).flatMap((c) => c.from).length > 1
      );
    });
  }

  private noteMessage(
    from: Id<'device'>,
    bytes: readonly number[],
    read: Read,
    reacts: Id<'device'> | undefined,
    missed: Id<'device'> | undefined,
  ): void {
    if (!this.bench.listens) return;
    const text = hex(bytes);
    const last = this.bench.heard.findLast((h) => h.is === 'message');
    const same =
      last?.is === 'message' &&
      last.from === from &&
      last.bytes === text &&
      last.read.status === read.status &&
      last.read.data.join() === read.data.join() &&
      this.bench.time.now - last.at < BYTE_US;
    if (!same)
      this.bench.note({
        is: 'message',
        at: this.bench.time.now,
        from,
        bytes: text,
        read,
        reacts: reacts ? [reacts] : [],
        ...(missed ? { missed: [missed] } : {}),
      });
    else if (reacts)
      this.bench.heard[this.bench.heard.lastIndexOf(last)] = { ...last, reacts: [...last.reacts, reacts] };
    else if (missed)
      this.bench.heard[this.bench.heard.lastIndexOf(last)] = { ...last, missed: [...(last.missed ?? []), missed] };
  }

  /** Outputs to which a box passes on what comes in here: its thru or merge chains. */
  passesOn(box: Box, jack: string): readonly string[] {
    return box.device.chains
      .filter((c) => !box.isDark || c.passive)
      .filter((c) => c.from.some((t) => t.at === jack))
      .flatMap((c) => c.to.map((t) => t.at));
  }

  /** The message that a box sends next but so many never arrives, though it takes its time on the wire. */
  loseMessage(from: Id<'device'>, message: number): void {
    this.losing = { from, message };
  }

  /** Messages arrive again, if none was lost meanwhile. */
  loseNoMessage(): void {
    this.losing = undefined;
  }

  /** The next byte that anybody sends is lost on the way. */
  loseByte(): void {
    this.bench.note({ is: 'fault', at: this.bench.time.now, what: 'the next byte will be lost' });
    this.toLose += 1;
  }

  /** The next byte that anybody sends arrives with its lowest bit turned over. */
  corruptByte(): void {
    this.bench.note({ is: 'fault', at: this.bench.time.now, what: 'the next byte will arrive wrong' });
    this.toCorrupt += 1;
  }
}

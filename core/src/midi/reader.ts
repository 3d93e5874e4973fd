import { surely } from '../known/the.js';

/** A complete channel message as a receiver understands it: status nibble, channel 1–16, data. */
export interface Read {
  readonly status: number;
  readonly channel: number;
  readonly data: readonly number[];
}

const DATA_BYTES: Readonly<Record<number, number>> = { 0x8: 2, 0x9: 2, 0xa: 2, 0xb: 2, 0xc: 1, 0xd: 1, 0xe: 2 };
const SYSEX = 0xf0;
const FIRST_REAL_TIME = 0xf8;

/**
 * Reads bytes one by one as a box does: running status, real-time bytes in between, system exclusive skipped, stray
 * data ignored
 * (MIDI 1.0 Detailed Specification, "Running Status" and "System Real Time Messages"). Knows nothing of who wrote the
 * bytes.
 */
export class ByteReader {
  private running = 0;
  private data: number[] = [];

  /** @returns the message that this byte completes, if any */
  push(byte: number): Read | undefined {
    if (byte >= FIRST_REAL_TIME) return undefined;
    if (byte >= SYSEX) {
      this.running = 0;
      this.data = [];
      return undefined;
    }
    if (byte >= 0x80) {
      this.running = byte;
      this.data = [];
      return undefined;
    }
    if (this.running === 0) return undefined;
    this.data.push(byte);
    if (this.data.length < surely(DATA_BYTES[this.running >> 4])) return undefined;
    const read: Read = { status: this.running >> 4, channel: (this.running & 0x0f) + 1, data: this.data };
    this.data = [];
    return read;
  }
}

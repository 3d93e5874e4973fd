import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import { ByteReader, type Read } from '../midi/reader.js';
import { hex } from '../midi/bytes.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { surely, theItem } from '../known/the.js';

/** One channel message as it was heard on a wire. */
export interface Captured extends Read {
  /** Since the beginning of the capture, when it says so. */
  readonly ms?: number;
}

export interface Capture {
  readonly messages: readonly Captured[];
  /** What was left out, and why. */
  readonly notes: readonly string[];
}

/** Of a capture, in bytes: hours of playing. */
export const LARGEST_CAPTURE = 16_000_000;
const SYSEX_START = 0xf0;
const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'capture', where, wrong, would });

/** What is worked out in pieces: it tells how far it is, from 0 to 1, and gives the result at the end. */
export type InPieces<T> = Generator<number, T, void>;

/** The same in one go. */
export const atOnce = <T>(pieces: InPieces<T>): T => {
  for (;;) {
    const { done, value } = pieces.next();
    if (done) return value;
  }
};

/** A Standard MIDI File or text with bytes in hex, whichever it is. */
export const readCapture = (bytes: Uint8Array): Result<Capture, readonly Refusal[]> => atOnce(readingCapture(bytes));

/** The same in pieces. */
export const readingCapture = function* (bytes: Uint8Array): InPieces<Result<Capture, readonly Refusal[]>> {
  if (bytes.length > LARGEST_CAPTURE)
    return refuse([
      refusal(
        '',
        `The capture has ${bytes.length.toLocaleString('en')} bytes.`,
        `At most ${LARGEST_CAPTURE.toLocaleString('en')} are read; capture one song at a time.`,
      ),
    ]);
  if (String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd') return readMidiFile(bytes);
  const text = new TextDecoder('utf-8').decode(bytes);
  if (text.includes('\u0000') || [...text.slice(0, 2000)].filter((c) => c === '\ufffd').length > 20)
    return refuse([
      refusal(
        '',
        'This is neither a Standard MIDI File nor text.',
        'Save what the monitor shows as text, or record to a file that ends in .mid.',
      ),
    ]);
  return yield* readingHexText(text);
};

const STATUS: Readonly<Record<string, number>> = {
  noteOff: 0x8,
  noteOn: 0x9,
  noteAftertouch: 0xa,
  controller: 0xb,
  programChange: 0xc,
  channelAftertouch: 0xd,
  pitchBend: 0xe,
};

/** Every track of a Standard MIDI File, in the order of time. Source: Standard MIDI Files 1.0. */
export const readMidiFile = (bytes: Uint8Array): Result<Capture, readonly Refusal[]> => {
  let file;
  try {
    file = parseMidi(bytes);
  } catch (e) {
    return refuse([
      refusal(
        '',
        `The MIDI file cannot be read: ${e instanceof Error ? e.message : String(e)}.`,
        'It may have been cut off while it was saved; record it again.',
      ),
    ]);
  }
  const { ticksPerBeat, framesPerSecond, ticksPerFrame } = file.header;
  const events = file.tracks
    .flatMap((track) => {
      let ticks = 0;
      return track.map((event) => ({ ticks: (ticks += event.deltaTime), event }));
    })
    .sort((a, b) => a.ticks - b.ticks);
  const messages: Captured[] = [];
  let [ms, last, perBeat] = [0, 0, 500];
  for (const { ticks, event } of events) {
    ms +=
      (ticks - last) *
      (ticksPerBeat ? perBeat / ticksPerBeat : 1000 / ((framesPerSecond ?? 25) * (ticksPerFrame ?? 40)));
    last = ticks;
    if (event.type === 'setTempo') perBeat = event.microsecondsPerBeat / 1000;
    const status = STATUS[event.type];
    if (status === undefined || !('channel' in event)) continue;
    messages.push({ ms, status, channel: event.channel + 1, data: dataOf(event) });
  }
  return messages.length
    ? ok({ messages, notes: [] })
    : refuse([
        refusal(
          '',
          'The MIDI file holds no message on any channel.',
          'Record while you stomp, with the input that the controller is plugged into.',
        ),
      ]);
};

const dataOf = (event: object): readonly number[] => {
  const e = event as Readonly<Record<string, number>> & { readonly type: string };
  switch (e.type) {
    case 'programChange':
      return [surely(e.programNumber)];
    case 'controller':
      return [surely(e.controllerType), surely(e.value)];
    case 'channelAftertouch':
      return [surely(e.amount)];
    case 'pitchBend':
      return [(surely(e.value) + 0x2000) & 0x7f, (surely(e.value) + 0x2000) >> 7];
    default:
      return [surely(e.noteNumber), e.velocity ?? e.amount ?? 0];
  }
};

const BYTE = /^(?:0x)?([0-9a-f]{2})h?$/i;
const CLOCK = /^\W*(?:(\d+):)?(\d+):(\d\d)[.,](\d+)/;
const SECONDS = /^\W*(\d+)[.,](\d{3,6})(?: (\d{3}))?\b/;

const timeOf = (line: string): { readonly ms: number; readonly length: number } | undefined => {
  const clock = CLOCK.exec(line);
  if (clock)
    return {
      ms: ((Number(clock[1] ?? 0) * 60 + Number(clock[2])) * 60 + Number(clock[3]) + Number(`0.${clock[4]}`)) * 1000,
      length: clock[0].length,
    };
  const seconds = SECONDS.exec(line);
  return seconds
    ? { ms: Number(`${seconds[1]}.${seconds[2]}${seconds[3] ?? ''}`) * 1000, length: seconds[0].length }
    : undefined;
};

/** The longest run of bytes in hex on a line: monitors print other columns beside them. */
const bytesIn = (line: string): readonly number[] => {
  let best: number[] = [];
  let run: number[] = [];
  for (const word of [...line.split(/[\s,;|]+/), '']) {
    const byte = BYTE.exec(word);
    if (byte) run.push(Number.parseInt(theItem(byte, 1), 16));
    else {
      if (run.length > best.length) best = run;
      run = [];
    }
  }
  return best;
};

/**
 * Lines of a monitor: a time perhaps, and bytes in hex. Running status, real-time bytes and system exclusive are read
 * as a box would.
 */
export const readHexText = (text: string): Result<Capture, readonly Refusal[]> => atOnce(readingHexText(text));

const LINES_A_PIECE = 10_000;

const readingHexText = function* (text: string): InPieces<Result<Capture, readonly Refusal[]>> {
  const reader = new ByteReader();
  const messages: Captured[] = [];
  const unread: number[] = [];
  let [open, exclusive] = [0, 0];
  let first: number | undefined;
  const lines = text.split(/\r?\n/);
  for (const [i, line] of lines.entries()) {
    if (i % LINES_A_PIECE === LINES_A_PIECE - 1) yield i / lines.length;
    if (!line.trim()) continue;
    const time = timeOf(line);
    const bytes = bytesIn(time ? line.slice(time.length) : line);
    if (bytes.length === 0) {
      unread.push(i + 1);
      continue;
    }
    if (time) first ??= time.ms;
    for (const byte of bytes) {
      if (byte === SYSEX_START) exclusive += 1;
      const read = reader.push(byte);
      open = read ? 0 : byte < 0xf8 && byte !== 0xf7 ? open + 1 : open;
      if (byte === 0xf7) open = 0;
      if (read) messages.push({ ...read, ...(time ? { ms: time.ms - surely(first) } : {}) });
    }
  }
  if (messages.length === 0)
    return refuse([
      refusal(
        unread[0] ? `line ${unread[0]}` : '',
        'No MIDI message stands in this text.',
        'Lines such as C2 06 or B3 66 7F are read; each byte as two hex digits, the status first.',
      ),
    ]);
  return ok({
    messages,
    notes: [
      ...(unread.length
        ? [
            `${unread.length} ${unread.length === 1 ? 'line has' : 'lines have'} no bytes in hex and ${unread.length === 1 ? 'was' : 'were'} left out, the first of them line ${unread[0]}.`,
          ]
        : []),
      ...(exclusive
        ? [`${exclusive} system exclusive ${exclusive === 1 ? 'message was' : 'messages were'} passed over.`]
        : []),
      ...(open > 0 && messages.length ? ['The capture ends in the middle of a message.'] : []),
    ],
  });
};

const TICKS_PER_MS = 10;

/**
 * Channel messages as a Standard MIDI File of one track: 1,000 ticks a beat of 100 ms, so that a tick is a tenth of a
 * millisecond.
 */
export const writeMidiFile = (messages: readonly Captured[]): Uint8Array => {
  let last = 0;
  const events = messages.flatMap((m): readonly MidiEvent[] => {
    const ticks = Math.round((m.ms ?? 0) * TICKS_PER_MS);
    const deltaTime = Math.max(0, ticks - last);
    last = Math.max(last, ticks);
    const base = { deltaTime, channel: m.channel - 1 };
    const [a = 0, b = 0] = m.data;
    switch (m.status) {
      case 0xc:
        return [{ ...base, type: 'programChange', programNumber: a }];
      case 0xb:
        return [{ ...base, type: 'controller', controllerType: a, value: b }];
      case 0x9:
        return [{ ...base, type: 'noteOn', noteNumber: a, velocity: b }];
      case 0x8:
        return [{ ...base, type: 'noteOff', noteNumber: a, velocity: b }];
      default:
        return [];
    }
  });
  const tempo: MidiEvent = { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 100_000 };
  return Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 1000 },
      tracks: [[tempo, ...events, { deltaTime: 0, meta: true, type: 'endOfTrack' }]],
    }),
  );
};

/** A line a message: seconds, then bytes in hex. */
export const writeHexText = (messages: readonly Captured[]): string =>
  messages
    .map((m) => `${((m.ms ?? 0) / 1000).toFixed(6)}  ${hex([(m.status << 4) | (m.channel - 1), ...m.data])}`)
    .join('\n');

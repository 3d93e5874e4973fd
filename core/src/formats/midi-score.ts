import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import { surely } from '../known/the.js';
import type { Message } from '../rig/act.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { barQuarters, COMMON_TIME, MOST_BEATS, type Metre } from '../units/metre.js';
import { LARGEST_CAPTURE } from './capture.js';

/** A message that goes out before its cue, so that all boxes have loaded when the cue comes. */
export interface ScoreSend {
  readonly msBefore: number;
  /** The wire that it goes out on: a track of its own. */
  readonly port: string;
  readonly message: Exclude<Message, { readonly bpm: number }>;
}

export interface ScoreCue {
  readonly text: string;
  /** From the start of the song. */
  readonly quarters: number;
  /** In the order in which they go out. */
  readonly sends: readonly ScoreSend[];
}

export interface ScoreSong {
  readonly title: string;
  /** Quarters a minute. */
  readonly bpm: number;
  readonly metre: Metre;
  readonly seconds?: number;
  readonly cues: readonly ScoreCue[];
}

/** A set as a sequencer plays it: song after song with its tempo, its marks and what goes out at its cues. */
export interface Score {
  readonly name: string;
  readonly songs: readonly ScoreSong[];
}

/** Ticks of a quarter: every note value down to a sixty-fourth triplet is whole. */
export const TICKS = 480;
const MINUTE_US = 60_000_000;
/** Bars before each song: time to stop a sequencer between songs, and to count in (common practice). */
const LEAST_BARS_BEFORE = 2;
/** Bars behind the last cue of a song of which nobody said how long it takes. */
const BARS_BEHIND = 4;
const LONGEST_TEXT = 200;

/** Marks that no cue is called by. */
const songMark = (title: string): string => `== ${title} ==`;
const titleIn = (text: string): string | undefined => /^== (.+) ==$/.exec(text)?.[1];
const END = '-- end --';

/** Texts in a MIDI file are bytes; here they are written and read as UTF-8. */
const asBytes = (text: string): string => String.fromCharCode(...new TextEncoder().encode(text));
const fromBytes = (text: string): string => {
  const bytes = Uint8Array.from(text, (c) => c.charCodeAt(0));
  const decoded = new TextDecoder('utf-8').decode(bytes);
  return decoded.includes('\ufffd') ? new TextDecoder('windows-1252').decode(bytes) : decoded;
};

interface Timed {
  readonly tick: number;
  readonly event: MidiEvent;
}

const timed = (tick: number, event: Omit<MidiEvent, 'deltaTime'>): Timed => ({
  tick,
  event: { ...event, deltaTime: 0 } as MidiEvent,
});
const marker = (tick: number, text: string): Timed => timed(tick, { type: 'marker', text: asBytes(text) } as MidiEvent);

const ticksOfMs = (ms: number, bpm: number): number => Math.ceil((ms * bpm * TICKS) / 60_000);

/** Source: Standard MIDI Files 1.0; a bank is selected by controllers 0 and 32 before the program change. */
const eventsOf = (tick: number, message: ScoreSend['message']): readonly Timed[] => {
  const channel = message.channel - 1;
  const cc = (controllerType: number, value: number): Timed =>
    timed(tick, { type: 'controller', channel, controllerType, value } as MidiEvent);
  if ('cc' in message) return [cc(message.cc, message.value)];
  const bank = message.bank === undefined ? [] : [cc(0, message.bank >> 7), cc(32, message.bank & 0x7f)];
  return [...bank, timed(tick, { type: 'programChange', channel, programNumber: message.pc } as MidiEvent)];
};

/** Pauses between messages stay at least as long as they have to be, and nothing comes later than it must. */
const sendTicks = ({ sends }: ScoreCue, cue: number, bpm: number): readonly number[] => {
  const ticks: number[] = [];
  let next = Infinity;
  for (let i = sends.length - 1; i >= 0; i -= 1) {
    const send = surely(sends[i]);
    const after = sends[i + 1];
    const pause = after ? ticksOfMs(Math.max(0, send.msBefore - after.msBefore), bpm) : 0;
    next = Math.min(cue - ticksOfMs(send.msBefore, bpm), next - pause);
    ticks[i] = next;
  }
  return ticks;
};

interface Laid {
  readonly song: ScoreSong;
  /** Where its bars before begin, where itself. */
  readonly before: number;
  readonly start: number;
  readonly end: number;
}

/** Every song on a bar of its own, behind the one before. */
const laidOut = ({ songs }: Score): readonly Laid[] => {
  let at = 0;
  return songs.map((song): Laid => {
    const bar = barQuarters(song.metre) * TICKS;
    const earliest = Math.min(0, ...song.cues.flatMap((c) => sendTicks(c, c.quarters * TICKS, song.bpm)));
    const bars = Math.max(LEAST_BARS_BEFORE, Math.ceil(-earliest / bar));
    const start = at + bars * bar;
    const last = Math.max(0, ...song.cues.map((c) => c.quarters)) * TICKS + BARS_BEHIND * bar;
    const length = song.seconds === undefined ? last : Math.max(last, (song.seconds * song.bpm * TICKS) / 60);
    const laid = { song, before: at, start, end: start + Math.ceil((length + 1) / bar) * bar };
    at = laid.end;
    return laid;
  });
};

const songMarks = ({ song, before, start, end }: Laid): readonly Timed[] => [
  timed(before, { type: 'setTempo', microsecondsPerBeat: Math.round(MINUTE_US / song.bpm) } as MidiEvent),
  timed(before, {
    type: 'timeSignature',
    numerator: song.metre.beats,
    denominator: song.metre.unit,
    metronome: Math.min(255, (4 * 24) / song.metre.unit),
    thirtyseconds: 8,
  } as MidiEvent),
  marker(start, songMark(song.title)),
  ...song.cues.map((cue) => marker(start + Math.round(cue.quarters * TICKS), cue.text)),
  ...(song.seconds === undefined
    ? []
    : [marker(Math.min(end - 1, start + Math.round((song.seconds * song.bpm * TICKS) / 60)), END)]),
];

const track = (name: string, events: readonly Timed[], end: number): MidiEvent[] => {
  let last = 0;
  const inOrder = events
    .map((e, i) => ({ ...e, i }))
    .sort((a, b) => a.tick - b.tick || a.i - b.i)
    .map(({ tick, event }) => {
      const made = { ...event, deltaTime: tick - last };
      last = tick;
      return made;
    });
  return [
    { deltaTime: 0, type: 'trackName', text: asBytes(name) },
    ...inOrder,
    { deltaTime: Math.max(0, end - last), type: 'endOfTrack' },
  ];
};

/** A Standard MIDI File of type 1: tempi, metres and marks on the first track, a track for each wire behind it. */
export const writeScore = (score: Score): Uint8Array => {
  const laid = laidOut(score);
  const end = laid.at(-1)?.end ?? 0;
  const wires = new Map<string, Timed[]>();
  for (const { song, start } of laid)
    for (const cue of song.cues) {
      const ticks = sendTicks(cue, start + Math.round(cue.quarters * TICKS), song.bpm);
      cue.sends.forEach(({ port, message }, i) => {
        const events = wires.get(port) ?? [];
        events.push(...eventsOf(surely(ticks[i]), message));
        wires.set(port, events);
      });
    }
  const tracks = [
    track(score.name, laid.flatMap(songMarks), end),
    ...[...wires].map(([port, events]) => track(port, events, end)),
  ];
  return Uint8Array.from(writeMidi({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: TICKS }, tracks }));
};

const refusal = (wrong: string, would: string): Refusal => ({ code: 'midi', where: '', wrong, would });

/** A score as it was read, and what was left out of it. */
export interface ReadScore {
  readonly score: Score;
  readonly notes: readonly string[];
}

interface Wire {
  readonly tick: number;
  readonly port: string;
  readonly message: ScoreSend['message'];
}

/** Messages of a track; bank selects join their program change. */
const wireOf = (events: readonly Timed[], port: string): readonly Wire[] => {
  const banks = new Map<number, { msb: number; lsb: number }>();
  return events.flatMap(({ tick, event }): readonly Wire[] => {
    if (event.type === 'programChange') {
      const bank = banks.get(event.channel);
      banks.delete(event.channel);
      const said = bank ? { bank: bank.msb * 128 + bank.lsb } : {};
      return [{ tick, port, message: { pc: event.programNumber, channel: event.channel + 1, ...said } }];
    }
    if (event.type !== 'controller') return [];
    const { channel, controllerType, value } = event;
    if (controllerType === 0 || controllerType === 32) {
      const bank = banks.get(channel) ?? { msb: 0, lsb: 0 };
      banks.set(channel, controllerType === 0 ? { ...bank, msb: value } : { ...bank, lsb: value });
      return [];
    }
    return [{ tick, port, message: { cc: controllerType, value, channel: channel + 1 } }];
  });
};

/** What holds from a tick on; before the first one what a MIDI file says without words. */
const inForce = <T>(marks: readonly (readonly [tick: number, value: T])[], tick: number, otherwise: T): T =>
  marks.findLast(([at]) => at <= tick)?.[1] ?? otherwise;

/** @example 120.0005 // 120 */
const roundBpm = (us: number): number => Number((MINUTE_US / us).toFixed(2));
const USUAL_US = 500_000;

/**
 * A set from a Standard MIDI File: songs where the marks say so, otherwise the whole file as one song.
 * @param name of the file, for a song that has no title
 */
export const readScore = (bytes: Uint8Array, name: string): Result<ReadScore, readonly Refusal[]> => {
  if (bytes.length > LARGEST_CAPTURE)
    return refuse([
      refusal(
        `The file has ${bytes.length.toLocaleString('en')} bytes.`,
        `At most ${LARGEST_CAPTURE.toLocaleString('en')} are read.`,
      ),
    ]);
  if (String.fromCharCode(...bytes.subarray(0, 4)) !== 'MThd')
    return refuse([refusal('This is no Standard MIDI File.', 'Choose a file that ends in .mid.')]);
  let file;
  try {
    file = parseMidi(bytes);
  } catch (e) {
    return refuse([
      refusal(
        `The MIDI file cannot be read: ${e instanceof Error ? e.message : String(e)}.`,
        'It may have been cut off while it was saved; save it again.',
      ),
    ]);
  }
  const { ticksPerBeat, framesPerSecond } = file.header;
  if (!ticksPerBeat || file.tracks.length === 0)
    return refuse([
      framesPerSecond === undefined
        ? refusal('The MIDI file holds no track.', 'It may have been cut off while it was saved; save it again.')
        : refusal('This MIDI file counts frames of a film, not beats.', 'Save it with ticks a beat (type 0 or 1).'),
    ]);
  return ok(scoreOf(file.tracks, ticksPerBeat, name));
};

type Marks<T> = readonly (readonly [tick: number, value: T])[];

/** All that a file says, by ticks from its beginning. */
interface Heard {
  readonly perQuarter: number;
  readonly tempi: Marks<number>;
  readonly metres: Marks<Metre>;
  readonly marks: Marks<string>;
  readonly wires: readonly Wire[];
}

const textsOf = (events: readonly Timed[], type: MidiEvent['type']): Marks<string> =>
  events.flatMap(({ tick, event }) =>
    event.type === type && 'text' in event
      ? [[tick, fromBytes(event.text).trim().slice(0, LONGEST_TEXT)] as const]
      : [],
  );

const nameOf = (events: readonly Timed[] | undefined): string | undefined =>
  textsOf(events ?? [], 'trackName')[0]?.[1] || undefined;

const heardIn = (tracks: readonly (readonly Timed[])[], perQuarter: number): Heard => {
  const every = tracks.flat().sort((a, b) => a.tick - b.tick);
  return {
    perQuarter,
    tempi: every.flatMap(({ tick, event }) =>
      event.type === 'setTempo' ? [[tick, event.microsecondsPerBeat] as const] : [],
    ),
    metres: every.flatMap(({ tick, event }) =>
      event.type === 'timeSignature' ? [[tick, metreOf(event.numerator, event.denominator)] as const] : [],
    ),
    marks: [...textsOf(every, 'marker'), ...textsOf(every, 'cuePoint')].filter(([, text]) => text),
    wires: tracks.flatMap((events, i) => wireOf(events, nameOf(events) ?? `track ${i + 1}`)),
  };
};

/** A song in the file: what stands from its bars before up to those of the next song is its own. */
interface Stretch {
  readonly title: string;
  readonly from: number;
  readonly start: number;
  readonly until: number;
}

/** Songs begin where marks say so; their bars before begin where their tempo is said. */
const stretchesOf = ({ marks, tempi }: Heard, name: string): readonly Stretch[] => {
  const titles = marks.flatMap(([tick, text]) => {
    const title = titleIn(text);
    return title === undefined ? [] : [[tick, title] as const];
  });
  if (titles.length === 0) return [{ title: name, from: -Infinity, start: 0, until: Infinity }];
  const from = titles.map(([start], i) => {
    const said = tempi.findLast(([at]) => at <= start)?.[0] ?? start;
    const before = titles[i - 1]?.[0];
    return before === undefined ? -Infinity : said > before ? said : start;
  });
  return titles.map(([start, title], i) => ({
    title,
    from: surely(from[i]),
    start,
    until: from[i + 1] ?? Infinity,
  }));
};

const songIn = (heard: Heard, { title, from, start, until }: Stretch): ScoreSong => {
  const { tempi, metres, marks, wires, perQuarter } = heard;
  const us = inForce(tempi, start, USUAL_US);
  const own = marks.filter(([tick, text]) => tick >= start && tick < until && titleIn(text) === undefined);
  const ended = own.find(([, text]) => text === END)?.[0];
  const mine = wires.filter((w) => w.tick >= from && w.tick < until);
  return {
    title,
    bpm: roundBpm(us),
    metre: inForce(metres, start, COMMON_TIME),
    ...(ended === undefined ? {} : { seconds: Math.round(((ended - start) * us) / perQuarter / 1e6) }),
    cues: cuesOf(
      own.filter(([, text]) => text !== END),
      mine,
      { start, perQuarter, us },
    ),
  };
};

const scoreOf = (tracks: readonly MidiEvent[][], perQuarter: number, fileName: string): ReadScore => {
  const timedTracks = tracks.map((events) => {
    let tick = 0;
    return events.map((event): Timed => ({ tick: (tick += event.deltaTime), event }));
  });
  const name = nameOf(timedTracks[0]) ?? fileName;
  const heard = heardIn(timedTracks, perQuarter);
  const stretches = stretchesOf(heard, name);
  const changing = stretches.filter(({ start, until }) => {
    const first = inForce(heard.tempi, start, USUAL_US);
    return heard.tempi.some(([at, us]) => at > start && at < until && us !== first);
  });
  return {
    score: { name, songs: stretches.map((stretch) => songIn(heard, stretch)) },
    notes: changing.map(({ title }) => `${title}: its tempo changes on the way; the one at its beginning is taken.`),
  };
};

const metreOf = (beats: number, unit: number): Metre =>
  beats >= 1 && beats <= MOST_BEATS && (unit === 2 || unit === 4 || unit === 8 || unit === 16)
    ? { beats, unit }
    : COMMON_TIME;

interface Clock {
  readonly start: number;
  readonly perQuarter: number;
  readonly us: number;
}

/** Each mark with the messages since the one before; messages behind the last mark are a cue of their own. */
const cuesOf = (
  marks: readonly (readonly [number, string])[],
  wires: readonly Wire[],
  { start, perQuarter, us }: Clock,
): readonly ScoreCue[] => {
  const inOrder = [...wires].sort((a, b) => a.tick - b.tick);
  let since = -Infinity;
  const cue = (tick: number, text: string, until: number): ScoreCue => {
    const mine = inOrder.filter((w) => w.tick > since && w.tick <= until);
    since = until;
    return {
      text,
      quarters: Math.max(0, tick - start) / perQuarter,
      sends: mine.map(({ tick: at, port, message }) => ({
        msBefore: ((tick - at) * us) / perQuarter / 1000,
        port,
        message,
      })),
    };
  };
  const cues = marks.map(([tick, text]) => cue(tick, text, tick));
  const rest = inOrder.filter((w) => w.tick > since);
  for (const tick of new Set(rest.map((w) => w.tick))) cues.push(cue(tick, '', tick));
  return cues;
};

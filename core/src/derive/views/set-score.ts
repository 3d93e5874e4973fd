import type { Score, ScoreCue, ScoreSend, ScoreSong } from '../../formats/midi-score.js';
import { channelOf, loadsBy, programActuators } from '../../rig/midi-manners.js';
import type { Act, Message } from '../../rig/act.js';
import { hasBanks, type Device } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import type { Call, Sound } from '../../rig/sound.js';
import { handMoves } from '../../recall/actuate/compile.js';
import { arrivals, bytesOf } from '../../recall/actuate/slot-timing.js';
import { callFits } from '../../recall/intend/wants.js';
import { listeners } from '../../recall/actuate/listeners.js';
import { memoryIn } from '../../rig/box.js';
import { BYTE_US } from '../../units/amounts.js';
import { COMMON_TIME, placeQuarters } from '../../units/metre.js';
import { callText, cueText } from '../../sheets/cue-words.js';
import type { Derived } from '../steps/deriver.js';

/** Tempo of a song of which nobody said it, in quarters a minute: what a MIDI file means without words. */
const USUAL_BPM = 120;

/** Before the code of a box that a sequencer tells its slots itself. */
const STRAIGHT = 'to ';

/** A set for a sequencer, with all that a person should know of it. */
export interface SetScore {
  readonly score: Score;
  /** Sounds, moves and loopers, by name, that no wire calls: the player stomps them. */
  readonly stomped: readonly string[];
  /** Sounds that also need a hand or a foot on a box. */
  readonly byHand: readonly string[];
  /** Boxes to which the file sends program changes that no timeline of the rig sends: they need a lead from the sequencer. */
  readonly straightTo: readonly string[];
  /** Cues that cannot be placed, as they say neither bar nor time: song, then cue. */
  readonly placeless: readonly (readonly [song: string, cue: string])[];
  /** Songs in which nothing is cued. */
  readonly cueless: readonly string[];
  /** Songs without a tempo of their own. */
  readonly tempoless: readonly string[];
  /** Cues that come before the boxes have loaded what the cue before told them. */
  readonly hasty: readonly (readonly [song: string, cue: string])[];
}

/** One message, by when it begins to go out and when its box has loaded, in ms after the first. */
interface Going {
  readonly port: string;
  readonly message: ScoreSend['message'];
  readonly beginsMs: number;
  readonly loadedMs: number;
}

type Sending = Exclude<Message, { readonly bpm: number }>;

/** How long the boxes that hear a message load, in ms. */
const loadingMs = (d: Derived, from: Id<'device'>, at: string, message: Sending): number =>
  Math.max(
    0,
    ...listeners(d.compilation.bearings, from, at, message).flatMap(({ device }) =>
      loadsBy(device, message).map((load) => load.memory.gapMs),
    ),
  );

/** The messages of a program of a timeline or a song list, one after the other on each wire. */
const goingOf = (d: Derived, device: Device, acts: readonly Act[], startMs: number): readonly Going[] => {
  const us = arrivals(acts);
  return acts.flatMap((act, i): readonly Going[] => {
    if (!('send' in act) || 'bpm' in act.send) return [];
    const arrives = startMs + (us[i] ?? 0) / 1000;
    return [
      {
        port: `${device.code} ${act.at}`,
        message: act.send,
        beginsMs: arrives - (bytesOf(act.send) * BYTE_US) / 1000,
        loadedMs: arrives + loadingMs(d, device.id, act.at, act.send),
      },
    ];
  });
};

/** A program change that makes a box show a slot, sent straight to it; undefined when it takes none. */
const slotMessage = (d: Derived, device: Device, { memory: name, slot }: Call): Sending | undefined => {
  const memory = memoryIn(device, name);
  const channel = channelOf(device, (r) => d.compilation.bearings.grounds.resting.get(r));
  const takes = programActuators(device).some((a) =>
    a.acts.some((act) => 'load' in act && act.load === name && act.slot === 'value'),
  );
  if (!memory || memory.inside !== undefined || channel === undefined || !takes || device.midi === undefined)
    return undefined;
  return hasBanks(device)
    ? { pc: slot % 128, channel, bank: Math.floor(slot / 128) }
    : slot < 128
      ? { pc: slot, channel }
      : undefined;
};

/** What calls a sound over wires, all its calls one after the other; undefined when a foot has to call it. */
const callingOf = (d: Derived, sound: Sound): readonly Going[] | undefined => {
  const stored = d.compilation.sounds.get(sound.id)?.stored ?? [];
  let startMs = 0;
  const going: Going[] = [];
  for (const call of sound.calls.filter((c) => callFits(d.rig, c, d.hookup.id))) {
    const device = thePart(d.rig, call.device);
    const acts = stored.find((s) => s.program.device === call.device && s.program.memory === call.memory)?.program.acts;
    const by = memoryIn(device, call.memory)?.by;
    if (by === 'cue' || by === 'song') going.push(...goingOf(d, device, acts ?? [], startMs));
    else {
      const message = slotMessage(d, device, call);
      if (!message) return undefined;
      const arrives = startMs + (bytesOf(message) * BYTE_US) / 1000;
      const inner = goingOf(d, device, acts ?? [], arrives);
      const gapMs = memoryIn(device, call.memory)?.gapMs ?? 0;
      const loadedMs = Math.max(arrives + gapMs, ...inner.map((g) => g.loadedMs));
      going.push({ port: `${STRAIGHT}${device.code}`, message, beginsMs: startMs, loadedMs });
    }
    startMs = Math.max(startMs, ...going.map((g) => g.loadedMs));
  }
  return going.length ? going : undefined;
};

/** All has loaded by the cue: the first message goes out so long before it. */
const sendsOf = (going: readonly Going[]): readonly ScoreSend[] => {
  const leadMs = Math.max(0, ...going.map((g) => g.loadedMs));
  return going.map(({ port, message, beginsMs }) => ({ msBefore: leadMs - beginsMs, port, message }));
};

/** What a timeline or a program change of its own sends for a sound before its cue. @returns undefined for a foot's work */
export const sendsFor = (d: Derived, sound: Sound): readonly ScoreSend[] | undefined => {
  const going = callingOf(d, sound);
  return going && sendsOf(going);
};

/** Collects what a person should know while songs are put into a score. */
class Writing {
  readonly stomped = new Set<string>();
  readonly byHand = new Set<string>();
  readonly straightTo = new Set<string>();
  readonly placeless: (readonly [string, string])[] = [];
  readonly tempoless: string[] = [];
  readonly cueless: string[] = [];
  readonly hasty: (readonly [string, string])[] = [];

  constructor(private readonly d: Derived) {}

  song(song: Song): ScoreSong {
    const { bpm = USUAL_BPM, metre = COMMON_TIME, seconds, title } = song;
    if (song.bpm === undefined) this.tempoless.push(title);
    if (song.cues.length === 0) this.cueless.push(title);
    const placed = song.cues.flatMap((cue, i) => {
      const quarters = cue.at === undefined ? (i === 0 ? 0 : undefined) : placeQuarters(cue.at, bpm, metre);
      if (quarters === undefined) this.placeless.push([title, cue.name]);
      return quarters === undefined ? [] : [{ cue, quarters }];
    });
    const inTime = [...placed].sort((a, b) => a.quarters - b.quarters);
    const cues = inTime.map(({ cue, quarters }) => this.cue(cue, quarters));
    cues.forEach((cue, i) => {
      const before = cues[i - 1];
      const first = Math.max(0, ...cue.sends.map((s) => s.msBefore));
      if (before && first > ((cue.quarters - before.quarters) * 60_000) / bpm)
        this.hasty.push([title, inTime[i]?.cue.name ?? '']);
    });
    return { title, bpm, metre, ...(seconds === undefined ? {} : { seconds }), cues };
  }

  private cue(cue: Cue, quarters: number): ScoreCue {
    const { at: _, hands: __, ...rest } = cue;
    const sound = 'sound' in cue.call ? partOf(this.d.rig, cue.call.sound) : undefined;
    const sends = sound && sendsFor(this.d, sound);
    if (sound && !sends) this.stomped.add(sound.name);
    if ('move' in cue.call || 'track' in cue.call) this.stomped.add(callText(this.d.rig, cue));
    if (sound && handMoves(this.d.compilation, sound.id).length > 0) this.byHand.add(sound.name);
    for (const { port } of sends ?? []) if (port.startsWith(STRAIGHT)) this.straightTo.add(port.slice(STRAIGHT.length));
    return { text: cueText(this.d.rig, rest), quarters, sends: sends ?? [] };
  }
}

/** A set as a sequencer plays it: each song with its tempo, each cue with what goes out for it, early enough. */
export const setScore = (d: Derived, name: string, songs: readonly Song[]): SetScore => {
  const writing = new Writing(d);
  const score: Score = { name, songs: songs.map((song) => writing.song(song)) };
  const { placeless, tempoless, cueless, hasty } = writing;
  return {
    score,
    stomped: [...writing.stomped],
    byHand: [...writing.byHand],
    straightTo: [...writing.straightTo],
    placeless,
    tempoless,
    cueless,
    hasty,
  };
};

const messageText = (message: Message): string => JSON.stringify(message);

/** The sound that these messages call, if they are just what calls it. */
export const soundCalledBy = (d: Derived, rig: Rig, sends: readonly ScoreSend[]): Sound | undefined => {
  const said = sends.map((s) => messageText(s.message)).join();
  if (!said) return undefined;
  return [...rig.parts.sound.values()].find(
    (sound) =>
      sendsFor(d, sound)
        ?.map((s) => messageText(s.message))
        .join() === said,
  );
};

import { soundHere } from '../../recall/intend/wants.js';
import { hex, messageBytes } from '../../midi/bytes.js';
import { saysNumbers, shown } from '../../midi/numbering.js';
import { ByteReader, type Read } from '../../midi/reader.js';
import type { Captured } from '../../formats/capture.js';
import type { Edit } from '../../change/edit.js';
import { slotText } from '../../recall/words/words.js';
import type { Act } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import { all, partOf, soundsInOrder, thePart } from '../../rig/rig.js';
import { putPrograms } from '../../sheets/program-sheet.js';
import type { Derived } from '../steps/deriver.js';
import { theItem, theFirst, surely } from '../../known/the.js';
import { theMemory } from '../../rig/box.js';

/** What a controller really sends, lined up with what it should send. Plain data. */
export interface WireCheck {
  readonly differences: readonly WireDifference[];
  readonly rows: readonly WireRow[];
  /** Messages that came as they should. */
  readonly right: number;
  /** Sounds of which nothing is in the capture. */
  readonly notHeard: readonly string[];
  /** Slots that send otherwise, as the box shows them, and the edit that writes them down as they came. */
  readonly asItCame: { readonly slots: readonly string[]; readonly edit: Edit };
}

export interface WireDifference {
  readonly text: string;
  readonly sounds: readonly Id<'sound'>[];
}

export interface WireRow {
  readonly sound: string;
  readonly meant: string;
  readonly came: string;
  readonly is: 'right' | 'other' | 'missing' | 'extra';
}

interface Expected extends Read {
  readonly sound: Id<'sound'>;
}

interface Pair {
  readonly meant?: Expected;
  readonly came?: Captured;
  readonly sound: Id<'sound'>;
}

const PROGRAM = 0xc;
const CONTROL = 0xb;
/** A longer silence than this, in ms, lies between two stomps; pauses inside a slot are shorter. */
const BETWEEN_STOMPS_MS = 400;

/** Controllers of the rig that send MIDI, those that send most first. */
export const sendingControllers = (d: Derived): readonly { readonly device: Id<'device'>; readonly name: string }[] => {
  const counts = new Map<Id<'device'>, number>();
  for (const { stored } of d.compilation.sounds.values())
    for (const { program } of stored)
      counts.set(program.device, (counts.get(program.device) ?? 0) + program.acts.filter((a) => 'send' in a).length);
  return [...counts]
    .filter(([, n]) => n > 0)
    .sort(([, a], [, b]) => b - a)
    .map(([device]) => ({ device, name: thePart(d.rig, device).name }));
};

const messagesOf = (acts: readonly Act[]): readonly Read[] => {
  const reader = new ByteReader();
  const bytes = acts.flatMap((act) => ('send' in act && !('bpm' in act.send) ? messageBytes(act.send) : []));
  return bytes.flatMap((b) => reader.push(b) ?? []);
};

/** What a controller should send, a slot a second, in the order of its slots. */
export const shouldSend = (d: Derived, controller: Id<'device'>): readonly Captured[] =>
  slotsOf(d, controller).flatMap((s, i) =>
    s.messages.map(({ status, channel, data }, k) => ({ status, channel, data, ms: i * 1000 + k })),
  );

const slotsOf = (d: Derived, controller: Id<'device'>): readonly Slot[] =>
  soundsInOrder(d.rig)
    .flatMap((s) =>
      (d.compilation.sounds.get(s.id)?.stored ?? [])
        .filter((x) => x.program.device === controller)
        .map(({ program }) => ({
          id: s.id,
          number: program.number,
          messages: messagesOf(program.acts).map((m): Expected => ({ ...m, sound: s.id })),
        })),
    )
    .filter((s) => s.messages.length > 0)
    .sort((a, b) => a.number - b.number);

/** Lines a capture up with the slots of a controller and names what differs, as a technician would. */
export const checkWire = (d: Derived, controller: Id<'device'>, captured: readonly Captured[]): WireCheck => {
  const sounds = slotsOf(d, controller);
  const came = captured.filter((c) => c.status === PROGRAM || c.status === CONTROL);
  const pieces = stomps(came);
  const pairs = pieces
    ? pieces.flatMap((piece, i) => alignBest(sounds, piece, i))
    : align(
        sounds.flatMap((s) => s.messages),
        came,
        sounds[0]?.id ?? ('sound:' as const),
      );
  const heard = new Set(pairs.filter((p) => p.meant && p.came).map((p) => p.sound));
  const counted = pairs.filter((p) => heard.has(p.sound) || !p.meant);
  return {
    differences: said(d, controller, counted),
    rows: counted.map((p) => rowOf(d, p)),
    right: counted.filter((p) => p.meant && p.came && same(p.meant, p.came)).length,
    asItCame: asItCame(d, controller, counted),
    notHeard: sounds
      .filter((s) => !heard.has(s.id))
      .map(
        (s) => `${thePart(d.rig, s.id).name}, ${slotText(d.rig, soundHere(d.rig, thePart(d.rig, s.id), d.hookup.id))}`,
      ),
  };
};

/** What the slots that send otherwise really send, in the place of what they should; what is no message stays. */
const asItCame = (d: Derived, controller: Id<'device'>, pairs: readonly Pair[]): WireCheck['asItCame'] => {
  const programs = new Map<number, Program>();
  for (const sound of new Set(pairs.map((p) => p.sound))) {
    const own = pairs.filter((p) => p.sound === sound);
    const stored = d.compilation.sounds.get(sound)?.stored.find((s) => s.program.device === controller);
    if (!stored || programs.has(stored.program.number) || own.every((p) => p.meant && p.came && same(p.meant, p.came)))
      continue;
    const { planned: _, ...program } = stored.program;
    const isMessage = (act: Act) => 'send' in act && !('bpm' in act.send);
    const first = program.acts.findIndex(isMessage);
    const messages = actsCome(own, program.acts);
    const acts =
      first < 0
        ? [...program.acts, ...messages]
        : [...program.acts.slice(0, first), ...messages, ...program.acts.slice(first).filter((act) => !isMessage(act))];
    programs.set(program.number, { ...program, acts });
  }
  const shows = (p: Program) => shown(theMemory(thePart(d.rig, controller), p.memory).shows, p.number);
  return { slots: [...programs.values()].map(shows), edit: putPrograms(d.rig, [...programs.values()]) };
};

const [BANK_HIGH, BANK_LOW] = [0, 32];

/**
 * Messages that came, as acts of a slot: a pause stays where it was meant, and two bank selects belong to the program
 * behind them.
 */
const actsCome = (pairs: readonly Pair[], meant: readonly Act[]): readonly Act[] => {
  const at = meant.flatMap((act) => ('send' in act ? [act.at] : []))[0];
  const acts: Act[] = [];
  let bank: readonly [number, number] | undefined;
  for (const { came, meant: expected } of pairs) {
    if (!came || at === undefined) continue;
    const { status, channel, data } = came;
    if (status === CONTROL && (data[0] === BANK_HIGH || data[0] === BANK_LOW)) {
      const [high, low] = bank ?? [0, 0];
      bank = data[0] === BANK_HIGH ? [theItem(data, 1), low] : [high, theItem(data, 1)];
      continue;
    }
    const act = expected && meant.find((a) => messagesOf([a]).some((m) => same(m, expected)));
    const afterMs = act && 'send' in act ? act.afterMs : undefined;
    const send =
      status === PROGRAM
        ? { pc: theFirst(data), channel, ...(bank ? { bank: bank[0] * 128 + bank[1] } : {}) }
        : { cc: theFirst(data), value: theItem(data, 1), channel };
    acts.push({ send, at: act && 'send' in act ? act.at : at, ...(afterMs ? { afterMs } : {}) });
    bank = undefined;
  }
  return acts;
};

/** The capture stomp by stomp, when it says the time. */
const stomps = (came: readonly Captured[]): readonly (readonly Captured[])[] | undefined => {
  if (came.length === 0 || came.some((c) => c.ms === undefined)) return undefined;
  const pieces: Captured[][] = [];
  came.forEach((c, i) => {
    if (i === 0 || surely(c.ms) - surely(theItem(came, i - 1).ms) > BETWEEN_STOMPS_MS) pieces.push([]);
    surely(pieces.at(-1)).push(c);
  });
  return pieces;
};

const same = (a: Read, b: Read): boolean =>
  a.status === b.status && a.channel === b.channel && a.data.join() === b.data.join();

/** How unlike two messages are: 0 for the same, at most 2, which is as much as one missing and one too many. */
const unlike = (a: Read, b: Read): number => {
  if (same(a, b)) return 0;
  if (a.status !== b.status || (a.status === CONTROL && a.data[0] !== b.data[0])) return 2.1;
  return (a.channel === b.channel ? 0 : 0.8) + (a.data.at(-1) === b.data.at(-1) ? 0 : 0.9);
};

/** The least costly way to lay two lists beside each other. */
const align = (meant: readonly Expected[], came: readonly Captured[], fallback: Id<'sound'>): readonly Pair[] => {
  const [n, m] = [meant.length, came.length];
  const cost = Array.from({ length: n + 1 }, (_, i) =>
    Float64Array.from({ length: m + 1 }, (_x, k) => (i === 0 ? k : k === 0 ? i : 0)),
  );
  for (let i = 1; i <= n; i += 1) {
    for (let k = 1; k <= m; k += 1)
      theItem(cost, i)[k] = Math.min(
        theItem(theItem(cost, i - 1), k - 1) + unlike(theItem(meant, i - 1), theItem(came, k - 1)),
        theItem(theItem(cost, i - 1), k) + 1,
        theItem(theItem(cost, i), k - 1) + 1,
      );
  }
  const pairs: Pair[] = [];
  let [i, k] = [n, m];
  while (i > 0 || k > 0) {
    const sound = meant[i - 1]?.sound ?? meant[0]?.sound ?? fallback;
    if (
      i > 0 &&
      k > 0 &&
      theItem(theItem(cost, i), k) ===
        theItem(theItem(cost, i - 1), k - 1) + unlike(theItem(meant, i - 1), theItem(came, k - 1))
    )
      pairs.unshift({ meant: theItem(meant, --i), came: theItem(came, --k), sound });
    else if (i > 0 && theItem(theItem(cost, i), k) === theItem(theItem(cost, i - 1), k) + 1)
      pairs.unshift({ meant: theItem(meant, --i), sound });
    else pairs.unshift({ came: theItem(came, --k), sound });
  }
  return pairs;
};

interface Slot {
  readonly id: Id<'sound'>;
  readonly messages: readonly Expected[];
}

/** One stomp beside the sound that it resembles most; of several the one whose turn it is. */
const alignBest = (sounds: readonly Slot[], piece: readonly Captured[], turn: number): readonly Pair[] => {
  let best: readonly Pair[] = piece.map((came) => ({ came, sound: sounds[0]?.id ?? 'sound:' }));
  let least = Infinity;
  sounds.forEach((s, i) => {
    const pairs = align(s.messages, piece, s.id);
    const cost =
      pairs.reduce((sum, p) => sum + (p.meant && p.came ? unlike(p.meant, p.came) : 1), 0) + (i === turn ? 0 : 0.01);
    if (cost < least) [least, best] = [cost, pairs];
  });
  return best;
};

const boxOn = (d: Derived, channel: number): Device | undefined =>
  all(d.rig, 'device').find((x) => x.midi?.channel === channel);

const text = (d: Derived, { status, channel, data }: Read): string => {
  if (status !== PROGRAM) return `controller ${data[0]} = ${data[1]} on channel ${channel}`;
  const box = boxOn(d, channel);
  return `program ${data[0]} on channel ${channel}${box?.memories[0] ? ` (${box.code} shows ${shown(box.memories[0].shows, theFirst(data))})` : ''}`;
};

const bytesText = ({ status, channel, data }: Read): string => hex([(status << 4) | (channel - 1), ...data]);

const rowOf = (d: Derived, { meant, came, sound }: Pair): WireRow => ({
  sound: partOf(d.rig, sound)?.name ?? '',
  meant: meant ? `${bytesText(meant)}  ${text(d, meant)}` : '',
  came: came ? bytesText(came) : '',
  is: meant && came ? (same(meant, came) ? 'right' : 'other') : meant ? 'missing' : 'extra',
});

/** Causes first: what is wrong in the same way everywhere is said once. */
const said = (d: Derived, controller: Id<'device'>, pairs: readonly Pair[]): readonly WireDifference[] => {
  const settled = new Set<Pair>();
  const differences: WireDifference[] = [];
  const add = (textOf: string, those: readonly Pair[]) => {
    differences.push({ text: textOf, sounds: [...new Set(those.map((p) => p.sound))] });
    for (const p of those) settled.add(p);
  };
  const both = pairs.flatMap((p) => (p.meant && p.came ? [{ pair: p, meant: p.meant, came: p.came }] : []));
  for (const channel of new Set(both.map((p) => p.meant.channel))) {
    const mine = both.filter((p) => p.meant.channel === channel);
    const elsewhere = new Set(mine.map((p) => p.came.channel));
    const other = theFirst([...elsewhere]);
    const box = boxOn(d, channel)?.name ?? `channel ${channel}`;
    if (
      mine.length > 1 &&
      elsewhere.size === 1 &&
      other !== channel &&
      mine.every((p) => p.meant.data.join() === p.came.data.join())
    ) {
      add(
        `Everything for ${box} goes out on channel ${other}; channel ${channel} was meant.`,
        mine.map((p) => p.pair),
      );
      continue;
    }
    const programs = mine.filter((p) => p.meant.status === PROGRAM);
    const steps = new Set(programs.map((p) => theFirst(p.came.data) - theFirst(p.meant.data)));
    const [step] = steps;
    if (programs.length > 1 && steps.size === 1 && (step === 1 || step === -1)) {
      const memory = boxOn(d, channel)?.memories[0];
      add(
        `Every program number for ${box} is one too ${step === 1 ? 'high' : 'low'} on the wire${memory ? `: the box ${saysNumbers(memory.shows, memory.size)}, and what it shows as ${shown(memory.shows, 0)} is 0 on the wire` : ''}. Take ${step === 1 ? 'one less' : 'one more'} wherever it is typed, or change how the controller counts.`,
        programs.map((p) => p.pair),
      );
    }
  }
  for (const p of pairs) {
    if (settled.has(p) || (p.meant && p.came && same(p.meant, p.came))) continue;
    const sound = partOf(d.rig, p.sound);
    const where = sound
      ? `${sound.name}, ${slotText(d.rig, soundHere(d.rig, sound, d.hookup.id))}`
      : thePart(d.rig, controller).name;
    const { meant, came } = p;
    if (meant && came) add(`${where}: ${differs(d, meant, came)}`, [p]);
    else {
      const twin = pairs.find(
        (q) =>
          q !== p &&
          !settled.has(q) &&
          q.sound === p.sound &&
          (meant ? q.came && !q.meant && same(q.came, meant) : q.meant && !q.came && same(q.meant, surely(came))),
      );
      if (twin) add(`${where}: ${text(d, surely(meant ?? came))} comes in another order than it should.`, [p, twin]);
      else if (meant) add(`${where}: ${text(d, meant)} is not sent.`, [p]);
      else add(`${where}: ${text(d, surely(came))} goes out, and nothing should.`, [p]);
    }
  }
  return differences;
};

const differs = (d: Derived, meant: Read, came: Read): string => {
  if (meant.channel !== came.channel && meant.data.join() === came.data.join())
    return `${meant.status === PROGRAM ? `program ${meant.data[0]}` : `controller ${meant.data[0]} = ${meant.data[1]}`} went out on channel ${came.channel}, channel ${meant.channel} was meant.`;
  if (meant.status === PROGRAM) {
    const shows = boxOn(d, meant.channel)?.memories[0]?.shows;
    const display = (n: number) => (shows ? `, shown ${shown(shows, n)}` : '');
    return `program ${came.data[0]}${display(theFirst(came.data))}, went out${meant.channel === came.channel ? '' : ` on channel ${came.channel}`}; ${meant.data[0]}${display(theFirst(meant.data))}, was meant.`;
  }
  return `controller ${meant.data[0]} is ${came.data[1]}${meant.channel === came.channel ? '' : ` on channel ${came.channel}`}, ${meant.data[1]} was meant.`;
};

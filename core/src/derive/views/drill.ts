import { soundsHere } from '../../recall/intend/wants.js';
import { memoryIn } from '../../rig/box.js';
import { partOf } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { shown } from '../../midi/numbering.js';
import { COMMON_TIME, type Metre } from '../../units/metre.js';
import type { Derived } from '../steps/deriver.js';
import { footworkOf, type FootStep } from './footwork.js';

/** A switch that the player hits in a drill. */
export interface DrillKey {
  readonly id: string;
  /** What stands on it. */
  readonly text: string;
  readonly is: FootStep['is'];
}

/** One thing that has to be hit, and when. */
export interface DrillStep {
  readonly key: string;
  /** What it is to bring. @example '2B', 'CHO on' */
  readonly text: string;
}

export interface DrillCue {
  readonly name: string;
  /** From the start of the song. */
  readonly seconds: number;
  readonly steps: readonly DrillStep[];
  /** The sound from there on. */
  readonly sound?: string;
  /** What hands and feet do besides. */
  readonly hands: readonly string[];
}

/** A song to be danced in time: its switches, its cues, and which slot gives which sound. */
export interface Drill {
  readonly title: string;
  readonly bpm: number;
  readonly metre: Metre;
  readonly cues: readonly DrillCue[];
  readonly keys: readonly DrillKey[];
  /** How many slots a bank has and how many banks there are, where the caller has banks. */
  readonly bank?: { readonly size: number; readonly banks: number; readonly first: number };
  /** What each slot gives, by what the box shows. */
  readonly slots: Readonly<Record<string, string>>;
  /** Slots by their place, as the box shows them. */
  readonly shown: readonly string[];
  /** Cues that are left out, as nobody said when they come. */
  readonly left: readonly string[];
}

const USUAL_BPM = 120;
/** Before the place of a slot's switch in its bank. */
export const SLOT = 'slot ';

/** The memory that calls most sounds of a song by slots that a foot hits. */
const callerOf = (d: Derived, song: Song) => {
  const calls = footworkOf(d, song).flatMap((w) => w.feet.flatMap((f) => f.calls ?? []));
  const [first] = calls;
  const memory = first && memoryIn(partOf(d.rig, first.device), first.memory);
  return first && memory ? { device: first.device, memory, start: first.slot } : undefined;
};

type Caller = NonNullable<ReturnType<typeof callerOf>>;

/** How many switches a bank has; without banks every slot has its own. */
const sizeOf = ({ memory }: Caller): number =>
  (memory.bank && memory.shows.bank?.size) || memory.switches?.length || memory.size;

const keyOf = (caller: Caller | undefined, step: FootStep): DrillStep => {
  const isOwn = caller && step.calls?.device === caller.device && step.calls.memory === caller.memory.id;
  if (isOwn && step.calls) return { key: `${SLOT}${step.calls.slot % sizeOf(caller)}`, text: step.text };
  return { key: step.is === 'box' ? step.text.replace(/ (?:on|off)$/, '') : step.text, text: step.text };
};

const slotKeys = (caller: Caller | undefined): readonly DrillKey[] => {
  if (!caller) return [];
  const size = Math.min(sizeOf(caller), MOST_KEYS);
  const bank = Math.floor(caller.start / sizeOf(caller)) * sizeOf(caller);
  return Array.from({ length: size }, (_, i) => ({
    id: `${SLOT}${i}`,
    text: caller.memory.switches?.[i] ?? shown(caller.memory.shows, bank + i),
    is: 'slot' as const,
  }));
};
const MOST_KEYS = 12;

/** The switches in reach: those of the slots, the bank keys, and whatever else the song wants. */
const keysOf = (
  caller: Caller | undefined,
  cues: readonly DrillCue[],
  feet: readonly FootStep[],
): readonly DrillKey[] => {
  const keys = new Map(slotKeys(caller).map((k) => [k.id, k]));
  if (caller?.memory.bank) for (const text of ['bank down', 'bank up']) keys.set(text, { id: text, text, is: 'bank' });
  for (const step of feet) {
    const { key } = keyOf(caller, step);
    if (!keys.has(key)) keys.set(key, { id: key, text: key, is: step.is });
  }
  return [...keys.values()];
};

/** A song as a drill. @returns undefined for a song in which nothing is hit at a said time */
export const drillOf = (d: Derived, song: Song): Drill | undefined => {
  const work = footworkOf(d, song);
  const caller = callerOf(d, song);
  const cues = work.flatMap((w, i): readonly DrillCue[] => {
    const seconds = w.seconds ?? (i === 0 ? 0 : undefined);
    if (seconds === undefined) return [];
    return [
      {
        name: w.cue.name,
        seconds,
        steps: w.feet.filter((f) => f.held !== 'up').map((step) => keyOf(caller, step)),
        ...(w.sound ? { sound: partOf(d.rig, w.sound)?.name ?? '' } : {}),
        hands: [...w.hands, ...w.words],
      },
    ];
  });
  if (!cues.some((c, i) => i > 0 && c.steps.length > 0)) return undefined;
  const feet = work.flatMap((w) => w.feet.filter((f) => f.held !== 'up'));
  const size = caller && sizeOf(caller);
  return {
    title: song.title,
    bpm: song.bpm ?? USUAL_BPM,
    metre: song.metre ?? COMMON_TIME,
    cues: [...cues].sort((a, b) => a.seconds - b.seconds),
    keys: keysOf(caller, cues, feet),
    ...(caller?.memory.bank && size
      ? { bank: { size, banks: Math.ceil(caller.memory.size / size), first: Math.floor(caller.start / size) } }
      : {}),
    slots: caller ? slotSounds(d, caller) : {},
    shown: caller ? Array.from({ length: caller.memory.size }, (_, i) => shown(caller.memory.shows, i)) : [],
    left: work.flatMap((w, i) => (w.seconds === undefined && i > 0 ? [w.cue.name] : [])),
  };
};

const slotSounds = (d: Derived, { device, memory }: Caller): Readonly<Record<string, string>> =>
  Object.fromEntries(
    soundsHere(d.rig, d.hookup.id).flatMap((sound) =>
      sound.calls
        .filter((c) => c.device === device && c.memory === memory.id)
        .map((c) => [shown(memory.shows, c.slot), sound.name] as const),
    ),
  );

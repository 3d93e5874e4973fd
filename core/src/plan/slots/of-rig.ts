import { keptIn } from '../../kept/kept.js';
import { surely, theItem } from '../../known/the.js';
import { soundsOfEngagement } from '../../edits/engagements.js';
import { memoryIn } from '../../rig/box.js';
import type { Memory } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import type { Sound } from '../../rig/sound.js';
import { costOf, pressesBetween, type SlotPlace, type SlotsCost, type SlotsProblem } from './problem.js';

/** A memory of a box that calls sounds from its slots. */
export interface SlotsCaller {
  readonly device: Id<'device'>;
  readonly memory: string;
}

/** The slots of a controller with the songs that are played from it, as a problem of placing. */
export interface SlotsOfRig {
  readonly caller: SlotsCaller;
  readonly memory: Memory;
  readonly problem: SlotsProblem;
  /** The sounds of the problem by their numbers there. */
  readonly sounds: readonly Sound[];
  /** How they stand now; a bank outside those of the problem has a number outside of them. */
  readonly now: readonly SlotPlace[];
  /** The bank of the controller that is the first of the problem. */
  readonly firstBank: number;
  /** So many banks a plan may use, from that one on. */
  readonly mayUse: number;
  /** All banks of the controller and their keys: by these the feet go now, wherever the sounds stand. */
  readonly keys: Pick<SlotsProblem, 'banks' | 'wrap' | 'bankKeys'>;
}

export interface SlotsAsked {
  /** Sounds that stay where they are. */
  readonly kept?: ReadonlySet<Id<'sound'>>;
  /** Banks to use, counted from the first; as many as are needed and used now when it is left out. */
  readonly most?: number | undefined;
  /** Only these banks, both ends counted, such as those that are kept for an act. */
  readonly only?: { readonly from: number; readonly to: number } | undefined;
}

/** Which banks are planned, by the numbers of the controller, and whether the way round is reckoned with. */
const banksAsked = (
  all: number,
  needed: number,
  pinned: readonly number[],
  { most, only }: SlotsAsked,
): { readonly firstBank: number; readonly banks: number; readonly wrap: boolean } => {
  if (only) {
    const from = Math.min(only.from, ...pinned);
    return { firstBank: from, banks: Math.max(only.to, ...pinned) - from + 1, wrap: false };
  }
  const asked = Math.min(all, Math.max(needed, most ?? needed));
  // In up to half of all banks the way round is never the shorter one; beyond, all of them are reckoned with.
  const banks = asked - 1 <= all / 2 ? asked : all;
  return { firstBank: 0, banks, wrap: banks === all };
};

/**
 * Sounds that songs call from one controller, on its banks and switches. Sounds that are called there and that no song
 * uses give way; scenes, what stands elsewhere in another hook-up, and sounds of other acts stay.
 * @returns undefined when the controller is gone or calls nothing of these songs
 */
export const slotsOfRig = (
  rig: Rig,
  caller: SlotsCaller,
  songs: readonly Song[],
  asked: SlotsAsked = {},
): SlotsOfRig | undefined => {
  const device = partOf(rig, caller.device);
  const memory = memoryIn(device, caller.memory);
  if (!device || !memory) return undefined;
  const { kept = new Set<Id<'sound'>>() } = asked;
  const called = soundsInOrder(rig).filter((s) => slotOf(s, caller) !== undefined);
  /** It stands in a scene, or in another slot in another hook-up. */
  const isTied = ({ calls }: Sound): boolean =>
    calls.some((c) => c.device === caller.device && memoryIn(device, c.memory)?.inside === memory.id) ||
    calls.filter((c) => c.device === caller.device && c.memory === memory.id).length > 1;
  const inSongs = new Set(
    songs.flatMap((song) => song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : []))),
  );
  const elsewhere = new Set(all(rig, 'engagement').flatMap((one) => [...soundsOfEngagement(rig, one.id)]));
  const stays = (s: Sound): boolean =>
    kept.has(s.id) || isTied(s) || (!asked.only && elsewhere.has(s.id) && !inSongs.has(s.id));
  const sounds = called.filter((s) => inSongs.has(s.id) || stays(s));
  if (!sounds.some((s) => inSongs.has(s.id))) return undefined;
  const numbers = new Map(sounds.map((s, i) => [s.id, i]));
  // Without bank keys every slot is as near as any other.
  const switches = (memory.bank && memory.shows.bank?.size) ?? memory.size;
  const bankOf = (s: Sound): number => Math.floor(surely(slotOf(s, caller)) / switches);
  const needed = Math.max(Math.ceil(sounds.length / switches), ...sounds.map((s) => bankOf(s) + 1));
  const fixed = sounds.filter(stays);
  const there = Math.ceil(memory.size / switches);
  const { firstBank, banks, wrap } = banksAsked(there, needed, fixed.map(bankOf), asked);
  const placeOf = (s: Sound): SlotPlace => [
    surely(numbers.get(s.id)),
    bankOf(s) - firstBank,
    surely(slotOf(s, caller)) % switches,
  ];
  return {
    caller,
    memory,
    sounds,
    now: sounds.map(placeOf),
    firstBank,
    mayUse: asked.only ? banks : there - firstBank,
    keys: { banks: there, wrap: true, bankKeys: 'both' },
    problem: {
      banks,
      switches,
      wrap,
      bankKeys: 'both',
      sounds: sounds.length,
      copies: 1,
      songs: songs.map((song) =>
        song.cues.flatMap(({ call }) => {
          const number = 'sound' in call ? numbers.get(call.sound) : undefined;
          return number === undefined ? [] : [number];
        }),
      ),
      ...(fixed.length ? { pinned: fixed.map(placeOf) } : {}),
    },
  };
};

export const slotOf = ({ calls }: Sound, { device, memory }: SlotsCaller): number | undefined =>
  calls.find((c) => c.device === device && c.memory === memory)?.slot;

/**
 * The same placement turned so that as much as possible stays where it is: whole banks in another order that costs the
 * same, and each sound on the switch that it has where that is free.
 */
export const leastMoved = ({ problem, now }: SlotsOfRig, places: readonly SlotPlace[]): readonly SlotPlace[] => {
  const { banks, pinned = [] } = problem;
  const cost = costOf(problem, places).stomps;
  const bankNow = new Map(now.map(([s, b]) => [s, b]));
  const stays = (those: readonly SlotPlace[]): number => those.filter(([s, b]) => bankNow.get(s) === b).length;
  const turns = pinned.length
    ? []
    : Array.from({ length: banks }, (_, by) => [
        (b: number) => (b + by) % banks,
        (b: number) => (banks - 1 - b + by) % banks,
      ]).flat();
  let best = places;
  for (const turn of turns) {
    const turned = places.map(([s, b, k]): SlotPlace => [s, turn(b), k]);
    if (costOf(problem, turned).stomps === cost && stays(turned) > stays(best)) best = turned;
  }
  return onTheirSwitches(problem, now, best);
};

/** Each sound on the switch that it has now, so that a role stays under the same foot; the others on what is left. */
const onTheirSwitches = (
  { switches, pinned = [] }: SlotsProblem,
  now: readonly SlotPlace[],
  places: readonly SlotPlace[],
): readonly SlotPlace[] => {
  const isPinned = ([s, b]: SlotPlace): boolean => pinned.some(([p, bank]) => p === s && bank === b);
  const switchNow = new Map(now.map(([s, , k]) => [s, k]));
  const bankNow = new Map(now.map(([s, b]) => [s, b]));
  const taken = new Map<number, Set<number>>();
  const takenIn = (bank: number) => keptIn(taken, bank, () => new Set<number>());
  for (const [, b, k] of pinned) takenIn(b).add(k);
  const open: SlotPlace[] = [];
  const done: SlotPlace[] = places.filter(isPinned);
  const movable = places.filter((p) => !isPinned(p));
  const stayFirst = [...movable].sort(
    (a, b) => Number(bankNow.get(b[0]) === b[1]) - Number(bankNow.get(a[0]) === a[1]),
  );
  for (const place of stayFirst) {
    const [s, b] = place;
    const k = switchNow.get(s);
    if (k === undefined || takenIn(b).has(k)) open.push(place);
    else {
      takenIn(b).add(k);
      done.push([s, b, k]);
    }
  }
  for (const [s, b] of open) {
    const k = surely(Array.from({ length: switches }, (_, i) => i).find((i) => !takenIn(b).has(i)));
    takenIn(b).add(k);
    done.push([s, b, k]);
  }
  return done;
};

/** What the songs cost the feet as the sounds stand now. */
export const costNow = ({ problem, keys, now, firstBank }: SlotsOfRig): SlotsCost =>
  costOf(
    { ...problem, ...keys },
    now.map(([s, b, k]): SlotPlace => [s, b + firstBank, k]),
  );

/** A change inside a song that needs the bank keys. */
export interface BankChange {
  readonly song: Id<'song'>;
  readonly title: string;
  readonly from: string;
  readonly to: string;
  readonly presses: number;
}

/** Where in the songs a bank key is needed, as the sounds stand. */
export const bankChangesNow = (
  { problem, keys, sounds, now }: SlotsOfRig,
  songs: readonly Song[],
): readonly BankChange[] => {
  const bankOf = new Map(now.map(([s, b]) => [s, b]));
  return problem.songs.flatMap((cues, i) =>
    cues.flatMap((to, k): readonly BankChange[] => {
      const from = cues[k - 1];
      if (from === undefined || from === to) return [];
      const presses = pressesBetween(keys, surely(bankOf.get(from)), surely(bankOf.get(to)));
      const song = theItem(songs, i);
      return presses
        ? [
            {
              song: song.id,
              title: song.title,
              from: theItem(sounds, from).name,
              to: theItem(sounds, to).name,
              presses,
            },
          ]
        : [];
    }),
  );
};

import type { Edit } from '../../change/edit.js';
import { keptIn } from '../../kept/kept.js';
import { surely, theItem } from '../../known/the.js';
import { tickOf } from '../../edits/ticks.js';
import { shown } from '../../midi/numbering.js';
import { memoryIn } from '../../rig/box.js';
import type { Memory } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import type { Sound } from '../../rig/sound.js';
import { costOf, pressesBetween, type SlotPlace, type SlotsProblem } from './problem.js';

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
  /** How they stand now. */
  readonly now: readonly SlotPlace[];
}

/**
 * Sounds that songs call from one controller, on its banks and switches. Sounds that are called there and that no song
 * uses give way; scenes, and what stands elsewhere in another hook-up, stay.
 * @param kept sounds that stay where they are
 * @param most banks to use, counted from the first; as many as are needed and used now when it is left out
 * @returns undefined when the controller is gone or calls nothing of these songs
 */
export const slotsOfRig = (
  rig: Rig,
  caller: SlotsCaller,
  songs: readonly Song[],
  kept: ReadonlySet<Id<'sound'>> = new Set(),
  most?: number,
): SlotsOfRig | undefined => {
  const device = partOf(rig, caller.device);
  const memory = memoryIn(device, caller.memory);
  if (!device || !memory) return undefined;
  const called = soundsInOrder(rig).filter((s) => slotOf(s, caller) !== undefined);
  /** It stands in a scene, or in another slot in another hook-up. */
  const isTied = ({ calls }: Sound): boolean =>
    calls.some((c) => c.device === caller.device && memoryIn(device, c.memory)?.inside === memory.id) ||
    calls.filter((c) => c.device === caller.device && c.memory === memory.id).length > 1;
  const inSongs = new Set(
    songs.flatMap((song) => song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : []))),
  );
  const sounds = called.filter((s) => inSongs.has(s.id) || isTied(s) || kept.has(s.id));
  if (!sounds.some((s) => inSongs.has(s.id))) return undefined;
  const numbers = new Map(sounds.map((s, i) => [s.id, i]));
  // Without bank keys every slot is as near as any other.
  const switches = (memory.bank && memory.shows.bank?.size) ?? memory.size;
  const placeOf = (s: Sound): SlotPlace => {
    const slot = surely(slotOf(s, caller));
    return [surely(numbers.get(s.id)), Math.floor(slot / switches), slot % switches];
  };
  const now = sounds.map(placeOf);
  const all = Math.ceil(memory.size / switches);
  const needed = Math.max(Math.ceil(sounds.length / switches), ...now.map(([, bank]) => bank + 1));
  const asked = Math.min(all, Math.max(needed, most ?? needed));
  // In up to half of all banks the way round is never the shorter one; beyond, all of them are reckoned with.
  const banks = asked - 1 <= all / 2 ? asked : all;
  const fixed = sounds.filter((s) => kept.has(s.id) || isTied(s)).map(placeOf);
  return {
    caller,
    memory,
    sounds,
    now,
    problem: {
      banks,
      switches,
      wrap: banks === all,
      bankKeys: 'both',
      sounds: sounds.length,
      copies: 1,
      songs: songs.map((song) =>
        song.cues.flatMap(({ call }) => {
          const number = 'sound' in call ? numbers.get(call.sound) : undefined;
          return number === undefined ? [] : [number];
        }),
      ),
      ...(fixed.length ? { pinned: fixed } : {}),
    },
  };
};

const slotOf = ({ calls }: Sound, { device, memory }: SlotsCaller): number | undefined =>
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
  const isPinned = ([s]: SlotPlace): boolean => pinned.some(([p]) => p === s);
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

export interface SlotMove {
  readonly sound: Id<'sound'>;
  readonly name: string;
  readonly from: string;
  readonly to: string;
}

export interface SlotsChange {
  readonly moves: readonly SlotMove[];
  readonly edit: Edit;
  /** Slots that somebody typed in, and that hold something else then. */
  readonly retype: readonly string[];
}

/** What a placement changes in the rig. Sounds that no song uses and that stand in the way go to the next free slot. */
export const changeTo = (rig: Rig, setup: SlotsOfRig, places: readonly SlotPlace[]): SlotsChange => {
  const { caller, memory, sounds, problem } = setup;
  const slots = new Map<Id<'sound'>, number>();
  for (const [s, b, k] of places) slots.set(theItem(sounds, s).id, b * problem.switches + k);
  const taken = new Set(slots.values());
  const others = soundsInOrder(rig).filter((s) => slotOf(s, caller) !== undefined && !slots.has(s.id));
  const inTheWay: Sound[] = [];
  for (const other of others) {
    const slot = surely(slotOf(other, caller));
    if (taken.has(slot)) inTheWay.push(other);
    else taken.add(slot);
  }
  for (const other of inTheWay) {
    const free = Array.from({ length: memory.size }, (_, slot) => slot).find((slot) => !taken.has(slot));
    if (free === undefined) continue;
    taken.add(free);
    slots.set(other.id, free);
  }
  const moved = [...slots].flatMap(([id, to]) => {
    const sound = surely(partOf(rig, id));
    const from = surely(slotOf(sound, caller));
    return from === to ? [] : [{ sound, from, to }];
  });
  const touched = [...new Set(moved.flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  return {
    moves: moved.map(({ sound, from, to }) => ({
      sound: sound.id,
      name: sound.name,
      from: shown(memory.shows, from),
      to: shown(memory.shows, to),
    })),
    edit: {
      put: moved.map(({ sound, to }): Sound => ({
        ...sound,
        calls: sound.calls.map((c) =>
          c.device === caller.device && c.memory === caller.memory ? { ...c, slot: to } : c,
        ),
      })),
      remove: [],
    },
    retype: touched.flatMap((number) =>
      tickOf(rig, { device: caller.device, memory: caller.memory, number }) ? [shown(memory.shows, number)] : [],
    ),
  };
};

/** A change inside a song that needs the bank keys. */
export interface BankChange {
  readonly song: Id<'song'>;
  readonly title: string;
  readonly from: string;
  readonly to: string;
  readonly presses: number;
}

/** Where in the songs a bank key is needed, as the sounds stand. */
export const bankChangesNow = ({ problem, sounds, now }: SlotsOfRig, songs: readonly Song[]): readonly BankChange[] => {
  const bankOf = new Map(now.map(([s, b]) => [s, b]));
  return problem.songs.flatMap((cues, i) =>
    cues.flatMap((to, k): readonly BankChange[] => {
      const from = cues[k - 1];
      if (from === undefined || from === to) return [];
      const presses = pressesBetween(problem, surely(bankOf.get(from)), surely(bankOf.get(to)));
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

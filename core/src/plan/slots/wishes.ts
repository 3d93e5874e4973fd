import { SHOE_MM } from '../../rig/board.js';
import { soundsOfEngagement } from '../../edits/engagements.js';
import { surely, theItem } from '../../known/the.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { ROLES, type Sound } from '../../rig/sound.js';
import type { SlotsOfRig } from './of-rig.js';
import { usedPlaces, usedSounds, withoutRepeats, type SlotPlace, type SlotsProblem } from './problem.js';
import type { Hit, SwitchesProblem } from './switches.js';
import type { MoveSwitch } from './change.js';

/** What a bank is for, where it is to hold sounds of one kind only. */
export const BANK_FOR = ['role', 'act', 'instrument', 'song'] as const;
export type BankFor = (typeof BANK_FOR)[number];

/** What a player asks of the slots besides few stomps. */
export interface SlotWishes {
  /** Each role on one switch in every bank. */
  readonly roles: boolean;
  /** Two switches that one song needs a shoe apart. */
  readonly shoe: boolean;
  /** A sound may stand in two slots. */
  readonly twice: boolean;
  readonly bankFor?: BankFor | undefined;
}

export const NO_WISHES: SlotWishes = { roles: false, shoe: false, twice: false };

const songsCalling = (songs: readonly Song[], sound: Id<'sound'>): readonly Song[] =>
  songs.filter((s) => s.cues.some(({ call }) => 'sound' in call && call.sound === sound));

/** To what a sound belongs: its role, the acts that need it, the instruments of the songs that call it. */
const belongsTo = (rig: Rig, songs: readonly Song[], sound: Sound, bankFor: Exclude<BankFor, 'song'>): string => {
  if (bankFor === 'role') return sound.role;
  if (bankFor === 'act')
    return all(rig, 'engagement')
      .filter((one) => soundsOfEngagement(rig, one.id).has(sound.id))
      .map((one) => one.id)
      .join();
  return [...new Set(songsCalling(songs, sound.id).map((s) => s.instrument ?? ''))].sort().join();
};

/** The same slots with what the player wishes of them. */
export const wished = (rig: Rig, of: SlotsOfRig, songs: readonly Song[], wishes: SlotWishes): SlotsOfRig => {
  const { roles, twice, bankFor } = wishes;
  const apart = roles
    ? ROLES.filter((role) => role !== 'other')
        .map((role) => of.sounds.flatMap((s, i) => (s.role === role ? [i] : [])))
        .filter((those) => those.length > 1)
    : [];
  const names = bankFor && bankFor !== 'song' ? of.sounds.map((s) => belongsTo(rig, songs, s, bankFor)) : undefined;
  const known = [...new Set(names)];
  const problem: SlotsProblem = {
    ...of.problem,
    copies: twice ? 2 : 1,
    ...(apart.length ? { apart } : {}),
    ...(names && known.length > 1 ? { groups: names.map((name) => known.indexOf(name)) } : {}),
  };
  return { ...of, problem };
};

/** How many banks the wishes need at least, for what is not pinned: that may stand together or by itself. */
export const banksNeeded = ({ apart = [], groups, switches, ...rest }: SlotsProblem): number => {
  const pinned = new Set((rest.pinned ?? []).map(([s]) => s));
  const used = usedSounds({ ...rest, switches }).filter((s) => !pinned.has(s));
  const needs = (those: readonly number[]): number =>
    Math.max(Math.ceil(those.length / switches), ...apart.map((a) => those.filter((s) => a.includes(s)).length));
  const kinds = [...new Set(used.map((s) => groups?.[s] ?? 0))];
  return Math.max(
    needs(used),
    kinds.reduce((sum, kind) => sum + needs(used.filter((s) => (groups?.[s] ?? 0) === kind)), 0),
  );
};

/**
 * A bank for every song, its sounds in the order of its cues, as often stored as there are songs that need them. Songs
 * whose sounds stand in a bank already share it.
 * @returns the places, and how many banks they take
 */
export const bankBySong = ({
  songs,
  switches,
  pinned = [],
}: SlotsProblem): { readonly places: readonly SlotPlace[]; readonly banks: number } => {
  const places: SlotPlace[] = [...pinned];
  const isFree = (bank: number): boolean => !pinned.some(([, b]) => b === bank);
  let next = 0;
  const take = (): number => {
    while (!isFree(next)) next += 1;
    next += 1;
    return next - 1;
  };
  const held = (bank: number): readonly number[] => places.flatMap(([s, b]) => (b === bank ? [s] : []));
  for (const song of songs) {
    const sounds = [...new Set(withoutRepeats(song))];
    const isThere = Array.from({ length: next }, (_, bank) => held(bank)).some((those) =>
      sounds.every((s) => those.includes(s)),
    );
    if (isThere || sounds.length === 0) continue;
    for (let from = 0; from < sounds.length; from += switches) {
      const bank = take();
      sounds.slice(from, from + switches).forEach((s, k) => places.push([s, bank, k]));
    }
  }
  return { places, banks: Math.max(next, ...places.map(([, b]) => b + 1)) };
};

/** Which switch each place and each move gets, as a problem of its own. */
export interface SwitchesOfRig {
  readonly problem: SwitchesProblem;
  /** How they stand before anything is asked. */
  readonly first: readonly number[];
  readonly places: readonly SlotPlace[];
  readonly moves: readonly Id<'move'>[];
  /** What the switches are called, slots first. */
  readonly names: readonly string[];
}

const closePairs = (
  rig: Rig,
  { caller }: SlotsOfRig,
  names: readonly string[],
): readonly (readonly [number, number])[] => {
  const spots = partOf(rig, caller.device)?.figures.switches ?? [];
  const spotOf = (name: string) => spots.find((s) => s.id === name);
  return names.flatMap((a, i) =>
    names.slice(i + 1).flatMap((b, n): readonly (readonly [number, number])[] => {
      const [one, other] = [spotOf(a), spotOf(b)];
      return one && other && Math.hypot(one.x - other.x, one.y - other.y) < SHOE_MM ? [[i, i + 1 + n]] : [];
    }),
  );
};

/** Whether somebody said where the switches of a controller are: without it no shoe can be judged. */
export const saysWhere = (rig: Rig, { caller, memory }: SlotsOfRig): boolean => {
  const spots = partOf(rig, caller.device)?.figures.switches ?? [];
  return (memory.switches ?? []).filter((name) => spots.some((s) => s.id === name)).length > 1;
};

/** Two moves that one sound may have cannot share a switch. */
const isRival = (rig: Rig, a: Id<'move'>, b: Id<'move'>): boolean => {
  const [one, other] = [a, b].map((id) => surely(partOf(rig, id)).sounds);
  if (one === 'all' || other === 'all' || !one || !other) return true;
  return one.some((s) => other.includes(s));
};

const MOVE_FLOORS = 100_000;

/** The places of a plan and the moves of its controller, each to be given a switch. */
export const switchesOfRig = (
  rig: Rig,
  of: SlotsOfRig,
  songs: readonly Song[],
  places: readonly SlotPlace[],
  { roles, shoe }: Pick<SlotWishes, 'roles' | 'shoe'>,
): SwitchesOfRig => {
  const { problem, memory, caller, sounds, now } = of;
  const { switches, pinned = [] } = problem;
  const assignable = (memory.assignable ?? []).map((a) => a.switch);
  const names = [...Array.from({ length: switches }, (_, k) => memory.switches?.[k] ?? `slot ${k + 1}`), ...assignable];
  const moves = all(rig, 'move').filter((m) =>
    m.at.some((a) => a.device === caller.device && assignable.includes(a.switch)),
  );
  const slotSwitches = Array.from({ length: switches }, (_, k) => k);
  const switchNow = new Map(now.map(([s, , k]) => [s, k]));
  const soundHits = places.map(([s, b, k]): Hit => {
    const isPinned = pinned.some(([p, bank]) => p === s && bank === b);
    const { role } = theItem(sounds, s);
    return {
      may: isPinned ? [k] : slotSwitches,
      now: switchNow.get(s),
      floors: isPinned ? [] : [b],
      ...(roles && role !== 'other' ? { role: ROLES.indexOf(role) } : {}),
    };
  });
  const free = (b: number): readonly number[] =>
    slotSwitches.filter((k) => !pinned.some(([, bank, key]) => bank === b && key === k));
  const open = soundHits.map((hit, i) => (hit.floors.length ? { ...hit, may: free(places[i]?.[1] ?? 0) } : hit));
  const moveHits = moves.map((move, i): Hit => {
    const at = move.at.find((a) => a.device === caller.device)?.switch ?? '';
    const rivals = moves.flatMap((other, j) => (j !== i && isRival(rig, move.id, other.id) ? [j] : []));
    return {
      may: assignable.map((_, n) => switches + n),
      now: names.indexOf(at, switches),
      floors: rivals.map((j) => MOVE_FLOORS + Math.min(i, j) * moves.length + Math.max(i, j)),
    };
  });
  const hits = [...open, ...moveHits];
  return {
    problem: {
      hits,
      homes: slotSwitches,
      close: shoe ? closePairs(rig, of, names) : [],
      together: shoe
        ? neededTogether(
            of,
            songs,
            places,
            moves.map((m) => m.id),
          )
        : [],
    },
    first: [...places.map(([, , k]) => k), ...moveHits.map((h) => h.now ?? switches)],
    places,
    moves: moves.map((m) => m.id),
    names,
  };
};

/** Hits that one song needs both, counted in songs. */
const neededTogether = (
  { problem }: SlotsOfRig,
  songs: readonly Song[],
  places: readonly SlotPlace[],
  moves: readonly Id<'move'>[],
): SwitchesProblem['together'] => {
  const used = usedPlaces(problem, places, () => true);
  const counts = new Map<string, { readonly a: number; readonly b: number; songs: number }>();
  songs.forEach((song, i) => {
    const called = song.cues.flatMap(({ call }) => ('move' in call ? [call.move] : []));
    const hit = [
      ...theItem(used, i).map((place) => places.indexOf(place)),
      ...called.flatMap((id) => (moves.includes(id) ? [places.length + moves.indexOf(id)] : [])),
    ];
    const needed = [...new Set(hit)].sort((a, b) => a - b);
    needed.forEach((a, n) =>
      needed.slice(n + 1).forEach((b) => {
        const known = counts.get(`${a} ${b}`) ?? { a, b, songs: 0 };
        counts.set(`${a} ${b}`, { ...known, songs: known.songs + 1 });
      }),
    );
  });
  return [...counts.values()];
};

/** A choice of switches as places and moves again. */
export const placesOn = (
  of: SwitchesOfRig,
  at: readonly number[],
): { readonly places: readonly SlotPlace[]; readonly moves: readonly MoveSwitch[] } => ({
  places: of.places.map(([s, b], i): SlotPlace => [s, b, theItem(at, i)]),
  moves: of.moves.map((move, i) => ({ move, switch: of.names[theItem(at, of.places.length + i)] ?? '' })),
});

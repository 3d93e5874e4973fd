import equal from 'fast-deep-equal';
import { nothing, type Edit } from '../change/edit.js';
import { shown } from '../midi/numbering.js';
import type { Memory } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Call, Sound } from '../rig/sound.js';
import { tickOf } from './ticks.js';

/** A memory that calls sounds: the slots of a switcher, presets, the scenes in them, a song list, a timeline's cues. */
export interface Caller {
  readonly device: Id<'device'>;
  readonly memory: string;
  /** The code of its box. */
  readonly code: string;
  readonly by: NonNullable<Memory['by']>;
  /** Its places are scenes, each in one of the presets around them. */
  readonly isScene: boolean;
}

/** All that can call sounds in this rig. */
export const callersIn = (rig: Rig): readonly Caller[] =>
  all(rig, 'device').flatMap((d) =>
    d.memories.flatMap((m) =>
      m.by ? [{ device: d.id, memory: m.id, code: d.code, by: m.by, isScene: m.inside !== undefined }] : [],
    ),
  );

/** One place of a caller, by its number as the box shows it, and the sound that it calls now. */
export interface CallPlace {
  /** Of a scene: which of all scenes, those of the first preset first. */
  readonly slot: number;
  readonly text: string;
  readonly sound?: Sound;
}

type From = Pick<Caller, 'device' | 'memory'>;

const isOf =
  ({ device, memory }: From) =>
  (c: Call): boolean =>
    c.device === device && c.memory === memory;

/** A memory that calls, with the one around it and those inside it. */
interface Shelf {
  readonly memory: Memory;
  readonly outer: Memory | undefined;
  readonly inner: readonly Memory[];
}

const shelfOf = (rig: Rig, { device, memory: id }: From): Shelf | undefined => {
  const memories = rig.parts.device.get(device)?.memories ?? [];
  const memory = memories.find((m) => m.id === id);
  return (
    memory && {
      memory,
      outer: memories.find((m) => m.id === memory.inside),
      inner: memories.filter((m) => m.inside === id),
    }
  );
};

/** The place from which a caller calls a sound; a preset calls one by itself only where no scene of it is called. */
const placeIn = (sound: Sound, { device }: From, { memory, outer, inner }: Shelf): number | undefined => {
  const slotOf = (m: Memory): number | undefined => sound.calls.find(isOf({ device, memory: m.id }))?.slot;
  const own = slotOf(memory);
  if (own === undefined || inner.some((m) => slotOf(m) !== undefined)) return undefined;
  if (!outer) return own;
  const around = slotOf(outer);
  return around === undefined ? undefined : around * memory.size + own;
};

export const slotFrom = (rig: Rig, sound: Sound, caller: From): number | undefined => {
  const shelf = shelfOf(rig, caller);
  return shelf && placeIn(sound, caller, shelf);
};

/** A place as the box shows it. @example '1A scene 2' */
const placeText = ({ memory, outer }: Shelf, slot: number): string =>
  outer
    ? `${shown(outer.shows, Math.floor(slot / memory.size))} scene ${shown(memory.shows, slot % memory.size)}`
    : shown(memory.shows, slot);

/** Every place of a caller, in its order. */
export const placesOf = (rig: Rig, caller: From): readonly CallPlace[] => {
  const shelf = shelfOf(rig, caller);
  if (!shelf) return [];
  const taken = new Map<number, Sound>();
  for (const sound of soundsInOrder(rig)) {
    const slot = placeIn(sound, caller, shelf);
    if (slot !== undefined) taken.set(slot, sound);
  }
  return Array.from({ length: shelf.memory.size * (shelf.outer?.size ?? 1) }, (_, slot) => {
    const sound = taken.get(slot);
    return { slot, text: placeText(shelf, slot), ...(sound ? { sound } : {}) };
  });
};

/** The calls by which a box calls one of its places: the preset before the scene in it. */
const callsAt = (device: Id<'device'>, { memory, outer }: Shelf, slot: number): readonly Call[] =>
  outer
    ? [
        { device, memory: outer.id, slot: Math.floor(slot / memory.size) },
        { device, memory: memory.id, slot: slot % memory.size },
      ]
    : [{ device, memory: memory.id, slot }];

const withCall = (sound: Sound, { device }: From, shelf: Shelf, slot: number | undefined): Sound => {
  const mine = [shelf.memory, ...(shelf.outer ? [shelf.outer] : []), ...shelf.inner].map((m) => m.id);
  const isOurs = (c: Call): boolean => c.device === device && mine.includes(c.memory);
  const said = sound.calls.find(isOurs)?.in;
  // What is said for another hook-up stays.
  const isMine = (c: Call): boolean => isOurs(c) && equal(c.in, said);
  const next = slot === undefined ? [] : callsAt(device, shelf, slot).map((c): Call => (said ? { ...c, in: said } : c));
  const at = sound.calls.findIndex(isMine);
  const others = sound.calls.filter((c) => !isMine(c));
  return { ...sound, calls: at < 0 ? [...others, ...next] : others.toSpliced(at, 0, ...next) };
};

/**
 * A sound is called from another place of a caller, or from none. A sound that stands there changes places with it;
 * where this one has no place to give, the other is called by nothing then.
 */
export const callFrom = (rig: Rig, sound: Sound, caller: From, slot: number | undefined): Edit => {
  const shelf = shelfOf(rig, caller);
  if (!shelf) return nothing;
  const other = slot === undefined ? undefined : placesOf(rig, caller)[slot]?.sound;
  const mine = withCall(sound, caller, shelf, slot);
  const put =
    other && other.id !== sound.id ? [mine, withCall(other, caller, shelf, placeIn(sound, caller, shelf))] : [mine];
  return intoScenes(rig, caller, shelf, put);
};

/**
 * A preset holds one sound, or a sound in each of its scenes. Where an edit leaves one beside scenes of the same preset,
 * it becomes the first scene that is free.
 */
const intoScenes = (rig: Rig, { device }: From, shelf: Shelf, put: readonly Sound[]): Edit => {
  const scenes = shelf.outer ? shelf.memory : shelf.inner[0];
  const presets = shelf.outer ?? shelf.memory;
  if (!scenes) return { put, remove: [] };
  const slotOf = (s: Sound, m: Memory): number | undefined => s.calls.find(isOf({ device, memory: m.id }))?.slot;
  const now = new Map(soundsInOrder(rig).map((s) => [s.id, s]));
  for (const one of put) now.set(one.id, one);
  const changed = new Map(put.map((s) => [s.id, s]));
  for (const one of now.values()) {
    const preset = slotOf(one, presets);
    if (preset === undefined || slotOf(one, scenes) !== undefined) continue;
    const taken = [...now.values()].flatMap((s) => (slotOf(s, presets) === preset ? (slotOf(s, scenes) ?? []) : []));
    const free = Array.from({ length: scenes.size }, (_, n) => n).find((n) => !taken.includes(n));
    if (taken.length === 0 || free === undefined) continue;
    const moved = { ...one, calls: [...one.calls, { device, memory: scenes.id, slot: free }] };
    now.set(one.id, moved);
    changed.set(one.id, moved);
  }
  return { put: [...changed.values()], remove: [] };
};

/** Places that somebody has typed into the box, and that hold something else after a change of who is called there. */
export const toRetype = (rig: Rig, sound: Sound, caller: From, slot: number | undefined): readonly string[] => {
  const shelf = shelfOf(rig, caller);
  if (!shelf) return [];
  const touched = [...new Set([placeIn(sound, caller, shelf), slot])].filter((place) => place !== undefined);
  return touched
    .sort((a, b) => a - b)
    .flatMap((place) => {
      const number = shelf.outer ? place % shelf.memory.size : place;
      const of = shelf.outer ? { of: Math.floor(place / shelf.memory.size) } : {};
      return tickOf(rig, { device: caller.device, memory: caller.memory, number, ...of })
        ? [placeText(shelf, place)]
        : [];
    });
};

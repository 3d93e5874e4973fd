import type { Edit } from '../change/edit.js';
import { shown } from '../midi/numbering.js';
import type { Memory } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Call, Sound } from '../rig/sound.js';
import { tickOf } from './ticks.js';

/** A memory that calls sounds: the slots of a switcher, a song list, the cues of a timeline. */
export interface Caller {
  readonly device: Id<'device'>;
  readonly memory: string;
  /** The code of its box. */
  readonly code: string;
  readonly by: NonNullable<Memory['by']>;
}

/** All that can call sounds in this rig. */
export const callersIn = (rig: Rig): readonly Caller[] =>
  all(rig, 'device').flatMap((d) =>
    d.memories.flatMap((m) => (m.by ? [{ device: d.id, memory: m.id, code: d.code, by: m.by }] : [])),
  );

/** One place of a caller, by its number as the box shows it, and the sound that it calls now. */
export interface CallPlace {
  readonly slot: number;
  readonly text: string;
  readonly sound?: Sound;
}

const isOf =
  ({ device, memory }: Pick<Call, 'device' | 'memory'>) =>
  (c: Call): boolean =>
    c.device === device && c.memory === memory;

/** Every place of a caller, in its order. */
export const placesOf = (rig: Rig, { device, memory }: Pick<Caller, 'device' | 'memory'>): readonly CallPlace[] => {
  const found = rig.parts.device.get(device)?.memories.find((m) => m.id === memory);
  if (!found) return [];
  const taken = new Map<number, Sound>();
  for (const sound of soundsInOrder(rig))
    for (const call of sound.calls.filter(isOf({ device, memory }))) taken.set(call.slot, sound);
  return Array.from({ length: found.size }, (_, slot) => {
    const sound = taken.get(slot);
    return { slot, text: shown(found.shows, slot), ...(sound ? { sound } : {}) };
  });
};

/** The place from which a caller calls a sound. */
export const slotFrom = (sound: Sound, caller: Pick<Caller, 'device' | 'memory'>): number | undefined =>
  sound.calls.find(isOf(caller))?.slot;

const withCall = (sound: Sound, call: Pick<Call, 'device' | 'memory'>, slot: number | undefined): Sound => {
  const at = sound.calls.findIndex(isOf(call));
  const others = sound.calls.filter((_, i) => i !== at);
  if (slot === undefined) return { ...sound, calls: others };
  const old = sound.calls[at];
  const next: Call = old ? { ...old, slot } : { device: call.device, memory: call.memory, slot };
  return { ...sound, calls: at < 0 ? [...sound.calls, next] : sound.calls.with(at, next) };
};

/**
 * A sound is called from another place of a caller, or from none. A sound that stands there changes places with it;
 * where this one has no place to give, the other is called by nothing then.
 */
export const callFrom = (
  rig: Rig,
  sound: Sound,
  caller: Pick<Caller, 'device' | 'memory'>,
  slot: number | undefined,
): Edit => {
  const other = slot === undefined ? undefined : placesOf(rig, caller)[slot]?.sound;
  const mine = withCall(sound, caller, slot);
  if (!other || other.id === sound.id) return { put: [mine], remove: [] };
  return { put: [mine, withCall(other, caller, slotFrom(sound, caller))], remove: [] };
};

/** Places that somebody has typed into the box, and that hold something else after a change of who is called there. */
export const toRetype = (
  rig: Rig,
  sound: Sound,
  caller: Pick<Caller, 'device' | 'memory'>,
  slot: number | undefined,
): readonly string[] => {
  const touched = new Set([slotFrom(sound, caller), slot]);
  return placesOf(rig, caller)
    .filter(
      (p) =>
        touched.has(p.slot) &&
        tickOf(rig, { device: caller.device, memory: caller.memory, number: p.slot }) !== undefined,
    )
    .map((p) => p.text);
};

import equal from 'fast-deep-equal';
import type { Edit } from '../../change/edit.js';
import { tickOf } from '../../edits/ticks.js';
import { surely, theItem } from '../../known/the.js';
import { shown } from '../../midi/numbering.js';
import type { Id } from '../../rig/ids.js';
import { cutTo, LONGEST } from '../../rig/limits.js';
import { all, partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import type { Move, Sound } from '../../rig/sound.js';
import { slotOf, type SlotsOfRig } from './of-rig.js';
import { usedPlaces, type SlotPlace } from './problem.js';

export interface SlotMove {
  readonly sound: Id<'sound'>;
  readonly name: string;
  readonly from: string;
  readonly to: string;
}

export interface SlotsChange {
  readonly moves: readonly SlotMove[];
  /** Sounds that get a second slot, as a sound derived from them that says nothing of its own. */
  readonly copies: readonly { readonly name: string; readonly of: string; readonly to: string }[];
  /** Moves that get another switch. */
  readonly switches: readonly { readonly name: string; readonly from: string; readonly to: string }[];
  readonly edit: Edit;
  /** Slots that somebody typed in, and that hold something else then. */
  readonly retype: readonly string[];
}

/** A move and the switch that it is to get. */
export interface MoveSwitch {
  readonly move: Id<'move'>;
  readonly switch: string;
}

/** The place of a sound that remains its own: where it stands now, else in its bank, else the first. */
const ownPlace = ({ now }: SlotsOfRig, places: readonly SlotPlace[], sound: number): SlotPlace => {
  const mine = places.filter(([s]) => s === sound);
  const [, bank, key] = surely(now.find(([s]) => s === sound));
  return surely(mine.find(([, b, k]) => b === bank && k === key) ?? mine.find(([, b]) => b === bank) ?? mine[0]);
};

/** Further places of sounds, each with the sound that will stand there. */
interface Copy {
  readonly place: SlotPlace;
  readonly sound: Sound;
}

const copiesOf = (
  rig: Rig,
  setup: SlotsOfRig,
  places: readonly SlotPlace[],
  newId: () => Id<'sound'>,
): readonly Copy[] => {
  const { caller, sounds, problem } = setup;
  const names = new Set(all(rig, 'sound').map((s) => s.name));
  let at = Math.max(0, ...all(rig, 'sound').map((s) => s.at));
  const nameFor = ({ name }: Sound): string => {
    for (let n = 2; ; n += 1) {
      const next = `${cutTo(name, LONGEST.name - 4)} ${n}`;
      if (names.has(next)) continue;
      names.add(next);
      return next;
    }
  };
  return places.flatMap((place): readonly Copy[] => {
    const [s, b, k] = place;
    if (ownPlace(setup, places, s) === place) return [];
    const original = theItem(sounds, s);
    const { level, leaving, hears, display } = original;
    const call = surely(original.calls.find((c) => c.device === caller.device && c.memory === caller.memory));
    const others = original.calls.filter((c) => c !== call);
    at += 1;
    const sound: Sound = {
      kind: 'sound',
      id: newId(),
      name: nameFor(original),
      role: original.role,
      at,
      parent: original.id,
      wants: [],
      calls: [{ ...call, slot: (b + setup.firstBank) * problem.switches + k }, ...others],
      ...(display ? { display } : {}),
      ...(level ? { level } : {}),
      ...(leaving ? { leaving } : {}),
      ...(hears ? { hears } : {}),
    };
    return [{ place, sound }];
  });
};

/** Songs whose cues call a copy, where the plan stomps it there. */
const songsWith = (
  setup: SlotsOfRig,
  songs: readonly Song[],
  places: readonly SlotPlace[],
  copies: readonly Copy[],
): readonly Song[] => {
  if (copies.length === 0) return [];
  const used = usedPlaces(setup.problem, places, (place) => !copies.some((c) => c.place === place));
  return songs.flatMap((song, i) => {
    const taken = [...theItem(used, i)];
    let isOther = false;
    const cues = song.cues.map((cue) => {
      const { call } = cue;
      if (!('sound' in call) || !setup.sounds.some((s) => s.id === call.sound)) return cue;
      const place = taken.shift();
      const copy = copies.find((c) => c.place === place);
      if (!copy) return cue;
      isOther = true;
      return { ...cue, call: { sound: copy.sound.id } };
    });
    return isOther ? [{ ...song, cues }] : [];
  });
};

/** Moves on the switches that they get, and with the copies of their sounds. */
const movesWith = (
  rig: Rig,
  { caller }: SlotsOfRig,
  asked: readonly MoveSwitch[],
  copies: readonly Copy[],
): readonly { readonly before: Move; readonly after: Move }[] =>
  all(rig, 'move').flatMap((before) => {
    const to = asked.find((a) => a.move === before.id)?.switch;
    const at = before.at.map((a) => (to !== undefined && a.device === caller.device ? { ...a, switch: to } : a));
    const { sounds } = before;
    const more = sounds === 'all' ? [] : copies.filter(({ sound: { parent } }) => parent && sounds.includes(parent));
    const after = { ...before, at, sounds: sounds === 'all' ? sounds : [...sounds, ...more.map((c) => c.sound.id)] };
    return more.length > 0 || !equal(at, before.at) ? [{ before, after }] : [];
  });

/** Sounds of other songs that stand in the way, each with the next free slot, first outside of the banks that are planned. */
const givenWay = (
  rig: Rig,
  { caller, memory, problem, firstBank }: SlotsOfRig,
  placed: ReadonlyMap<Id<'sound'>, number>,
  slots: ReadonlySet<number>,
): readonly (readonly [Id<'sound'>, number])[] => {
  const taken = new Set(slots);
  const others = soundsInOrder(rig).filter((s) => slotOf(s, caller) !== undefined && !placed.has(s.id));
  const inTheWay: Sound[] = [];
  for (const other of others) {
    const slot = surely(slotOf(other, caller));
    if (taken.has(slot)) inTheWay.push(other);
    else taken.add(slot);
  }
  const isPlanned = (slot: number): boolean => {
    const bank = Math.floor(slot / problem.switches) - firstBank;
    return firstBank > 0 && bank >= 0 && bank < problem.banks;
  };
  const everySlot = Array.from({ length: memory.size }, (_, slot) => slot);
  const inOrder = [...everySlot.filter((s) => !isPlanned(s)), ...everySlot.filter(isPlanned)];
  return inTheWay.flatMap(({ id }): readonly (readonly [Id<'sound'>, number])[] => {
    const free = inOrder.find((slot) => !taken.has(slot));
    if (free === undefined) return [];
    taken.add(free);
    return [[id, free]];
  });
};

/** What a placement changes in the rig. Sounds that no song uses give way. */
export const changeTo = (
  rig: Rig,
  setup: SlotsOfRig,
  songs: readonly Song[],
  places: readonly SlotPlace[],
  switches: readonly MoveSwitch[],
  newId: () => Id<'sound'>,
): SlotsChange => {
  const { caller, memory, sounds, problem, firstBank } = setup;
  const slotAt = ([, b, k]: SlotPlace): number => (b + firstBank) * problem.switches + k;
  const slots = new Map<Id<'sound'>, number>();
  for (const [s] of places) slots.set(theItem(sounds, s).id, slotAt(ownPlace(setup, places, s)));
  const copies = copiesOf(rig, setup, places, newId);
  const taken = new Set(places.map(slotAt));
  for (const [id, slot] of givenWay(rig, setup, slots, taken)) slots.set(id, slot);
  const moved = [...slots].flatMap(([id, to]) => {
    const sound = surely(partOf(rig, id));
    const from = surely(slotOf(sound, caller));
    return from === to ? [] : [{ sound, from, to }];
  });
  const turned = movesWith(rig, setup, switches, copies);
  const switchOf = ({ at }: Move): string => at.find((a) => a.device === caller.device)?.switch ?? '';
  const touched = [...new Set([...moved.flatMap(({ from, to }) => [from, to]), ...copies.map((c) => slotAt(c.place))])];
  const isHere = (c: Sound['calls'][number]): boolean => c.device === caller.device && c.memory === caller.memory;
  return {
    moves: moved.map(({ sound, from, to }) => ({
      sound: sound.id,
      name: sound.name,
      from: shown(memory.shows, from),
      to: shown(memory.shows, to),
    })),
    copies: copies.map(({ place, sound }) => ({
      name: sound.name,
      of: theItem(sounds, place[0]).name,
      to: shown(memory.shows, slotAt(place)),
    })),
    switches: turned
      .map(({ before, after }) => ({ name: before.name, from: switchOf(before), to: switchOf(after) }))
      .filter(({ from, to }) => from !== to),
    edit: {
      put: [
        ...moved.map(({ sound, to }): Sound => ({
          ...sound,
          calls: sound.calls.map((c) => (isHere(c) ? { ...c, slot: to } : c)),
        })),
        ...copies.map((c) => c.sound),
        ...turned.map(({ after }) => after),
        ...songsWith(setup, songs, places, copies),
      ],
      remove: [],
    },
    retype: touched
      .sort((a, b) => a - b)
      .flatMap((number) =>
        tickOf(rig, { device: caller.device, memory: caller.memory, number }) ? [shown(memory.shows, number)] : [],
      ),
  };
};

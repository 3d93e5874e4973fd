import { soundsHere } from '../../recall/intend/wants.js';
import { shown } from '../../midi/numbering.js';
import { slotText, valueText } from '../../recall/words/words.js';
import { memoryIn } from '../../rig/box.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { SetList, Song } from '../../rig/show.js';
import { callersIn, type Caller } from '../../edits/calls.js';
import { mannerOf, type Sound } from '../../rig/sound.js';
import type { Derived } from '../steps/deriver.js';
import { switchText } from './footwork.js';

/** What lies under one switch. */
export interface FloorSlot {
  readonly switch: string;
  /** As the box shows it. @example '1A' */
  readonly place: string;
  readonly sound: string;
  readonly songs: readonly string[];
}

/** One bank of a controller, switch by switch; a controller without banks has one. */
export interface FloorBank {
  readonly name: string;
  readonly slots: readonly FloorSlot[];
}

/** A controller as it lies before the foot. */
export interface FloorCard {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  readonly banks: readonly FloorBank[];
  readonly moves: readonly { readonly switch: string; readonly name: string; readonly how: string }[];
}

const HOW = { latched: 'on and off', 'while held': 'while held', 'one way': 'each press' } as const;

const songsWith = (songs: readonly Song[], sound: Id<'sound'>): readonly string[] =>
  songs.filter((s) => s.cues.some(({ call }) => 'sound' in call && call.sound === sound)).map((s) => s.title);

const songsIn = (rig: Rig, list: SetList | undefined): readonly Song[] =>
  list ? list.songs.flatMap((id) => partOf(rig, id) ?? []) : all(rig, 'song');

/** Sounds with the calls that count in this hook-up. */
const calledHere = ({ rig, hookup }: Derived): readonly Sound[] => soundsHere(rig, hookup.id);

const callsAt = (sounds: readonly Sound[], { device, memory }: Caller): ReadonlyMap<number, Sound> =>
  new Map(
    sounds.flatMap((sound) =>
      sound.calls.filter((c) => c.device === device && c.memory === memory).map((c) => [c.slot, sound] as const),
    ),
  );

const bankSizeOf = (memory: Memory): number =>
  (memory.bank && memory.shows.bank?.size) || memory.switches?.length || memory.size;

/** @example bankText('12A') // '12' */
const bankText = (place: string): string | undefined => /^(\d+)[A-Z]$/.exec(place)?.[1];

const banksOf = (device: Device, memory: Memory, sounds: ReadonlyMap<number, Sound>, songs: readonly Song[]) => {
  const size = bankSizeOf(memory);
  const banks: FloorBank[] = [];
  for (let bank = 0; bank * size < memory.size; bank += 1) {
    const places = Array.from({ length: Math.min(size, memory.size - bank * size) }, (_, i) => bank * size + i);
    if (!places.some((slot) => sounds.has(slot))) continue;
    banks.push({
      name: memory.bank ? `bank ${bankText(shown(memory.shows, bank * size)) ?? bank + 1}` : device.name,
      slots: places.map((slot, i) => {
        const sound = sounds.get(slot);
        return {
          switch: memory.switches?.[i] ?? shown(memory.shows, slot),
          place: shown(memory.shows, slot),
          sound: sound?.name ?? '',
          songs: sound ? songsWith(songs, sound.id) : [],
        };
      }),
    });
  }
  return banks;
};

/** What lies under the foot: every controller whose slots a foot hits, bank by bank, with the moves on its switches. */
export const floorCards = (d: Derived, list: SetList | undefined): readonly FloorCard[] => {
  const { rig } = d;
  const here = calledHere(d);
  const songs = songsIn(rig, list);
  return callersIn(rig).flatMap((caller): readonly FloorCard[] => {
    const device = partOf(rig, caller.device);
    const memory = memoryIn(device, caller.memory);
    const sounds = callsAt(here, caller);
    if (!device || !memory || caller.by !== 'slot' || caller.isScene || sounds.size === 0) return [];
    const moves = all(rig, 'move').filter((m) => m.at.some((a) => a.device === device.id));
    return [
      {
        device: device.id,
        code: device.code,
        name: device.name,
        banks: banksOf(device, memory, sounds, songs),
        moves: moves.map((m) => ({
          switch: switchText(rig, { ...m, at: m.at.filter((a) => a.device === device.id) }).replace(
            `${device.code} `,
            '',
          ),
          name: m.name,
          how: HOW[mannerOf(m)],
        })),
      },
    ];
  });
};

/** One box that remembers, and what it holds while a sound is called. */
export interface MemoryColumn {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
}

export interface MemoryRow {
  readonly song: string;
  readonly cue: string;
  readonly sound: string;
  /** What is hit, or what calls it. */
  readonly hit: string;
  /** Which memory each box loads, by column; empty where the sound does not speak of it. */
  readonly loads: readonly string[];
}

/** Song by song, which memory of which box each cue loads. */
export interface MemoryTable {
  readonly columns: readonly MemoryColumn[];
  readonly rows: readonly MemoryRow[];
}

/** Boxes of whose memories some sound loads one. */
const loadedBoxes = (d: Derived, songs: readonly Song[]): readonly { device: Device; memory: Memory }[] =>
  all(d.rig, 'device').flatMap((device) => {
    const memory = device.memories.find((m) => m.inside === undefined && !m.by);
    const own = device.memories.find((m) => m.inside === undefined);
    const used = memory ?? own;
    if (!used) return [];
    const control = ref(device.id, used.control);
    const isLoaded = songs.some((song) =>
      song.cues.some(
        ({ call }) => 'sound' in call && d.compilation.sounds.get(call.sound)?.wants.some((w) => w.control === control),
      ),
    );
    return isLoaded ? [{ device, memory: used }] : [];
  });

export const memoryTable = (d: Derived, list: SetList | undefined): MemoryTable => {
  const { rig } = d;
  const songs = songsIn(rig, list);
  const boxes = loadedBoxes(d, songs);
  const here = new Map(calledHere(d).map((s) => [s.id, s]));
  const rows = songs.flatMap((song) =>
    song.cues.flatMap(({ name, call }): readonly MemoryRow[] => {
      const sound = 'sound' in call ? here.get(call.sound) : undefined;
      const compiled = sound && d.compilation.sounds.get(sound.id);
      if (!sound || !compiled) return [];
      return [
        {
          song: song.title,
          cue: name,
          sound: sound.name,
          hit: slotText(rig, sound),
          loads: boxes.map(({ device, memory }) => {
            const control = ref(device.id, memory.control);
            const want = compiled.wants.find((w) => w.control === control);
            return want ? valueText(rig, control, want.value) : '';
          }),
        },
      ];
    }),
  );
  return { columns: boxes.map(({ device }) => ({ device: device.id, code: device.code, name: device.name })), rows };
};

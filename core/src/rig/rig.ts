import type { Device } from './device.js';
import type { DialCard } from './dial-card.js';
import type { Cable, Hookup } from './hookup.js';
import type { House } from './house.js';
import { KINDS, kindOf, ref, type AnyId, type Id, type Kind } from './ids.js';
import { keptIn } from '../kept/kept.js';
import type { PackCase, Packing } from './packing.js';
import type { Photo } from './photo.js';
import type { Program } from './program.js';
import type { About, Acceptance, Engagement, LogEntry, SetList, Song, StandingTest, Tick } from './show.js';
import type { Move, Sound } from './sound.js';
import type { Value } from './value.js';
import { recordOf } from '../known/keys.js';

interface PartByKind {
  about: About;
  device: Device;
  program: Program;
  hookup: Hookup;
  cable: Cable;
  sound: Sound;
  move: Move;
  song: Song;
  engagement: Engagement;
  setList: SetList;
  logEntry: LogEntry;
  standingTest: StandingTest;
  acceptance: Acceptance;
  tick: Tick;
  dialCard: DialCard;
  packCase: PackCase;
  packing: Packing;
  house: House;
  photo: Photo;
}

export type PartOf<K extends Kind> = PartByKind[K];
export type Part = PartOf<Kind>;
export type Parts = { readonly [K in Kind]: ReadonlyMap<Id<K>, PartOf<K>> };

/** Everything between the player's hands and the outputs. Kinds that did not change keep their map. */
export interface Rig {
  readonly revision: number;
  readonly parts: Parts;
}

/** Parts by kind, each kind's map made by itself; it must hold parts of that kind only. */
export const partsFrom = (of: (kind: Kind) => ReadonlyMap<AnyId, Part>): Parts => recordOf(KINDS, of) as Parts;

/** The parts of a kind that is not known beforehand. */
export const partsOfKind = (rig: Rig, kind: Kind): ReadonlyMap<AnyId, Part> => rig.parts[kind];

export const ABOUT: Id<'about'> = 'about:rig';

export const emptyRig = (name = 'New rig'): Rig => {
  return {
    revision: 0,
    parts: { ...rigOf([]).parts, about: new Map([[ABOUT, { kind: 'about', id: ABOUT, name, notes: '' }]]) },
  };
};

/** What a person begins with: a name and one hook-up to wire. */
export const newRig = (name: string): Rig =>
  rigOf([
    ...all(emptyRig(name), 'about'),
    { kind: 'hookup', id: 'hookup:main', name: 'Main', settings: {}, hears: [], assumes: [] },
  ]);

export const rigName = (rig: Rig): string => rig.parts.about.get(ABOUT)?.name ?? 'Rig without a name';

export const partOf = <K extends Kind>(rig: Rig, id: Id<K>): PartOf<K> | undefined =>
  (rig.parts[kindOf(id)] as ReadonlyMap<string, PartOf<K>>).get(id);

/**
 * A part that is known to be in the rig.
 * @throws when it is not
 */
export const thePart = <K extends Kind>(rig: Rig, id: Id<K>): PartOf<K> => {
  const found = partOf(rig, id);
  if (!found) throw new Error(`${id} is not in the rig, though it was known to be`);
  return found;
};

export const all = <K extends Kind>(rig: Rig, kind: K): readonly PartOf<K>[] => [...rig.parts[kind].values()];

export const everyPart = (rig: Rig): readonly Part[] => KINDS.flatMap((kind) => all(rig, kind));

export const cablesOf = (rig: Rig, hookup: Id<'hookup'>): readonly Cable[] =>
  all(rig, 'cable').filter((c) => c.hookup === hookup);

/** Programs of a box by number, in whatever order they were put into the rig. */
export const programsOf = (rig: Rig, device: Id<'device'>, memory?: string): readonly Program[] =>
  all(rig, 'program')
    .filter((p) => p.device === device && (memory === undefined || p.memory === memory))
    .sort((a, b) => a.number - b.number);

const shelves = new WeakMap<Parts['program'], ReadonlyMap<string, ReadonlyMap<string, Program>>>();

const placeIn = (number: number, of: number | undefined): string =>
  of === undefined ? `${number}` : `${number} of ${of}`;

/** The programs that stand in a memory, by place; of two in one place the first. */
const shelfOf = ({ parts }: Rig, device: Id<'device'>, memory: string): ReadonlyMap<string, Program> | undefined => {
  const known = keptIn(shelves, parts.program, () => {
    const made = new Map<string, Map<string, Program>>();
    for (const program of parts.program.values()) {
      const shelf = keptIn(made, ref(program.device, program.memory), () => new Map<string, Program>());
      const place = placeIn(program.number, program.of);
      if (!shelf.has(place)) shelf.set(place, program);
    }
    return made;
  });
  return known.get(ref(device, memory));
};

/**
 * The program that stands at a number of a memory, as the wire counts.
 * @param of for a scene the program that it belongs to; one that belongs to none counts in all
 */
export const programAt = (
  rig: Rig,
  device: Id<'device'>,
  memory: string,
  number: Value,
  of?: number,
): Program | undefined => {
  const shelf = shelfOf(rig, device, memory);
  const wanted = typeof number === 'number' ? number : number === '' ? NaN : Number(number);
  return (of === undefined ? undefined : shelf?.get(placeIn(wanted, of))) ?? shelf?.get(placeIn(wanted, undefined));
};

/** Sounds in the order of the sheet. */
export const soundsInOrder = (rig: Rig): readonly Sound[] =>
  [...all(rig, 'sound')].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));

/** Kinds of part that stand in an order of their own, by the place that each says. */
type Placed = 'device' | 'sound' | 'song' | 'setList';

/** The place behind all that are there. */
export const placeBehind = (rig: Rig, kind: Placed): number =>
  Math.max(0, ...all(rig, kind).map((part) => part.at ?? 0)) + 1;

/** A rig of these parts, taken as they are; boxes in the order of the kit, songs and sets as they were entered. */
export const rigOf = (parts: readonly Part[], revision = 0): Rig => {
  const maps = recordOf(KINDS, () => new Map<AnyId, Part>());
  const place = (p: Part): number =>
    p.kind === 'device' || p.kind === 'song' || p.kind === 'setList' ? (p.at ?? 0) : 0;
  for (const part of [...parts].sort((a, b) => place(a) - place(b))) maps[part.kind].set(part.id, part);
  return { revision, parts: partsFrom((kind) => maps[kind]) };
};

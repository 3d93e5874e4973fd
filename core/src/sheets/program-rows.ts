import type { Id } from '../rig/ids.js';
import { shown } from '../midi/numbering.js';
import { memoryIn } from '../rig/box.js';
import type { Device, Memory } from '../rig/device.js';
import type { Program } from '../rig/program.js';
import { programAt, programsOf, type Rig } from '../rig/rig.js';

/** Where a program stands in its box; `of` is the program that a scene belongs to. */
export type ProgramPlace = Pick<Program, 'memory' | 'number' | 'of'>;

/** What sounds call at a place, as it is planned or written down there. */
export interface CalledProgram extends ProgramPlace {
  readonly program: Program | undefined;
  readonly sounds: readonly Id<'sound'>[];
}

/** One program or scene of a box as it stands there. */
export interface ProgramRow {
  readonly key: string;
  readonly program: Program;
  /** As the box shows it. @example '1A scene 2' */
  readonly shown: string;
  readonly is: 'written' | 'planned' | 'unknown';
  readonly isScene: boolean;
  /** How many sounds call it. */
  readonly calledBy: number;
}

/** The memories that hold scenes of the programs of another one. */
export const scenesIn = (device: Device, memory: Memory): readonly Memory[] =>
  device.memories.filter((m) => m.inside === memory.id);

const keyOf = ({ memory, number, of }: ProgramPlace): string => [memory, of ?? '', number].join(' ');

/** A program of which nothing is known but its place and its name. */
export const blankProgram = (device: Device, { memory, number, of }: ProgramPlace, name: string): Program => ({
  kind: 'program',
  id: 'program:new',
  device: device.id,
  memory,
  number,
  ...(of === undefined ? {} : { of }),
  name,
  contents: 'unplanned',
  acts: [],
  assigns: [],
});

/**
 * Every program of a memory that sounds call or somebody wrote down, each with its scenes behind it.
 * @param slots what sounds call there
 */
export const programRows = (
  rig: Rig,
  device: Device,
  memory: Memory,
  slots: readonly CalledProgram[],
): readonly ProgramRow[] => {
  const called = new Map(slots.map((slot) => [keyOf(slot), slot]));
  const places = new Map<string, ProgramPlace>(called);
  for (const { id } of [memory, ...scenesIn(device, memory)])
    for (const program of programsOf(rig, device.id, id)) places.set(keyOf(program), program);
  return [...places]
    .map(([key, place]): ProgramRow => {
      const slot = called.get(key);
      const isScene = place.memory !== memory.id;
      const display = shownAt(device, memory, place);
      const found = programAt(rig, device.id, place.memory, place.number, place.of);
      const there = found?.of === place.of ? found : undefined;
      const planned = memory.by === undefined ? undefined : slot?.program;
      const program = there ?? planned ?? blankProgram(device, place, isScene ? display : `Program ${display}`);
      const is = program.contents === 'unplanned' ? 'unknown' : there && !there.planned ? 'written' : 'planned';
      return { key, program, shown: display, is, isScene, calledBy: slot?.sounds.length ?? 0 };
    })
    .sort((a, b) => programOf(a) - programOf(b) || Number(a.isScene) - Number(b.isScene) || byNumber(a, b));
};

const byNumber = (a: ProgramRow, b: ProgramRow): number => a.program.number - b.program.number;

/** The number by which a program stands in the list; scenes of every program come last. */
const programOf = ({ program, isScene }: ProgramRow): number => (isScene ? (program.of ?? Infinity) : program.number);

const shownAt = (device: Device, memory: Memory, { memory: id, number, of }: ProgramPlace): string => {
  if (id === memory.id) return shown(memory.shows, number);
  const scene = `scene ${shown((memoryIn(device, id) ?? memory).shows, number)}`;
  return of === undefined ? `any ${scene}` : `${shown(memory.shows, of)} ${scene}`;
};

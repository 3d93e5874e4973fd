import { surely } from '../../known/the.js';
import { memoryIn } from '../../rig/box.js';
import type { Device, Memory } from '../../rig/device.js';
import { theId, type Id } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';

/** Every program that stands in a box of the rig, typed or planned, by where it stands. */
export type Shelf = ReadonlyMap<string, Program>;

/** @param of for a scene the program that it belongs to; a scene without one counts in all */
export const shelfKey = (device: Id<'device'>, memory: string, number: number, of?: number): string =>
  of === undefined ? `${device} ${memory} ${number}` : `${device} ${memory} ${number} of ${of}`;

export const placeOnShelf = (p: Program): string => shelfKey(p.device, p.memory, p.number, p.of);

/**
 * What stands under a number.
 * @param of which program is loaded around it; undefined where none is, or one that nobody names
 */
export const programOn = (
  shelf: Shelf,
  device: Device,
  memory: Memory,
  number: number,
  of: number | undefined,
): Program | undefined =>
  (memory.inside !== undefined && of !== undefined
    ? shelf.get(shelfKey(device.id, memory.id, number, of))
    : undefined) ?? shelf.get(shelfKey(device.id, memory.id, number));

/** The memory around one that holds scenes. */
export const around = (device: Device, memory: Memory): Memory | undefined =>
  memory.inside === undefined ? undefined : memoryIn(device, memory.inside);

/** Something that a program holds, as far as nobody wrote it down: which program, and which control. */
export interface Unwritten {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly number: number;
  readonly of: number | undefined;
  readonly control: string;
}

const HOLDS = 'holds ';
const SLASH = ' / ';

/** Stands for what an unwritten program holds: it stays as it is, but nobody knows it. It is no control of a box. */
export const holdsOf = ({ device, memory, number, of, control }: Unwritten): string =>
  HOLDS + [device, memory, number, of ?? '', control].join(SLASH);
export const isHolds = (variable: string): boolean => variable.startsWith(HOLDS);
/** The same the other way round. */
export const unwrittenOf = (variable: string): Unwritten => {
  const [device, memory, number, of, ...control] = variable.slice(HOLDS.length).split(SLASH);
  return {
    device: theId('device', device),
    memory: surely(memory),
    number: Number(number),
    of: of === '' ? undefined : Number(of),
    control: control.join(SLASH),
  };
};

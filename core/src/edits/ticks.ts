import { nothing, type Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';
import type { Tick, Ticked } from '../rig/show.js';

/** One program of a memory of a box, typed into it by somebody. */
export interface ProgramPlace {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly number: number;
}

export const tickId = ({ device, memory, number }: ProgramPlace): Id<'tick'> =>
  `tick:${device.slice('device:'.length)}-${memory}-${number}`;

export const tickOf = (rig: Rig, place: ProgramPlace): Tick | undefined => partOf(rig, tickId(place));

/** These lines stand in the box now. Lines that the program no longer has are forgotten. */
export const tick = (
  rig: Rig,
  place: ProgramPlace,
  lines: readonly string[],
  all: readonly string[],
  how: Ticked,
): Edit => {
  const before = tickOf(rig, place)?.lines ?? {};
  const kept = Object.entries(before).filter(([line]) => all.includes(line) && !lines.includes(line));
  return {
    put: [
      {
        kind: 'tick',
        id: tickId(place),
        ...place,
        lines: Object.fromEntries([...kept, ...lines.map((line) => [line, how] as const)]),
      },
    ],
    remove: [],
  };
};

/** It does not stand in the box after all. */
export const untick = (rig: Rig, place: ProgramPlace, line: string): Edit => {
  const before = tickOf(rig, place);
  if (!before?.lines[line]) return nothing;
  const { [line]: _, ...rest } = before.lines;
  return Object.keys(rest).length
    ? { put: [{ ...before, lines: rest }], remove: [] }
    : { put: [], remove: [before.id] };
};

/**
 * The same edit, but nothing is typed into a box by it: what is ticked off stays so as long as its box stays, and
 * comes and goes with it.
 */
export const leavingTicks = (rig: Rig, { put, remove }: Edit): Edit => {
  const gone = new Set(remove);
  return {
    put: put.filter((part) => part.kind !== 'tick' || !partOf(rig, part.device)),
    remove: remove.filter((id) => {
      const part = partOf(rig, id);
      return part?.kind !== 'tick' || gone.has(part.device);
    }),
  };
};

import { nothing, type Edit } from '../change/edit.js';
import type { Id } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { partOf, type Rig } from '../rig/rig.js';
import type { Tick, Ticked } from '../rig/show.js';

/** One program of a memory of a box, typed into it by somebody. */
export interface ProgramPlace {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly number: number;
  /** For a scene the program that it belongs to. */
  readonly of?: number;
}

export const tickId = ({ device, memory, number, of }: ProgramPlace): Id<'tick'> =>
  `tick:${device.slice('device:'.length)}-${memory}-${of === undefined ? number : `${of}-${number}`}`;

export const tickOf = (rig: Rig, place: ProgramPlace): Tick | undefined => partOf(rig, tickId(place));

/** A line to type: as it reads, and what it stands for in the box. */
export interface Typed {
  readonly text: string;
  readonly is: string;
}

const isOf =
  (line: Typed) =>
  ([text, { is }]: readonly [string, Ticked]): boolean =>
    is === undefined ? text === line.text : is === line.is;

/** How a line was ticked off, also when it read otherwise then; undefined when it was not. */
export const tickedOf = (lines: Readonly<Record<string, Ticked>>, line: Typed): Ticked | undefined =>
  Object.entries(lines).find(isOf(line))?.[1];

/** What was ticked off and is none of these lines any more, as it read then. */
export const goneOf = (lines: Readonly<Record<string, Ticked>>, all: readonly Typed[]): readonly string[] =>
  Object.entries(lines)
    .filter((ticked) => !all.some((line) => isOf(line)(ticked)))
    .map(([text]) => text);

/** Characters kept free for a number behind a line. */
const NUMBER_BEHIND = 6;

/** Lines by their words; of several that read alike each is kept, the later ones with a number behind. */
const worded = (ticked: readonly (readonly [string, Ticked])[]): Readonly<Record<string, Ticked>> => {
  const lines = new Map<string, Ticked>();
  for (const [text, how] of ticked) {
    let free = text;
    for (let n = 2; lines.has(free); n += 1) free = `${cutTo(text, LONGEST.line - NUMBER_BEHIND)} (${n})`;
    lines.set(free, how);
  }
  return Object.fromEntries(lines);
};

/** These lines stand in the box now. Lines that the program no longer has are forgotten. */
export const tick = (
  rig: Rig,
  place: ProgramPlace,
  lines: readonly Typed[],
  all: readonly Typed[],
  how: Omit<Ticked, 'is'>,
): Edit => {
  const before = Object.entries(tickOf(rig, place)?.lines ?? {});
  const kept = before.filter(
    (ticked) => all.some((line) => isOf(line)(ticked)) && !lines.some((line) => isOf(line)(ticked)),
  );
  return {
    put: [
      {
        kind: 'tick',
        id: tickId(place),
        ...place,
        lines: worded([...kept, ...lines.map(({ text, is }): readonly [string, Ticked] => [text, { ...how, is }])]),
      },
    ],
    remove: [],
  };
};

/** It does not stand in the box after all. */
export const untick = (rig: Rig, place: ProgramPlace, line: Typed): Edit => {
  const before = tickOf(rig, place);
  const rest = before && Object.entries(before.lines).filter((ticked) => !isOf(line)(ticked));
  if (!before || !rest || rest.length === Object.keys(before.lines).length) return nothing;
  return rest.length
    ? { put: [{ ...before, lines: Object.fromEntries(rest) }], remove: [] }
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

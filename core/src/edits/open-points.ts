import { making, together, type Edit, type Making } from '../change/edit.js';
import type { AnyId, Id } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, type Rig } from '../rig/rig.js';
import type { LogEntry, OpenPoint } from '../rig/show.js';

interface NewPoint {
  readonly text: string;
  /** ISO 8601. */
  readonly when: string;
  /** Empty where nobody said their name. */
  readonly by: string;
  readonly about?: AnyId | undefined;
  readonly due?: string | undefined;
  /** Upkeep: to be done again so many days after it was done. */
  readonly everyDays?: number | undefined;
}

/** Writes down what is still to be done or decided. */
export const addPoint = (id: Id<'logEntry'>, { text, when, by, about, due, everyDays }: NewPoint): Making<LogEntry> =>
  making({
    kind: 'logEntry',
    id,
    when,
    text,
    about: about ? [about] : [],
    ...(by ? { by } : {}),
    point: { ...(due ? { due } : {}), ...(everyDays ? { everyDays } : {}) },
  });

/** Says of a point that it is done, or open again. */
export const closePoint = (entry: LogEntry, done: OpenPoint['done']): Making<LogEntry> => {
  const { done: _, ...point } = entry.point ?? {};
  return making({ ...entry, point: done ? { ...point, done } : point });
};

const DAY_MS = 86_400_000;

/** @example dayAfter('2026-02-27', 3) // '2026-03-02' */
export const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(`${day.slice(0, 10)}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** Says of upkeep that it is done; it is open again, due so many days later. */
export const doneAgain = (entry: LogEntry, again: Id<'logEntry'>, done: NonNullable<OpenPoint['done']>): Edit => {
  const closed = closePoint(entry, done);
  const { everyDays } = entry.point ?? {};
  if (everyDays === undefined) return closed;
  const { done: _, ...point } = entry.point ?? {};
  const next = making<LogEntry>({
    ...entry,
    id: again,
    when: done.when,
    point: { ...point, due: dayAfter(done.when, everyDays) },
  });
  return together(closed, next);
};

/** What comes up again and again, as one may begin with it (common practice; how often is up to who plays). */
export const USUAL_UPKEEP: readonly { readonly text: string; readonly everyDays: number }[] = [
  { text: 'New strings', everyDays: 30 },
  { text: 'Charge or change batteries', everyDays: 30 },
  { text: 'Clean jacks and pots', everyDays: 90 },
  { text: 'Intonation and neck, as the season turns', everyDays: 90 },
  { text: 'Valves looked at by a technician', everyDays: 365 },
];

/** A day as it is typed. @example readDay('2026-02-31') // refused: there is no such day */
export const readDay = (text: string): Result<string, readonly Refusal[]> => {
  const day = text.trim();
  const time = Date.parse(`${day}T00:00:00Z`);
  const isDay = /^\d{4}-\d{2}-\d{2}$/.test(day) && !Number.isNaN(time);
  return isDay && new Date(time).toISOString().startsWith(day)
    ? ok(day)
    : refuse([
        {
          code: 'day',
          where: 'Day',
          wrong: `"${day.slice(0, 20)}" is no day.`,
          would: 'Write year, month and day, such as 2026-05-31.',
        },
      ]);
};

/** What was written down to be done: open ones first, the soonest due first; then those done, the last first. */
export const pointsOf = (rig: Rig): readonly LogEntry[] => {
  const points = all(rig, 'logEntry').filter((e) => e.point);
  const due = ({ point, when }: LogEntry): string => `${point?.due ?? '9999'} ${when}`;
  const open = points.filter((e) => !e.point?.done).sort((a, b) => due(a).localeCompare(due(b)));
  const done = points
    .filter((e) => e.point?.done)
    .sort((a, b) => (b.point?.done?.when ?? '').localeCompare(a.point?.done?.when ?? ''));
  return [...open, ...done];
};

import { making, type Making } from '../change/edit.js';
import { grouped } from '../known/grouped.js';
import type { AnyId, Id } from '../rig/ids.js';
import { isId } from '../rig/ids.js';
import type { Photo } from '../rig/photo.js';
import { all, type Rig } from '../rig/rig.js';
import type { LogEntry } from '../rig/show.js';

interface NewEntry {
  readonly text: string;
  /** ISO 8601. */
  readonly when: string;
  /** Empty where nobody said their name. */
  readonly by: string;
  readonly about?: AnyId | undefined;
  /** Which part of the box failed. */
  readonly broke?: string | undefined;
}

const aboutOf = (about: AnyId | undefined): readonly AnyId[] => (about ? [about] : []);

/** Writes down what happened, or what was thought. */
export const addEntry = (id: Id<'logEntry'>, { text, when, by, about, broke }: NewEntry): Making<LogEntry> =>
  making({
    kind: 'logEntry',
    id,
    when,
    text,
    about: aboutOf(about),
    ...(by ? { by } : {}),
    ...(broke ? { broke } : {}),
  });

/** Keeps a picture that was made smaller. */
export const addPhoto = (
  id: Id<'photo'>,
  picture: Pick<Photo, 'jpeg' | 'px'>,
  { text, when, by, about }: Omit<NewEntry, 'broke'>,
): Making<Photo> =>
  making({
    kind: 'photo',
    id,
    when,
    text,
    about: aboutOf(about),
    px: picture.px,
    jpeg: picture.jpeg,
    ...(by ? { by } : {}),
  });

/** The log: what was written and photographed, the newest first; what is still to be done stands among the open points. */
export const logbookOf = (rig: Rig, about?: AnyId): readonly (LogEntry | Photo)[] =>
  [...all(rig, 'logEntry').filter((e) => !e.point || e.point.done), ...all(rig, 'photo')]
    .filter((e) => about === undefined || e.about.includes(about))
    .sort((a, b) => b.when.localeCompare(a.when));

/** A part of a box that failed, and how often. */
export interface Troubles {
  readonly part: string;
  readonly times: number;
  /** ISO 8601. */
  readonly last: string;
}

/** What failed so far, by box: the part that failed most often first. */
export const troublesOf = (rig: Rig): ReadonlyMap<Id<'device'>, readonly Troubles[]> => {
  const found = all(rig, 'logEntry').flatMap(({ broke, about, when }) =>
    broke === undefined ? [] : about.flatMap((id) => (isDevice(id) ? [{ device: id, part: broke, when }] : [])),
  );
  return new Map(
    [...grouped(found, (f) => f.device)].map(([device, some]) => [
      device,
      [...grouped(some, (f) => f.part.toLowerCase())]
        .map(([, same]) => ({
          part: same[0]?.part ?? '',
          times: same.length,
          last:
            same
              .map((f) => f.when)
              .sort()
              .at(-1) ?? '',
        }))
        .sort((a, b) => b.times - a.times || b.last.localeCompare(a.last)),
    ]),
  );
};

const isDevice = (id: AnyId): id is Id<'device'> => isId(id) && id.startsWith('device:');

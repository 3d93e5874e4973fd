import equal from 'fast-deep-equal';
import { isRecord } from '../known/keys.js';
import { ABOUT, partOf, type Part, type Rig } from '../rig/rig.js';
import type { AnyId } from '../rig/ids.js';
import { deltaOf } from './delta.js';
import { difference } from './diff.js';
import type { Edit } from './edit.js';
import { byKey, fieldByField, type Clash } from './rebase.js';

/** Who changed a thing since two rigs parted; of two that know no common beginning nobody can say. */
export type ChangedBy = 'mine' | 'theirs' | 'both' | 'unknown';

/** One thing that stands otherwise in two rigs. */
export interface Difference extends Clash {
  readonly by: ChangedBy;
}

/** Says of the copy itself where it comes from; it is nobody's work. */
const ORIGINS = 'origins';

/**
 * All that stands otherwise in another rig, field by field and member by member.
 * @param base the rig from which both come; without it nobody can say who changed what
 */
export const compare = (mine: Rig, theirs: Rig, base?: Rig): readonly Difference[] =>
  fieldByField(deltaOf(mine, difference(mine, theirs)))
    .filter(({ part, field }) => part !== ABOUT || field === undefined || !field.startsWith(ORIGINS))
    .map(({ part, field, base: here, mine: there }) => {
      const was = base && valueAt(partOf(base, part), field);
      const by = !base ? 'unknown' : equal(was, here) ? 'theirs' : equal(was, there) ? 'mine' : 'both';
      return { part, ...(field === undefined ? {} : { field }), base: was, mine: here, theirs: there, by };
    });

/** The way to a value inside a part: a field, or one member of it. */
const wayOf = (field: string): readonly [string, string | undefined] => {
  const dot = field.indexOf('.');
  return dot < 0 ? [field, undefined] : [field.slice(0, dot), field.slice(dot + 1)];
};

type Fields = Readonly<Record<string, unknown>>;
const fieldsOf = (part: Part | undefined): Fields => (part ?? {}) as unknown as Fields;
const membersOf = (value: unknown): Fields | undefined => (isRecord(value) ? value : byKey(value ?? []));

/** What stands at a place that a difference names. A part that is not there is null, as in a delta. */
const valueAt = (part: Part | undefined, field: string | undefined): unknown => {
  if (field === undefined) return part ?? null;
  const [name, member] = wayOf(field);
  const value = fieldsOf(part)[name];
  return member === undefined ? value : membersOf(value)?.[member];
};

/**
 * The edit that brings what was chosen of another rig. All of it chosen, the parts are as they are there.
 * @param chosen differences between the two, as `compare` says them
 */
export const taking = (mine: Rig, theirs: Rig, chosen: readonly Pick<Clash, 'part' | 'field'>[]): Edit => {
  const put = new Map<AnyId, Part>();
  const remove: AnyId[] = [];
  for (const { part: id, field } of chosen) {
    const there = partOf(theirs, id);
    if (!there) remove.push(id);
    else if (field === undefined) put.set(id, there);
    else put.set(id, withValue(put.get(id) ?? partOf(mine, id) ?? there, there, field));
  }
  return { put: [...put.values()], remove };
};

/** A part with one field, or one member of it, as it stands in another. */
const withValue = (part: Part, there: Part, field: string): Part => {
  const [name, member] = wayOf(field);
  const [here, wanted] = [fieldsOf(part)[name], fieldsOf(there)[name]];
  const value = member === undefined ? wanted : withMember(here, wanted, member);
  return Object.fromEntries(
    [...Object.entries(fieldsOf(part)).filter(([key]) => key !== name), [name, value] as const].filter(
      ([, v]) => v !== undefined,
    ),
  ) as unknown as Part;
};

/** A record or a list with one of its members as in another; once all are alike it stands in the other's order. */
const withMember = (here: unknown, wanted: unknown, member: string): unknown => {
  const [old, others] = [membersOf(here) ?? {}, membersOf(wanted) ?? {}];
  const next: Record<string, unknown> = { ...old, [member]: others[member] };
  if (others[member] === undefined) delete next[member];
  if (equal(next, others)) return wanted;
  return Array.isArray(here ?? wanted) ? Object.values(next) : next;
};

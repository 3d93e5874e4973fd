import equal from 'fast-deep-equal';
import type { AnyId } from '../rig/ids.js';
import { ok, refuse, type Result } from '../rig/result.js';
import type { Part } from '../rig/rig.js';
import { wantTarget, type Want } from '../rig/sound.js';
import type { Delta } from './delta.js';

/** Two changes of the same thing: a person must choose. `field` is absent when one side took the whole part away. */
export interface Clash {
  readonly part: AnyId;
  readonly field?: string;
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

type Fields = Readonly<Record<string, unknown>>;

/**
 * My delta as it reads on top of theirs; both start from the same rig. Fields of a part merge one by one, lists with
 * named members (wants, jacks, controls …) member by member. What both changed differently is a clash, never a silent loss.
 */
export const rebase = (mine: Delta, theirs: Delta): Result<Delta, readonly Clash[]> => {
  const clashes: Clash[] = [];
  const rebased = new Map<AnyId, { before: Part | null; after: Part | null }>();
  for (const [id, change] of mine) {
    const other = theirs.get(id);
    if (!other) {
      rebased.set(id, change);
      continue;
    }
    const after = mergePart(id, change.before, change.after, other.after, clashes);
    if (!equal(after, other.after)) rebased.set(id, { before: other.after, after });
  }
  return clashes.length ? refuse(clashes) : ok(rebased);
};

const mergePart = (id: AnyId, base: Part | null, mine: Part | null, theirs: Part | null, clashes: Clash[]): Part | null => {
  if (equal(mine, theirs)) return theirs;
  if (equal(base, theirs)) return mine;
  if (equal(base, mine)) return theirs;
  if (mine === null || theirs === null) {
    clashes.push({ part: id, base, mine, theirs });
    return theirs;
  }
  const fields = mergeEach(fieldsOf(base), fieldsOf(mine), fieldsOf(theirs), (field, b, m, t) => mergeField(id, field, b, m, t, clashes));
  return fields as unknown as Part;
};

type Merge = (key: string, base: unknown, mine: unknown, theirs: unknown) => unknown;

/** Key by key; where only one side changed, that side's value; where both did, what `settle` says. New keys come last, sorted, so that both orders of two changes give the same. */
const mergeEach = (base: Fields, mine: Fields, theirs: Fields, settle: Merge): Fields => {
  const merged: [string, unknown][] = [];
  const added = [...Object.keys(theirs), ...Object.keys(mine)].sort();
  for (const key of new Set([...Object.keys(base), ...added])) {
    const [b, m, t] = [base[key], mine[key], theirs[key]];
    const value = equal(m, t) || equal(b, m) ? t : equal(b, t) ? m : settle(key, b, m, t);
    if (value !== undefined) merged.push([key, value]);
  }
  return Object.fromEntries(merged);
};

/** Records and lists of named members merge one level deep; everything below is one value, so that no half of each is made. */
const mergeField = (id: AnyId, field: string, base: unknown, mine: unknown, theirs: unknown, clashes: Clash[]): unknown => {
  const clash = (inside: string): Merge => (key, b, m, t) => {
    clashes.push({ part: id, field: inside ? `${inside}.${key}` : key, base: b, mine: m, theirs: t });
    return t;
  };
  if (isRecord(mine) && isRecord(theirs) && isRecord(base)) return mergeEach(base, mine, theirs, clash(field));
  const [b, m, t] = [byKey(base ?? []), byKey(mine), byKey(theirs)];
  if (b && m && t) return Object.values(mergeEach(b, m, t, clash(field)));
  return clash('')(field, base, mine, theirs);
};

const fieldsOf = (part: Part | null): Fields => (part ?? {}) as unknown as Fields;
const isRecord = (v: unknown): v is Fields => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Members of a list by their name, when every member has one of its own. */
const byKey = (value: unknown): Fields | undefined => {
  if (!Array.isArray(value)) return undefined;
  const entries = value.map((member): [string, unknown] | undefined => {
    if (!isRecord(member)) return undefined;
    if (typeof member.id === 'string') return [member.id, member];
    if ('stage' in member || ('control' in member && !('set' in member))) return [`${wantTarget(member as unknown as Want)} ${JSON.stringify(member.in ?? {})}`, member];
    return undefined;
  });
  if (entries.some((e) => e === undefined)) return undefined;
  const record = Object.fromEntries(entries as [string, unknown][]);
  return Object.keys(record).length === value.length ? record : undefined;
};

import equal from 'fast-deep-equal';
import { kindOf, type AnyId } from '../rig/ids.js';
import { ok, refuse, type Result } from '../rig/result.js';
import { partOf, type Part, type Rig } from '../rig/rig.js';
import type { Ticked } from '../rig/show.js';
import { editOf, type Delta } from './delta.js';
import type { Edit } from './edit.js';
import { isRecord } from '../known/keys.js';

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
 * named members (wants, jacks, controls …) member by member. What both changed differently is a clash, never a silent
 * loss.
 */
export const rebase = (mine: Delta, theirs: Delta): Result<Delta, readonly Clash[]> => {
  const clashes: Clash[] = [];
  const ask = (clash: Clash): unknown => {
    clashes.push(clash);
    return clash.theirs;
  };
  const rebased = new Map<AnyId, { before: Part | null; after: Part | null }>();
  for (const [id, change] of mine) {
    const other = theirs.get(id);
    if (!other) {
      rebased.set(id, change);
      continue;
    }
    const after = mergePart(id, change.before, change.after, other.after, ask);
    if (!equal(after, other.after)) rebased.set(id, { before: other.after, after });
  }
  return clashes.length ? refuse(clashes) : ok(rebased);
};

/**
 * My delta upon a rig that others have changed since, mine wherever both changed the same. What they changed besides
 * stays theirs.
 */
export const insist = (mine: Delta, rig: Rig): Edit =>
  editOf(
    new Map(
      [...mine].map(([id, { before, after }]) => {
        const now = partOf(rig, id) ?? null;
        return [id, { before: now, after: mergePart(id, before, after, now, (clash) => clash.mine) }] as const;
      }),
    ),
  );

/** What becomes of what both changed. */
type Settle = (clash: Clash) => unknown;

const mergePart = (
  id: AnyId,
  base: Part | null,
  mine: Part | null,
  theirs: Part | null,
  settle: Settle,
): Part | null => {
  if (equal(mine, theirs)) return theirs;
  if (equal(base, theirs)) return mine;
  if (equal(base, mine)) return theirs;
  if (mine === null || theirs === null) return settle({ part: id, base, mine, theirs }) as Part | null;
  const fields = mergeEach(fieldsOf(base), fieldsOf(mine), fieldsOf(theirs), (field, b, m, t) =>
    mergeField(id, field, b, m, t, settle),
  );
  return fields as unknown as Part;
};

type Merge = (key: string, base: unknown, mine: unknown, theirs: unknown) => unknown;

/**
 * Key by key; where only one side changed, that side's value; where both did, what `both` says. New keys come last,
 * sorted, so that both orders of two changes give the same.
 */
const mergeEach = (base: Fields, mine: Fields, theirs: Fields, both: Merge): Fields => {
  const merged: [string, unknown][] = [];
  const added = [...Object.keys(theirs), ...Object.keys(mine)].sort();
  for (const key of new Set([...Object.keys(base), ...added])) {
    const [b, m, t] = [base[key], mine[key], theirs[key]];
    const value = equal(m, t) || equal(b, m) ? t : equal(b, t) ? m : both(key, b, m, t);
    if (value !== undefined) merged.push([key, value]);
  }
  return Object.fromEntries(merged);
};

/**
 * Records and lists of named members merge one level deep; everything below is one value, so that no half of each is
 * made.
 */
const mergeField = (
  id: AnyId,
  field: string,
  base: unknown,
  mine: unknown,
  theirs: unknown,
  settle: Settle,
): unknown => {
  const clash =
    (inside: string): Merge =>
    (key, b, m, t) => {
      if (kindOf(id) === 'tick' && inside === 'lines' && m && t) return firstTicked(m as Ticked, t as Ticked);
      return settle({ part: id, field: inside ? `${inside}.${key}` : key, base: b, mine: m, theirs: t });
    };
  const was = base ?? {};
  if (isRecord(mine) && isRecord(theirs) && isRecord(was)) return mergeEach(was, mine, theirs, clash(field));
  const [b, m, t] = [byKey(base ?? []), byKey(mine), byKey(theirs)];
  if (b && m && t) return Object.values(mergeEach(b, m, t, clash(field)));
  return clash('')(field, base, mine, theirs);
};

/**
 * What a delta changes, field by field and member by member, as it would be asked against somebody who left all as it
 * was.
 */
export const fieldByField = (delta: Delta): readonly Clash[] =>
  [...delta].flatMap(([part, { before, after }]): readonly Clash[] => {
    if (before === null || after === null) return [{ part, base: before, mine: after, theirs: before }];
    return changedKeys(fieldsOf(before), fieldsOf(after)).flatMap((field): readonly Clash[] => {
      const [base, mine] = [fieldsOf(before)[field], fieldsOf(after)[field]];
      const [was, is] = [base ?? {}, mine ?? {}];
      const [b, m] = isRecord(was) && isRecord(is) ? [was, is] : [byKey(base ?? []), byKey(mine ?? [])];
      const members = b && m ? changedKeys(b, m) : [];
      // The same members in another order are one change of the whole.
      if (!b || !m || members.length === 0) return [{ part, field, base, mine, theirs: base }];
      return members.map((key) => ({
        part,
        field: `${field}.${key}`,
        base: b[key],
        mine: m[key],
        theirs: b[key],
      }));
    });
  });

const changedKeys = (a: Fields, b: Fields): readonly string[] =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((key) => !equal(a[key], b[key]));

/** Two people who tick one line off say the same: it stands in the box. The first of them is remembered. */
const firstTicked = (a: Ticked, b: Ticked): Ticked => (`${a.when} ${a.by}` <= `${b.when} ${b.by}` ? a : b);

const fieldsOf = (part: Part | null): Fields => (part ?? {}) as Fields;

/** Members of a list by their name, when every member has one of its own. */
export const byKey = (value: unknown): Fields | undefined => {
  if (!Array.isArray(value)) return undefined;
  const record = Object.fromEntries(
    value.flatMap((member): readonly (readonly [string, unknown])[] => {
      if (!isRecord(member)) return [];
      if (typeof member.id === 'string') return [[member.id, member]];
      const target = member.stage ?? ('set' in member ? undefined : member.control);
      return target === undefined ? [] : [[`${String(target)} ${JSON.stringify(member.in ?? {})}`, member]];
    }),
  );
  return Object.keys(record).length === value.length ? record : undefined;
};

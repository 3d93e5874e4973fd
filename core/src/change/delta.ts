import equal from 'fast-deep-equal';
import { kindOf, type AnyId } from '../rig/ids.js';
import { partOf, partsOfKind, partsFrom, type Part, type Rig } from '../rig/rig.js';
import type { Edit } from './edit.js';
import { theEntry } from '../known/the.js';
import { isRecord } from '../known/keys.js';

/** What is journaled: each touched part as it was and as it became. */
export type Delta = ReadonlyMap<AnyId, { readonly before: Part | null; readonly after: Part | null }>;

/** Parts that an edit leaves as they are do not enter its delta. */
export const deltaOf = (rig: Rig, edit: Edit): Delta => {
  const delta = new Map<AnyId, { before: Part | null; after: Part | null }>();
  for (const id of edit.remove) {
    const before = partOf(rig, id);
    if (before) delta.set(id, { before, after: null });
  }
  for (const part of edit.put) {
    const before = partOf(rig, part.id) ?? null;
    if (!equal(before, part)) delta.set(part.id, { before, after: part });
    else delta.delete(part.id);
  }
  return delta;
};

export const editOf = (delta: Delta): Edit => {
  const put: Part[] = [];
  const remove: AnyId[] = [];
  for (const [id, { after }] of delta) {
    if (after) put.push(after);
    else remove.push(id);
  }
  return { put, remove };
};

/** The way back: applied after the delta it gives the same parts as before. */
export const invert = (delta: Delta): Delta =>
  new Map([...delta].map(([id, { before, after }]) => [id, { before: after, after: before }]));

/** Several deltas, one after the other, as one. Parts that end as they began drop out. */
export const squash = (deltas: readonly Delta[]): Delta => {
  const sum = new Map<AnyId, { before: Part | null; after: Part | null }>();
  for (const delta of deltas) {
    for (const [id, { before, after }] of delta)
      sum.set(id, { before: sum.has(id) ? theEntry(sum, id).before : before, after });
  }
  for (const [id, { before, after }] of sum) if (equal(before, after)) sum.delete(id);
  return sum;
};

/** Single values that differ. Of two lists of unlike length only what the one has and the other has not counts. */
const differing = (a: unknown, b: unknown): number => {
  if (equal(a, b)) return 0;
  if (isRecord(a) || isRecord(b)) {
    const [x, y] = [isRecord(a) ? a : {}, isRecord(b) ? b : {}];
    return Math.max(
      1,
      [...new Set([...Object.keys(x), ...Object.keys(y)])].reduce((n, key) => n + differing(x[key], y[key]), 0),
    );
  }
  if (Array.isArray(a) && Array.isArray(b)) {
    if (a.length === b.length) return a.reduce<number>((n, one, i) => n + differing(one, b[i]), 0);
    const only = (these: readonly unknown[], those: readonly unknown[]) =>
      these.filter((one) => !those.some((other) => equal(one, other)));
    return Math.max(
      1,
      [...only(a, b), ...only(b, a)].reduce<number>((n, one) => n + differing(undefined, one), 0),
    );
  }
  return Math.max(1, Array.isArray(a) ? a.length : 0, Array.isArray(b) ? b.length : 0);
};

/** How much a delta changes: single values that become others, come or go. */
export const sizeOf = (delta: Delta): number =>
  [...delta.values()].reduce((n, { before, after }) => n + differing(before ?? undefined, after ?? undefined), 0);

/**
 * The rig with the delta's parts in place, unchecked: for deltas that were checked before, such as those of the
 * journal.
 */
export const patch = (rig: Rig, delta: Delta, revision = rig.revision + 1): Rig => {
  const touched = new Set([...delta.keys()].map(kindOf));
  const parts = partsFrom((kind) => {
    const old = partsOfKind(rig, kind);
    if (!touched.has(kind)) return old;
    const next = new Map(old);
    for (const [id, { after }] of delta) {
      if (kindOf(id) !== kind) continue;
      if (after) next.set(id, after);
      else next.delete(id);
    }
    return next;
  });
  return { revision, parts };
};

/**
 * The rig with the objects of an older one wherever both say the same: who looks only at what changed then has nothing
 * to do again. A kind that says the same throughout keeps its map.
 */
export const sharing = (older: Rig, rig: Rig): Rig => {
  const parts = partsFrom((kind) => {
    const [old, now] = [partsOfKind(older, kind), partsOfKind(rig, kind)];
    if (old === now) return now;
    const shared = new Map<AnyId, Part>();
    let isSame = old.size === now.size;
    for (const [id, part] of now) {
      const known = old.get(id);
      const same = known && equal(known, part) ? known : part;
      if (same !== known) isSame = false;
      shared.set(id, same);
    }
    return isSame ? old : shared;
  });
  return { revision: rig.revision, parts };
};

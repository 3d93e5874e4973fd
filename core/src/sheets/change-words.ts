import type { Delta } from '../change/delta.js';
import { fieldByField } from '../change/rebase.js';
import type { AnyId } from '../rig/ids.js';
import { everyPart, partOf, rigOf, type Part, type Rig } from '../rig/rig.js';
import { sayClash, type SaidClash } from './clash-words.js';
import type { Difference } from '../change/compare.js';

/** One thing that a change makes otherwise, as a person reads it. */
export interface SaidChange {
  readonly is: 'added' | 'taken away' | 'changed';
  readonly what: string;
  readonly was: string;
  readonly now: string;
}

const knownBy = (delta: Delta, id: AnyId): Part | undefined =>
  delta.get(id)?.before ?? delta.get(id)?.after ?? undefined;

/** All that a change makes otherwise. A part that comes or goes is one thing. */
export const sayChange = (rig: Rig, delta: Delta): readonly SaidChange[] =>
  fieldByField(delta).map((field) => {
    const { what, was, mine } = sayClash(rig, field, knownBy(delta, field.part));
    if (field.field !== undefined) return { is: 'changed', what, was, now: mine };
    return field.base === null
      ? { is: 'added', what, was: 'not there', now: 'there' }
      : { is: 'taken away', what, was: 'there', now: 'taken away' };
  });

/** The same as lines of text, to be kept or handed on. */
export const changeText = (rig: Rig, label: string, delta: Delta): string =>
  [`${label}:`, ...sayChange(rig, delta).map(({ what, was, now }) => `${what}: ${now} (was: ${was})`)].join('\n');

/** A difference between two rigs: what, as it was when they parted, as it is here, as it is there. */
export const sayDifference = (mine: Rig, theirs: Rig, one: Difference): SaidClash => {
  const known = partOf(mine, one.part) ?? partOf(theirs, one.part);
  const both = rigOf([...everyPart(theirs), ...everyPart(mine)]);
  const said = sayClash(both, one.by === 'unknown' ? { ...one, base: one.mine } : one, known);
  const presence = (part: unknown): string => (part === null ? 'not there' : 'there');
  if (one.field !== undefined) return said;
  return { ...said, was: presence(one.base), mine: presence(one.mine), theirs: presence(one.theirs) };
};

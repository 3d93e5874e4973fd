import { KINDS, kindOf, type AnyId } from '../rig/ids.js';
import { wrongId, wrongWith } from '../rig/invariants.js';
import { refersTo } from '../rig/references.js';
import { keptIn, once } from '../kept/kept.js';
import { HEAVIEST_RIG, MOST_PARTS } from '../rig/limits.js';
import { wrongInShape } from '../rig/read.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { everyPart, partOf, type Part, type Rig } from '../rig/rig.js';
import { deltaOf, patch, type Delta } from './delta.js';
import type { Edit } from './edit.js';

export interface Applied {
  readonly rig: Rig;
  readonly delta: Delta;
}

/**
 * The rig after an edit, or every reason why it cannot be: ids, the shape of each part that changes, and what holds
 * between parts.
 * Page, server and rig file refuse by this and nothing else.
 * Only the parts that the edit touches, and those that refer to them, are judged again; the rest was right before.
 * An edit that changes nothing gives the same rig back, at the same revision.
 */
export const apply = (rig: Rig, edit: Edit): Result<Applied, readonly Refusal[]> => {
  const badIds = wrongIds(edit);
  if (badIds.length) return refuse(badIds);
  const delta = deltaOf(rig, edit);
  const misshapen = edit.put.filter((p) => delta.has(p.id)).flatMap(wrongInShape);
  if (misshapen.length) return refuse(misshapen);
  if (delta.size === 0) return ok({ rig, delta });
  const next = patch(rig, delta);
  const wrong = partsToJudge(next, delta).flatMap((part) => wrongWith(next, part));
  const tooMuch = tooLarge(rig, next, delta);
  if (tooMuch) wrong.push(tooMuch);
  if (next.parts.about.size !== 1)
    wrong.push({
      code: 'invariant',
      wrong: 'A rig has one name and one page of notes.',
      would: 'Change about:rig instead of adding or removing it.',
    });
  return wrong.length ? refuse(wrong) : ok({ rig: next, delta });
};

/** Ids in an edit that are none, or of another kind than their part: before anything is looked up by them. */
export const wrongIds = (edit: Edit): readonly Refusal[] => {
  const bad = [...edit.put.map((p) => p.id), ...edit.remove].map(wrongId).filter((r): r is Refusal => r !== undefined);
  if (bad.length) return bad;
  return edit.put
    .filter((p) => kindOf(p.id) !== p.kind)
    .map((p) => ({
      code: 'id',
      part: p.id,
      wrong: `A ${p.kind} cannot have the id ${p.id}.`,
      would: `Begin it with "${p.kind}:".`,
    }));
};

/** How many characters a part takes in a rig file; counted once, and so is what all parts of a rig take together. */
const weightOf = once((part: Part) => JSON.stringify(part).length);
const weights = new WeakMap<Rig, number>();

const weightAfter = (rig: Rig, next: Rig, delta: Delta): number =>
  keptIn(weights, next, () => {
    const before = keptIn(weights, rig, () => everyPart(rig).reduce((sum, part) => sum + weightOf(part), 0));
    return [...delta.values()].reduce(
      (sum, { before: old, after }) => sum - (old ? weightOf(old) : 0) + (after ? weightOf(after) : 0),
      before,
    );
  });

/** A rig that grows beyond what a file, and the database, can hold. */
const tooLarge = (rig: Rig, next: Rig, delta: Delta): Refusal | undefined => {
  const count = KINDS.reduce((n, kind) => n + next.parts[kind].size, 0);
  if (count > MOST_PARTS || delta.size > MOST_PARTS)
    return {
      code: 'size',
      wrong: `The rig would have ${count.toLocaleString('en')} parts.`,
      would: `At most ${MOST_PARTS.toLocaleString('en')} are kept. Take out what is not used.`,
    };
  const weight = weightAfter(rig, next, delta);
  return weight > HEAVIEST_RIG
    ? {
        code: 'size',
        wrong: `The rig would be ${weight.toLocaleString('en')} characters large.`,
        would: `At most ${HEAVIEST_RIG.toLocaleString('en')} are kept. Shorten its notes and its log, or take out what is not used.`,
      }
    : undefined;
};

const partsToJudge = (next: Rig, delta: Delta): readonly Part[] => {
  const touched = new Set<AnyId>(delta.keys());
  const here = [...touched].map((id) => partOf(next, id)).filter((p): p is Part => p !== undefined);
  return [
    ...here,
    ...everyPart(next).filter((part) => !touched.has(part.id) && refersTo(part).some((id) => touched.has(id))),
  ];
};

import { apply } from '../../change/apply.js';
import type { Edit } from '../../change/edit.js';
import type { VerdictKind } from '../../recall/verdict/sound-verdict.js';
import type { Id } from '../../rig/ids.js';
import { soundsInOrder } from '../../rig/rig.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';

export interface ChangedVerdict {
  readonly sound: Id<'sound'>;
  readonly name: string;
  readonly before: VerdictKind;
  readonly after: VerdictKind;
}

/** What an edit would bring in a hook-up, before it is made. */
export interface Consequences {
  /** Why it cannot be made; nothing else is said then. */
  readonly refused?: string;
  readonly verdicts: readonly ChangedVerdict[];
  /** Findings that it brings and those that it clears, in words; notes aside. */
  readonly brings: readonly string[];
  readonly clears: readonly string[];
}

const NONE: Omit<Consequences, 'refused'> = { verdicts: [], brings: [], clears: [] };

export const consequences = (now: Derived, edit: Edit): Consequences => {
  const applied = apply(now.rig, edit);
  if (!applied.ok) return { ...NONE, refused: applied.error.map((e) => `${e.wrong} ${e.would}`).join(' ') };
  const later = deriveOnce(applied.value.rig, now.hookup.id);
  return later ? consequencesOf(now, later) : NONE;
};

/** What is otherwise in a rig than in another that was made of it. */
export const consequencesOf = (now: Derived, later: Derived): Consequences => {
  const verdicts = soundsInOrder(now.rig).flatMap(({ id, name }): readonly ChangedVerdict[] => {
    const [before, after] = [now.answers.get(id)?.is, later.answers.get(id)?.is];
    return before && after && before !== after ? [{ sound: id, name, before, after }] : [];
  });
  const pressing = (d: Derived) =>
    new Map(
      d.judgement.findings
        .filter((f) => !f.accepted && f.severity !== 'note')
        .map((f) => [`${f.code} ${f.evidence[0]}`, f.why]),
    );
  const [was, willBe] = [pressing(now), pressing(later)];
  const only = (these: ReadonlyMap<string, string>, those: ReadonlyMap<string, string>) =>
    [...these].filter(([key]) => !those.has(key)).map(([, why]) => why);
  return { verdicts, brings: only(willBe, was), clears: only(was, willBe) };
};

import { apply } from '../../change/apply.js';
import { deltaOf, sizeOf } from '../../change/delta.js';
import type { CheckInputs, Finding, Remedy } from '../../checks/check.js';
import { theEntry } from '../../known/the.js';
import type { Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';

export interface TriedRemedy {
  readonly remedy: Remedy;
  /** Sounds that come back by themselves with it and did not before. */
  readonly bringsBack: readonly Id<'sound'>[];
  /** Single values that it changes. */
  readonly changes: number;
}

/**
 * Tries every remedy of a finding: applied to the rig, everything derived anew. Kept are those that clear the
 * finding, break no
 * sound that was proved and bring no new danger or broken finding; ranked by how little they change.
 */
export const tried = (now: Derived, finding: Finding): readonly TriedRemedy[] =>
  now.judgement
    .remediesOf(finding)
    .flatMap((remedy): readonly TriedRemedy[] => {
      if (remedy.by === 'hand') return [{ remedy, bringsBack: [], changes: Infinity }];
      const later = deriveAfter(now.rig, now.hookup.id, remedy);
      if (!later || !clears(later, finding) || worsens(now, later)) return [];
      const bringsBack = [...later.answers]
        .filter(([id, v]) => v.is === 'proved' && now.answers.get(id)?.is !== 'proved')
        .map(([id]) => id);
      return [{ remedy, bringsBack, changes: sizeOf(deltaOf(now.rig, remedy.edit)) }];
    })
    .sort((a, b) => a.changes - b.changes);

const deriveAfter = (rig: Rig, hookup: Id<'hookup'>, remedy: Remedy): Derived | undefined => {
  if (remedy.by !== 'program') return undefined;
  const applied = apply(rig, remedy.edit);
  return applied.ok ? deriveOnce(applied.value.rig, hookup) : undefined;
};

const clears = (later: Derived, finding: Finding): boolean => {
  const sounds = finding.evidence.filter((e) => e.startsWith('sound:'));
  return !later.judgement.findings.some(
    (f) =>
      f.code === finding.code &&
      (f.fingerprint === finding.fingerprint ||
        (f.evidence[0] === finding.evidence[0] && f.evidence.some((e) => sounds.includes(e)))),
  );
};

const worsens = (now: CheckInputs & Pick<Derived, 'judgement'>, later: Derived): boolean => {
  const bad = (d: Pick<Derived, 'judgement'>) =>
    d.judgement.findings.filter((f) => f.severity === 'danger' || f.severity === 'broken').length;
  return (
    bad(later) > bad(now) ||
    [...now.verdicts].some(
      ([id, v]) => v.is === 'proved' && later.verdicts.has(id) && theEntry(later.verdicts, id).is !== 'proved',
    )
  );
};

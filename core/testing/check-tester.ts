import { apply } from '../src/change/apply.js';
import { editOf, invert } from '../src/change/delta.js';
import type { Check, Finding, Remedy } from '../src/checks/check.js';
import { judge } from '../src/checks/settle.js';
import { deriveOnce, type Derived } from '../src/derive/steps/deriver.js';
import type { AnyId, Id } from '../src/rig/ids.js';
import { everyPart, type Part, type Rig } from '../src/rig/rig.js';

export interface CheckCase {
  readonly name: string;
  readonly rig: Rig;
  /** Parts that the one finding must name, the first of them first; none when the check must stay quiet. */
  readonly evidence: readonly AnyId[];
  readonly says?: string;
  /** What the program can do about it, all of it. */
  readonly ways?: readonly string[];
}

const freeze = <T>(value: T): T => {
  if (
    value &&
    typeof value === 'object' &&
    !Object.isFrozen(value) &&
    !(value instanceof Map) &&
    !(value instanceof Uint8Array)
  ) {
    Object.freeze(value);
    Object.values(value).forEach(freeze);
  }
  return value;
};
const parts = (rig: Rig) => Object.fromEntries(everyPart(rig).map((p) => [p.id, p]));
const grave = (d: Derived) =>
  d.judgement.findings.filter((f) => f.severity === 'danger' || f.severity === 'broken').length;

/**
 * What holds for every check: it leaves its input alone, throws nothing, finds each case once, names code and
 * evidence; every remedy by
 * program applies, clears its finding if it promises so, adds nothing grave, and can be taken back.
 */
export const testCheck = (check: Check, hookup: Id<'hookup'>, cases: readonly CheckCase[]): void =>
  describe(check.code, () => {
    test('has cases that find and cases that stay quiet', () => {
      expect(cases.some((c) => c.evidence.length > 0)).toBe(true);
      expect(cases.some((c) => c.evidence.length === 0)).toBe(true);
    });
    test.each(cases.map((c) => [c.name, c] as const))('%s', (_, { rig, evidence, says, ways }) => {
      everyPart(rig).forEach((p: Part) => freeze(p));
      const derived = deriveOnce(rig, hookup)!;
      const { findings, faults, remediesOf } = judge(derived, [check]);
      expect(faults).toEqual([]);
      if (evidence.length === 0) return expect(findings.map((f) => f.why)).toEqual([]);
      expect(new Set(findings.map((f) => f.fingerprint)).size).toBe(findings.length);
      const found = findings.find((f) => f.evidence[0] === evidence[0]);
      expect(found?.code).toBe(check.code);
      expect(found?.evidence).toEqual(expect.arrayContaining([...evidence]));
      expect(check.severities).toContain(found!.severity);
      expect(found!.why).toMatch(/^\S.+\.$/);
      if (says) expect(found!.why).toContain(says);
      if (ways)
        expect(
          remediesOf(found!)
            .filter((r) => r.by === 'program')
            .map((r) => r.label),
        ).toEqual(ways);
      remediesOf(found!).forEach((remedy) => tryRemedy(derived, found!, remedy));
    });
  });

const tryRemedy = (before: Derived, finding: Finding, remedy: Remedy): void => {
  if (remedy.by === 'hand') return;
  const applied = apply(before.rig, remedy.edit);
  if (!applied.ok) throw new Error(`${finding.code} ${remedy.id}: ${JSON.stringify(applied.error)}`);
  const after = deriveOnce(applied.value.rig, before.hookup.id)!;
  if (remedy.promise === 'clears')
    expect(after.judgement.findings.map((f) => f.fingerprint)).not.toContain(finding.fingerprint);
  expect(grave(after)).toBeLessThanOrEqual(grave(before));
  const back = apply(applied.value.rig, editOf(invert(applied.value.delta)));
  expect(back.ok && parts(back.value.rig)).toEqual(parts(before.rig));
};

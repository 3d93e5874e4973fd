import { all } from '../rig/rig.js';
import { SEVERITIES, type Occurrence, type Check, type CheckInputs, type Finding, type Remedy } from './check.js';
import { CHECKS } from './index.js';

/** What a check could not do: shown as a fault of that check; it never empties the list. */
export interface CheckFault {
  readonly code: string;
  readonly message: string;
}

export interface Judgement {
  /** Worst first; accepted ones last. */
  readonly findings: readonly Finding[];
  readonly faults: readonly CheckFault[];
  readonly remediesOf: (finding: Finding) => readonly Remedy[];
}

/** Fingerprint of a case: the same parts in the same trouble. */
export const fingerprintOf = (code: string, found: Occurrence): string =>
  [code, ...[...found.evidence].sort(), found.about ?? ''].join(' ').slice(0, 2000);

export const judge = (inputs: CheckInputs, checks: readonly Check[] = CHECKS): Judgement => {
  const findings: Finding[] = [];
  const faults: CheckFault[] = [];
  const remedies = new Map<string, Occurrence['remedies']>();
  const accepted = new Map(
    all(inputs.rig, 'acceptance')
      .filter((a) => a.hookup === inputs.hookup.id)
      .map((a) => [`${a.code} ${a.evidence}`, a]),
  );
  for (const check of checks) {
    try {
      for (const { remedies: waysOut, ...found } of check.find(inputs)) {
        const fingerprint = fingerprintOf(check.code, found);
        const quiet = accepted.get(`${check.code} ${fingerprint}`);
        findings.push({
          ...found,
          code: check.code,
          title: check.title,
          curable: waysOut !== undefined,
          fingerprint,
          ...(quiet ? { accepted: { id: quiet.id, reason: quiet.reason } } : {}),
        });
        remedies.set(fingerprint, waysOut);
      }
    } catch (e) {
      faults.push({ code: check.code, message: e instanceof Error ? e.message : String(e) });
    }
  }
  const rank = (f: Finding) => (f.accepted ? 10 : 0) + SEVERITIES.indexOf(f.severity);
  return {
    findings: findings
      .map((f, i) => [f, i] as const)
      .sort(([a, i], [b, k]) => rank(a) - rank(b) || i - k)
      .map(([f]) => f),
    faults,
    remediesOf: (f) => remedies.get(f.fingerprint)?.() ?? [],
  };
};

import type { Edit } from '../change/edit.js';
import type { DialsOf } from '../dials/dial-cards.js';
import type { Hookup } from '../rig/hookup.js';
import type { AnyId } from '../rig/ids.js';
import type { Rig } from '../rig/rig.js';
import type { Compilation } from '../recall/actuate/compile.js';
import type { Modelled } from '../recall/model/model.js';
import type { Verdict } from '../prover/prove.js';

export const SEVERITIES = ['danger', 'broken', 'doubt', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Everything that a check may look at; all of it is derived from one revision of the rig. */
export interface CheckInputs {
  readonly rig: Rig;
  readonly hookup: Hookup;
  readonly compilation: Compilation;
  readonly modelled: Modelled;
  readonly verdicts: ReadonlyMap<string, Verdict>;
  /** What hands turn that no memory holds. */
  readonly dials: DialsOf;
}

/**
 * A way out. `clears` promises that the finding is gone afterwards; the edit can be previewed, applied and undone like
 * any other.
 */
export type Remedy = {
  readonly id: string;
  readonly label: string;
  /** What else comes with it. */
  readonly note?: string;
  readonly promise: 'clears' | 'eases';
} & ({ readonly by: 'program'; readonly edit: Edit } | { readonly by: 'hand' });

/** One case of what a check looks for. */
export interface Occurrence {
  readonly severity: Severity;
  /** Parts that it is about, the most telling first. */
  readonly evidence: readonly AnyId[];
  /** What tells two cases with the same evidence apart. */
  readonly about?: string;
  /** One or two plain sentences: what, and why it matters. */
  readonly why: string;
  /** Ways out, worked out when somebody asks for them. */
  readonly remedies?: () => readonly Remedy[];
}

export interface Check {
  /** Stable; also the name of its file and of its entry in the handbook. */
  readonly code: string;
  readonly title: string;
  readonly severities: readonly Severity[];
  /** Where the rule comes from: a published source, or "common practice". */
  readonly source: string;
  readonly find: (inputs: CheckInputs) => Iterable<Occurrence>;
}

export interface Finding extends Omit<Occurrence, 'remedies'> {
  readonly code: string;
  readonly title: string;
  /** Something can be done about it; what, the judgement says. */
  readonly curable: boolean;
  /** Changes when the evidence changes. */
  readonly fingerprint: string;
  readonly accepted?: { readonly id: AnyId; readonly reason: string };
}

import { grouped } from '../../known/grouped.js';
import type { FailureView, HandsOfSound } from './fails.js';

/** What lies in the case: each failure that silences something, in as few lines as can be. */
export interface FailuresSheet {
  readonly rows: readonly FailuresRow[];
  /** Each said once, below. */
  readonly cautions: readonly string[];
}

export interface FailuresRow {
  /** What fails; leads that are replaced alike stand together. */
  readonly keys: readonly string[];
  readonly what: string;
  readonly lost: string;
  /** The number of the caution to read first, from 1; absent where nothing is dangerous. */
  readonly heed?: number;
  readonly hands: string;
  readonly byHand?: readonly HandsOfSound[];
  readonly then?: string;
}

/** A lead that is put in the place of the one that broke is all it takes. */
const isReplaced = ({ lead, way }: FailureView): boolean =>
  lead !== undefined && way?.leads === 1 && way.steps.length === 1 && way.sounds.every((s) => s.is === 'whole');

/** The sheet for the case, from every failure of a hook-up. */
export const failuresSheet = (fails: readonly FailureView[]): FailuresSheet => {
  const hard = fails.filter((f) => f.counts.silent + f.counts['partly silent'] + f.counts['not called'] > 0);
  const cautions = [...new Set(hard.flatMap((f) => f.way?.caution ?? []))];
  const heeded = ({ way }: FailureView): Pick<FailuresRow, 'heed'> =>
    way?.caution === undefined ? {} : { heed: cautions.indexOf(way.caution) + 1 };
  const row = (f: FailureView): FailuresRow => ({
    keys: [f.key],
    what: f.text,
    lost: f.says,
    ...heeded(f),
    hands: f.way?.steps.join(' ') ?? f.needs ?? '',
    ...(f.byHand ? { byHand: f.byHand } : {}),
    ...(f.way ? { then: f.way.says } : {}),
  });
  const leads = grouped(hard.filter(isReplaced), (f) => `${f.says} ${f.way?.caution ?? ''}`);
  return {
    rows: [
      ...hard.filter((f) => !isReplaced(f)).map(row),
      ...[...leads.values()].map((alike) => ({
        ...row(alike[0]),
        keys: alike.map((f) => f.key),
        what: `A lead breaks: ${alike.map((f) => f.lead).join(', ')}`,
        hands: 'Put another lead in its place.',
      })),
    ],
    cautions,
  };
};

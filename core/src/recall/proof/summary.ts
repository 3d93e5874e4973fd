import type { Verdict } from './prove.js';
import type { RecallSystem } from './system.js';

export interface Tally {
  readonly sounds: number;
  readonly proved: number;
  readonly broken: number;
  readonly undecided: number;
}

export const tally = (verdicts: ReadonlyMap<string, Verdict>): Tally => {
  const count = (is: Verdict['is']) => [...verdicts.values()].filter((v) => v.is === is).length;
  return { sounds: verdicts.size, proved: count('proved'), broken: count('broken'), undecided: count('undecided') };
};

/** In how many ways the variables of a system can stand together, whether or not anything brings them there. */
export const waysToStand = ({ variables }: RecallSystem): bigint => variables.reduce((ways, v) => ways * BigInt(v.domain.length), 1n);

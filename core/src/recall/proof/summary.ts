import type { Verdict } from './prove.js';

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

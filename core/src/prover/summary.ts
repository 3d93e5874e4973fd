import type { RecallSystem } from './system.js';

/** In how many ways the variables of a system can stand together, whether or not anything brings them there. */
export const waysToStand = ({ variables }: RecallSystem): bigint =>
  variables.reduce((ways, v) => ways * BigInt(v.domain.length), 1n);

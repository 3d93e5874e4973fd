import { AROUND } from './families-around.js';
import { PLAYED } from './families-played.js';
import type { Family } from './family.js';

export const FAMILIES: readonly Family[] = [...PLAYED, ...AROUND];

/** One word for two boxes that belong together. */
export const STACKS: Readonly<Record<string, readonly string[]>> = {
  'half stack': ['head', '4x12'],
  'full stack': ['head', '2 4x12'],
  'bass stack': ['bass head', '4x10'],
};

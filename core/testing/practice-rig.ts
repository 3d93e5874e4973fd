import type { Part, Rig } from '../src/rig/rig.js';
import { smallRig } from './small-rig.js';

/**
 * Rigs as people really wire and play them, each with what it must answer in `practice.test.ts`; all of them made up.
 */
export interface Practice {
  readonly file: string;
  readonly title: string;
  readonly rig: Rig;
}

const named =
  (title: string, more: (part: Part) => Part = (p) => p) =>
  (part: Part): Part =>
    more(part.kind === 'about' ? { ...part, name: title } : part);

/** A small rig with its title, and the file that it is kept in. */
export const practice = (
  file: string,
  title: string,
  rig: Omit<Parameters<typeof smallRig>[0], 'with'>,
  more?: (part: Part) => Part,
): Practice => ({ file, title, rig: smallRig({ ...rig, with: named(title, more) }) });

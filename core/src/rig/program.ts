import type { Id } from './ids.js';
import type { Act } from './act.js';
import type { Value } from './value.js';

/** One program of a memory, as it stands in the box. A memory number without such a part is free for Yunta to plan. */
export interface Program {
  readonly kind: 'program';
  readonly id: Id<'program'>;
  readonly device: Id<'device'>;
  readonly memory: string;
  /** As the wire counts, from 0. */
  readonly number: number;
  readonly name: string;
  /** Number in the outer memory, for scenes. */
  readonly of?: number;
  readonly contents: Readonly<Record<string, Value>> | 'unplanned';
  /** Sent or pulsed after the contents are in. */
  readonly acts: readonly Act[];
  readonly assigns: readonly Assign[];
}

/** What a switch does while this program is loaded. A latched one toggles first, then follows its new state. */
export interface Assign {
  readonly switch: string;
  readonly latch: boolean;
  readonly on: readonly Act[];
  readonly off: readonly Act[];
  /** What becomes of its latch when the program is loaded. */
  readonly afterLoad: 'off' | 'on' | 'kept';
}

/** What a control holds when a program was loaded whose contents nobody wrote down. */
export const NOT_KNOWN = 'not known';

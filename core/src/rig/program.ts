import type { Id } from './ids.js';
import type { Act, Curve, Message } from './act.js';
import { swept } from './act.js';
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
  /** Planned here, not written down by a person: a later plan may change what it holds. */
  readonly planned?: true;
  /** What pedals at the box's expression inputs do while it is loaded. */
  readonly sweeps?: readonly Sweep[];
}

/**
 * One amount under a pedal: a control of the box itself, or a control change that it sends, with its value at heel and
 * toe.
 */
export type Sweep = { readonly jack: string; readonly heel: number; readonly toe: number; readonly curve?: Curve } & (
  | { readonly control: string; readonly step?: number }
  | { readonly cc: number; readonly channel: number; readonly at: string }
);

/** What a pedal does at a position from 0 (heel) to 127 (toe), as acts of its box. */
export const actsAt = (sweeps: readonly Sweep[] | undefined, jack: string, byte: number): readonly Act[] =>
  (sweeps ?? [])
    .filter((s) => s.jack === jack)
    .map((s): Act => {
      if ('control' in s) return { control: s.control, set: swept(s, byte, s.step ?? 1) };
      const send: Message = { cc: s.cc, channel: s.channel, value: swept(s, byte, 1) };
      return { send, at: s.at };
    });

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

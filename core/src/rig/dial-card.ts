import type { Id } from './ids.js';
import type { Case } from './value.js';

/** Where a dial card holds besides the cases of a want: in one sound only. */
export interface DialCase extends Case {
  readonly sound?: Id<'sound'>;
}

/** Where knobs and switches stand, as people say it: "2 o'clock", "just under half", "7", "on". By the knob's name. */
export type Stands = Readonly<Record<string, string>>;

/**
 * What no memory holds of a box: where its knobs and switches stand. Of an instrument it says what the hands do in a
 * sound: pickup, volume rolled back, capo, slide.
 */
export interface DialCard {
  readonly kind: 'dialCard';
  readonly id: Id<'dialCard'>;
  /** Absent: whichever instrument is in hand. */
  readonly device?: Id<'device'>;
  /** Absent: always. Of several that fit, what the one with more of them says counts. */
  readonly in?: DialCase;
  /** As it was looked at on a day (`2026-05-12`); what the latest says counts. */
  readonly readings: Readonly<Record<string, Stands>>;
}

/** A day as readings have it. */
export const DAY = /^\d{4}-\d{2}-\d{2}$/;

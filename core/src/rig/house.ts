import type { HOUSES } from './show.js';
import type { Id } from './ids.js';

/** A place where one plays, as it was found. Screens call it a house. */
export interface House {
  readonly kind: 'house';
  readonly id: Id<'house'>;
  readonly name: string;
  readonly sound?: (typeof HOUSES)[number];
  /** Mains sockets on stage. */
  readonly sockets?: number;
  /** Where the ground was lifted so that nothing hums: "DI of the bass". Never that of the mains. */
  readonly lift?: string;
  /** What the whole rig needed there: "-3 dB at 160 Hz". */
  readonly eq?: string;
  /** "Concrete, booms at the back wall." */
  readonly room?: string;
  /** Nights played there, by day, with what was noted then. */
  readonly nights: Readonly<Record<string, string>>;
}

import { type Device, type Memory } from '../../rig/device.js';
import { type Guard } from './guards.js';
import { type OnTheWire } from './on-the-wire.js';
import { type Missed } from '../actuate/slot-timing.js';
import type { Condition, SystemAct } from '../../prover/system.js';
import { theItem } from '../../known/the.js';

export const DEEPEST = 8;

/** What a box hears of a list, under conditions on what was going on before. */
export interface Hearing {
  readonly when: readonly Condition[];
  readonly missed: ReadonlyMap<number, Missed>;
}

/** How a slot fares on an evening that is not as usual. */
export interface Evening {
  /** The place of a message that is lost on its wire. */
  readonly lost?: number;
  /** The ways in which this box may hear it; undefined when it hears it as usual. */
  readonly hearing?: (to: Device) => readonly Hearing[] | undefined;
  /** Only what stands in these places of the list counts; all that one box hears, or nothing of it. */
  readonly places?: readonly number[];
  /** What of the acts that a message or a place brings about counts. */
  readonly within?: (acts: readonly SystemAct[]) => readonly SystemAct[];
}

/** What else is to be noted when a box loads a program, under the conditions on which it does. */
export type NoteLoad = (device: Device, memory: Memory, when: readonly Guard[]) => readonly SystemAct[];

/**
 * How deep one box set off another, and the wires that messages travel on in their own time; without wires each
 * message is there at once.
 */
export interface How {
  readonly depth: number;
  readonly wires?: OnTheWire;
}
export const AT_ONCE: readonly How[] = Array.from({ length: DEEPEST + 4 }, (_, depth) => ({ depth }));
export const deeper = ({ depth, wires }: How): How =>
  wires ? { depth: depth + 1, wires } : theItem(AT_ONCE, depth + 1);

import { alongs, type Along } from '../../electric/levels/along.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Id } from '../../rig/ids.js';
import type { CheckInputs } from '../check.js';

/** A sound from one source to its outputs. */
export interface HeardSound {
  readonly sound: Id<'sound'>;
  readonly trace: Trace;
  readonly along: Along;
}

/** Every sound of a hook-up, from each of its sources. */
export const alongsHere = ({ rig, compilation }: CheckInputs): readonly HeardSound[] =>
  [...compilation.sounds.values()].flatMap(({ sound, trace }) =>
    alongs(trace, rig).map((along) => ({ sound, trace, along })),
  );

/** @example db(5.26) // '5.3 dB' */
export const db = (value: number): string => `${Math.abs(Math.round(value * 10) / 10)} dB`;

import { frontEnds, type FrontEnd } from '../../electric/front/front-end.js';
import { frontSound } from '../../electric/front/front-response.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import type { Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { CheckInputs } from '../check.js';

/** A passive front end that dulls what comes through it, and the sounds that have it. */
export interface DullFront {
  readonly front: FrontEnd;
  readonly sounds: readonly Id<'sound'>[];
  /** Against 3 m of cable at 5 kHz, in dB, and where its peak lies now. */
  readonly db: number;
  readonly peakHz: number | undefined;
}

const AT_HZ = 5000;
/** Less than that is a taste. */
const LEAST_DB = 3;
/** A fuzz that wants to load the coil does it on purpose. */
const ON_PURPOSE_OHM = 50_000;

export const lossAt5k = (front: FrontEnd): number =>
  frontSound(front, 'full').against.find((a) => a.hz === AT_HZ)?.db ?? 0;

const frontsOf = once((t: Trace, rig: Rig) => frontEnds(rig, t));

/** Fronts that lose enough treble to tell, those that are alike once. */
export const dullFronts = ({ rig, compilation }: CheckInputs): readonly DullFront[] => {
  const all = [...compilation.sounds.values()].flatMap(({ sound, trace }) =>
    frontsOf(trace, rig).map((front) => ({ sound, front })),
  );
  return [...grouped(all, ({ front }) => JSON.stringify([front.source.ref, front.hung])).values()].flatMap((here) => {
    const { front } = here[0];
    if (front.hung.some(({ piece }) => piece.is === 'input' && piece.ohm < ON_PURPOSE_OHM)) return [];
    if (front.pF <= 300) return [];
    const sound = frontSound(front, 'full');
    const db = sound.against.find((a) => a.hz === AT_HZ)?.db ?? 0;
    return db > -LEAST_DB ? [] : [{ front, sounds: here.map((h) => h.sound), db, peakHz: sound.peak?.hz }];
  });
};

/** Bypassed boxes in a row make a chain. */
export const isBypassChain = ({ bypassed }: FrontEnd): boolean => bypassed.length >= 2;

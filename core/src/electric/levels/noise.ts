import { once } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';
import { ref, type Ref } from '../../rig/ids.js';
import type { Trace } from '../../signal/graph/trace.js';
import { all, type Rig } from '../../rig/rig.js';
import { blocksIn } from '../../rig/domain.js';
import type { Along } from './along.js';
import { together } from './limit.js';

/** Boltzmann's constant in joule per kelvin (SI 2019). */
const BOLTZMANN = 1.380_649e-23;
/** 0 dBu in volts: √0.6. */
const DBU_VOLTS = Math.sqrt(0.6);

/**
 * Noise of a resistance by its heat alone, √(4·k·T·R·B), in dBu.
 * @param kelvin 290 unless said
 * @param hertz width of what is heard
 * @example thermalDbu(150) // -131.0
 */
export const thermalDbu = (ohm: number, kelvin = 290, hertz = 20_000): number =>
  20 * Math.log10(Math.sqrt(4 * BOLTZMANN * kelvin * ohm * hertz) / DBU_VOLTS);

/** What a coil or microphone of this kind puts in by its heat, where nobody wrote its resistance down. */
const SOURCE_OHM = 10_000;

/** A part of the noise at an output. */
export interface NoiseShare {
  /** The stage that makes it; the instrument itself where there is none. */
  readonly stage?: Ref;
  readonly dbu: number;
}

export interface NoiseAt {
  /** All of it together in dBu while one plays. */
  readonly dbu: number;
  /** The same in a pause, behind gates that shut; as while one plays where there is none. */
  readonly paused: number;
  /** Loudest first. */
  readonly shares: readonly NoiseShare[];
}

/**
 * Noise at a point: each stage's own, through the gains behind it; noises are unlike, so their powers add. A gate lets
 * nothing past in a pause.
 */
export const noiseAt = (rig: Rig, t: Trace, along: Along, point: number): NoiseAt => {
  const shares = sharesAt(t, along, point, () => true);
  const gates = new Set(along.stages.filter((s) => gatesOf(rig).has(s.stage)).flatMap((s) => s.edges));
  const dbu = together(shares.map((s) => s.dbu));
  const paused = gates.size ? together(sharesAt(t, along, point, (e) => !gates.has(e)).map((s) => s.dbu)) : dbu;
  return { dbu, paused, shares };
};

const gatesOf = once(
  (rig: Rig): ReadonlySet<Ref> =>
    new Set(
      all(rig, 'device').flatMap(({ id, chains }) =>
        chains.flatMap((c) => blocksIn(c.slots).flatMap((b) => (b.stage === 'gate' ? [ref(id, b.id)] : []))),
      ),
    ),
);

const sharesAt = (
  { wiring, leaving }: Trace,
  { source, stages, quiet, order }: Along,
  point: number,
  passes: (edge: number) => boolean,
): readonly NoiseShare[] => {
  // Power gain from each point to the wanted one.
  const ahead = new Float64Array(wiring.points.length);
  ahead[point] = 1;
  for (let i = order.length - 1; i >= 0; i -= 1) {
    const at = theItem(order, i);
    if (at === point) continue;
    let sum = 0;
    for (let k = theItem(leaving.at, at); k < theItem(leaving.at, at + 1); k += 1) {
      const e = theItem(leaving.edges, k);
      const onward = theItem(ahead, theItem(wiring.to, e));
      if (onward > 0 && passes(e)) sum += theItem(quiet, e) * onward;
    }
    ahead[at] = sum;
  }
  const through = (at: number): number => 10 * Math.log10(theItem(ahead, at));
  return [
    { dbu: thermalDbu(source.end.pickup?.ohm ?? SOURCE_OHM) + through(source.point) },
    ...stages.map((s): NoiseShare => ({
      stage: s.stage,
      dbu: together(s.edges.map((e) => s.noise + through(theItem(wiring.to, e)))),
    })),
  ]
    .filter((s) => s.dbu > -200)
    .sort((a, b) => b.dbu - a.dbu);
};

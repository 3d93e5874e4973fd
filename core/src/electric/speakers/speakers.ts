import type { Hookup } from '../../rig/hookup.js';
import { ref, type Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';
import { leadLossDb, leadOhm, powerShares, sideBySide, wattsInto } from './power.js';
import { speakerOutputs, type SpeakerOutput } from './speaker-outputs.js';
import { speakerStates, type Load, type Standing } from './speaker-states.js';

/** A loudspeaker with what comes to it. */
export interface LoadedBy extends Load {
  /** Undefined where its box says nothing of it. */
  readonly ohm: number | undefined;
  /** Its part of all power, from 0 to 1; undefined where an impedance is not known. */
  readonly share: number | undefined;
  /** The most that comes to it, in watts; undefined where a figure is missing. */
  readonly gets: number | undefined;
  /** What it stands, in watts; undefined where its box says nothing of it. */
  readonly stands: number | undefined;
  /** What is lost on its leads, in dB; undefined where a length is missing. */
  readonly lossDb: number | undefined;
}

/** A loudspeaker jack of an amp while switches behind it stand somewhere. */
export interface LoadedTap {
  readonly output: SpeakerOutput;
  readonly at: Ref;
  readonly standing: Standing;
  readonly loads: readonly LoadedBy[];
  /** All loads together, in ohms; undefined without a load, or where one is not known. */
  readonly ohm: number | undefined;
}

/** Every loudspeaker jack of a hook-up that an amp drives, in every state of the switches behind it. */
export const loadedTaps = (rig: Rig, hookup: Hookup, anatomy: Anatomy): readonly LoadedTap[] =>
  speakerOutputs(anatomy, rig).flatMap((output) => {
    const at = ref(output.device.id, output.jack.id);
    return speakerStates(rig, hookup, at).map(({ standing, loads }) => loadedTap(output, at, standing, loads));
  });

const loadedTap = (output: SpeakerOutput, at: Ref, standing: Standing, loads: readonly Load[]): LoadedTap => {
  const ohms = loads.map((l) => l.at.jack.ohm).filter((ohm) => ohm !== undefined && ohm > 0) as number[];
  const isKnown = ohms.length === loads.length && loads.length > 0;
  const ohm = isKnown ? sideBySide(ohms) : undefined;
  const shares = isKnown ? powerShares(ohms) : [];
  const { watts, ohm: rated } = output.jack;
  const all =
    ohm !== undefined && watts !== undefined && rated
      ? wattsInto({ watts, ohm: rated }, ohm, output.device.figures.powerStage)
      : undefined;
  return {
    output,
    at,
    standing,
    ohm,
    loads: loads.map((load, i): LoadedBy => {
      const share = shares[i];
      const own = load.at.jack.ohm;
      const lengths = load.leads.map((c) => (c.m === undefined ? undefined : leadOhm(c.m, c.awg)));
      const lead = lengths.includes(undefined) ? undefined : lengths.reduce<number>((sum, r) => sum + (r ?? 0), 0);
      return {
        ...load,
        ohm: own,
        share,
        gets: all !== undefined && share !== undefined ? all * share : undefined,
        stands: load.at.jack.watts,
        lossDb: lead !== undefined && own ? leadLossDb(lead, own) : undefined,
      };
    }),
  };
};

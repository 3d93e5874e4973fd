import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { inDomain } from '../../rig/domain.js';
import { stepOf } from '../../rig/midi-manners.js';
import { all, type Rig } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import { controlAt } from '../../rig/box.js';

/** The tempo of the songs that call a sound, in beats a minute: one, several that differ, or none. */
export const tempoOf = (rig: Rig, sound: Id<'sound'>): number | 'several' | 'none' => {
  const tempi = new Set(
    all(rig, 'song').flatMap((song) =>
      song.bpm !== undefined && song.cues.some((c) => 'sound' in c.call && c.call.sound === sound) ? [song.bpm] : [],
    ),
  );
  return tempi.size > 1 ? 'several' : ([...tempi][0] ?? 'none');
};

const MS: Readonly<Record<string, number>> = { ms: 1, s: 1000 };

/** Units in which a time or a tempo can be told in beats. */
export const countsBeats = (unit: string): boolean => unit in MS || unit === 'bpm';

/**
 * So many beats at the tempo of the sound's song, in the unit of the control: ms, s, or bpm for a box that is told
 * its tempo.
 * @returns undefined when there is not just one tempo, or the control cannot stand so
 * @example three quarters of a beat at 120 beats a minute are 375 ms
 */
export const inBeats = (rig: Rig, sound: Id<'sound'>, control: Ref, beats: number): Value | undefined => {
  const found = controlAt(rig, control);
  const tempo = tempoOf(rig, sound);
  if (!found || !('min' in found.domain) || typeof tempo !== 'number' || beats <= 0) return undefined;
  const { unit } = found.domain;
  const exact =
    unit === 'bpm' ? tempo / beats : MS[unit] === undefined ? undefined : ((60_000 / tempo) * beats) / MS[unit];
  if (exact === undefined) return undefined;
  const step = stepOf(found);
  const value = Number((Math.round(exact / step) * step).toFixed(6));
  return inDomain(found, value) ? value : undefined;
};

/** @example beatsText(rig, sound, 'device:dly.time', 0.75) // '0.75 beats at 120 are 375 ms' */
export const beatsText = (rig: Rig, sound: Id<'sound'>, control: Ref, beats: number): string => {
  const tempo = tempoOf(rig, sound);
  if (tempo === 'none') return `${beats} beats, but no song with a tempo calls the sound`;
  if (tempo === 'several') return `${beats} beats, but its songs have more than one tempo: derive a sound for each`;
  const value = inBeats(rig, sound, control, beats);
  const found = controlAt(rig, control);
  const unit = found && 'min' in found.domain ? found.domain.unit : '';
  return value === undefined
    ? `${beats} beats at ${tempo} are beyond what ${splitRef(control).name} can do`
    : `${beats} beats at ${tempo} are ${value} ${unit}`;
};

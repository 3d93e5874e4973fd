import type { Edit } from '../change/edit.js';
import type { Device } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import type { Song } from '../rig/show.js';
import type { Sound } from '../rig/sound.js';
import { addSound } from './sounds.js';

/** What a player holds: guitars, basses, whatever the signal comes from. */
export const instrumentsOf = (rig: Rig): readonly Device[] =>
  all(rig, 'device').filter((d) => d.ends?.some((e) => e.is === 'source'));

export interface Variant {
  readonly edit: Edit;
  readonly sound: Sound;
  /** Songs played with the instrument that call the variant from now on. */
  readonly songs: readonly Song[];
}

const calls = (song: Song, sound: Id<'sound'>): boolean =>
  song.cues.some(({ call }) => 'sound' in call && call.sound === sound);

/**
 * The same sound for another instrument: derived from it, so that it differs in what is said of it alone, such as a
 * trim or a knob of the first boost. Songs that are played with the instrument call it.
 */
export const variantFor = (rig: Rig, id: Id<'sound'>, sound: Sound, instrument: Device): Variant => {
  const name = `${cutTo(sound.name, LONGEST.name - instrument.code.length - 1)} ${instrument.code}`;
  const made = addSound(rig, id, name, sound.role, sound.id);
  const played = all(rig, 'song').filter((s) => s.instrument === instrument.id && calls(s, sound.id));
  const songs = played.map((song): Song => ({
    ...song,
    cues: song.cues.map((cue) =>
      'sound' in cue.call && cue.call.sound === sound.id ? { ...cue, call: { sound: id } } : cue,
    ),
  }));
  return { edit: { put: [...made.put, ...songs], remove: [] }, sound: made.put[0], songs };
};

/** Instruments for which a sound may still have a variant: others than the first, with which it is played as it is. */
export const variantsToMake = (rig: Rig, sound: Sound): readonly Device[] => {
  if (sound.parent && partOf(rig, sound.parent)) return [];
  const made = all(rig, 'sound').filter((s) => s.parent === sound.id);
  const [, ...others] = instrumentsOf(rig);
  return others.filter((d) => !made.some((s) => s.name.endsWith(` ${d.code}`)));
};

import equal from 'fast-deep-equal';
import type { Edit } from '../../change/edit.js';
import type { Score, ScoreCue } from '../../formats/midi-score.js';
import type { Id } from '../../rig/ids.js';
import { LONGEST, LONGEST_SONG_SECONDS, TEMPO } from '../../rig/limits.js';
import { all, placeBehind } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import { readCues } from '../../sheets/cue-words.js';
import { barBeatAt, COMMON_TIME, MOST_BARS, type Metre } from '../../units/metre.js';
import type { Derived } from '../steps/deriver.js';
import { soundCalledBy } from './set-score.js';

/** What a MIDI file brings: new songs, and songs of the same title with its cues. */
export interface SongsOfScore {
  readonly edit: Edit;
  readonly added: readonly string[];
  readonly changed: readonly string[];
  /** Cues of which nothing in the file says what they call: song, then cue. */
  readonly open: readonly (readonly [song: string, cue: string])[];
}

/** By its words if these name a sound, then by its messages; otherwise a note that says what stands there. */
const cueOf = (d: Derived, cue: ScoreCue, metre: Metre): { readonly cue: Cue; readonly isOpen: boolean } => {
  const place = barBeatAt(cue.quarters, metre);
  const at = place.bar <= MOST_BARS ? { at: place } : {};
  const read = cue.text ? readCues(d.rig, cue.text, metre) : { cues: [] };
  const said = 'cues' in read && read.cues.length === 1 ? read.cues[0] : undefined;
  if (said) return { cue: { ...said, ...at }, isOpen: false };
  const sound = soundCalledBy(d, d.rig, cue.sends);
  const name = cue.text.slice(0, LONGEST.name) || sound?.name || 'unnamed';
  return sound
    ? { cue: { name, ...at, call: { sound: sound.id } }, isOpen: false }
    : { cue: { name, ...at, call: { note: cue.text || 'messages that call no sound of this rig' } }, isOpen: true };
};

const inLimits = (n: number, least: number, most: number): boolean => n >= least && n <= most;

/** Songs as a score says them. A song that is there already keeps all that the score does not speak of. */
export const songsOfScore = (d: Derived, score: Score, newId: () => Id<'song'>): SongsOfScore => {
  const known = new Map(all(d.rig, 'song').map((s) => [s.title.toLowerCase(), s]));
  const added: string[] = [];
  const changed: string[] = [];
  const open: (readonly [string, string])[] = [];
  const put = new Map<string, Song>();
  for (const { title: said, bpm, metre, seconds, cues } of score.songs) {
    const title = said.slice(0, LONGEST.name) || 'Song';
    const before = put.get(title.toLowerCase()) ?? known.get(title.toLowerCase());
    (before ? changed : added).push(before?.title ?? title);
    const read = cues.map((cue) => {
      const made = cueOf(d, cue, metre);
      const same = before?.cues.find((c) => c.name === made.cue.name && equal(c.call, made.cue.call));
      return same?.hands ? { ...made, cue: { ...made.cue, hands: same.hands } } : made;
    });
    open.push(...read.filter((r) => r.isOpen).map((r) => [title, r.cue.name] as const));
    const isCommon = metre.beats === COMMON_TIME.beats && metre.unit === COMMON_TIME.unit;
    const { metre: _, ...rest } = before ?? {
      kind: 'song' as const,
      id: newId(),
      title,
      at: placeBehind(d.rig, 'song') + put.size,
    };
    put.set(title.toLowerCase(), {
      ...rest,
      ...(inLimits(bpm, TEMPO.min, TEMPO.max) ? { bpm } : {}),
      ...(isCommon ? {} : { metre }),
      ...(seconds !== undefined && inLimits(seconds, 1, LONGEST_SONG_SECONDS) ? { seconds } : {}),
      cues: read.map((r) => r.cue),
    });
  }
  return { edit: { put: [...put.values()], remove: [] }, added, changed, open };
};

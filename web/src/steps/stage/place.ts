import type { Stage } from '@yunta/core/derive/views/stage';

/** Where one is in a night: which song, which cue of it. */
export interface Place {
  readonly song: number;
  readonly cue: number;
}

const BEGIN: Place = { song: 0, cue: 0 };
const lastCue = (stage: Stage, song: number): number => Math.max(0, (stage.songs[song]?.cues.length ?? 0) - 1);

/** The place that is there in this night; what lies beyond its end is its end. */
export const placeIn = (stage: Stage, { song, cue }: Place): Place => {
  const at = Math.max(0, Math.min(stage.songs.length - 1, song));
  return stage.songs.length ? { song: at, cue: Math.max(0, Math.min(lastCue(stage, at), cue)) } : BEGIN;
};

/** One cue on, into the next song behind the last one. */
export const nextPlace = (stage: Stage, { song, cue }: Place): Place =>
  cue < lastCue(stage, song)
    ? { song, cue: cue + 1 }
    : song < stage.songs.length - 1
      ? { song: song + 1, cue: 0 }
      : { song, cue };

/** One cue back, to the last of the song before the first. */
export const placeBefore = (stage: Stage, { song, cue }: Place): Place =>
  cue > 0 ? { song, cue: cue - 1 } : song > 0 ? { song: song - 1, cue: lastCue(stage, song - 1) } : { song, cue };

/** The beginning of the next song, or of the one before. */
export const otherSong = (stage: Stage, { song }: Place, by: -1 | 1): Place =>
  placeIn(stage, { song: song + by, cue: 0 });

import type { Id, Ref } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { Cue, SetList } from '../../rig/show.js';
import type { Value } from '../../rig/value.js';
import { handMoves, isServedBy, type Compilation } from './compile.js';

/** What somebody has to move by hand or foot when a song comes to a cue. */
export interface HandsAtCue {
  readonly cue: Cue;
  readonly moves: readonly { readonly control: Ref; readonly value: Value }[];
}

/**
 * A song played from its first cue to its last; what stands before it is not known, so its first cue asks for all of
 * its hand moves.
 */
export interface HandsInSong {
  readonly song: Id<'song'>;
  readonly before: HandsAtCue['moves'];
  readonly between: readonly HandsAtCue[];
}

/** Hand moves song by song: only what stands otherwise from the cue before has to be moved. */
export const handsInSongs = (c: Compilation): readonly HandsInSong[] =>
  all(c.bearings.rig, 'song').map((song): HandsInSong => {
    const stands = new Map<Ref, Value>();
    const cues = song.cues.flatMap((cue): readonly HandsAtCue[] => {
      if (!('sound' in cue.call)) return [];
      const moves = handMoves(c, cue.call.sound)
        .filter((m) => !isServedBy(m, stands.get(m.control)))
        .map(({ control, value }) => ({ control, value }));
      for (const m of moves) stands.set(m.control, m.value);
      return [{ cue, moves }];
    });
    return { song: song.id, before: cues[0]?.moves ?? [], between: cues.slice(1).filter((x) => x.moves.length > 0) };
  });

/** What has to be moved before a song of a set, as the one before it leaves the rig. */
export interface HandsBeforeSong {
  readonly song: Id<'song'>;
  readonly moves: HandsAtCue['moves'];
}

/** Songs played one after the other: what is moved in the breath between two of them. */
export const handsInSet = (c: Compilation, songs: SetList['songs']): readonly HandsBeforeSong[] => {
  const stands = new Map<Ref, Value>();
  return songs.flatMap((id, at): readonly HandsBeforeSong[] => {
    const before: { readonly control: Ref; readonly value: Value }[] = [];
    const sounds = (partOf(c.bearings.rig, id)?.cues ?? []).flatMap(({ call }) =>
      'sound' in call ? [call.sound] : [],
    );
    sounds.forEach((sound, cue) => {
      for (const { control, value } of handMoves(c, sound).filter((m) => !isServedBy(m, stands.get(m.control)))) {
        if (cue === 0) before.push({ control, value });
        stands.set(control, value);
      }
    });
    return at > 0 && before.length > 0 ? [{ song: id, moves: before }] : [];
  });
};

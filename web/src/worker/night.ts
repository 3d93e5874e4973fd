import { setSheet, type SetSheet } from '@yunta/core/derive/views/set-sheet';
import { danceOfSet, type Dance } from '@yunta/core/derive/views/dance';
import { floorCards, memoryTable, type FloorCard, type MemoryTable } from '@yunta/core/derive/views/stage-papers';
import { telling, type Telling } from '@yunta/core/derive/views/telling';
import { drillOf, type Drill } from '@yunta/core/derive/views/drill';
import { footworkOf, type Footwork } from '@yunta/core/derive/views/footwork';
import { boxesInOrder, type BoxesInOrder } from '@yunta/core/derive/views/boxes-in-order';
import { loopsOfRig, type LoopsOfRig } from '@yunta/core/derive/views/loops';
import { setOrder, type SetOrder } from '@yunta/core/derive/views/set-order';
import { setScore, type SetScore } from '@yunta/core/derive/views/set-score';
import { readSongFile, type SongsIn } from '@yunta/core/derive/views/song-files';
import { withoutLists } from '@yunta/core/derive/views/without-lists';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { writeScore } from '@yunta/core/formats/midi-score';
import { stageOf, type Stage } from '@yunta/core/derive/views/stage';
import { songHands, type SongHands } from '@yunta/core/derive/views/songs';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { songCards, type SongCard } from '@yunta/core/derive/views/song-cards';
import type { Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { newPartId } from '../session/ids.js';
import { type Held } from './held.js';

export type ScoreFile = Omit<SetScore, 'score'> & { readonly midi: Uint8Array<ArrayBuffer> };

/** What the room of songs and sets asks: how a night is played, and its papers. */
export class Night {
  constructor(private readonly held: Held) {}

  /** Every song on a card for the floor. */
  songCards(): readonly SongCard[] {
    return this.held.derived ? songCards(this.held.derived) : [];
  }

  /** A set as it is played. */
  setSheet(id: Id<'setList'>): SetSheet | undefined {
    const { derived } = this.held;
    const list = derived && partOf(derived.rig, id);
    return derived && list && setSheet(derived, list);
  }

  /**
   * A night cue by cue. @param id of all songs when it is left out
   * @param without the computer or the song list that calls sounds: what it called is left to foot and hand
   */
  stage(id: Id<'setList'> | undefined, without = false): Stage | undefined {
    const { derived } = this.held;
    const stopped = derived && without ? withoutLists(derived.rig) : undefined;
    const played = stopped && derived ? deriveOnce(stopped, derived.hookup.id) : derived;
    return played && stageOf(played, id && partOf(played.rig, id));
  }

  /** What each cue of a song asks of foot and hand. */
  footwork(id: Id<'song'>): readonly Footwork[] {
    const { derived } = this.held;
    const song = derived && partOf(derived.rig, id);
    return song ? footworkOf(derived, song) : [];
  }

  /** Which boxes each sound has in its path, as a question of loops. */
  loops(): LoopsOfRig | undefined {
    return this.held.derived && loopsOfRig(this.held.derived);
  }

  /** The orders that sounds ask for, as a question of one order for all. */
  boxesInOrder(): BoxesInOrder | undefined {
    return this.held.derived && boxesInOrder(this.held.derived);
  }

  /** In which order a set needs the fewest changes. */
  setOrder(id: Id<'setList'>): SetOrder | undefined {
    const { derived } = this.held;
    const list = derived && partOf(derived.rig, id);
    return derived && list && setOrder(derived.rig, list);
  }

  /** What lies under the foot, bank by bank. */
  floorCards(id: Id<'setList'> | undefined): readonly FloorCard[] {
    const { derived } = this.held;
    return derived ? floorCards(derived, id && partOf(derived.rig, id)) : [];
  }

  /** Song by song, which memory of which box each cue loads. */
  memoryTable(id: Id<'setList'> | undefined): MemoryTable | undefined {
    const { derived } = this.held;
    return derived && memoryTable(derived, id && partOf(derived.rig, id));
  }

  /** The rig told from the strings to the outputs. */
  telling(): Telling | undefined {
    return this.held.derived && telling(this.held.derived);
  }

  /** What the feet do in a night. @param id of all songs when it is left out */
  dance(id: Id<'setList'> | undefined): Dance | undefined {
    const { derived } = this.held;
    return derived && danceOfSet(derived, id && partOf(derived.rig, id));
  }

  /** A song to be danced in time; 'none' when nothing in it is hit at a known time. */
  drill(id: Id<'song'>): Drill | 'none' | undefined {
    const { derived } = this.held;
    const song = derived && partOf(derived.rig, id);
    return song && (drillOf(derived, song) ?? 'none');
  }

  /** Songs as a sequencer plays them: the file, and what a person should know of it. */
  scoreOf(name: string, songs: readonly Id<'song'>[]): ScoreFile | undefined {
    const { derived } = this.held;
    if (!derived) return undefined;
    const { score, ...said } = setScore(
      derived,
      name,
      songs.flatMap((id) => partOf(derived.rig, id) ?? []),
    );
    return { ...said, midi: Uint8Array.from(writeScore(score)) };
  }

  /** Songs that a file brings, whatever kind of file it is. */
  songsIn(name: string, bytes: Uint8Array): Result<SongsIn, readonly Refusal[]> | undefined {
    return this.held.derived && readSongFile(this.held.derived, name, bytes, () => newPartId('song'));
  }

  songHands(): readonly SongHands[] {
    return this.held.derived ? songHands(this.held.derived) : [];
  }
}

import { handsInSongs, type HandsAtCue } from '../../recall/actuate/hands.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Id } from '../../rig/ids.js';
import type { Derived } from '../steps/deriver.js';

/** What has to be moved by hand or foot in a song, in words. */
export interface SongHands {
  readonly song: Id<'song'>;
  readonly text: string;
  /** Moves while the song goes on. */
  readonly between: number;
}

/** @example 'at solo: OFZ on/off on; before: LDR on/off on' */
export const songHands = (d: Derived): readonly SongHands[] =>
  handsInSongs(d.compilation).map(({ song, before, between }) => {
    const said = (moves: HandsAtCue['moves']) =>
      moves.map((m) => `${controlText(d.rig, m.control)} ${valueText(d.rig, m.control, m.value)}`).join(', ');
    const parts = [
      ...between.map(({ cue, moves }) => `at ${cue.name}: ${said(moves)}`),
      ...(before.length ? [`before: ${said(before)}`] : []),
    ];
    return { song, text: parts.join('; ') || 'nothing', between: between.reduce((n, x) => n + x.moves.length, 0) };
  });

import { standingIn, turnedBetween, type Standing } from '../../dials/dial-cards.js';
import { handsInSongs, type HandsAtCue } from '../../recall/actuate/hands.js';
import { controlText, knobText, valueText } from '../../recall/words/words.js';
import type { Id } from '../../rig/ids.js';
import { thePart } from '../../rig/rig.js';
import type { Cue, Song } from '../../rig/show.js';
import type { Derived } from '../steps/deriver.js';
import { isUsed } from './without.js';

/** What has to be moved by hand or foot in a song, in words. */
export interface SongHands {
  readonly song: Id<'song'>;
  readonly text: string;
  /** Moves and turned knobs while the song goes on. */
  readonly between: number;
}

/** Knobs that a hand turns when the song comes to a cue; at its first one none, as they are set before. */
const turnedAtCues = (d: Derived, song: Song): ReadonlyMap<Cue, readonly Standing[]> => {
  const turned = new Map<Cue, readonly Standing[]>();
  let before: ReadonlyMap<string, Standing> | undefined;
  for (const cue of song.cues) {
    if (!('sound' in cue.call)) continue;
    const { sound } = cue.call;
    const where = { hookup: d.hookup.id, song: song.id, sound };
    const stands = standingIn(d.rig, song.instrument ? { ...where, instrument: song.instrument } : where);
    if (before)
      turned.set(
        cue,
        turnedBetween(before, stands, (device) => isUsed(d, sound, device)),
      );
    before = stands;
  }
  return turned;
};

/** @example 'at solo: OFZ on/off on, OFZ fuzz to 2 o’clock; before: LDR on/off on' */
export const songHands = (d: Derived): readonly SongHands[] =>
  handsInSongs(d.compilation).map(({ song: id, before, between }) => {
    const song = thePart(d.rig, id);
    const turned = turnedAtCues(d, song);
    const moved = new Map(between.map(({ cue, moves }) => [cue, moves]));
    const said = (moves: HandsAtCue['moves'], turns: readonly Standing[] = []) =>
      [
        ...moves.map((m) => `${controlText(d.rig, m.control)} ${valueText(d.rig, m.control, m.value)}`),
        ...turns.map(({ device, knob, at }) => `${knobText(d.rig, device, knob)} to ${at}`),
      ].join(', ');
    const busy = song.cues.flatMap((cue) => {
      const [moves, turns] = [moved.get(cue) ?? [], turned.get(cue) ?? []];
      return moves.length + turns.length ? [{ cue, moves, turns }] : [];
    });
    const parts = [
      ...busy.map(({ cue, moves, turns }) => `at ${cue.name}: ${said(moves, turns)}`),
      ...(before.length ? [`before: ${said(before)}`] : []),
    ];
    return {
      song: id,
      text: parts.join('; ') || 'nothing',
      between: busy.reduce((n, { moves, turns }) => n + moves.length + turns.length, 0),
    };
  });

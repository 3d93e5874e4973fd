import { standingIn, turnedBetween } from '../../dials/dial-cards.js';
import { controlText, knobText, valueText } from '../../recall/words/words.js';
import type { Id } from '../../rig/ids.js';
import { all } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { hitText, movesBetween, SECONDS_PER_STOMP } from './on-foot.js';
import { isUsed } from './without.js';

/** How long a hand takes for one knob, in seconds (assumed). */
export const SECONDS_PER_TURN = 1;

/** From one sound straight to another: what foot and hand do, in the order in which it is heard least. */
export interface FootChangeDetail {
  /** What is hit, and what stays if it is forgotten. */
  readonly steps: readonly { readonly text: string; readonly forgotten: string }[];
  /** Knobs that a hand turns besides. */
  readonly turns: readonly string[];
  readonly seconds: number;
  /** Songs in which the one follows the other, each with its beat in seconds where its tempo is known. */
  readonly songs: readonly { readonly title: string; readonly beat?: number; readonly fits?: boolean }[];
}

const bare = (text: string): string => text.replace(' on/off', '');

export const footChange = (d: Derived, from: Id<'sound'>, to: Id<'sound'>): FootChangeDetail => {
  const { rig, compilation } = d;
  const stood = compilation.sounds.get(from)?.state;
  const steps = movesBetween(compilation, from, to).map((move) => {
    const { control } = move;
    const what = bare(controlText(rig, control));
    const before = stood?.get(control);
    return {
      text: hitText(rig, move),
      forgotten: `${what} stays ${before === undefined ? 'as it was' : valueText(rig, control, before)}`,
    };
  });
  const stands = (sound: Id<'sound'>) => standingIn(rig, { hookup: d.hookup.id, sound });
  const turns = turnedBetween(stands(from), stands(to), (device) => isUsed(d, to, device)).map(
    ({ device, knob, at }) => `${knobText(rig, device, knob)} to ${at}`,
  );
  const seconds = steps.length * SECONDS_PER_STOMP + turns.length * SECONDS_PER_TURN;
  const follows = (cues: readonly Id<'sound'>[]): boolean => cues.some((s, i) => s === from && cues[i + 1] === to);
  const songs = all(rig, 'song')
    .filter((song) => follows(song.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : []))))
    .map(({ title, bpm }) => (bpm === undefined ? { title } : { title, beat: 60 / bpm, fits: seconds <= 60 / bpm }));
  return { steps, turns, seconds, songs };
};

import { making, type Making } from '../change/edit.js';
import type { Hookup, HowMuch, MonitorMix } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';
import type { Song } from '../rig/show.js';

/** What one of the band wants to hear; undefined takes it away. */
export const setMix = (hookup: Hookup, who: string, mix: MonitorMix | undefined): Making<Hookup> => {
  const { mixes = {}, ...rest } = hookup;
  const { [who]: _, ...others } = mixes;
  const now = mix ? { ...others, [who]: mix } : others;
  return making(Object.keys(now).length ? { ...rest, mixes: now } : rest);
};

/** On what somebody hears; undefined: on something that is not of this rig. */
export const hearsAt = (mix: MonitorMix, at: Id<'device'> | undefined): MonitorMix => {
  const { at: _, ...rest } = mix;
  return at ? { ...rest, at } : rest;
};

/** How much of something somebody wants to hear; undefined says nothing of it. */
export const hearsSo = (mix: MonitorMix, what: string, much: HowMuch | undefined): MonitorMix => {
  const { [what]: _, ...others } = mix.hears;
  return { ...mix, hears: much ? { ...others, [what]: much } : others };
};

/** What somebody wants otherwise in a song; nothing takes it away. */
export const wishFor = (song: Song, who: string, wish: string): Making<Song> => {
  const { wishes = {}, ...rest } = song;
  const { [who]: _, ...others } = wishes;
  const now = wish ? { ...others, [who]: wish } : others;
  return making(Object.keys(now).length ? { ...rest, wishes: now } : rest);
};

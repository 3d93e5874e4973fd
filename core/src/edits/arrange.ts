import type { Making } from '../change/edit.js';
import { wantTarget, type Sound } from '../rig/sound.js';
import type { Ref } from '../rig/ids.js';
import { clearWant, setWantIn, type Scope } from './sounds.js';

/**
 * In which order a switcher leads through its loops for a sound. Where all is in line that is said by its stages, so
 * that it holds with another switcher too; ways beside each other are the switcher's own.
 * @param stages of the sound in the order of their loops
 */
export const setArrangement = (
  sound: Sound,
  control: Ref,
  arrangement: string,
  stages: readonly Ref[],
  scope: Scope,
): Making<Sound> => {
  const isInLine = !arrangement.includes('(');
  if (!isInLine) {
    const { order: _, ...rest } = sound;
    return setWantIn(rest, { control, is: arrangement }, scope);
  }
  const [cleared] = clearWant(sound, control, scope).put;
  return { put: [{ ...cleared, order: [...stages] }], remove: [] };
};

/** As the rig is wired again: neither stages nor switchers are told an order. */
export const clearOrder = (sound: Sound, controls: readonly Ref[]): Making<Sound> => {
  const { order: _, orderWhy: _why, ...rest } = sound;
  return { put: [{ ...rest, wants: sound.wants.filter((w) => !controls.includes(wantTarget(w))) }], remove: [] };
};

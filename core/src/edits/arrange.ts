import type { Making } from '../change/edit.js';
import { wantTarget, type Sound } from '../rig/sound.js';
import type { Device } from '../rig/device.js';
import { ref, splitRef, type Ref } from '../rig/ids.js';
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

/** The stages of a box that a sound may order: all that sound in it. */
const stagesIn = (device: Device): readonly Ref[] =>
  device.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' ? [ref(device.id, s.id)] : [])));

/** A sound wants one box before another, besides what it wants already. */
export const wantBefore = (sound: Sound, first: Device, second: Device): Making<Sound> => {
  const [firsts, seconds] = [stagesIn(first).slice(0, 1), stagesIn(second).slice(0, 1)];
  const said = sound.order ?? [];
  const placeOf = (of: readonly Ref[], { id }: Device): number => of.findIndex((s) => splitRef(s).device === id);
  const [a, b] = [placeOf(said, first), placeOf(said, second)];
  if (a >= 0 && b >= 0 && a < b) return { put: [sound], remove: [] };
  if (b < 0) return { put: [{ ...sound, order: [...said, ...(a < 0 ? firsts : []), ...seconds] }], remove: [] };
  const others = said.filter((stage) => splitRef(stage).device !== first.id);
  return { put: [{ ...sound, order: others.toSpliced(placeOf(others, second), 0, ...firsts) }], remove: [] };
};

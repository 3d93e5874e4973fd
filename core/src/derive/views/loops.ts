import type { LoopsProblem } from '../../plan/loops/problem.js';
import { makesSound, type Device } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { isUsed } from './without.js';

/** Which boxes on the floor each sound has in its path, with their names. */
export interface LoopsOfRig {
  readonly problem: LoopsProblem;
  readonly boxes: readonly { readonly device: Id<'device'>; readonly code: string; readonly name: string }[];
  readonly sounds: readonly string[];
}

/** Boxes that a loop could take: on the floor, with one stage of their own or more, and no loops themselves. */
const couldLoop = (device: Device): boolean =>
  device.zone === 'floor' &&
  makesSound(device) &&
  device.chains.some((c) => c.slots.some((s) => s.is === 'block' && s.stage !== 'tuner' && s.stage !== 'volume')) &&
  !device.chains.some((c) => c.slots.some((s) => s.is === 'insert'));

/** Sounds and boxes of a hook-up as a question of loops; undefined where there is nothing to switch. */
export const loopsOfRig = (d: Derived): LoopsOfRig | undefined => {
  const boxes = all(d.rig, 'device').filter((x) => couldLoop(x) && d.anatomy.wiring.wired.has(x.id));
  const sounds = soundsInOrder(d.rig);
  if (boxes.length < 2 || sounds.length < 2) return undefined;
  return {
    problem: {
      boxes: boxes.map((x) => x.code),
      sounds: sounds.map((s) => boxes.map((x) => isUsed(d, s.id, x.id))),
    },
    boxes: boxes.map((x) => ({ device: x.id, code: x.code, name: x.name })),
    sounds: sounds.map((s) => s.name),
  };
};

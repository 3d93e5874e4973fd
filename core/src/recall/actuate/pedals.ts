import { byteFor, type Act } from '../../rig/act.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { stepOf } from '../../rig/midi-manners.js';
import type { Sweep } from '../../rig/program.js';
import { cablesOf, partOf } from '../../rig/rig.js';
import { once } from '../../kept/kept.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';

import type { Caller } from './actuate.js';
import type { Bearings } from './bearings.js';
import type { Swept } from '../intend/compiled.js';
import type { PedalWant } from '../intend/wants.js';
import { controlAt } from '../../rig/box.js';

/** Expression inputs in which something is plugged. */
export const pluggedPedals = (b: Bearings): ReadonlySet<Ref> => pedalInputs(b.anatomy, b);

const pedalInputs = once((_: Anatomy, { rig, hookup }: Bearings): ReadonlySet<Ref> => {
  const isPedal = (end: Ref): boolean => {
    const { device, name } = splitRef(end);
    return partOf(rig, device)?.jacks.some((j) => j.id === name && j.kind === 'expression') ?? false;
  };
  return new Set(cablesOf(rig, hookup.id).flatMap((cable) => cable.ends.filter(isPedal)));
});

/**
 * How each amount that a sound puts under a pedal follows it: over the controller that carries the pedal, on the box
 * itself or by control changes.
 */
export const sweepsOf = (b: Bearings, callers: readonly Caller[], wants: Iterable<PedalWant>): readonly Swept[] =>
  [...wants].map((want): Swept => {
    const { control, pedal, heel, toe, at } = want;
    return { control, pedal, heel, toe, ...(at === undefined ? {} : { at }), by: sweepOf(b, callers, want) };
  });

const sweepOf = (
  b: Bearings,
  callers: readonly Caller[],
  { control, pedal, heel, toe, curve }: PedalWant,
): Swept['by'] => {
  const { device: host, name: jack } = splitRef(pedal);
  if (!pluggedPedals(b).has(pedal)) return 'nothing plugged in';
  const caller = callers.find((c) => c.device.id === host);
  if (!caller) return 'not called';
  const { device, name } = splitRef(control);
  const bent = curve ? { curve } : {};
  if (device === host) return { jack, control: name, heel, toe, step: stepOf(controlAt(b.rig, control)), ...bent };
  for (const way of b.finder.from(host, caller.memory)(control)) {
    const act: Act | undefined = way.by === 'cc' ? way.act : undefined;
    if (way.by === 'cc' && act && 'scale' in act)
      return {
        jack,
        cc: way.number,
        channel: way.channel,
        at: way.at,
        heel: byteFor(heel, act.scale),
        toe: byteFor(toe, act.scale),
        ...bent,
      };
  }
  return 'no way';
};

/** By how much an amount can jump when the pedal is first touched after a recall: nobody knows where it was left. */
export const jumpOf = ({ heel, toe, at }: Swept): number =>
  typeof at === 'number' ? Math.max(Math.abs(at - heel), Math.abs(at - toe)) : Math.abs(toe - heel);

export const sweepsFor = (pedals: readonly Swept[], caller: Caller): readonly Sweep[] =>
  pedals.flatMap(({ pedal, by }) =>
    typeof by === 'object' && splitRef(pedal).device === caller.device.id ? [by] : [],
  );

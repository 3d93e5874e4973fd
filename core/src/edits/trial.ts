import { apply } from '../change/apply.js';
import { nothing, together, type Edit } from '../change/edit.js';
import type { Device } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { all, partOf, thePart, type Rig } from '../rig/rig.js';
import { addDevice, removeDevice } from './devices.js';
import { bridged, moveBox, placesFor, type BoxPlace } from './place.js';
import { inOf } from './wire.js';

/** A box that is tried tonight: one of the kit that has no plug, or one that somebody lends. */
export type Tried = { readonly kit: Id<'device'> } | { readonly borrowed: string; readonly id: Id<'device'> };

/** The rig with the box in it, if it is borrowed, and not plugged yet. */
const withBox = (rig: Rig, tried: Tried): { readonly rig: Rig; readonly edit: Edit; readonly id: Id<'device'> } => {
  if ('kit' in tried) return { rig, edit: nothing, id: tried.kit };
  const edit = addDevice(rig, tried.borrowed, tried.id);
  const added = apply(rig, edit);
  return { rig: added.ok ? added.value.rig : rig, edit, id: tried.id };
};

/** Where a box could be tried: the test loop first, then other free loops, then between two boxes. */
export const trialPlaces = (rig: Rig, hookup: Id<'hookup'>, tried: Tried): readonly BoxPlace[] => {
  const { rig: there, id } = withBox(rig, tried);
  const rank = (p: BoxPlace): number => (p.is === 'loop' ? (p.test ? 0 : 1) : 2);
  return placesFor(there, hookup, id)
    .filter((p) => p.is === 'loop' || p.is === 'between')
    .sort((a, b) => rank(a) - rank(b));
};

/** Puts a box on trial at a place. */
export const beginTrial = (
  rig: Rig,
  hookup: Id<'hookup'>,
  tried: Tried,
  place: BoxPlace,
  newCable: () => Id<'cable'>,
  day: string,
): Edit => {
  const { rig: there, edit, id } = withBox(rig, tried);
  const box = thePart(there, id);
  const trial = { since: day, ...('borrowed' in tried ? { borrowed: true as const } : {}) };
  return together(edit, { put: [{ ...box, trial }], remove: [] }, moveBox(there, hookup, id, place, newCable));
};

/** Boxes on trial, the latest last. */
export const onTrial = (rig: Rig): readonly Device[] => all(rig, 'device').filter((d) => d.trial !== undefined);

/**
 * Takes a box off again: the leads that came and went are joined as they were before it. A borrowed one leaves the
 * kit with all that was said of it.
 */
export const endTrial = (rig: Rig, hookup: Id<'hookup'>, id: Id<'device'>, newCable: () => Id<'cable'>): Edit => {
  const box = partOf(rig, id);
  if (!box?.trial) return nothing;
  const pulled = bridged(rig, hookup, id, newCable);
  if (!box.trial.borrowed) {
    const { trial: _, ...rest } = box;
    return together(pulled, { put: [rest], remove: [] });
  }
  const after = apply(rig, pulled);
  return after.ok ? together(pulled, removeDevice(after.value.rig, id)) : removeDevice(rig, id);
};

/** It stays: nothing but the mark goes. */
export const keepOnTrial = (box: Device): Edit => {
  const { trial: _, ...rest } = box;
  return { put: [rest], remove: [] };
};

/** What a box asks for where it is put: supply, level, leads. In words. */
export const trialNeeds = (box: Pick<Device, 'jacks'>): readonly string[] => {
  const supplies = box.jacks.flatMap((j) => (j.kind === 'power' && j.supply ? [j.supply] : []));
  const mains = box.jacks.some((j) => j.kind === 'mains');
  const into = inOf(box as Device);
  const centre = { negative: 'centre negative', positive: 'centre positive', ac: 'AC' } as const;
  return [
    ...supplies.map(
      (s) => `${s.volts.join(' or ')} V, ${s.milliamps} mA, ${centre[s.centre]}: one more output of the supply`,
    ),
    ...(mains ? ['a mains socket'] : []),
    ...(supplies.length + (mains ? 1 : 0) === 0 ? ['no supply'] : []),
    ...(into ? [`${into.level ?? 'instrument'} level at its input`] : []),
    'two leads',
  ];
};

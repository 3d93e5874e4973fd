import equal from 'fast-deep-equal';
import { freeCode, makeDevice, type GivenTraits } from '../catalogue/make.js';
import { making, type Making, nothing, type Edit } from '../change/edit.js';
import type { Device } from '../rig/device.js';
import type { Hookup } from '../rig/hookup.js';
import { splitRef, type Id } from '../rig/ids.js';
import { refersTo } from '../rig/references.js';
import { renamedIn, renamedPart, type Renaming } from '../rig/renaming.js';
import { all, everyPart, partOf, type Part, type Rig } from '../rig/rig.js';
import { wantTarget, type Want } from '../rig/sound.js';

/** Adds a box from the catalogue; its code is made free. */
export const addDevice = (
  rig: Rig,
  key: string,
  id: Id<'device'>,
  chosen: GivenTraits = {},
  alsoTaken: readonly string[] = [],
): Making<Device> => {
  const device = makeDevice(key, id, chosen);
  const taken = [...all(rig, 'device').map((d) => d.code), ...alsoTaken];
  const at = Math.max(0, ...all(rig, 'device').map((d) => d.at ?? 0)) + alsoTaken.length + 1;
  return making({ ...device, at, code: freeCode(chosen.code ?? device.code, taken) });
};

/** Adds a box that was made elsewhere, such as one of a person's shelf; its code is made free. */
export const addMade = (rig: Rig, box: Device, id: Id<'device'>): Edit => {
  const devices = all(rig, 'device');
  return {
    put: [
      {
        ...box,
        id,
        at: Math.max(0, ...devices.map((d) => d.at ?? 0)) + 1,
        code: freeCode(
          box.code,
          devices.map((d) => d.code),
        ),
      },
    ],
    remove: [],
  };
};

export const changeDevice = (device: Device, change: Partial<Omit<Device, 'id' | 'kind'>>): Edit => ({
  put: [{ ...device, ...change }],
  remove: [],
});

/**
 * A box as it was rebuilt. What was called otherwise on the way is called so by its cables, programs, sounds, moves
 * and hook-ups too, so that nothing loses what it pointed at.
 */
export const rebuildDevice = (rig: Rig, device: Device, renamed: readonly Renaming[]): Edit => {
  const old = partOf(rig, device.id);
  if (!old || renamed.length === 0) return { put: [device], remove: [] };
  const put: Part[] = [];
  for (const part of everyPart(rig)) {
    if (part.id === device.id) continue;
    let [box, said] = [old, part];
    for (const change of renamed) {
      said = renamedPart(said, box, change);
      box = renamedIn(box, change);
    }
    if (!equal(said, part)) put.push(said);
  }
  return { put: [device, ...put], remove: [] };
};

/**
 * Takes a box away with everything that hangs on it: cables, programs, and what sounds and moves want of it. Every
 * part is named.
 */
export const removeDevice = (rig: Rig, id: Id<'device'>): Edit => {
  if (!partOf(rig, id)) return nothing;
  const put: Part[] = [];
  const remove: Part['id'][] = [id];
  for (const part of everyPart(rig)) {
    if (part.id === id || !refersTo(part).includes(id)) continue;
    const rest = without(part, id);
    if (rest) put.push(rest);
    else remove.push(part.id);
  }
  return { put, remove };
};

const mixesWithout = (mixes: NonNullable<Hookup['mixes']>, id: Id<'device'>): NonNullable<Hookup['mixes']> =>
  Object.fromEntries(
    Object.entries(mixes).map(([who, { at, ...mix }]) => [who, at && at !== id ? { ...mix, at } : mix]),
  );

const without = (part: Part, id: Id<'device'>): Part | undefined => {
  const other = (r: string) => splitRef(r).device !== id;
  const keep = (wants: readonly Want[]) =>
    wants.filter((w) => other(wantTarget(w)) && w.in?.instrument !== id && !('pedal' in w && !other(w.pedal)));
  switch (part.kind) {
    case 'sound': {
      const { hears, order, ...rest } = part;
      return {
        ...rest,
        wants: keep(part.wants),
        calls: part.calls.filter((c) => c.device !== id),
        ...(hears ? { hears: hears.filter((h) => other(h.at) && other(h.from)) } : {}),
        ...(order ? { order: order.filter(other) } : {}),
      };
    }
    case 'move':
      return { ...part, at: part.at.filter((a) => a.device !== id), on: keep(part.on), off: keep(part.off) };
    case 'song': {
      const { instrument, ...rest } = part;
      const cues = part.cues.filter(({ call }) => !('track' in call) || other(call.track));
      return { ...rest, ...(instrument && instrument !== id ? { instrument } : {}), cues };
    }
    case 'engagement':
      return { ...part, banks: (part.banks ?? []).filter((b) => b.device !== id) };
    case 'hookup': {
      const { [id]: _, ...place } = part.place ?? {};
      return {
        ...part,
        ...(part.place ? { place } : {}),
        settings: Object.fromEntries(Object.entries(part.settings).filter(([r]) => other(r))),
        hears: part.hears.filter((h) => other(h.at) && other(h.from)),
        assumes: part.assumes.filter((a) => other(a.control)),
        ...(part.mixes ? { mixes: mixesWithout(part.mixes, id) } : {}),
      };
    }
    case 'packCase':
      // Its name stays on the list, as one thing among others.
      return {
        ...part,
        holds: Object.fromEntries(
          Object.entries(part.holds).map(([name, { device, ...thing }]) => [
            name,
            device && device !== id ? { ...thing, device } : thing,
          ]),
        ),
      };
    default:
      return undefined;
  }
};

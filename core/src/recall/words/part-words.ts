import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { jackIn } from '../../rig/box.js';

// What a person calls the parts of a rig: by the name on the box, with its code where two boxes share one.

const shared = new WeakMap<Rig['parts']['device'], ReadonlySet<string>>();
const sharedNames = (rig: Rig): ReadonlySet<string> =>
  keptIn(shared, rig.parts.device, () => {
    const names = [...rig.parts.device.values()].map((d) => d.name);
    return new Set(names.filter((name, i) => names.indexOf(name) !== i));
  });

/** @example boxText(rig, 'device:b') // 'DI box (DI2)' where there are two of them */
export const boxText = (rig: Rig, id: Id<'device'>): string => {
  const device = partOf(rig, id);
  if (!device) return 'a box that is gone';
  return sharedNames(rig).has(device.name) ? `${device.name} (${device.code})` : device.name;
};

const stageTexts = new WeakMap<Rig['parts']['device'], Map<Ref, string>>();

/**
 * A stage: its box, and the block where the box has several.
 * @example stageText(rig, 'device:dly.delay') // 'Stereo delay'
 */
export const stageText = (rig: Rig, stage: Ref): string =>
  keptIn(
    keptIn(stageTexts, rig.parts.device, () => new Map<Ref, string>()),
    stage,
    () => textOfStage(rig, stage),
  );

const textOfStage = (rig: Rig, stage: Ref): string => {
  const { device, name } = splitRef(stage);
  const blocks = partOf(rig, device)?.chains.flatMap((c) => c.slots).length ?? 0;
  return blocks > 1 ? `${boxText(rig, device)}, ${name}` : boxText(rig, device);
};

/** The place where somebody hears it, as its box calls it. */
export const endText = (rig: Rig, at: Ref): string => {
  const { device, name } = splitRef(at);
  return partOf(rig, device)?.ends?.find((e) => e.at === name)?.name ?? boxText(rig, device);
};

/** A jack of a box as one reads it there; what lies inside a box is told by the box alone. */
export const pointText = (
  rig: Rig,
  { device: id, at }: { readonly device: Id<'device'>; readonly at: string },
): string => {
  const name = at.slice(id.length + 1).replace(/:.*$/, '');
  const jack = jackIn(partOf(rig, id), name);
  return jack ? `${boxText(rig, id)}, jack ${jack.id}` : boxText(rig, id);
};

import type { Device } from '@yunta/core/rig/device';
import { ref, splitRef, type Ref } from '@yunta/core/rig/ids';
import { all, partOf, type Rig } from '@yunta/core/rig/rig';
import { controlColumn, type Column } from '@yunta/core/sheets/sound-sheet';
import { theEntry } from '@yunta/core/known/the';

/** The sheet's columns with those that the page asked for, each beside the others of its box. */
export const withColumns = (rig: Rig, columns: readonly Column[], more: readonly Ref[]): readonly Column[] => {
  const known = new Set(columns.map((c) => c.id));
  const extra = more
    .filter((r) => !known.has(r))
    .flatMap((r) => {
      const { device, name } = splitRef(r);
      const box = partOf(rig, device);
      const control = box?.controls.find((c) => c.id === name);
      return box && control ? [controlColumn(box, control)] : [];
    });
  const after = new Map(extra.map((c) => [c, columns.findLastIndex((o) => o.device === c.device)]));
  return [
    ...columns.flatMap((c, i) => [c, ...extra.filter((e) => after.get(e) === i)]),
    ...extra.filter((e) => theEntry(after, e) < 0),
  ];
};

/** A loop of a switcher: which of them is in is worked out from the stages that a sound wants. */
const switchesLoop = (device: Device, control: string): boolean =>
  device.chains.some((chain) =>
    chain.slots.some((s) => s.is === 'insert' && s.on?.some((f) => 'control' in f && f.control === control)),
  );

/** Controls that could be a column and are none. */
export const addable = (rig: Rig, columns: readonly Column[]): { value: string; label: string }[] => {
  const known = new Set(columns.map((c) => c.id));
  return all(rig, 'device').flatMap((d) =>
    d.controls
      .filter(
        (c) =>
          c.use === 'sound' &&
          !known.has(ref(d.id, c.id)) &&
          !d.memories.some((m) => m.control === c.id) &&
          !switchesLoop(d, c.id),
      )
      .map((c) => ({ value: ref(d.id, c.id), label: `${d.code} ${c.name ?? c.id}, ${d.name}` })),
  );
};

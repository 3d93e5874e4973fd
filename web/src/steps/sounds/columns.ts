import type { Device } from '@yunta/core/rig/device';
import { ref, splitRef, type Ref } from '@yunta/core/rig/ids';
import { all, partOf, type Rig } from '@yunta/core/rig/rig';
import { controlColumn, type Column } from '@yunta/core/sheets/sound-sheet';

/**
 * The sheet's columns with those that the page asked for. The amounts of a box stand in the order of the box, whether a
 * sound says them or the page asked: no column moves when the first sound says one.
 */
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
  const devices = [...new Set([...columns, ...extra].map((c) => c.device))];
  return devices.flatMap((device) => {
    const own = [...columns, ...extra].filter((c) => c.device === device);
    const place = new Map(partOf(rig, device)?.controls.map((c, i) => [ref(device, c.id), i]));
    const placeOf = (c: Column): number => (c.is === 'amount' ? (place.get(c.control) ?? 0) : -1);
    return own.sort((a, b) => placeOf(a) - placeOf(b));
  });
};

/** A loop of a switcher: which of them is in is worked out from the stages that a sound wants. */
const switchesLoop = (device: Device, control: string): boolean =>
  device.chains.some((chain) =>
    chain.slots.some((s) => s.is === 'insert' && s.on?.some((f) => 'control' in f && f.control === control)),
  );

/** One control that could be a column, or all of a box at once. */
export interface Addable {
  readonly value: string;
  readonly label: string;
  readonly controls: readonly Ref[];
}

/** From so many of one box on they can be had together. */
const MANY = 3;

/** Controls that could be a column and are none; of a box that has many, all together first. */
export const addable = (rig: Rig, columns: readonly Column[]): readonly Addable[] => {
  const known = new Set(columns.map((c) => c.id));
  return all(rig, 'device').flatMap((d): readonly Addable[] => {
    const own = d.controls
      .filter(
        (c) =>
          c.use === 'sound' &&
          !/^(latch|held)-/.test(c.id) &&
          !known.has(ref(d.id, c.id)) &&
          !d.memories.some((m) => m.control === c.id) &&
          !switchesLoop(d, c.id),
      )
      .map(({ id, name = id, domain }) => ({ at: ref(d.id, id), name, isAmount: 'min' in domain }));
    const amounts = own.filter((c) => c.isAmount);
    return [
      ...(amounts.length >= MANY
        ? [{ value: d.id, label: `All amounts of ${d.code}, ${d.name}`, controls: amounts.map((c) => c.at) }]
        : []),
      ...own.map(({ at, name }) => ({ value: at, label: `${d.code} ${name}, ${d.name}`, controls: [at] })),
    ];
  });
};

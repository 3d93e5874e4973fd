import type { Id } from '../rig/ids.js';
import type { Packed } from '../rig/packing.js';
import { all, type Rig } from '../rig/rig.js';

/** A backup or another unit that does not hold any more what its box holds. */
export interface Stale {
  readonly device: Id<'device'>;
  /** As it is packed. */
  readonly name: string;
  /** The day of which it is; absent where nobody said. */
  readonly asOf?: string;
  /** Programs that were typed into the box since. */
  readonly since: number;
}

/** Whether what a thing holds can grow old: a backup, or a spare of a box with memories. */
export const holdsContents = (rig: Rig, { device, is }: Packed): boolean =>
  device !== undefined &&
  (is === 'digital' || (is === 'spare' && (rig.parts.device.get(device)?.memories.length ?? 0) > 0));

/** Backups and spare units that are older than what was typed into their box, or of which nobody knows the day. */
export const goneStale = (rig: Rig): readonly Stale[] =>
  all(rig, 'packCase').flatMap(({ holds }) =>
    Object.entries(holds).flatMap(([name, thing]): readonly Stale[] => {
      const { device, asOf } = thing;
      if (!device || !holdsContents(rig, thing)) return [];
      const typed = all(rig, 'tick').filter(
        (t) =>
          t.device === device && Object.values(t.lines).some((l) => asOf === undefined || l.when.slice(0, 10) > asOf),
      );
      if (asOf !== undefined && typed.length === 0) return [];
      return [{ device, name, since: typed.length, ...(asOf === undefined ? {} : { asOf }) }];
    }),
  );

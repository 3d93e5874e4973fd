import { troublesOf, type Troubles } from '../../edits/logbook.js';
import { goneStale, type Stale } from '../../board/stale.js';
import type { Id } from '../../rig/ids.js';
import { all } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { gigBoxes } from './gig.js';

/** How badly a spare of a box may be needed. */
export interface SpareNeed {
  readonly device: Id<'device'>;
  readonly name: string;
  /** Sounds in which it is heard, of so many. */
  readonly sounds: number;
  readonly of: number;
  /** What failed of it so far. */
  readonly troubles: readonly Troubles[];
  /** Where a spare is packed. */
  readonly packed: readonly string[];
  /** Spares that no longer hold what it holds. */
  readonly stale: readonly Stale[];
}

/** How often it failed, once more for what never did yet. */
const often = ({ troubles }: SpareNeed): number => 1 + troubles.reduce((sum, t) => sum + t.times, 0);

/** Boxes of a hook-up, that first whose spare is most likely to save most sounds: how often it failed, by how many sounds need it. */
export const spareNeeds = (d: Derived): readonly SpareNeed[] => {
  const troubles = troublesOf(d.rig);
  const stale = goneStale(d.rig);
  const risk = (need: SpareNeed): number => often(need) * need.sounds;
  return gigBoxes(d)
    .flatMap(({ device, name, use }): readonly SpareNeed[] =>
      use
        ? [
            {
              device,
              name,
              sounds: use.sounds,
              of: use.of,
              troubles: troubles.get(device) ?? [],
              packed: all(d.rig, 'packCase').flatMap((c) =>
                Object.values(c.holds).some((t) => t.device === device && t.is === 'spare') ? [c.name] : [],
              ),
              stale: stale.filter((s) => s.device === device),
            },
          ]
        : [],
    )
    .filter((need) => need.sounds > 0 || need.troubles.length > 0)
    .sort((a, b) => risk(b) - risk(a));
};

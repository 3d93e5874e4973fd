import { troublesOf, type Troubles } from '../../edits/logbook.js';
import { goneStale, type Stale } from '../../board/stale.js';
import type { Id } from '../../rig/ids.js';
import { afterFailure, outcomeOf } from '../../plan/fails/after.js';
import { failuresOf } from '../../plan/fails/failure.js';
import { boxText } from '../../recall/words/part-words.js';
import { all, thePart } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';

/** How badly a spare of a box may be needed. */
export interface SpareNeed {
  readonly device: Id<'device'>;
  readonly name: string;
  /** Sounds that suffer when it dies, of so many. */
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

/**
 * Boxes and supplies of a hook-up, that first whose spare is most likely to save most sounds: how many sounds suffer
 * when it dies, by how often it failed.
 */
export const spareNeeds = (d: Derived): readonly SpareNeed[] => {
  const troubles = troublesOf(d.rig);
  const stale = goneStale(d.rig);
  const risk = (need: SpareNeed): number => often(need) * need.sounds;
  return failuresOf(d.rig, d.hookup, d.anatomy)
    .flatMap((failure): readonly SpareNeed[] => {
      if (failure.is !== 'box' && failure.is !== 'supply') return [];
      const { device } = failure;
      if (thePart(d.rig, device).ends?.some((e) => e.is === 'house')) return [];
      const after = afterFailure(d.compilation, failure);
      return [
        {
          device,
          name: boxText(d.rig, device),
          sounds: after.filter((a) => outcomeOf(a) !== 'whole').length,
          of: after.length,
          troubles: troubles.get(device) ?? [],
          packed: all(d.rig, 'packCase').flatMap((c) =>
            Object.values(c.holds).some((t) => t.device === device && t.is === 'spare') ? [c.name] : [],
          ),
          stale: stale.filter((s) => s.device === device),
        },
      ];
    })
    .filter((need) => need.sounds > 0 || need.troubles.length > 0 || need.stale.length > 0)
    .sort((a, b) => risk(b) - risk(a));
};

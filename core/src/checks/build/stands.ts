import { freeSpot } from '../../board/free.js';
import { boardFaults, type BoardFault } from '../../board/faults.js';
import { laidOut } from '../../board/laid-out.js';
import { standAt } from '../../edits/boards.js';
import type { Id } from '../../rig/ids.js';
import type { CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';

/** What is wrong with where boxes stand, of these kinds. */
export const faultsHere = <K extends BoardFault['is']>(
  { rig, hookup }: CheckInputs,
  kinds: readonly K[],
): readonly Extract<BoardFault, { is: K }>[] =>
  boardFaults(laidOut(rig, hookup)).filter((f): f is Extract<BoardFault, { is: K }> =>
    kinds.some((kind) => kind === f.is),
  );

/** A box is moved to the nearest free place on its board, where there is one. */
export const moveAway = ({ rig, hookup }: CheckInputs, box: Id<'device'>): readonly Remedy[] => {
  const spot = hookup.place?.[box];
  const free = spot && freeSpot(rig, hookup, box, spot);
  return [
    ...(free
      ? [
          {
            id: `move ${box}`,
            label: `Move ${boxName(rig, box)} to the nearest free place`,
            promise: 'clears' as const,
            by: 'program' as const,
            edit: standAt(hookup, { [box]: free }),
          },
        ]
      : []),
    {
      id: `down ${box}`,
      label: `Take ${boxName(rig, box)} off the board`,
      promise: 'clears' as const,
      by: 'program' as const,
      edit: standAt(hookup, { [box]: undefined }),
    },
  ];
};

/** @example mmText(12.4) // '12 mm' */
export const mmText = (mm: number): string => `${Math.ceil(mm)} mm`;

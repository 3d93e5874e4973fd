import { withChannel } from '@yunta/core/catalogue/box-parts';
import { apply } from '@yunta/core/change/apply';
import { rebuildDevice } from '@yunta/core/edits/devices';
import type { Device } from '@yunta/core/rig/device';
import { renamedIn, type Renaming } from '@yunta/core/rig/renaming';
import type { Refusal } from '@yunta/core/rig/result';
import type { Rig } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';

/** A box as it is being rebuilt, and all that was done to it so far. */
export interface Draft {
  readonly device: Device;
  readonly change: (device: Device) => void;
  /** Calls things otherwise, here and wherever the rig speaks of it. */
  readonly rename: (...changes: readonly Renaming[]) => void;
  readonly undo: (() => void) | undefined;
  readonly renamed: readonly Renaming[];
  /** Why it cannot be kept yet. */
  readonly refused: readonly Refusal[];
}

interface Step {
  readonly device: Device;
  readonly renamed: readonly Renaming[];
}

/** A draft of a box: nothing of it is in the rig before it is kept. */
export const useDraft = (rig: Rig, start: Device): Draft => {
  const [steps, setSteps] = useState<readonly Step[]>([{ device: start, renamed: [] }]);
  const step = steps.at(-1) ?? { device: start, renamed: [] };
  const device = useMemo(() => withChannel(step.device), [step]);
  const refused = useMemo((): readonly Refusal[] => {
    const applied = apply(rig, rebuildDevice(rig, device, step.renamed));
    return applied.ok ? [] : applied.error;
  }, [rig, device, step]);
  return {
    device,
    renamed: step.renamed,
    refused,
    change: (next) => setSteps([...steps, { device: next, renamed: step.renamed }]),
    rename: (...changes) =>
      setSteps([...steps, { device: changes.reduce(renamedIn, step.device), renamed: [...step.renamed, ...changes] }]),
    undo: steps.length > 1 ? () => setSteps(steps.slice(0, -1)) : undefined,
  };
};

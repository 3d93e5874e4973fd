import { withChannel } from '@yunta/core/catalogue/box-parts';
import { apply } from '@yunta/core/change/apply';
import { rebuildDevice } from '@yunta/core/edits/devices';
import type { Device } from '@yunta/core/rig/device';
import { renamedIn, type Renaming } from '@yunta/core/rig/renaming';
import type { Refusal } from '@yunta/core/rig/result';
import type { Rig } from '@yunta/core/rig/rig';
import { theItem } from '@yunta/core/known/the';
import { useMemo, useState } from 'react';

/** A box as it is being rebuilt, and all that was done to it so far. */
export interface Draft {
  readonly device: Device;
  /** `during` names a gesture that goes on: all of it is one step back. */
  readonly change: (device: Device, during?: string) => void;
  /** Calls things otherwise, here and wherever the rig speaks of it. */
  readonly rename: (...changes: readonly Renaming[]) => void;
  readonly undo: (() => void) | undefined;
  readonly renamed: readonly Renaming[];
  /** Why it cannot be kept yet. */
  readonly refused: readonly Refusal[];
}

interface Step {
  readonly device: Device;
  readonly during?: string;
  readonly renamed: readonly Renaming[];
}

interface Steps {
  readonly step: Step;
  readonly before: readonly Step[];
}

/** A draft of a box: nothing of it is in the rig before it is kept. */
export const useDraft = (rig: Rig, start: Device): Draft => {
  const [{ step, before }, setSteps] = useState<Steps>({ step: { device: start, renamed: [] }, before: [] });
  const go = (next: Step) => {
    const goesOn = next.during !== undefined && next.during === step.during;
    setSteps({ step: next, before: goesOn ? before : [...before, step] });
  };
  const device = useMemo(() => withChannel(step.device), [step]);
  const refused = useMemo((): readonly Refusal[] => {
    const applied = apply(rig, rebuildDevice(rig, device, step.renamed));
    return applied.ok ? [] : applied.error;
  }, [rig, device, step]);
  return {
    device,
    renamed: step.renamed,
    refused,
    change: (next, during) => go({ device: next, renamed: step.renamed, ...(during === undefined ? {} : { during }) }),
    rename: (...changes) =>
      go({ device: changes.reduce(renamedIn, step.device), renamed: [...step.renamed, ...changes] }),
    undo: before.length
      ? () => setSteps({ step: theItem(before, before.length - 1), before: before.slice(0, -1) })
      : undefined,
  };
};

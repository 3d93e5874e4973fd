import type { AnyId } from '@yunta/core/rig/ids';
import { all } from '@yunta/core/rig/rig';
import { useRig } from '../../../shared/rig-context.js';

/** Boxes and houses, as something to write about. */
export const useSubjects = (): readonly { readonly value: AnyId; readonly label: string }[] => {
  const { rig } = useRig();
  return [
    ...all(rig, 'device').map((d) => ({ value: d.id, label: d.name })),
    ...all(rig, 'house').map((h) => ({ value: h.id, label: h.name })),
  ];
};

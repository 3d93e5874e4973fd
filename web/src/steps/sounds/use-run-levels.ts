import type { Id, Ref } from '@yunta/core/rig/ids';
import { useMemo } from 'react';
import type { RunLevels } from '../../picture/run.js';
import { useAsked } from '../../shared/rig-context.js';

const text = (dbu: number): string => `${String(dbu).replace('-', '−')} dBu`;

/** How loud a sound is on average along its run: behind each box, and where it ends; of several sources the loudest. */
export const useRunLevels = (sound: Id<'sound'>): RunLevels | undefined => {
  const ways = useAsked(['sound-levels', sound], (worker) => worker.answers.soundLevels(sound));
  return useMemo(() => {
    if (!ways) return undefined;
    const boxes = new Map<Id<'device'>, string>();
    const ends = new Map<Ref, number>();
    for (const { steps, outputs } of ways) {
      for (const { device, is, average } of steps) if (is !== 'input') boxes.set(device, text(average));
      for (const { end, average } of outputs) ends.set(end, Math.max(average, ends.get(end) ?? -Infinity));
    }
    return { boxes, ends: new Map([...ends].map(([end, dbu]) => [end, text(dbu)])) };
  }, [ways]);
};

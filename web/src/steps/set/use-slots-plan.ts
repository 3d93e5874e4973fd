import { proxy, wrap } from 'comlink';
import type { PlanProgress } from '@yunta/core/plan/slots/plan';
import type { SlotsProblem } from '@yunta/core/plan/slots/problem';
import { useEffect, useRef, useState } from 'react';
import type { Planning } from '../../worker/plan.worker.js';

export interface SlotsPlanning {
  readonly is: 'at rest' | 'planning' | 'stopped' | 'done' | 'failed';
  readonly best?: PlanProgress;
  /** Since it began, in seconds, as soon as it has ended. */
  readonly seconds?: number;
}

/** Plans slots in a worker of its own: it can be stopped at any time, and what it has by then is kept. */
export const useSlotsPlan = () => {
  const worker = useRef<Worker>(undefined);
  const [state, set] = useState<SlotsPlanning>({ is: 'at rest' });
  const end = (): void => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => end, []);
  const start = (problem: SlotsProblem): void => {
    end();
    const began = performance.now();
    const mine = new Worker(new URL('../../worker/plan.worker.ts', import.meta.url), { type: 'module', name: 'plan' });
    worker.current = mine;
    const isMine = (): boolean => worker.current === mine;
    const over = (is: 'done' | 'failed', best?: PlanProgress): void => {
      if (!isMine()) return;
      end();
      set((before) => ({ ...before, ...(best ? { best } : {}), is, seconds: (performance.now() - began) / 1000 }));
    };
    set({ is: 'planning' });
    const tell = proxy((best: PlanProgress) => isMine() && set({ is: 'planning', best }));
    wrap<Planning>(mine)
      .slots(problem, tell)
      .then(
        (best) => over('done', best),
        () => over('failed'),
      );
  };
  const stop = (): void => {
    end();
    set((before) => ({ ...before, is: 'stopped' }));
  };
  return { state, start, stop, forget: () => set({ is: 'at rest' }) };
};

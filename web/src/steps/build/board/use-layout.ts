import { proxy, wrap } from 'comlink';
import type { LayoutPlan } from '@yunta/core/plan/board/layout';
import type { BoardProblem } from '@yunta/core/plan/board/of-rig';
import { useEffect, useRef, useState } from 'react';
import { planWorker } from '../../../worker/planned.js';
import type { Planning } from '../../../worker/plan.worker.js';

export interface Laying {
  readonly is: 'at rest' | 'looking' | 'stopped' | 'done' | 'failed';
  readonly problem?: BoardProblem;
  readonly plan?: LayoutPlan;
  readonly seconds?: number;
}

/** Lays a board out in a worker of its own: it can be stopped at any time, and what it has by then is kept. */
export const useLayout = () => {
  const worker = useRef<Worker>(undefined);
  const [state, set] = useState<Laying>({ is: 'at rest' });
  const end = (): void => {
    worker.current?.terminate();
    worker.current = undefined;
  };
  useEffect(() => end, []);
  const start = (problem: BoardProblem): void => {
    end();
    const began = performance.now();
    const mine = planWorker('layout');
    worker.current = mine;
    const isMine = (): boolean => worker.current === mine;
    const over = (with_: Pick<Laying, 'is'> & Partial<Laying>): void => {
      if (!isMine()) return;
      end();
      set((before) => ({ ...before, ...with_, seconds: (performance.now() - began) / 1000 }));
    };
    set({ is: 'looking', problem });
    const tell = proxy((plan: LayoutPlan) => isMine() && set({ is: 'looking', problem, plan }));
    wrap<Planning>(mine)
      .layout(problem, tell)
      .then((plan) => over({ is: 'done', plan }))
      .catch(() => over({ is: 'failed' }));
  };
  const stop = (): void => {
    end();
    set((before) => ({ ...before, is: 'stopped' }));
  };
  return { state, start, stop, forget: () => set({ is: 'at rest' }) };
};

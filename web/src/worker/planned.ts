import { wrap, type Remote } from 'comlink';
import type { Planning } from './plan.worker.js';

export const planWorker = (name: string): Worker =>
  new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module', name });

/** What a planner found, and how long it took, in seconds. */
export interface Planned<P> {
  readonly plan: P | undefined;
  readonly seconds: number;
}

/** Asks a planner in a worker of its own that ends with its answer. */
export const planned = async <P>(ask: (planning: Remote<Planning>) => Promise<P | undefined>): Promise<Planned<P>> => {
  const worker = planWorker('once');
  const began = performance.now();
  try {
    return { plan: await ask(wrap<Planning>(worker)), seconds: (performance.now() - began) / 1000 };
  } finally {
    worker.terminate();
  }
};

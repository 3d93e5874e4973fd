import type { BenchAct } from '../../derived/deriving.js';

/** Does something on the bench; done when the bench shows it. */
export type DoOnBench = (what: BenchAct) => Promise<void>;

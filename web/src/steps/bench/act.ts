import type { BenchAct } from '../../worker/bench-play.js';

/** Does something on the bench; done when the bench shows it. */
export type DoOnBench = (what: BenchAct) => Promise<void>;

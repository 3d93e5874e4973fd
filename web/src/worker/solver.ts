import { highsSolver, type Solver } from '@yunta/core/plan/solver';

/** The solver of integer programmes, loaded when it is asked for the first time. */
export const loadSolver = async (): Promise<Solver> => {
  const [{ default: load }, { default: wasm }] = await Promise.all([import('highs'), import('highs/runtime?url')]);
  return highsSolver(await load({ locateFile: () => wasm }));
};

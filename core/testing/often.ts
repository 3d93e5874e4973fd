/**
 * How often a law is tried on random cases: so often in every run of the tests, and many times as often under
 * `npm run verify` (YUNTA_OFTEN).
 */
export const often = (usual: number): number => Math.round(usual * Number(process.env.YUNTA_OFTEN ?? 1));

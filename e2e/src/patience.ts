/** How long a page may take for anything, in ms: a busy machine is slow, and only a fault uses it up. */
export const PATIENCE = 60_000;

/** How long a page may take for anything, in ms: a busy machine is slow, and only a fault uses it up. */
export const PATIENCE = Number(process.env.YUNTA_PATIENCE ?? 60) * 1000;

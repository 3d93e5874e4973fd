/** As 2026-05-31. */
export const today = (): string => new Date().toISOString().slice(0, 10);

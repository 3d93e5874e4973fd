/**
 * Format numbers: every stored part, journal entry and file carries the one it was written in. A newer Yunta brings
 * older parts up to
 * date by the steps below, one number at a time; a part from a newer Yunta is refused.
 */
export const FORMAT = 1;

type Raw = Readonly<Record<string, unknown>>;

/** From format n to n + 1. None yet: this is the first. */
const STEPS: readonly ((part: Raw) => Raw)[] = [];

/** @returns the part in today's format; undefined when it was written by a newer Yunta or its number makes no sense */
export const broughtUpToDate = (part: unknown, format: unknown): unknown => {
  if (typeof format !== 'number' || !Number.isInteger(format) || format < 1 || format > FORMAT) return undefined;
  return STEPS.slice(format - 1).reduce<unknown>((p, step) => step(p as Raw), part);
};

import type { Edit } from '../change/edit.js';
import type { Hookup, LineCheck } from '../rig/hookup.js';

/** The line check of a day; undefined when nothing was ticked then. */
export const lineCheckOn = ({ lineChecks = [] }: Hookup, on: string): LineCheck | undefined =>
  lineChecks.find((c) => c.on === on);

/**
 * Ticks a line of a day's check off, or opens it again. A day on which nothing is ticked is no check.
 * @param how by whom and when; undefined: it is open again
 */
export const tickLine = (
  hookup: Hookup,
  on: string,
  line: string,
  how: { readonly by: string; readonly when: string } | undefined,
): Edit => {
  const before = lineCheckOn(hookup, on)?.ticked ?? {};
  const others = Object.entries(before).filter(([text]) => text !== line);
  const ticked = Object.fromEntries(how ? [...others, [line, how]] : others);
  const days = (hookup.lineChecks ?? []).filter((c) => c.on !== on);
  const checks = Object.keys(ticked).length ? [...days, { on, ticked }] : days;
  const { lineChecks: _, ...rest } = hookup;
  const sorted = [...checks].sort((a, b) => b.on.localeCompare(a.on));
  return { put: [{ ...rest, ...(sorted.length ? { lineChecks: sorted } : {}) }], remove: [] };
};

import type { Hookup } from '../../rig/hookup.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import { Keep, STEPS, type Given, type Results } from './steps.js';

/** Everything that follows from one revision of a rig in one hook-up. */
export type Derived = Given & Results;

/** What is ticked before a gig, where boxes stand and what the band hears make no sound anew: the hook-up is the one of before. */
const unlessHeard = (before: Hookup | undefined, now: Hookup): Hookup => {
  const said = (hookup: Hookup): string =>
    JSON.stringify({ ...hookup, lineChecks: undefined, place: undefined, mixes: undefined });
  return before && said(before) === said(now) ? before : now;
};

/**
 * Makes everything from a rig. Remembers the last result by hook-up; a step is carried out again only where its inputs
 * changed.
 */
export class Deriver {
  private readonly last = new Map<Id<'hookup'>, { readonly derived: Derived; readonly keep: Keep }>();

  /** @returns undefined when there is no such hook-up */
  derive(rig: Rig, hookupId: Id<'hookup'>): Derived | undefined {
    const found = partOf(rig, hookupId);
    if (!found) return undefined;
    const { parts } = rig;
    const before = this.last.get(hookupId);
    const hookup = unlessHeard(before?.derived.hookup, found);
    const keep = before?.keep ?? new Keep();
    const given: Given = {
      rig,
      hookup,
      about: parts.about,
      place: found.place,
      packCases: parts.packCase,
      devices: parts.device,
      programs: parts.program,
      cables: parts.cable,
      sounds: parts.sound,
      moves: parts.move,
      songs: parts.song,
      setLists: parts.setList,
      engagements: parts.engagement,
      acceptances: parts.acceptance,
      dialCards: parts.dialCard,
    };
    const old = before?.derived;
    // Each step finds what it needs among the results of those before it: the table is in that order.
    const derived = STEPS.reduce<Derived>((known, step) => {
      const unchanged = old !== undefined && step.needs.every((need) => old[need] === known[need]);
      return { ...known, [step.makes]: unchanged ? old[step.makes] : step.run(known, keep) };
    }, given as Derived);
    this.last.set(hookupId, { derived, keep });
    return derived;
  }
}

/** From scratch, with nothing remembered. */
export const deriveOnce = (rig: Rig, hookup: Id<'hookup'>): Derived | undefined => new Deriver().derive(rig, hookup);

/** The hook-up of that name or id; the first one when none is named. */
export const hookupNamed = (rig: Rig, name?: string): Id<'hookup'> | undefined =>
  all(rig, 'hookup').find((h) => name === undefined || h.id === name || h.name.toLowerCase() === name.toLowerCase())
    ?.id;

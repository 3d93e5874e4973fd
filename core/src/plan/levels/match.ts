import { setWantIn } from '../../edits/sounds.js';
import { together } from '../../change/edit.js';
import type { Edit } from '../../change/edit.js';
import {
  levelControls,
  louderBy,
  measuredIn,
  offBy,
  standingWish,
  stepBetween,
  STEP_TOLERANCE,
  type LevelControl,
  type StepWish,
  type TraceOf,
} from '../../electric/levels/steps.js';
import { grouped } from '../../known/grouped.js';
import { theFirst } from '../../known/the.js';
import type { Hookup } from '../../rig/hookup.js';
import type { Id } from '../../rig/ids.js';
import { soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Sound } from '../../rig/sound.js';
import type { Trace } from '../../signal/graph/trace.js';

/** A sound beside the others, in dB over the level around which all of them lie. */
export interface MatchedSound {
  readonly sound: Sound;
  readonly db: number;
  readonly measured: boolean;
  readonly wish: StepWish;
  /** By how much it misses its wish; 0 where it does not. */
  readonly off: number;
  readonly change?: LevelChange;
}

/** What brings a sound to where it is wanted. */
export interface LevelChange {
  /** By how many dB it has to become louder. */
  readonly db: number;
  /** The number that its slot would store; absent where a hand has to turn something. */
  readonly stores?: { readonly control: LevelControl; readonly value: number };
}

/** A lead that is not where it should be goes to what most choose (common practice, often 4 dB). */
const USUAL_LEAD = 4;

/** Where in a wish to go: the usual lead, or just inside it with something to spare. */
export const aimIn = ({ from, to }: StepWish, from0: number): number => {
  if (from > 0) return Math.min(to, Math.max(from, USUAL_LEAD));
  const spare = Math.min(1, (to - from) / 4);
  return Math.min(to - spare, Math.max(from + spare, from0));
};

/** The change that makes a sound louder by so many dB: the number nearest to its output that can, else by hand. */
export const changeBy = (rig: Rig, trace: Trace | undefined, db: number): LevelChange => {
  for (const control of trace ? levelControls(rig, trace) : []) {
    const value = louderBy(control, db);
    if (value !== undefined) return { db, stores: { control, value } };
  }
  return { db };
};

/** The level in the middle of those that are to lie alike; of leads alone, what they stand out of. */
const usualLevel = (sounds: readonly { readonly db: number; readonly wish: StepWish }[]): number => {
  const alike = sounds.filter((s) => s.wish.from < 0).map((s) => s.db);
  const levels = (alike.length ? alike : sounds.map((s) => s.db - USUAL_LEAD)).sort((a, b) => a - b);
  return levels[levels.length >> 1] ?? 0;
};

/**
 * The level around which all sounds lie so that as few as possible have to be changed: every sound allows a stretch of
 * it, and the place where most of these overlap is the best there is; of several the one nearest to the usual level.
 * @returns the level, and how many sounds need no change there
 */
export const bestMiddle = (
  sounds: readonly { readonly db: number; readonly wish: StepWish }[],
): { readonly db: number; readonly fit: number } => {
  const usual = usualLevel(sounds);
  const stretches = sounds.map(({ db, wish }) => [db - wish.to, db - wish.from] as const);
  let best = { db: usual, fit: -1 };
  for (const place of [usual, ...stretches.flat()]) {
    const fit = stretches.filter(([low, high]) => place >= low - 1e-9 && place <= high + 1e-9).length;
    const isNearer = fit === best.fit && Math.abs(place - usual) < Math.abs(best.db - usual);
    if (fit > best.fit || isNearer) best = { db: place, fit };
  }
  return best;
};

/**
 * All sounds of a hook-up beside each other and the fewest changes that bring every one to where it is wanted. Sounds
 * that were measured in one unit are matched among themselves; the others by what differs between them.
 */
export const matchLevels = (rig: Rig, hookup: Hookup, traceOf: TraceOf): readonly MatchedSound[] => {
  const here = soundsInOrder(rig).filter((s) => traceOf(s.id));
  const groups = grouped(here, (s) => measuredIn(s, hookup.id)?.unit ?? 'reckoned');
  return [...groups].flatMap(([unit, sounds]) => {
    const measured = unit !== 'reckoned';
    const first = theFirst(sounds);
    const levels = sounds.flatMap((sound) => {
      const step = sound === first ? { db: 0 } : stepBetween(rig, hookup, traceOf, first.id, sound.id);
      return step ? [{ sound, db: step.db, wish: standingWish(sound) }] : [];
    });
    const middle = bestMiddle(levels.filter((l) => !l.sound.level)).db;
    return levels.map(({ sound, db: raw, wish }): MatchedSound => {
      const than = sound.level && levels.find((l) => l.sound.id === sound.level?.than);
      const wanted =
        than && sound.level
          ? {
              from: than.db - middle + sound.level.db - STEP_TOLERANCE,
              to: than.db - middle + sound.level.db + STEP_TOLERANCE,
            }
          : wish;
      const db = raw - middle;
      const off = offBy(db, wanted);
      const isOff = Math.abs(off) > 0.05;
      return {
        sound,
        db,
        measured,
        wish: wanted,
        off: isOff ? off : 0,
        ...(isOff ? { change: changeBy(rig, traceOf(sound.id), aimIn(wanted, db) - db) } : {}),
      };
    });
  });
};

/** A sound that says another number; what was measured of it holds no longer. */
export const changedLevel = (
  hookup: Id<'hookup'>,
  { measured, ...sound }: Sound,
  { control, value }: NonNullable<LevelChange['stores']>,
): Edit => {
  const kept = measured?.filter((m) => m.hookup !== hookup) ?? [];
  return setWantIn(
    { ...sound, ...(kept.length ? { measured: kept } : {}) },
    { control: control.control, is: value },
    { hookup, only: false },
  );
};

/** All changes that slots can store, at once. */
export const applyMatch = (hookup: Id<'hookup'>, matched: readonly MatchedSound[]): Edit =>
  together(
    ...matched.flatMap(({ sound, change }) => (change?.stores ? [changedLevel(hookup, sound, change.stores)] : [])),
  );

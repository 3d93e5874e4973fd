import { isArrangement, wiredBoxes } from '../../rig/box.js';
import type { Hookup } from '../../rig/hookup.js';
import type { Id, Ref } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import { partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import { wantTarget, type Call, type ControlWant, type Sound, type StageWant, type Want } from '../../rig/sound.js';
import type { Case, Value } from '../../rig/value.js';
import { inBeats } from './beats.js';

/** What a sound says in one hook-up, after inheritance; nothing added yet for what it does not say. */
export interface Said {
  readonly stages: ReadonlyMap<Ref, StageWant['is']>;
  readonly controls: ReadonlyMap<Ref, SaidValue>;
  /** What is under a pedal. */
  readonly pedals: ReadonlyMap<Ref, PedalWant>;
}

export type PedalWant = Extract<ControlWant, { readonly pedal: Ref }>;

export type SaidValue = { readonly is: Value } | { readonly any: true } | { readonly hand: true };

const conditions = (c: Case | undefined): number => (c ? Object.keys(c).length : 0);

/** The case that is reckoned with: a hook-up, and the instrument in hand where only one is plugged in. */
interface Now {
  readonly hookup: Id<'hookup'>;
  readonly instrument?: Id<'device'> | undefined;
}
const fits = (c: Case | undefined, now: Now): boolean =>
  !c ||
  ((c.hookup === undefined || c.hookup === now.hookup) &&
    (c.instrument === undefined || c.instrument === now.instrument) &&
    !c.song);

const plugged = new WeakMap<Rig['parts']['cable'], Map<Id<'hookup'>, readonly Id<'device'>[]>>();
/** The instruments that are plugged in. */
const instrumentsIn = (rig: Rig, hookup: Id<'hookup'>): readonly Id<'device'>[] =>
  keptIn(
    keptIn(plugged, rig.parts.cable, () => new Map<Id<'hookup'>, readonly Id<'device'>[]>()),
    hookup,
    () => {
      return [...wiredBoxes(rig, hookup)].filter((id) => partOf(rig, id)?.ends?.some((e) => e.is === 'source'));
    },
  );
const nowIn = (rig: Rig, hookup: Id<'hookup'>): Now => {
  const [only, ...others] = instrumentsIn(rig, hookup);
  return { hookup, instrument: others.length ? undefined : only };
};

/** Whether a call counts here. */
export const callFits = (rig: Rig, call: Call, hookup: Id<'hookup'>): boolean => fits(call.in, nowIn(rig, hookup));

const here = new WeakMap<Rig['parts']['sound'], Map<Id<'hookup'>, ReadonlyMap<Id<'sound'>, Sound>>>();
/** A sound with those of its calls that count in a hook-up: elsewhere another controller may call it. */
export const soundHere = (rig: Rig, sound: Sound, hookup: Id<'hookup'>): Sound => {
  if (!sound.calls.some((c) => c.in)) return sound;
  const known = keptIn(
    keptIn(here, rig.parts.sound, () => new Map<Id<'hookup'>, ReadonlyMap<Id<'sound'>, Sound>>()),
    hookup,
    () =>
      new Map(
        [...rig.parts.sound].map(([id, s]) => [id, { ...s, calls: s.calls.filter((c) => callFits(rig, c, hookup)) }]),
      ),
  );
  return known.get(sound.id) ?? sound;
};

/** Every sound with the calls that count in a hook-up, in the order of the sheet. */
export const soundsHere = (rig: Rig, hookup: Id<'hookup'>): readonly Sound[] =>
  soundsInOrder(rig).map((sound) => soundHere(rig, sound, hookup));

/**
 * Something that a sound says for a case that may come to pass here and is not reckoned through: a song, or one of
 * several instruments.
 */
export interface OpenCase {
  readonly song?: Id<'song'>;
  readonly instrument?: Id<'device'>;
}

/**
 * What a sound, or what it takes over from, says for cases that may come to pass in this hook-up and that are not the
 * one that is reckoned with.
 */
export const openCases = (rig: Rig, sound: Sound, hookup: Id<'hookup'>): readonly OpenCase[] => {
  if (!saysCases(rig.parts.sound)) return [];
  const cases = [...[sound, ...forebears(rig, sound)].flatMap(wantedIn), ...calledIn(sound)];
  const now = nowIn(rig, hookup);
  const maybe = new Set(instrumentsIn(rig, hookup));
  return cases.flatMap((c): readonly OpenCase[] => {
    if (
      fits(c, now) ||
      (c.hookup !== undefined && c.hookup !== hookup) ||
      (c.instrument !== undefined && !maybe.has(c.instrument))
    )
      return [];
    return [
      {
        ...(c.song ? { song: c.song } : {}),
        ...(c.instrument && c.instrument !== now.instrument ? { instrument: c.instrument } : {}),
      },
    ];
  });
};

const casesOf = (those: readonly { readonly in?: Case | undefined }[]): readonly Case[] =>
  those.flatMap((one) => (one.in ? [one.in] : []));
/** The cases for which a sound wants something of its own. */
const wantedIn = once((sound: Sound): readonly Case[] => casesOf(sound.wants));
const calledIn = once((sound: Sound): readonly Case[] => casesOf(sound.calls));
/** Whether any sound at all says something for a case. */
const saysCases = once((sounds: Rig['parts']['sound']): boolean =>
  [...sounds.values()].some((sound) => wantedIn(sound).length + calledIn(sound).length > 0),
);

/** What a sound takes over from, the nearest first. */
const forebears = (rig: Rig, sound: Sound): readonly Sound[] => {
  const line: Sound[] = [];
  for (let up = sound.parent; up && line.length < 63;) {
    const parent: Sound | undefined = partOf(rig, up);
    if (!parent) break;
    line.push(parent);
    up = parent.parent;
  }
  return line;
};

/** Of the wants on one thing those that fit the case; the one with more conditions wins. */
const standing = (wants: readonly Want[], hookup: Now): ReadonlyMap<Ref, Want> => {
  const best = new Map<Ref, Want>();
  for (const want of wants) {
    if (!fits(want.in, hookup)) continue;
    const target = wantTarget(want);
    const rival = best.get(target);
    if (!rival || conditions(want.in) > conditions(rival.in)) best.set(target, want);
  }
  return best;
};

/** What a sound itself says about one thing and what counts in this hook-up, nothing taken over from its parent. */
export const ownWant = (sound: Sound, target: Ref, hookup: Id<'hookup'>): Want | undefined =>
  standing(
    sound.wants.filter((w) => wantTarget(w) === target),
    { hookup },
  ).get(target);

const settled = (
  want: ControlWant,
  parent: SaidValue | undefined,
  beats: (control: Ref, note: number) => Value | undefined,
): SaidValue => {
  if ('is' in want && want.is !== undefined) return { is: want.is };
  if ('between' in want) return { is: (want.between[0] + want.between[1]) / 2 };
  if ('hand' in want) return { hand: true };
  if ('more' in want)
    return parent && 'is' in parent && typeof parent.is === 'number' ? { is: parent.is + want.more } : { any: true };
  if ('note' in want) {
    const is = beats(want.control, want.note);
    return is === undefined ? { any: true } : { is };
  }
  if ('pedal' in want && want.at !== undefined) return { is: want.at };
  return { any: true };
};

/**
 * An order of stages that a sound says takes the place of what its forebears say of a switcher's arrangement.
 * @returns what the sound says, with what it takes over from its parent where it says nothing itself
 */
export const saidBy = (rig: Rig, sound: Sound, hookup: Hookup): Said => {
  const line = [...forebears(rig, sound).toReversed(), sound];
  const now = nowIn(rig, hookup.id);
  const stages = new Map<Ref, StageWant['is']>();
  const controls = new Map<Ref, SaidValue>();
  const pedals = new Map<Ref, PedalWant>();
  for (const one of line) {
    if (one.order) for (const control of controls.keys()) if (isArrangement(rig, control)) controls.delete(control);
    for (const [target, want] of standing(one.wants, now)) {
      if ('stage' in want) stages.set(target, want.is);
      else {
        controls.set(
          target,
          settled(want, controls.get(target), (control, note) => inBeats(rig, sound.id, control, note)),
        );
        if ('pedal' in want) pedals.set(target, want);
        else pedals.delete(target);
      }
    }
  }
  return { stages, controls, pedals };
};

/** The order that holds for a sound: its own, else its nearest forebear's. */
export const orderOf = (rig: Rig, sound: Sound): readonly Ref[] => {
  const seen = new Set<string>();
  for (let one: Sound | undefined = sound; one && !seen.has(one.id); one = one.parent && partOf(rig, one.parent)) {
    if (one.order) return one.order;
    seen.add(one.id);
  }
  return [];
};

import type { Hookup } from '../rig/hookup.js';
import type { Id, Ref } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';
import { wantTarget, type ControlWant, type Sound, type StageWant, type Want } from '../rig/sound.js';
import type { Case, Value } from '../rig/value.js';
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
const fits = (c: Case | undefined, hookup: Id<'hookup'>): boolean => !c || ((c.hookup === undefined || c.hookup === hookup) && !c.instrument && !c.song);

/** Of the wants on one thing those that fit the case; the one with more conditions wins. */
const standing = (wants: readonly Want[], hookup: Id<'hookup'>): ReadonlyMap<Ref, Want> => {
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
export const ownWant = (sound: Sound, target: Ref, hookup: Id<'hookup'>): Want | undefined => standing(sound.wants.filter((w) => wantTarget(w) === target), hookup).get(target);

const settled = (want: ControlWant, parent: SaidValue | undefined, beats: (control: Ref, note: number) => Value | undefined): SaidValue => {
  if ('is' in want && want.is !== undefined) return { is: want.is };
  if ('between' in want) return { is: (want.between[0] + want.between[1]) / 2 };
  if ('hand' in want) return { hand: true };
  if ('more' in want) return parent && 'is' in parent && typeof parent.is === 'number' ? { is: parent.is + want.more } : { any: true };
  if ('note' in want) {
    const is = beats(want.control, want.note);
    return is === undefined ? { any: true } : { is };
  }
  if ('pedal' in want && want.at !== undefined) return { is: want.at };
  return { any: true };
};

/** @returns what the sound says, with what it takes over from its parent where it says nothing itself */
export const saidBy = (rig: Rig, sound: Sound, hookup: Hookup): Said => {
  const line: Sound[] = [sound];
  for (let up = sound.parent; up && line.length < 64; up = line[0]!.parent) {
    const parent = partOf(rig, up);
    if (!parent) break;
    line.unshift(parent);
  }
  const stages = new Map<Ref, StageWant['is']>();
  const controls = new Map<Ref, SaidValue>();
  const pedals = new Map<Ref, PedalWant>();
  for (const one of line) {
    for (const [target, want] of standing(one.wants, hookup.id)) {
      if ('stage' in want) stages.set(target, want.is);
      else {
        controls.set(target, settled(want, controls.get(target), (control, note) => inBeats(rig, sound.id, control, note)));
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

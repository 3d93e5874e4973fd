import { apply } from '../../change/apply.js';
import type { Edit } from '../../change/edit.js';
import { tally, type Tally } from '../../recall/verdict/sound-verdict.js';
import { limbsOf, type Limbs } from '../../recall/words/verdict-words.js';
import type { Id } from '../../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Item } from '../../signal/drawing/picture.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';
import { soundRun } from './view.js';

/** Codes and names of boxes, for a drawing that stands outside the rig's own rooms. */
export type BoxNames = Readonly<Record<Id<'device'>, { readonly code: string; readonly name: string }>>;

/** A rig as one sees it from outside: what there is of it, how its sounds stand, and the way of one of them. */
export interface Card {
  readonly boxes: number;
  readonly sounds: number;
  readonly songs: number;
  readonly hookups: readonly string[];
  /** How the sounds stand in the first hook-up; nothing when there is none to judge in. */
  readonly stands?: { readonly tally: Tally; readonly limbs: Limbs };
  readonly run: readonly Item[];
  /** Whose way is drawn: the sound with most in its way. */
  readonly drawn?: string;
  readonly names: BoxNames;
}

const stagesOn = (items: readonly Item[]): number =>
  items.reduce((n, item) => {
    if (item.is === 'box') return n + item.stages.filter((s) => s.on).length;
    if (item.is === 'loop') return n + (item.on ? stagesOn(item.inside) : 0);
    return item.is === 'split' ? n + item.arms.reduce((m, arm) => m + stagesOn(arm), 0) : n;
  }, 0);

interface RichestRun {
  readonly run: readonly Item[];
  /** Whose way it is; nobody's when the rig has no sounds. */
  readonly drawn?: string;
}

/** The way of the sound with most in it; without sounds, of the rig as it stands at rest. */
const richestRun = (derived: Derived): RichestRun => {
  const runs = soundsInOrder(derived.rig).map((s) => [s.name, soundRun(derived, s.id)] as const);
  const richest = runs.reduce<(typeof runs)[number] | undefined>(
    (best, one) => (best && stagesOn(best[1]) >= stagesOn(one[1]) ? best : one),
    undefined,
  );
  return richest ? { run: richest[1], drawn: richest[0] } : { run: soundRun(derived) };
};

const namesIn = (rig: Rig): BoxNames =>
  Object.fromEntries(all(rig, 'device').map(({ id, code, name }) => [id, { code, name }]));

/** What an edit would make of the way through a hook-up, as a drawing. */
export interface RunAfter extends RichestRun {
  readonly names: BoxNames;
}

/** @returns undefined when the edit cannot be made */
export const runAfter = (rig: Rig, hookup: Id<'hookup'>, edit: Edit): RunAfter | undefined => {
  const applied = apply(rig, edit);
  const derived = applied.ok ? deriveOnce(applied.value.rig, hookup) : undefined;
  return derived && { ...richestRun(derived), names: namesIn(derived.rig) };
};

/** The rig's card, from scratch. */
export const cardOf = (rig: Rig): Card => {
  const hookups = all(rig, 'hookup');
  const derived = hookups[0] && deriveOnce(rig, hookups[0].id);
  return {
    boxes: rig.parts.device.size,
    sounds: rig.parts.sound.size,
    songs: rig.parts.song.size,
    hookups: hookups.map((h) => h.name),
    ...(derived ? { stands: { tally: tally(derived.answers), limbs: limbsOf(derived.answers.values()) } } : {}),
    ...(derived ? richestRun(derived) : { run: [] }),
    names: namesIn(rig),
  };
};

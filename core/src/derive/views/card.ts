import { tally, type Tally } from '../../recall/verdict/sound-verdict.js';
import { limbsOf, type Limbs } from '../../recall/words/verdict-words.js';
import type { Id } from '../../rig/ids.js';
import { all, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Item } from '../../signal/drawing/picture.js';
import { deriveOnce } from '../steps/deriver.js';
import { soundRun } from './view.js';

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
  readonly names: Readonly<Record<Id<'device'>, { readonly code: string; readonly name: string }>>;
}

const stagesOn = (items: readonly Item[]): number =>
  items.reduce((n, item) => {
    if (item.is === 'box') return n + item.stages.filter((s) => s.on).length;
    if (item.is === 'loop') return n + (item.on ? stagesOn(item.inside) : 0);
    return item.is === 'split' ? n + item.arms.reduce((m, arm) => m + stagesOn(arm), 0) : n;
  }, 0);

/** The rig's card, from scratch. */
export const cardOf = (rig: Rig): Card => {
  const hookups = all(rig, 'hookup');
  const derived = hookups[0] && deriveOnce(rig, hookups[0].id);
  const sounds = soundsInOrder(rig);
  const runs = derived ? sounds.map((s) => [s.name, soundRun(derived, s.id)] as const) : [];
  const richest = runs.reduce<(typeof runs)[number] | undefined>(
    (best, one) => (best && stagesOn(best[1]) >= stagesOn(one[1]) ? best : one),
    undefined,
  );
  const asWired = derived ? soundRun(derived) : [];
  return {
    boxes: rig.parts.device.size,
    sounds: sounds.length,
    songs: rig.parts.song.size,
    hookups: hookups.map((h) => h.name),
    ...(derived ? { stands: { tally: tally(derived.answers), limbs: limbsOf(derived.answers.values()) } } : {}),
    run: richest?.[1] ?? asWired,
    ...(richest ? { drawn: richest[0] } : {}),
    names: Object.fromEntries(all(rig, 'device').map(({ id, code, name }) => [id, { code, name }])),
  };
};

import type { Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Compiled } from '../../recall/intend/compiled.js';

/** What the compilation of a sound rests on besides the sound itself. */
export interface CompileGround {
  readonly anatomy: unknown;
  readonly finder: unknown;
  readonly programs: Rig['parts']['program'];
  readonly moves: Rig['parts']['move'];
  readonly sounds: Rig['parts']['sound'];
  readonly songs: Rig['parts']['song'];
  readonly compiled?: ReadonlyMap<Id<'sound'>, Compiled>;
}

/**
 * Compiled sounds that an edit leaves as they are: same ground, same sound, same forebears, and the same songs where
 * it counts in beats.
 */
export const unaffected = (
  before: CompileGround | undefined,
  now: CompileGround,
): ReadonlyMap<Id<'sound'>, Compiled> => {
  const kept = new Map<Id<'sound'>, Compiled>();
  if (
    !before?.compiled ||
    before.anatomy !== now.anatomy ||
    before.finder !== now.finder ||
    before.programs !== now.programs ||
    before.moves !== now.moves
  )
    return kept;
  const sameTempo = before.songs === now.songs;
  const same = new Map<Id<'sound'>, boolean>();
  const isSame = (id: Id<'sound'>): boolean => {
    const known = same.get(id);
    if (known !== undefined) return known;
    same.set(id, false);
    const sound = now.sounds.get(id);
    const result =
      sound !== undefined &&
      sound === before.sounds.get(id) &&
      (sameTempo || !sound.wants.some((w) => 'note' in w)) &&
      (!sound.parent || isSame(sound.parent));
    same.set(id, result);
    return result;
  };
  for (const [id, compiled] of before.compiled) if (isSame(id)) kept.set(id, compiled);
  return kept;
};

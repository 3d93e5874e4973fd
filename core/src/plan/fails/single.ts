import { keptIn } from '../../kept/kept.js';
import type { Compilation } from '../../recall/actuate/compile.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import { passedBy, wholeOf } from './after.js';
import { brokenBy, failuresOf, type Failure } from './failure.js';
import { following, type Follow } from './left.js';

/** What silences every sound by failing, everywhere where it is to be heard. */
export const singlePoints = (compilation: Compilation): readonly Failure[] => {
  const { rig, hookup, anatomy } = compilation.bearings;
  const sounds = [...compilation.sounds.values()];
  if (sounds.length === 0) return [];
  return failuresOf(rig, hookup, anatomy).filter((failure) => {
    const broken = brokenBy(rig, hookup, failure);
    const failed = [...broken.dark, ...broken.dead, ...broken.cut];
    const isPassed = sounds.every((sound) => {
      const passed = passedBy(sound);
      return failed.some((id) => passed.has(id));
    });
    if (!isPassed) return false;
    const still = new Map<Wiring, Follow>();
    return sounds.every((sound) => {
      const { wiring, active } = sound.trace;
      const { silentAt, of } = keptIn(still, wiring, () => following(rig, wiring, broken))(wholeOf(sound), active);
      return of > 0 && silentAt.length === of;
    });
  });
};

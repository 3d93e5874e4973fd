import type { Hookup } from '../../rig/hookup.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import type { Rig } from '../../rig/rig.js';
import { anatomy, type Anatomy } from '../../signal/graph/anatomy.js';
import { controlWiring, type ControlWiring } from '../../signal/control/reach.js';
import { groundsOf, type Grounds } from '../intend/intend.js';
import { wayFinder, type WayFinder } from './ways.js';

/** What all sounds of one hook-up share: computed once, used by compile and model alike. */
export interface Bearings {
  readonly rig: Rig;
  readonly hookup: Hookup;
  readonly anatomy: Anatomy;
  readonly control: ControlWiring;
  readonly grounds: Grounds;
  readonly finder: WayFinder;
}

export const bearings = (rig: Rig, hookup: Hookup): Bearings => {
  const control = controlWiring(rig, hookup);
  const grounds = groundsOf(rig, hookup);
  return {
    rig,
    hookup,
    anatomy: anatomy(rig, hookup),
    control,
    grounds,
    finder: wayFinder(rig, control, (r) => grounds.resting.get(r)),
  };
};

/** Boxes that have a plug in any of their jacks: whoever stands on the stage can step on them. */
export const pluggedBoxes = once(
  ({ wiring }: Anatomy): ReadonlySet<Id<'device'>> => new Set([...wiring.plugged].map((jack) => splitRef(jack).device)),
);

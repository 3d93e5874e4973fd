import { listeners, type Listener } from '../../recall/listeners.js';
import type { Act } from '../../rig/act.js';
import type { Id } from '../../rig/ids.js';
import type { Bearings } from '../../recall/bearings.js';

/** Every box that takes notice of a message sent from this controller. */
export const heardBy = (bearings: Bearings, from: Id<'device'>, act: Act): readonly Listener[] =>
  ('send' in act ? listeners(bearings, from, act.at, act.send) : []);

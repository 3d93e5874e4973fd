import { listeners, type Listener } from '../../recall/actuate/listeners.js';
import type { Act } from '../../rig/act.js';
import type { Id } from '../../rig/ids.js';
import type { Bearings } from '../../recall/actuate/bearings.js';

/** Every box that takes notice of a message sent from this controller. A clock is meant for all. */
export const heardBy = (bearings: Bearings, from: Id<'device'>, act: Act): readonly Listener[] =>
  'send' in act && !('bpm' in act.send) ? listeners(bearings, from, act.at, act.send) : [];

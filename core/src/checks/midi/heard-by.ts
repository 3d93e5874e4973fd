import { listeners, type Listener } from '../../recall/listeners.js';
import type { Act } from '../../rig/act.js';
import type { Id } from '../../rig/ids.js';
import type { CheckInputs } from '../check.js';

/** Every box that takes notice of a message sent from this controller. */
export const heardBy = ({ compilation }: CheckInputs, from: Id<'device'>, act: Act): readonly Listener[] =>
  ('send' in act ? listeners(compilation.bearings, from, act.at, act.send) : []);

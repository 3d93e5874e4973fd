import { theFirst } from '../known/the.js';
import type { Chain, Device, Insert, Slot } from './device.js';

/**
 * Every loop of a box: its inserts, also those in the arms of forks, and each send that is normalled to a return, as
 * in the loop of an amp.
 */
export const loopsOf = (device: Device): readonly Insert[] =>
  device.chains.flatMap((c) => [
    ...insertsAmong(c.slots),
    ...normalled(c).filter((i) => gives(device, theFirst(i.send).at) && !gives(device, theFirst(i.return).at)),
  ]);

const insertsAmong = (slots: readonly Slot[]): readonly Insert[] =>
  slots.flatMap((s) => (s.is === 'insert' ? [s] : s.is === 'fork' ? s.arms.flatMap((a) => insertsAmong(a.slots)) : []));

const normalled = ({ id, slots, from: [send], to: [back], when }: Chain): readonly Insert[] =>
  slots.length === 0 &&
  send &&
  back &&
  when?.some((f) => 'jack' in f && !f.plugged && (f.jack === back.at || f.jack === send.at)) &&
  !send.at.startsWith('#') &&
  !back.at.startsWith('#')
    ? [{ is: 'insert', id, send: [send], return: [back], unpatched: 'through' }]
    : [];

const gives = (device: Device, at: string): boolean => device.jacks.some((j) => j.id === at && j.poles.tip === 'out');

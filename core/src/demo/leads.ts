import type { Device } from '../rig/device.js';
import type { Cable } from '../rig/hookup.js';
import type { Id } from '../rig/ids.js';

/** From jack to jack by the boxes' short ids, with the length in metres where it matters. */
export type Lead = readonly [from: `${string}.${string}`, to: `${string}.${string}`, metres?: number];

export const cablesOf = (hookup: Id<'hookup'>, letter: string, leads: readonly Lead[]): readonly Cable[] => leads.map(([from, to, m], i): Cable => ({
  kind: 'cable', id: `cable:${letter}${String(i + 1).padStart(2, '0')}`, hookup, ends: [`device:${from}`, `device:${to}`], ...(m ? { m } : {}),
}));

export const inKitOrder = (boxes: readonly Device[]): readonly Device[] => boxes.map((device, i) => ({ ...device, at: i + 1 }));

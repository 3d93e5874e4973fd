import type { Device } from '../rig/device.js';
import type { Cable, Hookup } from '../rig/hookup.js';
import { theRef, type Id } from '../rig/ids.js';
import type { Value } from '../rig/value.js';

/** From jack to jack by the boxes' short ids, with the length in metres where it matters. */
export type DemoLead = readonly [from: `${string}.${string}`, to: `${string}.${string}`, metres?: number];

export const cablesOf = (hookup: Id<'hookup'>, letter: string, leads: readonly DemoLead[]): readonly Cable[] =>
  leads.map(([from, to, m], i): Cable => ({
    kind: 'cable',
    id: `cable:${letter}${String(i + 1).padStart(2, '0')}`,
    hookup,
    ends: [`device:${from}`, `device:${to}`],
    ...(m ? { m } : {}),
  }));

/**
 * What stands in the loops or on the way is set before the show, and nobody touches it: the first lines of the line
 * check.
 */
export const setBeforeTheShow = (
  ...those: readonly (readonly [control: string, value: Value, why: string])[]
): Hookup['assumes'] => those.map(([control, value, why]) => ({ control: theRef(`device:${control}`), value, why }));

export const IN_THE_DRAWER = 'stands in the drawer, switched on before the show';

export const inKitOrder = (boxes: readonly Device[]): readonly Device[] =>
  boxes.map((device, i) => ({ ...device, at: i + 1 }));

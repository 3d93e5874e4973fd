import type { BoxPlace } from '@yunta/core/edits/place';
import { splitRef } from '@yunta/core/rig/ids';
import { partOf, type Rig } from '@yunta/core/rig/rig';

/** Tells places apart in a list. */
export const keyOf = (p: BoxPlace): string =>
  p.is === 'loop'
    ? `loop ${p.host} ${p.insert}`
    : p.is === 'between'
      ? `between ${p.cable}`
      : p.is === 'exchange'
        ? `exchange ${p.with}`
        : p.is;

/** @example 'SWI loop 8, the test loop' */
export const placeText = (rig: Rig, p: BoxPlace): string => {
  const code = (r: string) => partOf(rig, splitRef(r).device)?.code ?? '';
  if (p.is === 'loop')
    return `${partOf(rig, p.host)?.code} ${/^loop\d+$/.test(p.insert) ? p.insert.replace('loop', 'loop ') : 'loop'}${p.test ? ', the test loop' : ''}`;
  if (p.is === 'exchange') return `in exchange for ${code(`${p.with}.`)}`;
  return p.is === 'between' ? `between ${code(p.from)} and ${code(p.to)}` : 'Out of the path';
};

import type { Edit } from '../change/edit.js';
import type { Scope } from '../edits/sounds.js';
import type { Id } from '../rig/ids.js';
import { thePart, type Rig } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';
import { theItem } from '../known/the.js';
import { cellOf, IN, type Column } from './sound-sheet.js';
import { typeInto } from './typed-cell.js';

/**
 * What a click on a box in the run makes of a sound: what it does comes in or goes out, an amp goes on to its next
 * channel. Nothing where the box has several stages, or none that a sound can want: that is said in the sheet.
 */
export const turnInRun = (
  rig: Rig,
  sound: Sound,
  device: Id<'device'>,
  columns: readonly Column[],
  scope: Scope,
): { readonly edit: Edit; readonly says: string } | undefined => {
  const mine = columns.filter((c) => c.device === device && (c.is === 'stage' || c.is === 'one of'));
  const [column] = mine;
  if (!column || mine.length > 1) return undefined;
  const { text } = cellOf(rig, sound, column, scope.hookup);
  const typed = column.is === 'one of' ? nextOf(column.names, text) : text === IN ? '-' : 'x';
  const done = typeInto(rig, sound, column, typed, scope);
  const { code } = thePart(rig, device);
  const says = column.is === 'one of' ? `${code} ${typed}` : `${code} ${typed === 'x' ? 'in' : 'out'}`;
  return done.ok ? { edit: done.value, says } : undefined;
};

const nextOf = (names: readonly string[], name: string): string =>
  theItem(names, (names.indexOf(name) + 1) % names.length);

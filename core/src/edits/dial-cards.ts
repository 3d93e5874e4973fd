import equal from 'fast-deep-equal';
import { nothing, type Edit } from '../change/edit.js';
import { daysOf, standsOn, type Dialled } from '../dials/dial-cards.js';
import { isPosition, type Stand } from '../dials/knob-words.js';
import { inKeyOrder, printOf } from '../known/print.js';
import type { DialCard, DialCase, Stands } from '../rig/dial-card.js';
import { tailOf, type AnyId, type Id } from '../rig/ids.js';
import { cutTo, LONGEST } from '../rig/limits.js';
import { refersTo } from '../rig/references.js';
import { all, type Rig } from '../rig/rig.js';

const isEmpty = (where: DialCase | undefined): boolean => Object.values(where ?? {}).every((id) => id === undefined);
const inOf = (where: DialCase): { readonly in?: DialCase } => (isEmpty(where) ? {} : { in: where });

/** The card of a box for a case; undefined when nobody wrote one. */
export const dialCardOf = (rig: Rig, device: Dialled, where: DialCase = {}): DialCard | undefined =>
  all(rig, 'dialCard').find((c) => c.device === device && equal(c.in ?? {}, where));

const TAIL = 24;
const PRINT = 12;
/** The same for everybody who writes this card, so that two who do write one and the same. */
const idOf = (device: Dialled, where: DialCase): Id<'dialCard'> =>
  `dialCard:${(device === undefined ? 'hand' : tailOf(device)).slice(0, TAIL)}-${printOf(inKeyOrder([device ?? null, where])).slice(0, PRINT)}`;

const recordOf = (stands: readonly Stand[]): Stands =>
  Object.fromEntries(stands.map(({ knob, at }) => [cutTo(knob, LONGEST.word), cutTo(at, LONGEST.word)]));

/**
 * Writes where the knobs of a box stand. What was written the same day is written over; what was written on another
 * day is kept, so that two days can be compared.
 * @param day `2026-05-12`
 */
export const setDials = (rig: Rig, device: Dialled, where: DialCase, stands: readonly Stand[], day: string): Edit => {
  const card = dialCardOf(rig, device, where);
  const said = recordOf(stands);
  if (equal(card ? standsOn(card) : {}, said)) return nothing;
  if (card && stands.length === 0 && daysOf(card).every((d) => d === day)) return { put: [], remove: [card.id] };
  const id = card?.id ?? idOf(device, where);
  const owner = device === undefined ? {} : { device };
  return {
    put: [{ kind: 'dialCard', id, ...owner, ...inOf(where), readings: { ...card?.readings, [day]: said } }],
    remove: [],
  };
};

/** Takes a card away with all that was written on it. */
export const dropDialCard = (id: Id<'dialCard'>): Edit => ({ put: [], remove: [id] });

/** The cards that say something of a part, and cannot be without it. */
export const dialCardsAbout = (rig: Rig, id: AnyId): readonly Id<'dialCard'>[] =>
  all(rig, 'dialCard')
    .filter((card) => refersTo(card).includes(id))
    .map((card) => card.id);

/** Knobs of which a position is not understood, in words. */
export const unclearStands = (stands: Stands): readonly string[] =>
  Object.entries(stands)
    .filter(([, at]) => !isPosition(at))
    .map(([knob, at]) => `${knob}: “${at}” is kept as it is, but how far it is turned is not known.`);

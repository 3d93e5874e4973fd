import { once } from '../kept/kept.js';
import type { Condition, SystemAct, SystemEvent } from './system.js';

/**
 * Parts of a system as short texts and numbers: equal numbers say the same. What is said once of an object is kept
 * with it.
 */

/** A number is never given twice, also after the table was emptied. */
const numbers = new Map<string, number>();
let nextNumber = 0;
const MOST_TEXTS = 500_000;
/** Equal texts have the same number. */
export const numberOf = (text: string): number => {
  const known = numbers.get(text);
  if (known !== undefined) return known;
  if (numbers.size > MOST_TEXTS) numbers.clear();
  nextNumber += 1;
  numbers.set(text, nextNumber);
  return nextNumber;
};

export const conditionNumber = once((c: Condition): number => numberOf(`${c.variable}∈${c.in.join(',')}`));

/** The values that a condition allows. */
export const allowedBy = once((c: Condition): ReadonlySet<string> => new Set(c.in));

const whenText = (when: readonly Condition[] | undefined): string =>
  when?.length ? when.map(conditionNumber).join('&') : '';

export const actNumber = once((act: SystemAct): number => {
  const what = 'set' in act ? `=${act.set}` : 'toggle' in act ? `~${act.toggle.join(',')}` : `+${act.step.join(',')}`;
  return numberOf(`${act.variable}${what}[${whenText(act.when)}]`);
});

/** The numbers of an event's acts, in order. */
export const actNumbers = once((event: SystemEvent): readonly number[] => event.acts.map(actNumber));

/** What must hold for an event to happen, and whether it is the last; 0 when nothing. */
export const guardNumber = once((event: SystemEvent): number =>
  event.when?.length || event.last ? numberOf(`${event.last ? 'last ' : ''}when ${whenText(event.when)}`) : 0,
);

import { theItem } from '../known/the.js';

/** How a box shows the number that the wire carries as 0, 1, 2 … */
export interface Shows {
  readonly first: 0 | 1;
  readonly bank?: { readonly size: number; readonly first: number; readonly letters?: string };
}

/**
 * The number on the box's display for the number on the wire.
 * @example shown({ first: 1 }, 12) // '13'
 * @example shown({ first: 1, bank: { size: 3, first: 1 } }, 4) // '2.2'
 * @example shown({ first: 1, bank: { size: 4, first: 1, letters: 'ABCD' } }, 5) // '2B'
 */
export const shown = (shows: Shows, wire: number): string => {
  const { bank, first } = shows;
  if (!bank) return String(wire + first);
  const place = wire % bank.size;
  const number = Math.floor(wire / bank.size) + bank.first;
  const letter = bank.letters?.[place];
  return letter ? `${number}${letter}` : `${number}.${place + first}`;
};

/**
 * The wire number for what a person reads on the display; undefined when it is none of this box's numbers.
 * @example wireOf({ first: 1 }, '13', 128) // 12
 */
export const wireOf = (shows: Shows, display: string, size: number): number | undefined => {
  const text = display.trim().toUpperCase();
  const within = (n: number) => (Number.isInteger(n) && n >= 0 && n < size ? n : undefined);
  const { bank, first } = shows;
  if (!bank) return /^\d+$/.test(text) ? within(Number(text) - first) : undefined;
  const match = bank.letters ? /^(\d+)\s*([A-Z])$/.exec(text) : /^(\d+)\s*[.-]\s*(\d+)$/.exec(text);
  if (!match) return undefined;
  const place = bank.letters ? bank.letters.toUpperCase().indexOf(theItem(match, 2)) : Number(match[2]) - first;
  if (place < 0 || place >= bank.size) return undefined;
  return within((Number(match[1]) - bank.first) * bank.size + place);
};

/** The school in words. @example saysNumbers({ first: 0 }, 128) // 'shows 0–127' */
export const saysNumbers = (shows: Shows, size: number): string =>
  shows.bank
    ? `banks of ${shows.bank.size}, ${shown(shows, 0)} to ${shown(shows, size - 1)}`
    : `shows ${shown(shows, 0)}–${shown(shows, size - 1)}`;

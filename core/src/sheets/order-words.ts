/*
 * How a person writes the order in which a switcher leads through its loops: by their numbers, those beside each other
 * in brackets with a stroke between them.
 */

const USUAL = 'usual';

/** @example orderWords(['loop1', 'loop2'], 'loop2 loop1') // '2 1' */
export const orderWords = (slots: readonly string[], order: string): string =>
  order === slots.join(' ') ? USUAL : order.replaceAll(/\bloop(?=\d)/g, '');

/** @example readOrder(['loop1', 'loop2'], '2 1') // 'loop2 loop1' */
export const readOrder = (slots: readonly string[], text: string): string =>
  text.trim().toLowerCase() === USUAL
    ? slots.join(' ')
    : text
        .trim()
        .replaceAll(/\s*([()|])\s*/g, ' $1 ')
        .trim()
        .replaceAll(/[^\s()|]+/g, (word) => (slots.includes(`loop${word}`) ? `loop${word}` : word));

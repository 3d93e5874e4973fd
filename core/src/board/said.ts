import { WIDEST_BOARD } from '../rig/board.js';
import { LONGEST } from '../rig/limits.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';

const SIZE =
  /^(.*?)\s*(-?\d+(?:[.,]\d+)?)\s*(?:mm|cm|m|in|")?\s*(?:x|×|by|\*)\s*(-?\d+(?:[.,]\d+)?)\s*(mm|cm|m|in|")?$/i;
/** In mm; centimetres are meant unless somebody says otherwise. The inch is 25.4 mm by definition. */
const UNITS: Readonly<Record<string, number>> = { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4 };

const number = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));
const refusal = (wrong: string, would: string): Result<never, readonly Refusal[]> =>
  refuse([{ code: 'board', where: 'Board', wrong, would }]);

/** A board as it was said: what it is called, and its width and depth in mm. */
export interface SaidBoard {
  /** Empty where it was not said. */
  readonly name: string;
  readonly mm: readonly [number, number];
}

/** Reads a board. @example readBoard('Fly board 60 x 32 cm') // { name: 'Fly board', mm: [600, 320] } */
export const readBoard = (text: string): Result<SaidBoard, readonly Refusal[]> => {
  const found = SIZE.exec(text.trim());
  if (!found) return refusal(`"${text.trim().slice(0, 40)}" says no size.`, 'Write width × depth, such as 60 x 32 cm.');
  const [, name = '', w, d, unit = 'cm'] = found;
  const by = UNITS[unit.toLowerCase()] ?? 10;
  const mm = [Math.round(number(w) * by), Math.round(number(d) * by)] as const;
  if (!mm.every((side) => side > 0))
    return refusal(
      `${w} × ${d} ${unit} is no board: each side is longer than 0.`,
      'Write width × depth, such as 60 x 32 cm.',
    );
  if (mm.some((side) => side > WIDEST_BOARD))
    return refusal(
      `${w} × ${d} ${unit} is too large: a side has at most ${WIDEST_BOARD / 10} cm.`,
      'Check the unit; centimetres are meant unless you write mm, m or in.',
    );
  if (name.length > LONGEST.word)
    return refusal('The name is too long.', `Names of boards have at most ${LONGEST.word} characters.`);
  return ok({ name: name.replace(/[,:;-]+$/, '').trim(), mm });
};

/** @example sizeText([600, 320]) // '60 × 32 cm' */
export const sizeText = (mm: readonly number[]): string => `${mm.map((side) => Math.round(side) / 10).join(' × ')} cm`;

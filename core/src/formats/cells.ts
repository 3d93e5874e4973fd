import Papa from 'papaparse';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';

/** Of a pasted table, in characters: some ten thousand rows. */
export const LARGEST_TABLE = 500_000;

/** Boxes or cables that are taken from a table at once. */
export const MOST_ROWS = 500;

/** A spreadsheet takes a cell that begins so for a formula, and carries it out. */
const FORMULA = /^'*[=+\-@\t\r]/;

/** A cell with a mark before it that keeps a spreadsheet from taking it for a formula. */
const guarded = (cell: string | number): string | number =>
  typeof cell === 'string' && FORMULA.test(cell) ? `'${cell}` : cell;
const unguarded = (cell: string): string => (cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell);

/** A table as text (RFC 4180), guarded against formulas; `readCells` gives the same cells back. */
export const writeCells = (rows: readonly (readonly (string | number)[])[], delimiter = ','): string =>
  Papa.unparse(
    rows.map((row) => row.map(guarded)),
    { delimiter, newline: '\n' },
  );

const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'table', where, wrong, would });

/**
 * The cells of a table as text, from a file or a spreadsheet: commas, semicolons or tabs, unless one of them is given.
 * @returns a refusal when it is too large, or a quotation in it does not end
 */
export const readCells = (
  text: string,
  delimiter?: string,
): Result<readonly (readonly string[])[], readonly Refusal[]> => {
  if (text.length > LARGEST_TABLE)
    return refuse([
      refusal(
        '',
        `The table has ${text.length.toLocaleString('en')} characters.`,
        `At most ${LARGEST_TABLE.toLocaleString('en')} are taken at once; paste it in parts.`,
      ),
    ]);
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    ...(delimiter ? { delimiter } : { delimitersToGuess: ['\t', ',', ';'] }),
    skipEmptyLines: delimiter ? false : 'greedy',
  });
  const open = errors.find((e) => e.type === 'Quotes');
  if (open)
    return refuse([
      refusal(
        `row ${(open.row ?? 0) + 1}`,
        'A quotation mark opens there, and its cell does not end with one.',
        'Close it, or take the mark away.',
      ),
    ]);
  return ok(data.map((row) => row.map(unguarded)));
};

import { IN, OUT, type Cell } from '@yunta/core/sheets/sound-sheet';
import type { VerdictKind } from '@yunta/core/recall/verdict/sound-verdict';
import { theOne, theFirst, theItem } from '@yunta/core/known/the';

/** A column of a sheet: the columns of one box stand side by side. */
export interface SheetColumn {
  readonly id: string;
  readonly device: string;
  /** A stage or a switch changes over at the space bar. */
  readonly is: string;
  /** Begins with the code of the box. */
  readonly title: string;
  readonly says: string;
  /** How wide it may become, in pixels, when that is more than is usual. */
  readonly most?: number;
}

/** A row of a sheet: a sound, one list of a move, a program of a box. */
export interface SheetRow {
  readonly id: string;
  readonly slot: string;
  readonly name: string;
  /** A letter in a box before the name. */
  readonly mark: string;
  /** What a screen reader hears after the name. */
  readonly says: string;
  readonly note?: string;
  readonly verdict?: VerdictKind;
  readonly cells: readonly Cell[];
  /** Cells beside which a changed one is marked. */
  readonly against?: readonly Cell[];
  readonly isDerived: boolean;
}

export interface CellPlace {
  readonly row: number;
  /** −1 is the name. */
  readonly column: number;
}

/**
 * In pixels. Widths are fixed from what the columns hold, so that nothing has to be measured anew while the sheet is
 * scrolled or typed into.
 */
const SLOT_WIDTH = 58;
const LEAST_WIDTH = 47;
const MOST_WIDTH = 420;
const LETTER = 8.6;

export interface BoxColumns {
  readonly code: string;
  readonly columns: readonly SheetColumn[];
}

/** What a cell shows, as one says it. */
export const inWords = (text: string): string => (text === IN ? 'in' : text === OUT ? 'out' : text);

/** What stands over a column: its title, without the code that stands over all of its box. */
export const headOf = (boxes: readonly BoxColumns[], column: SheetColumn): string => {
  const box = theOne(boxes, (b) => b.columns.includes(column));
  if (box.columns.length === 1) return column.title;
  return column.title.startsWith(`${box.code} `)
    ? column.title.slice(box.code.length + 1)
    : column.title === box.code
      ? 'on'
      : column.title;
};

/** Columns of one box stand under its code. */
export const boxesOf = (columns: readonly SheetColumn[]): readonly BoxColumns[] => {
  const boxes: { code: string; device: string; columns: SheetColumn[] }[] = [];
  for (const column of columns) {
    const last = boxes.at(-1);
    if (last?.device === column.device) last.columns.push(column);
    else boxes.push({ code: theFirst(column.title.split(' ')), device: column.device, columns: [column] });
  }
  return boxes;
};

/** How wide the places stand, in pixels: “1A scene 2” is never cut. */
export const slotWidthOf = (rows: readonly SheetRow[]): number =>
  Math.max(SLOT_WIDTH, ...rows.map(({ slot }) => slot.length * LETTER + 16));

/** How wide each column stands, in pixels. */
export const widthsOf = (
  rows: readonly SheetRow[],
  columns: readonly SheetColumn[],
  boxes: readonly BoxColumns[],
): readonly number[] =>
  columns.map((column, i) => {
    const longest = Math.max(...rows.map((row) => theItem(row.cells, i).text.length * LETTER + 24));
    const head = headOf(boxes, column).length * LETTER + 10;
    return Math.min(column.most ?? MOST_WIDTH, Math.max(LEAST_WIDTH, longest, head));
  });

/** In millimetres: what lies beside the names on a sheet of paper on its side, A4 or Letter, whichever is less. */
const PAPER = { room: 180, letter: 1.75, edge: 3, most: 60 } as const;

/** The columns by their places, in parts that fit on a sheet of paper on its side; one part at least. */
export const partedInto = (
  rows: readonly SheetRow[],
  columns: readonly SheetColumn[],
): readonly (readonly number[])[] => {
  const parts: number[][] = [];
  let left = 0;
  columns.forEach((column, i) => {
    const longest = Math.max(
      ...column.title.split(' ').map((word) => word.length),
      ...rows.map((row) => theItem(row.cells, i).text.length),
    );
    const width = Math.min(PAPER.most, longest * PAPER.letter + PAPER.edge);
    const last = parts.at(-1);
    if (last && width <= left) {
      last.push(i);
      left -= width;
    } else {
      parts.push([i]);
      left = PAPER.room - width;
    }
  });
  return parts;
};

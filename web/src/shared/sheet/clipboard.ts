import { readCells, writeCells } from '@yunta/core/formats/cells';
import { pasted } from '@yunta/core/sheets/sound-sheet';
import type { ClipboardEvent } from 'react';
import type { Cursor } from './cursor.js';
import { refuse, type Writing } from './typing.js';

/** A block from a spreadsheet, laid down from where one stands; all of it or nothing. */
export const paste = (e: ClipboardEvent, writing: Writing, { fromRow, fromColumn }: Cursor): void => {
  e.preventDefault();
  const cells = readCells(e.clipboardData.getData('text/plain').replace(/\n$/, ''), '\t');
  if (!cells.ok) return refuse(writing, cells.error, 'Nothing was pasted. ');
  const block = cells.value;
  const from = { row: fromRow, column: Math.max(0, fromColumn) };
  const typed = pasted(writing.rows.length, writing.columns.length, from, block);
  const label = `Paste ${block.length} ${block.length === 1 ? 'row' : 'rows'}`;
  refuse(writing, typed.ok ? writing.type(typed.value, label) : typed.error, 'Nothing was pasted. ');
};

/** The marked block for a spreadsheet; on a name the whole row. */
export const copy = (e: ClipboardEvent, { rows, columns }: Writing, cursor: Cursor): void => {
  e.preventDefault();
  const { fromRow, toRow, fromColumn, toColumn, isBlock } = cursor;
  const hasNames = fromColumn < 0;
  const last = hasNames && !isBlock ? columns.length : toColumn;
  const lines = rows.slice(fromRow, toRow + 1).map((row) => {
    const cells = row.cells.slice(Math.max(0, fromColumn), last + 1).map((c) => c.text);
    return hasNames ? [row.name, ...cells] : cells;
  });
  e.clipboardData.setData('text/plain', writeCells(lines, '\t'));
};

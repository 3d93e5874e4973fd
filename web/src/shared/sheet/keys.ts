import { IN, OUT } from '@yunta/core/sheets/sound-sheet';
import type { KeyboardEvent } from 'react';
import { inWords, type SheetColumn } from './columns.js';
import type { Cursor } from './cursor.js';
import { fillDown, typeAll, type Draft, type Writing } from './typing.js';

/** Kinds of column that the space bar turns over. */
const SWITCHES: ReadonlySet<string> = new Set(['stage', 'switch']);

export const isSwitch = (column: SheetColumn | undefined): boolean => SWITCHES.has(column?.is ?? '');

/** What is in goes out, what is out comes in. */
export const turnOver = (writing: Writing, cursor: Cursor): void => {
  const { row, column } = cursor.at;
  const here = writing.rows[row];
  const turned = here?.cells[column]?.text === IN ? OUT : IN;
  const title = `${here?.name ?? ''}: ${writing.columns[column]?.title ?? ''}`;
  typeAll(writing, cursor, row, () => turned, `${title} ${inWords(turned)}`);
};

const moveOf = (key: string, row: number, column: number, columns: number): readonly [number, number] | undefined => {
  switch (key) {
    case 'ArrowUp':
      return [row - 1, column];
    case 'ArrowDown':
      return [row + 1, column];
    case 'ArrowLeft':
      return [row, column - 1];
    case 'ArrowRight':
      return [row, column + 1];
    case 'Home':
      return [row, -1];
    case 'End':
      return [row, columns - 1];
    case 'PageUp':
      return [row - 10, column];
    case 'PageDown':
      return [row + 10, column];
    default:
      return undefined;
  }
};

/** What a key does while nothing is typed: arrows move, Shift marks, Ctrl D fills down, a letter begins to type. */
export const keyInCell = (e: KeyboardEvent, writing: Writing, cursor: Cursor, draft: Draft): void => {
  const { row, column } = e.shiftKey ? cursor.end : cursor.at;
  const move = e.altKey ? undefined : moveOf(e.key, row, column, writing.columns.length);
  if (move) {
    e.preventDefault();
    if (e.shiftKey) cursor.markTo(...move);
    else cursor.go(...move);
  } else if (e.ctrlKey || e.metaKey) withCommand(e, writing, cursor);
  else if (!e.altKey) onCell(e, writing, cursor, draft);
};

const withCommand = (e: KeyboardEvent, writing: Writing, cursor: Cursor): void => {
  const key = e.key.toLowerCase();
  if (key !== 'd' && key !== 'a') return;
  e.preventDefault();
  if (key === 'd') fillDown(writing, cursor);
  else cursor.markAll();
};

const onCell = (e: KeyboardEvent, writing: Writing, cursor: Cursor, draft: Draft): void => {
  const { at, isBlock } = cursor;
  const here = writing.rows[at.row];
  if (!here) return;
  const title = `${here.name}: ${writing.columns[at.column]?.title ?? ''}`;
  const text = here.cells[at.column]?.text ?? '';
  if (e.key === 'Enter' || e.key === 'F2') {
    e.preventDefault();
    draft.setEditing(at.column === -1 ? here.name : text);
  } else if (e.key === 'Delete' || e.key === 'Backspace') {
    e.preventDefault();
    const many = `Take back ${cursor.toRow - cursor.fromRow + 1} × ${cursor.toColumn - Math.max(0, cursor.fromColumn) + 1} cells`;
    if (isBlock) typeAll(writing, cursor, cursor.fromRow, () => '', many);
    else if (at.column >= 0) typeAll(writing, cursor, at.row, () => '', `${title} taken back`);
  } else if (e.key === ' ' && isSwitch(writing.columns[at.column])) {
    e.preventDefault();
    turnOver(writing, cursor);
  } else if (e.key === 'Escape' && isBlock) cursor.markTo(at.row, at.column);
  else if (e.key.length === 1) {
    e.preventDefault();
    draft.setEditing(e.key);
  }
};

import { sayRefusal, type Refusal } from '@yunta/core/rig/result';
import type { Typed } from '@yunta/core/sheets/sound-sheet';
import type { KeyboardEvent } from 'react';
import { inWords, type SheetColumn, type SheetRow } from './columns.js';
import type { Cursor } from './cursor.js';
import { theItem } from '@yunta/core/known/the';

/** What is typed into a cell, and why what stands there cannot be: it stays until it can. */
export interface Draft {
  readonly editing: string | undefined;
  readonly wrong: string;
  readonly setEditing: (text: string | undefined) => void;
  readonly setWrong: (why: string) => void;
}

/** What a sheet does to the rig. */
export interface Writing {
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  /** Many cells at once. @returns what is wrong with them; nothing is changed then */
  readonly type: (typed: readonly Typed[], label: string) => readonly Refusal[];
  readonly rename: (row: SheetRow, name: string) => readonly Refusal[];
  readonly complain: (text: string) => void;
}

const inOne = (refusals: readonly Refusal[]): string =>
  refusals
    .slice(0, 3)
    .map((r) => sayRefusal({ ...r, part: undefined }))
    .join(' ');

/** Says above the sheet why nothing was changed; nothing when there is nothing to say. */
export const refuse = ({ complain }: Writing, refusals: readonly Refusal[], what: string): void =>
  complain(refusals.length ? `${what}${inOne(refusals)}` : '');

/** Writes the same into every cell of the marked block, from a row on. */
export const typeAll = (
  writing: Writing,
  { fromColumn, toColumn, toRow }: Cursor,
  fromRow: number,
  textOf: (column: number) => string,
  what: string,
): void => {
  const typed: Typed[] = [];
  for (let row = fromRow; row <= toRow; row += 1)
    for (let column = Math.max(0, fromColumn); column <= toColumn; column += 1)
      typed.push({ row, column, text: textOf(column) });
  if (typed.length) refuse(writing, writing.type(typed, what), 'Nothing was changed. ');
};

/** The first row of a block is filled down; of a single row, what stands above it. */
export const fillDown = (writing: Writing, cursor: Cursor): void => {
  const { fromRow, toRow } = cursor;
  const [source, first] = fromRow === toRow ? [fromRow - 1, fromRow] : [fromRow, fromRow + 1];
  const above = writing.rows[source];
  if (above)
    typeAll(writing, cursor, first, (column) => theItem(above.cells, column).text, `Fill down from ${above.name}`);
};

/** Typing into one cell: what can be is kept, what cannot stays with its reason. */
export const typingInto = (writing: Writing, { at, go, comeBack }: Cursor, draft: Draft) => {
  const { rows, columns, type, rename, complain } = writing;
  /** @returns whether the text is in the rig now; where it cannot be, the cell says why */
  const commit = (text: string): boolean => {
    const row = rows[at.row];
    if (!row) return true;
    const cellText = `${row.name}: ${columns[at.column]?.title ?? ''} ${inWords(text) || 'taken back'}`;
    const isName = at.column === -1;
    const refusals = !isName ? type([{ ...at, text }], cellText) : text.trim() ? rename(row, text.trim()) : [];
    complain('');
    draft.setWrong(inOne(refusals.map(({ where: _, ...r }) => r)));
    return refusals.length === 0;
  };
  const leave = () => {
    draft.setEditing(undefined);
    draft.setWrong('');
  };
  const blur = (text: string) => {
    if (draft.editing === undefined || draft.wrong) return;
    if (text === draft.editing || commit(text)) leave();
  };
  const keyInInput = (e: KeyboardEvent<HTMLInputElement>) => {
    const done = (row: number, column: number) => {
      e.preventDefault();
      if (!commit(e.currentTarget.value)) return;
      leave();
      go(row, column);
    };
    if (e.key === 'Enter') done(at.row + 1, at.column);
    else if (e.key === 'Tab') done(at.row, at.column + (e.shiftKey ? -1 : 1));
    else if (e.key === 'Escape') {
      leave();
      comeBack();
    }
    e.stopPropagation();
  };
  return { blur, keyInInput };
};

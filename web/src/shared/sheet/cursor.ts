import { useEffect, useRef, useState, type RefObject } from 'react';
import type { CellPlace, SheetColumn, SheetRow } from './columns.js';

const REST_MS = 80;

const between = (a: number, b: number): readonly [number, number] => (a < b ? [a, b] : [b, a]);

/** Where one stands in a sheet, and the block that is marked from there. */
export interface Cursor {
  readonly at: CellPlace;
  readonly end: CellPlace;
  readonly fromRow: number;
  readonly toRow: number;
  readonly fromColumn: number;
  readonly toColumn: number;
  readonly isBlock: boolean;
  readonly table: RefObject<HTMLTableElement | null>;
  readonly go: (row: number, column: number) => void;
  /** Marks a block up to a place. */
  readonly markTo: (row: number, column: number) => void;
  readonly markAll: () => void;
  /** The cell takes the focus again when the page has been drawn. */
  readonly comeBack: () => void;
}

interface Around {
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly chosen: string | undefined;
  readonly choose: (id: string) => void;
  /** Something is being typed into a cell. */
  readonly isTyping: boolean;
}

export const useCursor = ({ rows, columns, chosen, choose, isTyping }: Around): Cursor => {
  const [at, setAt] = useState<CellPlace>({ row: 0, column: -1 });
  const [end, setEnd] = useState<CellPlace>(at);
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(false);
  const choosing = useRef<ReturnType<typeof setTimeout>>(undefined);
  const [fromRow, toRow] = between(at.row, end.row);
  const [fromColumn, toColumn] = between(at.column, end.column);

  useEffect(() => {
    if (!wantsFocus.current || isTyping) return;
    table.current?.querySelector<HTMLElement>(`[data-at="${at.row},${at.column}"]`)?.focus();
    wantsFocus.current = false;
  });

  const inside = (row: number, column: number): CellPlace => ({
    row: Math.max(0, Math.min(rows.length - 1, row)),
    column: Math.max(-1, Math.min(columns.length - 1, column)),
  });
  const go = (row: number, column: number) => {
    const place = inside(row, column);
    wantsFocus.current = true;
    setAt(place);
    setEnd(place);
    const found = rows[place.row];
    // What follows from the choice waits until the keys have come to rest.
    clearTimeout(choosing.current);
    if (found && found.id !== chosen) choosing.current = setTimeout(() => choose(found.id), REST_MS);
  };
  const markTo = (row: number, column: number) => setEnd(inside(row, column));
  const markAll = () => {
    wantsFocus.current = true;
    setAt({ row: 0, column: 0 });
    setEnd({ row: rows.length - 1, column: columns.length - 1 });
  };
  const comeBack = () => {
    wantsFocus.current = true;
  };
  const isBlock = fromRow !== toRow || fromColumn !== toColumn;
  return { at, end, fromRow, toRow, fromColumn, toColumn, isBlock, table, go, markTo, markAll, comeBack };
};

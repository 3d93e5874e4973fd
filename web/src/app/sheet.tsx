import './sheet.css';
import { IN, OUT, pasted, type Cell, type Typed } from '@yunta/core/sheets/sound-sheet';
import type { Refusal } from '@yunta/core/rig/result';
import { sayRefusal } from '@yunta/core/rig/result';
import type { VerdictKind } from '@yunta/core/recall/sound-verdict';
import { VerdictSign } from './verdict.js';
import { readCells, writeCells } from '@yunta/core/formats/cells';
import { memo, useEffect, useMemo, useRef, useState, type ClipboardEvent, type CSSProperties, type KeyboardEvent, type MouseEvent } from 'react';

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

interface Place {
  readonly row: number;
  /** −1 is the name. */
  readonly column: number;
}

interface SheetProps {
  readonly label: string;
  /** Over the first two columns. */
  readonly heads: readonly [string, string];
  readonly nameWidth: number;
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly chosen: string | undefined;
  readonly choose: (id: string) => void;
  /** Many cells at once. @returns what is wrong with them; nothing is changed then */
  readonly type: (typed: readonly Typed[], label: string) => readonly Refusal[];
  readonly rename: (row: SheetRow, name: string) => readonly Refusal[];
  readonly complain: (text: string) => void;
}

/** In pixels. Widths are fixed from what the columns hold, so that nothing has to be measured anew while the sheet is scrolled or typed into. */
const [SLOT_WIDTH, LEAST_WIDTH, LETTER] = [58, 47, 8.6];
const REST_MS = 80;
const MOST_WIDTH = 420;
/** Letters; longer texts are cut short and said whole on the way over them. */
const LONG = 44;
const SWITCHES: ReadonlySet<string> = new Set(['stage', 'switch']);

const between = (a: number, b: number): readonly [number, number] => (a < b ? [a, b] : [b, a]);

interface BoxColumns {
  readonly code: string;
  readonly columns: readonly SheetColumn[];
}

/** What a cell shows, as one says it. */
const inWords = (text: string): string => (text === IN ? 'in' : text === OUT ? 'out' : text);

/** What stands over a column: its title, without the code that stands over all of its box. */
const headOf = (boxes: readonly BoxColumns[], column: SheetColumn): string => {
  const box = boxes.find((b) => b.columns.includes(column))!;
  if (box.columns.length === 1) return column.title;
  return column.title.startsWith(`${box.code} `) ? column.title.slice(box.code.length + 1) : column.title === box.code ? 'on' : column.title;
};

/** Columns of one box stand under its code. */
const boxesOf = (columns: readonly SheetColumn[]): readonly BoxColumns[] => {
  const boxes: { code: string; device: string; columns: SheetColumn[] }[] = [];
  for (const column of columns) {
    const last = boxes.at(-1);
    if (last?.device === column.device) last.columns.push(column);
    else boxes.push({ code: column.title.split(' ')[0]!, device: column.device, columns: [column] });
  }
  return boxes;
};

/** A sheet: type to fill, arrows to move, Shift to mark a block, Ctrl D to fill it down, copy and paste it; what changes is marked. */
export const Sheet = ({ label, heads, nameWidth, rows, columns, chosen, choose, type, rename, complain }: SheetProps) => {
  const [at, setAt] = useState<Place>({ row: 0, column: -1 });
  const [end, setEnd] = useState<Place>(at);
  const [editing, setEditing] = useState<string>();
  /** Why what stands in the cell cannot be; it stays there until it can. */
  const [wrong, setWrong] = useState('');
  const table = useRef<HTMLTableElement>(null);
  const wantsFocus = useRef(false);
  const choosing = useRef<ReturnType<typeof setTimeout>>(undefined);
  const [fromRow, toRow] = between(at.row, end.row);
  const [fromColumn, toColumn] = between(at.column, end.column);
  const isBlock = fromRow !== toRow || fromColumn !== toColumn;

  const boxes = useMemo(() => boxesOf(columns), [columns]);
  const widths = useMemo(() => columns.map((c, i) => Math.min(c.most ?? MOST_WIDTH, Math.max(LEAST_WIDTH, ...rows.map((r) => r.cells[i]!.text.length * LETTER + 24), headOf(boxes, c).length * LETTER + 10))), [rows, columns, boxes]);

  useEffect(() => {
    if (!wantsFocus.current || editing !== undefined) return;
    table.current?.querySelector<HTMLElement>(`[data-at="${at.row},${at.column}"]`)?.focus();
    wantsFocus.current = false;
  });

  const inside = ({ row, column }: Place): Place => ({ row: Math.max(0, Math.min(rows.length - 1, row)), column: Math.max(-1, Math.min(columns.length - 1, column)) });
  const go = (row: number, column: number) => {
    const place = inside({ row, column });
    wantsFocus.current = true;
    setAt(place);
    setEnd(place);
    const found = rows[place.row];
    // What follows from the choice waits until the keys have come to rest.
    clearTimeout(choosing.current);
    if (found && found.id !== chosen) choosing.current = setTimeout(() => choose(found.id), REST_MS);
  };
  const inOne = (refusals: readonly Refusal[]): string => refusals.slice(0, 3).map((r) => sayRefusal({ ...r, part: undefined as never })).join(' ');
  const refuse = (refusals: readonly Refusal[], what: string): void => complain(refusals.length ? `${what}${inOne(refusals)}` : '');
  /** @returns whether the text is in the rig now; where it cannot be, the cell says why */
  const commit = (text: string): boolean => {
    const row = rows[at.row];
    if (!row) return true;
    const nameless = at.column === -1 && text.trim() === '';
    const refusals = nameless ? [] : at.column === -1 ? rename(row, text.trim()) : type([{ ...at, text }], `${row.name}: ${columns[at.column]!.title} ${inWords(text) || 'taken back'}`);
    complain('');
    setWrong(inOne(refusals.map(({ where: _, ...r }) => r)));
    return refusals.length === 0;
  };
  const leave = () => {
    setEditing(undefined);
    setWrong('');
  };
  const typeAll = (textOf: (row: number, column: number) => string, rowsFrom: number, what: string) => {
    const typed: Typed[] = [];
    for (let row = rowsFrom; row <= toRow; row += 1) for (let column = Math.max(0, fromColumn); column <= toColumn; column += 1) typed.push({ row, column, text: textOf(row, column) });
    if (typed.length) refuse(type(typed, what), 'Nothing was changed. ');
  };
  const fillDown = () => {
    const [source, first] = fromRow === toRow ? [fromRow - 1, fromRow] : [fromRow, fromRow + 1];
    if (source >= 0) typeAll((_, column) => rows[source]!.cells[column]!.text, first, `Fill down from ${rows[source]!.name}`);
  };
  const keyInCell = (e: KeyboardEvent) => {
    const { row, column } = e.shiftKey ? end : at;
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [row - 1, column], ArrowDown: [row + 1, column], ArrowLeft: [row, column - 1], ArrowRight: [row, column + 1], Home: [row, -1], End: [row, columns.length - 1], PageUp: [row - 10, column], PageDown: [row + 10, column] };
    const move = moves[e.key];
    if (move && !e.altKey) {
      e.preventDefault();
      if (e.shiftKey) return setEnd(inside({ row: move[0], column: move[1] }));
      return go(...move);
    }
    if (e.ctrlKey || e.metaKey) {
      if (e.key.toLowerCase() === 'd') {
        e.preventDefault();
        fillDown();
      } else if (e.key.toLowerCase() === 'a') {
        e.preventDefault();
        wantsFocus.current = true;
        setAt({ row: 0, column: 0 });
        setEnd({ row: rows.length - 1, column: columns.length - 1 });
      }
      return;
    }
    if (e.altKey) return;
    const here = rows[at.row];
    if (!here) return;
    if (e.key === 'Enter' || e.key === 'F2') {
      e.preventDefault();
      setEditing(at.column === -1 ? here.name : here.cells[at.column]?.text ?? '');
    } else if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault();
      if (isBlock) typeAll(() => '', fromRow, `Take back ${toRow - fromRow + 1} × ${toColumn - Math.max(0, fromColumn) + 1} cells`);
      else if (at.column >= 0) typeAll(() => '', at.row, `${here.name}: ${columns[at.column]!.title} taken back`);
    } else if (e.key === ' ' && SWITCHES.has(columns[at.column]?.is ?? '')) {
      e.preventDefault();
      const turned = here.cells[at.column]?.text === IN ? OUT : IN;
      typeAll(() => turned, at.row, `${here.name}: ${columns[at.column]!.title} ${inWords(turned)}`);
    } else if (e.key === 'Escape' && isBlock) setEnd(at);
    else if (e.key.length === 1) {
      e.preventDefault();
      setEditing(e.key);
    }
  };
  const keyInInput = (e: KeyboardEvent<HTMLInputElement>) => {
    const done = (row: number, column: number) => {
      e.preventDefault();
      e.stopPropagation();
      if (!commit(e.currentTarget.value)) return;
      leave();
      go(row, column);
    };
    if (e.key === 'Enter') done(at.row + 1, at.column);
    else if (e.key === 'Tab') done(at.row, at.column + (e.shiftKey ? -1 : 1));
    else if (e.key === 'Escape') {
      leave();
      wantsFocus.current = true;
    }
    e.stopPropagation();
  };
  const paste = (e: ClipboardEvent) => {
    if (editing !== undefined) return;
    e.preventDefault();
    const cells = readCells(e.clipboardData.getData('text/plain').replace(/\n$/, ''), '\t');
    if (!cells.ok) return refuse(cells.error, 'Nothing was pasted. ');
    const block = cells.value;
    const typed = pasted(rows.length, columns.length, { row: fromRow, column: Math.max(0, fromColumn) }, block);
    refuse(typed.ok ? type(typed.value, `Paste ${block.length} ${block.length === 1 ? 'row' : 'rows'}`) : typed.error, 'Nothing was pasted. ');
  };
  const copy = (e: ClipboardEvent) => {
    if (editing !== undefined || !rows[at.row]) return;
    e.preventDefault();
    const names = fromColumn < 0;
    const lines = rows.slice(fromRow, toRow + 1).map((row) => [...(names ? [row.name] : []), ...row.cells.slice(Math.max(0, fromColumn), (names && !isBlock ? columns.length : toColumn) + 1).map((c) => c.text)]);
    e.clipboardData.setData('text/plain', writeCells(lines, '\t'));
  };
  const pick = (e: MouseEvent, row: number, column: number) => {
    if (wrong) return;
    if (e.shiftKey) setEnd({ row, column });
    else go(row, column);
  };
  /** The field lost the focus: what can be is kept, what cannot stays with its reason. */
  const blur = (text: string) => {
    if (editing === undefined || wrong) return;
    if (text === editing || commit(text)) leave();
  };

  return (
    <div className="sheet-wrap">
      <table style={{ width: SLOT_WIDTH + nameWidth + widths.reduce((sum, w) => sum + w, 0), '--columns': [SLOT_WIDTH, nameWidth, ...widths].map((w) => `${w}px`).join(' ') } as CSSProperties} className="sheet" role="grid" aria-label={label} aria-multiselectable="true" ref={table} onKeyDown={keyInCell} onPaste={paste} onCopy={copy} aria-rowcount={rows.length + 1} aria-colcount={columns.length + 2}>
        <thead role="rowgroup">
          <tr role="row">
            <th className="slot" role="columnheader">{heads[0]}</th><th className="name" role="columnheader">{heads[1]}</th>
            {boxes.flatMap((b) => b.columns.map((c, i) => (
              <th key={c.id} role="columnheader" className={i === 0 ? 'box' : ''} title={c.says} aria-label={c.says}>
                {b.columns.length > 1 && <span className="code">{i === 0 ? b.code : ''}</span>}
                {headOf(boxes, c)}
              </th>
            )))}
          </tr>
        </thead>
        <tbody role="rowgroup">
          {rows.map((row, i) => (
            <Row
              key={row.id} row={row} place={i} columns={columns} chosen={row.id === chosen} active={at.row === i ? at.column : undefined} editing={at.row === i ? editing : undefined} wrong={at.row === i ? wrong : ''}
              from={isBlock && i >= fromRow && i <= toRow ? fromColumn : undefined} to={isBlock && i >= fromRow && i <= toRow ? toColumn : undefined}
              pick={pick} start={setEditing} keyInInput={keyInInput} blur={blur}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
};

interface RowProps {
  readonly row: SheetRow;
  readonly place: number;
  readonly columns: readonly SheetColumn[];
  readonly chosen: boolean;
  readonly active: number | undefined;
  readonly editing: string | undefined;
  readonly wrong: string;
  /** Columns of the marked block. */
  readonly from: number | undefined;
  readonly to: number | undefined;
  readonly pick: (e: MouseEvent, row: number, column: number) => void;
  readonly start: (text: string) => void;
  readonly keyInInput: (e: KeyboardEvent<HTMLInputElement>) => void;
  readonly blur: (text: string) => void;
}

const sameRow = (a: RowProps, b: RowProps): boolean =>
  a.place === b.place && a.columns === b.columns && a.chosen === b.chosen && a.active === b.active && a.editing === b.editing && a.wrong === b.wrong && a.from === b.from && a.to === b.to && a.active === undefined && sameContent(a.row, b.row);
const sameContent = (a: SheetRow, b: SheetRow): boolean =>
  a === b || (a.id === b.id && a.slot === b.slot && a.name === b.name && a.mark === b.mark && a.says === b.says && a.note === b.note && a.verdict === b.verdict && a.isDerived === b.isDerived && sameCells(a.cells, b.cells) && sameCells(a.against, b.against));
const sameCells = (a: readonly Cell[] | undefined, b: readonly Cell[] | undefined): boolean => a === b || (!!a && !!b && a.length === b.length && a.every((c, i) => c.text === b[i]!.text && c.own === b[i]!.own && c.where === b[i]!.where));

/** As marks of a footnote: what they mean stands above the sheet. */
export const WHERE_MARKS = { 'only here': '†', 'not everywhere': '‡' } as const;


const Row = memo(({ row, place, columns, chosen, active, editing, wrong, from, to, pick, start, keyInInput, blur }: RowProps) => {
  const input = (label: string, leftward = false) => (
    <>
      <input autoFocus defaultValue={editing} aria-label={label} aria-invalid={wrong !== ''} onKeyDown={keyInInput} onBlur={(e) => blur(e.currentTarget.value)} />
      {wrong && <div className={`cell-wrong ${leftward ? 'leftward' : ''}`} role="alert">{wrong} <span className="soft">Esc leaves it as it was.</span></div>}
    </>
  );
  const isPicked = (column: number) => from !== undefined && to !== undefined && column >= from && column <= to;
  const cell = (column: number) => ({
    'data-at': `${place},${column}`, role: 'gridcell', tabIndex: active === column || (active === undefined && place === 0 && column === -1) ? 0 : -1, 'aria-selected': isPicked(column),
    onClick: (e: MouseEvent) => pick(e, place, column), onDoubleClick: () => start(column === -1 ? row.name : row.cells[column]!.text), 'aria-colindex': column + 3,
  });
  return (
    <tr role="row" className={chosen ? 'chosen' : ''} aria-selected={chosen}>
      <td role="gridcell" className="slot mono">{row.slot}</td>
      <td className={`name ${isPicked(-1) ? 'picked' : ''}`} {...cell(-1)}>
        {editing !== undefined && active === -1 ? input('Name') : (
          <div className="clip" title={`${row.name}${row.says}`}>
            <span className="role" aria-hidden="true">{row.mark}</span>{row.name}
            {row.verdict && <span className="verdict"><VerdictSign is={row.verdict} /></span>}
            <span className="visually-hidden">{row.says}</span>
            {row.note && <span className="soft" style={{ fontSize: 12 }}> {row.note}</span>}
          </div>
        )}
      </td>
      {columns.map((c, i) => {
        const { text, own, where } = row.cells[i]!;
        const isOpen = editing !== undefined && active === i;
        const isChanged = row.against !== undefined && row.against[i]!.text !== text;
        return (
          <td key={c.id} {...cell(i)} className={`${isChanged ? 'changed' : ''} ${text === OUT ? 'quiet' : ''} ${isPicked(i) ? 'picked' : ''}`} aria-label={isOpen ? undefined : `${c.says}: ${inWords(text) || 'not said'}${isChanged ? ', changed' : ''}${where ? `, ${where}` : ''}`} title={where}>
            {isOpen ? input(c.says, i > columns.length / 2) : <div className={`${!own && row.isDerived ? 'taken' : ''} ${text.length > LONG || c.is === 'text' ? 'long' : ''}`} title={text.length > LONG ? text : undefined}>{text}{where && <sup aria-hidden="true">{WHERE_MARKS[where]}</sup>}</div>}
          </td>
        );
      })}
    </tr>
  );
}, sameRow);
Row.displayName = 'Row';

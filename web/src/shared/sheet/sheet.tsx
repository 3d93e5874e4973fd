import './sheet.css';
import { useMediaQuery } from '@mantine/hooks';
import { useMemo, useState, type MouseEvent, type ReactNode } from 'react';
import { copy, paste } from './clipboard.js';
import type { Cell } from '@yunta/core/sheets/sound-sheet';
import { boxesOf, headOf, slotWidthOf, widthsOf, type BoxColumns, type SheetColumn, type SheetRow } from './columns.js';
import { useCursor } from './cursor.js';
import { isSwitch, keyInCell, turnOver } from './keys.js';
import { usePrinting } from '../paper/paper.js';
import { Row } from './row.js';
import { SheetPaper } from './sheet-paper.js';
import { typingInto, type Writing } from './typing.js';

/** How wide names are on a phone, in pixels, so that values are seen beside them. */
const NARROW_NAME = 140;

interface SheetProps extends Writing {
  readonly label: string;
  /** Over the first two columns. */
  readonly heads: readonly [string, string];
  readonly nameWidth: number;
  readonly chosen: string | undefined;
  readonly choose: (id: string) => void;
  /** What stands beside the help for a cell. */
  readonly beside?: (row: SheetRow, column: number) => ReactNode;
}

/**
 * A sheet: type to fill, arrows to move, Shift to mark a block, Ctrl D to fill it down, copy and paste it; what
 * changes is marked.
 */
export const Sheet = ({ label, heads, nameWidth: usual, chosen, choose, beside, ...writing }: SheetProps) => {
  const nameWidth = useMediaQuery('(max-width: 600px)') ? Math.min(usual, NARROW_NAME) : usual;
  const { rows, columns } = writing;
  const [editing, setEditing] = useState<string>();
  const [wrong, setWrong] = useState('');
  const cursor = useCursor({ rows, columns, chosen, choose, isTyping: editing !== undefined });
  const draft = { editing, wrong, setEditing, setWrong };
  const { blur, keyInInput } = typingInto(writing, cursor, draft);
  const boxes = useMemo(() => boxesOf(columns), [columns]);
  const widths = useMemo(() => widthsOf(rows, columns, boxes), [rows, columns, boxes]);
  const slotWidth = useMemo(() => slotWidthOf(rows), [rows]);
  const { at, isBlock, fromRow, toRow, fromColumn, toColumn } = cursor;
  const pick = (e: MouseEvent, row: number, column: number) => {
    if (wrong) return;
    if (e.shiftKey) return cursor.markTo(row, column);
    const isAgain = !isBlock && column >= 0 && at.row === row && at.column === column && editing === undefined;
    if (!isAgain) return cursor.go(row, column);
    if (isSwitch(columns[column])) turnOver(writing, cursor);
    else setEditing(rows[row]?.cells[column]?.text ?? '');
  };
  const isMarked = (row: number): boolean => isBlock && row >= fromRow && row <= toRow;
  const laidOut = {
    width: slotWidth + nameWidth + widths.reduce((sum, w) => sum + w, 0),
    '--columns': [slotWidth, nameWidth, ...widths].map((w) => `${w}px`).join(' '),
  };
  const here = rows[at.row];
  const isPrinting = usePrinting();
  return (
    <>
      {isPrinting && <SheetPaper label={label} heads={heads} rows={rows} columns={columns} />}
      <div className="sheet-wrap">
        <table
          style={laidOut}
          className="sheet"
          role="grid"
          aria-label={label}
          aria-multiselectable="true"
          ref={cursor.table}
          onKeyDown={(e) => keyInCell(e, writing, cursor, draft)}
          onPaste={(e) => editing === undefined && paste(e, writing, cursor)}
          onCopy={(e) => editing === undefined && rows[at.row] && copy(e, writing, cursor)}
          aria-rowcount={rows.length + 1}
          aria-colcount={columns.length + 2}
        >
          <Head heads={heads} boxes={boxes} />
          <tbody role="rowgroup">
            {rows.map((row, i) => (
              <Row
                key={row.id}
                row={row}
                place={i}
                columns={columns}
                chosen={row.id === chosen}
                active={at.row === i ? at.column : undefined}
                editing={at.row === i ? editing : undefined}
                wrong={at.row === i ? wrong : ''}
                from={isMarked(i) ? fromColumn : undefined}
                to={isMarked(i) ? toColumn : undefined}
                pick={pick}
                start={setEditing}
                keyInInput={keyInInput}
                blur={blur}
              />
            ))}
          </tbody>
        </table>
      </div>
      <CellHelp row={here} column={columns[at.column]} cell={here?.cells[at.column]} />
      {beside && <div className="cell-beside no-print">{here && columns[at.column] && beside(here, at.column)}</div>}
    </>
  );
};

const WHERE_WORDS = {
  'only here': 'It holds in this hook-up only.',
  'not everywhere': 'Another hook-up has it otherwise.',
} as const;

interface CellHelpProps {
  readonly row: SheetRow | undefined;
  readonly column: SheetColumn | undefined;
  readonly cell: Cell | undefined;
}

/** What can be done where one stands; always as high, so that nothing moves under the hand. */
const CellHelp = ({ row, column, cell }: CellHelpProps) => (
  <p className="cell-help soft no-print">
    {row && column ? (
      <>
        <strong>
          {row.name}, {column.says}.
        </strong>{' '}
        {column.is === 'told'
          ? 'It follows from the rig and is not typed.'
          : isSwitch(column)
            ? 'Click it again, or Space, turns it over.'
            : 'Click it again, or type, to change it; Enter keeps it, Delete takes it back.'}{' '}
        {cell?.where && WHERE_WORDS[cell.where]}
      </>
    ) : (
      'Type or double-click to rename.'
    )}{' '}
    Shift and arrows mark a block, Ctrl D fills it down, Ctrl C and V copy and paste.
  </p>
);

/** The columns of a box stand under its code. */
const Head = ({ heads, boxes }: { heads: readonly [string, string]; boxes: readonly BoxColumns[] }) => (
  <thead role="rowgroup">
    <tr role="row">
      <th className="slot" role="columnheader">
        {heads[0]}
      </th>
      <th className="name" role="columnheader">
        {heads[1]}
      </th>
      {boxes.flatMap((b) =>
        b.columns.map((c, i) => (
          <th key={c.id} role="columnheader" className={i === 0 ? 'box' : ''} title={c.says} aria-label={c.says}>
            {b.columns.length > 1 && <span className="code">{i === 0 ? b.code : ''}</span>}
            {headOf(boxes, c)}
          </th>
        )),
      )}
    </tr>
  </thead>
);

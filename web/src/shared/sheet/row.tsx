import { IN, OUT, type Cell } from '@yunta/core/sheets/sound-sheet';
import { memo, type KeyboardEvent, type MouseEvent } from 'react';
import { VerdictSign } from '../verdict.js';
import { inWords, type SheetColumn, type SheetRow } from './columns.js';
import { theItem } from '@yunta/core/known/the';

/** Letters; longer texts are cut short and said whole on the way over them. */
const LONG = 44;

export interface RowProps {
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
  a.place === b.place &&
  a.columns === b.columns &&
  a.chosen === b.chosen &&
  a.active === b.active &&
  a.editing === b.editing &&
  a.wrong === b.wrong &&
  a.from === b.from &&
  a.to === b.to &&
  a.active === undefined &&
  sameContent(a.row, b.row);
const sameContent = (a: SheetRow, b: SheetRow): boolean =>
  a === b ||
  (a.id === b.id &&
    a.slot === b.slot &&
    a.name === b.name &&
    a.mark === b.mark &&
    a.says === b.says &&
    a.note === b.note &&
    a.verdict === b.verdict &&
    a.isDerived === b.isDerived &&
    sameCells(a.cells, b.cells) &&
    sameCells(a.against, b.against));
const sameCells = (a: readonly Cell[] | undefined, b: readonly Cell[] | undefined): boolean =>
  a === b ||
  (!!a &&
    !!b &&
    a.length === b.length &&
    a.every((c, i) => c.text === theItem(b, i).text && c.own === theItem(b, i).own && c.where === theItem(b, i).where));

/** In and out are marks: nothing is written behind them, another word takes their place. */
const isMark = (text: string | undefined): boolean => text === IN || text === OUT;

/** What is typed into a cell, with why it cannot be. */
const CellInput = ({ label, leftward, row }: { label: string; leftward: boolean; row: RowProps }) => (
  <>
    <input
      autoFocus
      onFocus={(e) => isMark(row.editing) && e.currentTarget.select()}
      defaultValue={row.editing}
      aria-label={label}
      aria-invalid={row.wrong !== ''}
      onKeyDown={row.keyInInput}
      onBlur={(e) => row.blur(e.currentTarget.value)}
    />
    {row.wrong && (
      <div className={`cell-wrong ${leftward ? 'leftward' : ''}`} role="alert">
        {row.wrong} <span className="soft">Esc leaves it as it was.</span>
      </div>
    )}
  </>
);

const isPicked = ({ from, to }: RowProps, column: number): boolean =>
  from !== undefined && to !== undefined && column >= from && column <= to;

/** What every cell of a row answers to. */
const cellProps = (props: RowProps, column: number) => {
  const { row, place, active, pick, start } = props;
  return {
    'data-at': `${place},${column}`,
    role: 'gridcell',
    tabIndex: active === column || (active === undefined && place === 0 && column === -1) ? 0 : -1,
    'aria-selected': isPicked(props, column),
    onClick: (e: MouseEvent) => pick(e, place, column),
    onDoubleClick: () => column === -1 && start(row.name),
    'aria-colindex': column + 3,
  };
};

const NameCell = (props: RowProps) => {
  const { row, editing, active } = props;
  return (
    <td className={`name ${isPicked(props, -1) ? 'picked' : ''}`} {...cellProps(props, -1)}>
      {editing !== undefined && active === -1 ? (
        <CellInput label="Name" leftward={false} row={props} />
      ) : (
        <div className="clip" title={`${row.name}${row.says}`}>
          <span className="role" aria-hidden="true">
            {row.mark}
          </span>
          {row.name}
          {row.verdict && (
            <span className="verdict">
              <VerdictSign is={row.verdict} />
            </span>
          )}
          <span className="visually-hidden">{row.says}</span>
          {row.note && <span className="soft row-note"> {row.note}</span>}
        </div>
      )}
    </td>
  );
};

const ValueCell = ({ at, ...props }: RowProps & { at: number }) => {
  const { row, columns, editing, active } = props;
  const { says, is } = theItem(columns, at);
  const { text, own, where, why } = theItem(row.cells, at);
  const isOpen = editing !== undefined && active === at;
  const isChanged = row.against !== undefined && theItem(row.against, at).text !== text;
  const said = `${says}: ${inWords(text) || 'not said'}${isChanged ? ', changed' : ''}${where ? `, ${where}` : ''}${why ? `, because ${why}` : ''}`;
  const isLong = text.length > LONG;
  return (
    <td
      {...cellProps(props, at)}
      className={`${isChanged ? 'changed' : ''} ${text === OUT ? 'quiet' : ''} ${isPicked(props, at) ? 'picked' : ''}`}
      aria-label={isOpen ? undefined : said}
      title={[where, why && `Why: ${why}`].filter(Boolean).join('. ') || undefined}
      data-where={where}
      data-why={why ? '' : undefined}
    >
      {isOpen ? (
        <CellInput label={says} leftward={at > columns.length / 2} row={props} />
      ) : (
        <div
          className={`${!own && row.isDerived ? 'taken' : ''} ${isLong || is === 'text' ? 'long' : ''}`}
          title={isLong ? text : undefined}
        >
          {text}
        </div>
      )}
    </td>
  );
};

export const Row = memo(
  (props: RowProps) => (
    <tr role="row" className={props.chosen ? 'chosen' : ''} aria-selected={props.chosen}>
      <td role="gridcell" className="slot mono">
        {props.row.slot}
      </td>
      <NameCell {...props} />
      {props.columns.map((c, i) => (
        <ValueCell key={c.id} {...props} at={i} />
      ))}
    </tr>
  ),
  sameRow,
);
Row.displayName = 'Row';

import { Paper } from '../paper/paper.js';
import { boxesOf, headOf, inWords, partedInto, type SheetColumn, type SheetRow } from './columns.js';
import { theItem } from '@yunta/core/known/the';

/**
 * A sheet on paper, lying on its side. Columns that do not fit beside each other go on further pages, with the names
 * beside them again; over each page stands what its rows are.
 */
export const SheetPaper = ({
  label,
  heads,
  rows,
  columns,
}: {
  label: string;
  heads: readonly [string, string];
  rows: readonly SheetRow[];
  columns: readonly SheetColumn[];
}) => {
  const boxes = boxesOf(columns);
  return (
    <Paper title={label} wide>
      {partedInto(rows, columns).map((part) => (
        <table key={theItem(part, 0)} className="paper-sheet">
          <thead>
            <tr>
              {heads.map((h) => (
                <th key={h} className="named">
                  {h}
                </th>
              ))}
              {part.map((i) => (
                <th key={i}>{onPaper(headOf(boxes, theItem(columns, i)), theItem(columns, i))}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <td className="named">{row.slot}</td>
                <td className="named">
                  {row.name}
                  {row.note ? `, ${row.note}` : ''}
                </td>
                {part.map((i) => (
                  <td key={i}>{theItem(row.cells, i).text}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      <Reasons rows={rows} columns={columns} />
    </Paper>
  );
};

/** What somebody wrote down why it is so, below the sheet. */
const Reasons = ({ rows, columns }: { rows: readonly SheetRow[]; columns: readonly SheetColumn[] }) => {
  const reasons = rows.flatMap((row) =>
    row.cells.flatMap(({ why, text }, i) =>
      why ? [{ key: `${row.id} ${i}`, what: `${row.name}, ${theItem(columns, i).title} ${inWords(text)}`, why }] : [],
    ),
  );
  return reasons.length === 0 ? null : (
    <ul>
      {reasons.map(({ key, what, why }) => (
        <li key={key}>
          {what}: {why}
        </li>
      ))}
    </ul>
  );
};

/** Without the code of its box above it, a head says it itself. */
const onPaper = (head: string, { title }: SheetColumn): string => (title.endsWith(head) ? title : `${title} ${head}`);

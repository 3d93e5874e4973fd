import { Button, Select, Textarea } from '@mantine/core';
import {
  addRows,
  COLUMN_USES,
  fitsIn,
  kitRows,
  kitTable,
  type ColumnUse,
  type KitRow,
  type KitTable,
} from '@yunta/core/formats/kit-table';
import { MOST_ROWS } from '@yunta/core/formats/cells';
import { sayRefusal, type Refusal } from '@yunta/core/rig/result';
import { theOne } from '@yunta/core/known/the';
import { useDeferredValue, useMemo, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { TagSign } from '../../shared/tag-sign.js';
import { newPartId } from '../../session/ids.js';

const USE_WORDS: Readonly<Record<ColumnUse, string>> = {
  box: 'which box it is',
  name: 'our name for it',
  code: 'short name',
  'how many': 'how many',
  'MIDI channel': 'MIDI channel',
  zone: 'where it stands',
  nothing: 'not needed here',
};

const boxesText = (n: number): string => `${n} ${n === 1 ? 'box' : 'boxes'}`;

/**
 * A list of gear pasted as it is: the person says what its columns mean, rows that fit are offered, the others say why
 * and what is near.
 */
export const PasteKit = ({ done }: { done: () => void }) => {
  const { rig, edit } = useRig();
  const [text, setText] = useState('');
  const [refused, refuse] = useState<readonly Refusal[]>([]);
  const given = useDeferredValue(text);
  const read = useMemo(() => (given.trim() ? kitTable(given) : undefined), [given]);
  const [uses, setUses] = useState<readonly ColumnUse[]>();
  const [chosen, setChosen] = useState<ReadonlyMap<number, string>>(new Map());
  const table = read?.ok ? { ...read.value, uses: uses ?? read.value.uses } : undefined;
  const rows = table ? kitRows(table, chosen) : [];
  const fitting = rows.filter(fitsIn);
  const count = fitting.reduce((n, row) => n + row.count, 0);
  const paste = (pasted: string) => {
    setText(pasted);
    setUses(undefined);
    setChosen(new Map());
  };
  const take = () => {
    const refusals = edit(
      addRows(rig, rows, () => newPartId('device')),
      `Add ${boxesText(count)} from a list`,
    );
    refuse(refusals);
    if (refusals.length === 0) done();
  };
  const wrong = [...(read && !read.ok ? read.error : []), ...refused];
  return (
    <section className="card paste-kit" aria-label="Boxes from a list">
      <Textarea
        label="Paste your list of gear as it is"
        description={`From a spreadsheet or a file, with any columns, at most ${MOST_ROWS} rows. You say below what they mean.`}
        autosize
        minRows={3}
        maxRows={table ? 4 : 10}
        value={text}
        onChange={(e) => paste(e.currentTarget.value)}
      />
      {wrong.map((w) => (
        <p key={w.wrong} role="alert" className="broken">
          {sayRefusal(w)}
        </p>
      ))}
      {table && (
        <Rows
          table={table}
          rows={rows}
          use={(column, as) =>
            setUses(table.uses.map((u, c) => (c === column ? as : u === as && as !== 'nothing' ? 'nothing' : u)))
          }
          choose={(row, key) => setChosen(new Map(chosen).set(row, key))}
        />
      )}
      <div className="paste-do">
        <Button disabled={count === 0} onClick={take}>
          {count === 0 ? 'Add boxes' : `Add ${boxesText(count)}`}
        </Button>
        <Button variant="default" onClick={done}>
          Cancel
        </Button>
        {table && fitting.length < rows.length && (
          <span role="status">
            {rows.length - fitting.length} {rows.length - fitting.length === 1 ? 'row stays' : 'rows stay'} out, unless
            you choose a box for {rows.length - fitting.length === 1 ? 'it' : 'them'}.
          </span>
        )}
      </div>
    </section>
  );
};

interface RowsProps {
  readonly table: KitTable;
  readonly rows: readonly KitRow[];
  readonly use: (column: number, as: ColumnUse) => void;
  readonly choose: (row: number, key: string) => void;
}

/** The list as it was pasted, each column under what it means, each row with what it is taken for. */
const Rows = ({ table, rows, use, choose }: RowsProps) => (
  <div className="paste-rows" role="region" aria-label="The list as it is understood" tabIndex={0}>
    <table className="plain">
      <thead>
        <tr>
          <th>taken for</th>
          {table.uses.map((as, c) => (
            <th key={c}>
              <Select
                size="xs"
                w={136}
                aria-label={`What column ${c + 1} means${table.heading?.[c] ? `, ${table.heading[c]}` : ''}`}
                allowDeselect={false}
                data={COLUMN_USES.map((value) => ({ value, label: USE_WORDS[value] }))}
                value={as}
                onChange={(v) =>
                  v &&
                  use(
                    c,
                    theOne(COLUMN_USES, (one) => one === v),
                  )
                }
              />
              <span className="soft">{table.heading?.[c]}</span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          <tr key={i}>
            <td>
              <TakenFor row={row} choose={(key) => choose(i, key)} />
            </td>
            {table.uses.map((as, c) => (
              <td key={c} className={as === 'nothing' ? 'soft' : ''}>
                {table.rows[i]?.[c]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  </div>
);

const TakenFor = ({ row, choose }: { row: KitRow; choose: (key: string) => void }) => {
  const { box, why, candidates, count } = row;
  if (fitsIn(row) && box)
    return (
      <span className="taken-for">
        <TagSign code={box.box.code} />
        {count > 1 ? `${count} × ` : ''}
        {box.box.name}
      </span>
    );
  return (
    <div className="taken-for-not">
      <span>
        <strong aria-hidden>? </strong>
        {why}
      </span>
      {candidates.slice(0, 3).map((c) => (
        <Button
          key={c.key}
          size="compact-xs"
          variant="default"
          aria-label={`${row.said} is a ${c.box.name}`}
          onClick={() => choose(c.key)}
        >
          {c.box.name}
        </Button>
      ))}
    </div>
  );
};

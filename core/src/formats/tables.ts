import { together, type Edit } from '../change/edit.js';
import { connect, givesOut } from '../edits/cables.js';
import { caughtUp } from '../edits/sounds.js';
import { apply } from '../change/apply.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { MOST_ROWS, readCells, writeCells } from './cells.js';
import { all, cablesOf, partOf, type Rig } from '../rig/rig.js';
import { surely, theFirst } from '../known/the.js';
import { jackIn } from '../rig/box.js';

const KIT_COLUMNS = ['code', 'name', 'box', 'zone', 'midi channel'] as const;
const CABLE_COLUMNS = ['from box', 'from jack', 'to box', 'to jack', 'metres', 'label'] as const;

const csv = (fields: readonly string[], data: readonly (readonly (string | number)[])[]): string =>
  `${writeCells([fields, ...data])}\n`;

/** The kit as a table (RFC 4180), one box a row. */
export const kitCsv = (rig: Rig): string =>
  csv(
    KIT_COLUMNS,
    all(rig, 'device').map((d) => [
      d.code,
      d.name,
      d.made ?? '',
      d.zone,
      typeof d.midi?.channel === 'number' ? d.midi.channel : '',
    ]),
  );

/** The cables of a hook-up as a table (RFC 4180), what gives first. */
export const cablesCsv = (rig: Rig, hookup: Id<'hookup'>): string =>
  csv(
    CABLE_COLUMNS,
    cablesOf(rig, hookup).map(({ ends, m, label }) => {
      const [a, b] = [endAt(rig, ends[0]), endAt(rig, ends[1])];
      const [from, to] = !a.gives && b.gives ? [b, a] : [a, b];
      return [from.code, from.jack, to.code, to.jack, m ?? '', label ?? ''];
    }),
  );

interface End {
  readonly code: string;
  readonly jack: string;
  readonly gives: boolean;
}

const endAt = (rig: Rig, end: Ref): End => {
  const { device, name } = splitRef(end);
  const box = partOf(rig, device);
  const jack = jackIn(box, name);
  return { code: box?.code ?? device, jack: name, gives: jack !== undefined && givesOut(jack) };
};

type Row = Readonly<Record<string, string>>;
const wrongAt = (row: number, wrong: string, would: string): Refusal => ({
  code: 'table',
  where: `row ${row}`,
  wrong,
  would,
});

/**
 * Rows of a table from a file or pasted from a spreadsheet, with or without its heading; commas, semicolons or tabs.
 */
const rowsOf = (text: string, columns: readonly string[]): Result<readonly Row[], readonly Refusal[]> => {
  const cells = readCells(text.trim());
  if (!cells.ok) return cells;
  const data = cells.value;
  if (data.length === 0)
    return refuse([wrongAt(1, 'There is nothing in it.', `Give one row each: ${columns.join(', ')}.`)]);
  const heading = theFirst(data).map((h) => h.trim().toLowerCase());
  const named = columns.slice(0, 2).every((c) => heading.includes(c));
  const names = named ? heading : columns;
  const rows = (named ? data.slice(1) : data).map((cells) =>
    Object.fromEntries(names.map((name, i) => [name, (cells[i] ?? '').trim()])),
  );
  if (rows.length > MOST_ROWS)
    return refuse([
      wrongAt(MOST_ROWS + 1, `There are ${rows.length} rows.`, `At most ${MOST_ROWS} are taken at once.`),
    ]);
  return ok(rows);
};

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Cables from a table, plugged one after the other; a jack that holds a plug gives it up. All rows or none. */
export const readCableTable = (
  rig: Rig,
  hookup: Id<'hookup'>,
  text: string,
  newId: () => Id<'cable'>,
): Result<Edit, readonly Refusal[]> => {
  const rows = rowsOf(text, CABLE_COLUMNS);
  if (!rows.ok) return rows;
  const wrong: Refusal[] = [];
  const edits: Edit[] = [];
  let sofar = rig;
  rows.value.forEach((row, i) => {
    const read = cableIn(rig, row, i + 1);
    if (!read.ok) return void wrong.push(...read.error);
    const { from, to, metres } = read.value;
    const plugged = connect(sofar, hookup, newId(), from, to);
    const [cable, ...others] = plugged.put;
    const tagged = { ...(metres ? { m: metres } : {}), ...(row['label'] ? { label: row['label'] } : {}) };
    const edit = cable?.kind === 'cable' ? { ...plugged, put: [{ ...cable, ...tagged }, ...others] } : plugged;
    const applied = apply(sofar, edit);
    if (!applied.ok) return void wrong.push(...applied.error.map((e) => ({ ...e, where: `row ${i + 1}` })));
    sofar = applied.value.rig;
    edits.push(edit);
  });
  return wrong.length ? refuse(wrong) : ok(together(...edits, caughtUp(sofar)));
};

interface CableRow {
  readonly from: Ref;
  readonly to: Ref;
  readonly metres: number | undefined;
}

const cableIn = (
  rig: Rig,
  row: Readonly<Record<string, string>>,
  line: number,
): Result<CableRow, readonly Refusal[]> => {
  const from = jackNamed(rig, row['from box'] ?? '', row['from jack'] ?? '', line);
  const to = jackNamed(rig, row['to box'] ?? '', row['to jack'] ?? '', line);
  if (!from.ok || !to.ok) return refuse([from, to].flatMap((end) => (end.ok ? [] : [end.error])));
  if (from.value === to.value)
    return refuse([wrongAt(line, 'Both ends are in the same jack.', 'Name another jack for the other end.')]);
  const said = row['metres'];
  const metres = said ? Number(said.replace(',', '.')) : undefined;
  if (metres !== undefined && !(metres > 0 && metres <= 200))
    return refuse([wrongAt(line, `"${surely(said).slice(0, 20)}" is no length.`, 'Give metres, such as 0.3 or 6.')]);
  return ok({ from: from.value, to: to.value, metres });
};

/** A jack as a table names it: by the code or the name of its box, and its own name. */
const jackNamed = (rig: Rig, code: string, name: string, line: number): Result<Ref, Refusal> => {
  const boxes = all(rig, 'device');
  const box = boxes.find((d) => d.code.toLowerCase() === code.toLowerCase() || plain(d.name) === plain(code));
  if (!box) {
    const would = `There are ${boxes.map((d) => d.code).join(', ') || 'none yet; say first what is in the kit'}.`;
    return refuse(wrongAt(line, `No box is called "${code.slice(0, 60)}".`, would));
  }
  const isNamed = (id: string): boolean => id.toLowerCase() === name.toLowerCase();
  const found = jackIn(box, name) ?? box.jacks.find((j) => isNamed(j.id));
  if (found) return ok(ref(box.id, found.id));
  const would = `It has ${box.jacks.map((j) => j.id).join(', ')}.`;
  return refuse(wrongAt(line, `${box.code} has no jack "${name.slice(0, 60)}".`, would));
};

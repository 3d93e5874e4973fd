import { CATALOGUE, generic } from '../catalogue/boxes.js';
import { understand } from '../catalogue/kit-line/kit-line.js';
import { numbered } from '../catalogue/numbered.js';
import type { Generic } from '../catalogue/parts.js';
import { together, type Edit } from '../change/edit.js';
import { addDevice } from '../edits/devices.js';
import { recordOf } from '../known/keys.js';
import { theFirst } from '../known/the.js';
import { ZONES, type Zone } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { LONGEST, wrongText } from '../rig/limits.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import type { Rig } from '../rig/rig.js';
import { MOST_ROWS, readCells } from './cells.js';

/** What a column of somebody's list says of a box. */
export const COLUMN_USES = ['box', 'name', 'code', 'how many', 'MIDI channel', 'zone', 'nothing'] as const;
export type ColumnUse = (typeof COLUMN_USES)[number];

/** A list of gear as somebody keeps it: its rows, its heading where it has one, and what each column seems to say. */
export interface KitTable {
  readonly heading?: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** One for each column; the person may know better. */
  readonly uses: readonly ColumnUse[];
}

/** How people head such columns (common practice). */
const HEADINGS: Readonly<Record<Exclude<ColumnUse, 'nothing'>, RegExp>> = {
  box: /^(box|item|gear|pedal|unit|what|type|kind|equipment|device|description)s?$/,
  name: /^(name|called|our name|nickname)$/,
  code: /^(code|short|tag|abbr\w*|id)$/,
  'how many': /^(qty|quantity|count|how many|pcs|pieces|number|no|amount|#)$/,
  'MIDI channel': /^(midi|midi ?ch\w*|ch|chan\w*|channel)$/,
  zone: /^(zone|place|where|location|position|stands)$/,
};

/** A heading without what stands in brackets, points and capitals. */
const headingText = (cell: string): string =>
  cell
    .toLowerCase()
    .replaceAll(/\(.*?\)|[.:]/g, '')
    .trim();

const useOf = (cell: string): ColumnUse | undefined =>
  COLUMN_USES.find((use) => use !== 'nothing' && HEADINGS[use].test(headingText(cell)));

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** The box that the shelves call just so, by its key or its name; what else people say means it is understood. */
const named = (said: string): Generic | undefined =>
  CATALOGUE.find((g) => g.key === said) ?? numbered(said) ?? CATALOGUE.find((g) => plain(g.box.name) === plain(said));

const isBox = (cell: string): boolean =>
  cell !== '' && (named(cell) !== undefined || understand(cell).heard.some((h) => h.is !== 'refused'));

/** The column that speaks of boxes most often, the first of them; of none, the first. */
const boxColumn = (rows: readonly (readonly string[])[], width: number): number => {
  const looked = rows.slice(0, LOOKED_AT);
  const counts = Array.from({ length: width }, (_, c) => looked.filter((row) => isBox(row[c] ?? '')).length);
  return counts.indexOf(Math.max(...counts));
};
/** So many rows say what a column holds. */
const LOOKED_AT = 12;

/** The order in which `kitCsv` writes, which may come without its heading. */
const AS_WRITTEN: readonly ColumnUse[] = ['code', 'name', 'box', 'zone', 'MIDI channel'];
const isZone = (text: string): text is Zone => ZONES.some((z) => z === text.toLowerCase());

const guessed = (rows: readonly (readonly string[])[], width: number): readonly ColumnUse[] => {
  const looked = rows.slice(0, LOOKED_AT);
  const isAsWritten =
    width >= 3 &&
    width <= AS_WRITTEN.length &&
    looked.every((row) => wrongText(row[0] ?? '', LONGEST.code) === undefined && isBox((row[2] || row[1]) ?? ''));
  if (isAsWritten) return AS_WRITTEN.slice(0, width);
  const box = boxColumn(rows, width);
  return Array.from({ length: width }, (_, c): ColumnUse => {
    if (c === box) return 'box';
    const said = looked.map((row) => row[c] ?? '').filter(Boolean);
    if (said.length > 0 && said.every(isZone)) return 'zone';
    if (said.length > 0 && said.every((s) => /\bch|midi/i.test(s) && channelIn(s) !== undefined)) return 'MIDI channel';
    if (said.length === looked.length && said.every((s) => countIn(s) !== undefined)) return 'how many';
    return 'nothing';
  });
};

/** @example channelIn('ch 3') // 3, as 'MIDI channel 3' and '3' */
const channelIn = (text: string): number | undefined => {
  const [, n] = /^(?:midi)?\s*(?:ch|chan|channel)?\.?\s*(\d{1,2})$/i.exec(text.trim()) ?? [];
  const channel = Number(n);
  return channel >= 1 && channel <= 16 ? channel : undefined;
};

const MOST_OF_ONE = 20;
/** @example countIn('x2') // 2, as '2', '2 x' and '2 pcs' */
const countIn = (text: string): number | undefined => {
  const [, n] = /^x?\s*(\d{1,2})\s*(?:x|×|pcs?|off)?$/i.exec(text.trim()) ?? [];
  const count = Number(n);
  return count >= 1 && count <= MOST_OF_ONE ? count : undefined;
};

/** Two cells that head columns are a heading; one is, where nothing beside it is a box. */
const isHeading = (cells: readonly string[]): boolean => {
  const known = cells.filter((c) => useOf(c) !== undefined).length;
  return known > 1 || (known === 1 && cells.every((c) => useOf(c) !== undefined || !isBox(c)));
};

const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'table', where, wrong, would });

/**
 * A list of gear from a spreadsheet or a file, with or without a heading, its columns in any order and of any number.
 * @returns a refusal when there is nothing in it, or too much
 */
export const kitTable = (text: string): Result<KitTable, readonly Refusal[]> => {
  const cells = readCells(text.trim());
  if (!cells.ok) return cells;
  const all = cells.value.map((row) => row.map((c) => c.trim())).filter((row) => row.some(Boolean));
  if (all.length === 0) return refuse([refusal('row 1', 'There is nothing in it.', 'Give one box a row.')]);
  const width = Math.max(...all.map((row) => row.length));
  const first = theFirst(all);
  const hasHeading = isHeading(first);
  const rows = hasHeading ? all.slice(1) : all;
  if (rows.length > MOST_ROWS)
    return refuse([
      refusal(`row ${MOST_ROWS + 1}`, `There are ${rows.length} rows.`, `At most ${MOST_ROWS} are taken at once.`),
    ]);
  if (!hasHeading) return ok({ rows, uses: guessed(rows, width) });
  const byHeading = Array.from({ length: width }, (_, c) => useOf(first[c] ?? '') ?? 'nothing');
  return ok({ heading: first, rows, uses: withBox(onlyOnce(byHeading), rows, width) });
};

/** Of several columns that seem to say the same the first counts. */
const onlyOnce = (uses: readonly ColumnUse[]): readonly ColumnUse[] =>
  uses.map((use, i) => (uses.indexOf(use) < i ? 'nothing' : use));

/** Where no heading says which column names the boxes, the one that does; the name may be all there is. */
const withBox = (uses: readonly ColumnUse[], rows: KitTable['rows'], width: number): readonly ColumnUse[] => {
  if (uses.includes('box') || uses.includes('name')) return uses;
  const at = boxColumn(rows, width);
  return uses.map((use, i) => (i === at ? 'box' : use));
};

/** One row, as it is understood. */
export interface KitRow {
  /** What its box was looked for by. */
  readonly said: string;
  /** The box that is meant; without one it is asked about, or stays out. */
  readonly box?: Generic;
  readonly count: number;
  readonly code?: string;
  readonly name?: string;
  readonly channel?: number;
  readonly zone?: Zone;
  /** Why it cannot be added as it stands. */
  readonly why?: string;
  /** The nearest boxes, to choose from. */
  readonly candidates: readonly Generic[];
}

/** What a row says under each use; a use that no column has says nothing. */
const saidIn = (row: readonly string[], uses: readonly ColumnUse[]): Readonly<Record<ColumnUse, string>> =>
  recordOf(COLUMN_USES, (use) => {
    const at = uses.indexOf(use);
    return at < 0 ? '' : (row[at] ?? '');
  });

type Found = Pick<KitRow, 'candidates'> & {
  readonly box?: Generic;
  readonly count?: number;
  readonly channel?: number;
  readonly why?: string;
};

const found = (texts: readonly string[]): Found => {
  const said = texts.filter(Boolean);
  for (const text of said) {
    const box = named(text);
    if (box) return { box, candidates: [] };
  }
  let asked: Found | undefined;
  for (const text of said) {
    const { heard } = understand(text);
    const [one] = heard;
    if (heard.length === 1 && one?.is === 'taken')
      return { box: one.box, count: one.count, ...(one.channel ? { channel: one.channel } : {}), candidates: [] };
    const candidates = heard.flatMap((h) => (h.is === 'taken' ? [h.box] : h.is === 'asked' ? h.candidates : []));
    asked ??= {
      why:
        heard.length > 1
          ? 'Several boxes stand in this row.'
          : one && one.is !== 'taken'
            ? one.why
            : 'No box is named here.',
      candidates,
    };
    if (candidates.length > 0 && asked.candidates.length === 0) asked = { ...asked, candidates };
  }
  return asked ?? { why: 'No box is named here.', candidates: [] };
};

/** What is wrong with what a row says besides its box. */
const wrongIn = (said: Readonly<Record<ColumnUse, string>>): string | undefined => {
  const tooLong = (use: 'code' | 'name'): string | undefined => {
    const wrong = wrongText(said[use], LONGEST[use]);
    return wrong === undefined ? undefined : `The ${use} is too long: ${wrong}`;
  };
  if (said['MIDI channel'] && channelIn(said['MIDI channel']) === undefined)
    return `“${said['MIDI channel'].slice(0, 20)}” is no MIDI channel. Use 1 to 16.`;
  if (said['how many'] && countIn(said['how many']) === undefined)
    return `“${said['how many'].slice(0, 20)}” is no number of boxes. Use 1 to ${MOST_OF_ONE}.`;
  return tooLong('code') ?? tooLong('name');
};

/**
 * The rows of a list as they are understood.
 * @param chosen by row, the key of the box that the person chose for it
 */
export const kitRows = (
  { rows, uses }: Pick<KitTable, 'rows' | 'uses'>,
  chosen: ReadonlyMap<number, string> = new Map(),
): readonly KitRow[] =>
  rows.map((row, i): KitRow => {
    const said = saidIn(row, uses);
    const key = chosen.get(i);
    const { box, candidates, ...more } =
      key === undefined ? found([said.box, said.name, said.code]) : { box: generic(key), candidates: [] };
    const { why, count, channel }: Partial<Found> = more;
    const wrong = wrongIn(said) ?? why;
    const zone = said.zone.toLowerCase();
    const itsChannel = channelIn(said['MIDI channel']) ?? channel;
    return {
      said: said.box || said.name || said.code,
      count: countIn(said['how many']) ?? count ?? 1,
      candidates,
      ...(box ? { box } : {}),
      ...(said.code ? { code: said.code } : {}),
      ...(said.name ? { name: said.name } : {}),
      ...(itsChannel && box?.box.midi ? { channel: itsChannel } : {}),
      ...(isZone(zone) ? { zone } : {}),
      ...(wrong === undefined ? {} : { why: wrong }),
    };
  });

/** Whether a row can be added as it stands. */
export const fitsIn = (row: KitRow): boolean => row.box !== undefined && row.why === undefined;

/** Adds the rows that can be; the others are left out. */
export const addRows = (rig: Rig, rows: readonly KitRow[], newId: () => Id<'device'>): Edit => {
  const codes: string[] = [];
  return together(
    ...rows.filter(fitsIn).flatMap(({ box, count, code, name, channel, zone }) =>
      Array.from({ length: box ? count : 0 }, () => {
        const given = { ...(code ? { code } : {}), ...(name ? { name } : {}), ...(channel ? { channel } : {}) };
        const edit = addDevice(rig, box?.key ?? '', newId(), given, codes);
        const [device] = edit.put;
        codes.push(device.code);
        return zone ? { ...edit, put: [{ ...device, zone }] } : edit;
      }),
    ),
  );
};

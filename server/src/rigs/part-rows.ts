import { broughtUpToDate, FORMAT } from '@yunta/core/rig/versions/index';
import type { Part } from '@yunta/core/rig/rig';
import type { Kind } from '@yunta/core/rig/ids';
import { TABLES, type AnyRow } from './part.entities.js';

/** A part as its row. Columns hold what is queried or constrained; `rest` holds everything else. */
export const toRow = (rig: string, part: Part): AnyRow => {
  const { entity, columns } = TABLES[part.kind];
  const { kind: _, id, ...fields } = part as Part & Record<string, unknown>;
  const own = columns.map((c) => [c, fields[c] ?? null] as const);
  const rest = Object.fromEntries(Object.entries(fields).filter(([key]) => !columns.includes(key)));
  return Object.assign(new entity(), { rig, id, format: FORMAT, rest, ...Object.fromEntries(own) });
};

/** A row as its part, brought up to today's format. */
export const toPart = (kind: Kind, row: AnyRow): Part => {
  const { id, format, rest } = row;
  const fields = TABLES[kind].columns.flatMap((c) => {
    const value = (row as unknown as Record<string, unknown>)[c];
    return value === null || value === undefined ? [] : [[c, value] as const];
  });
  const part = broughtUpToDate({ kind, id, ...Object.fromEntries(fields), ...rest }, format);
  if (part === undefined)
    throw new Error(`${kind} ${id} was written in format ${format}, which this Yunta cannot read`);
  return part as Part;
};

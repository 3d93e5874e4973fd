import { z } from 'zod';
import { apply } from '../change/apply.js';
import { KINDS, type Kind } from '../rig/ids.js';
import { LARGEST_FILE } from '../rig/limits.js';
import { readPart } from '../rig/read.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, emptyRig, type Part, type Rig } from '../rig/rig.js';
import { SHAPES } from '../rig/shape.js';
import { broughtUpToDate, FORMAT } from '../rig/versions/index.js';

/** Names of the lists in a rig file, in the order in which they are written. */
const LISTS: Readonly<Record<Kind, string>> = {
  about: 'about', device: 'devices', program: 'programs', hookup: 'hookups', cable: 'cables', sound: 'sounds', move: 'moves', song: 'songs',
  setList: 'setLists', logEntry: 'log', standingTest: 'standingTests', acceptance: 'acceptances', tick: 'ticks',
};

/** A part with its fields in the order of its shape, so that equal rigs give equal text. */
const inOrder = (part: Part): unknown => {
  const shaped = SHAPES[part.kind].safeParse(part);
  return shaped.success ? shaped.data : part;
};

/** The whole rig as one JSON document (docs/formats.md). Writing what was read gives the same text. One so large that it could not be read again goes without line breaks. */
export const writeRigFile = (rig: Rig): string => {
  const document = { yunta: 'rig', format: FORMAT, ...Object.fromEntries(KINDS.map((kind) => [LISTS[kind], (all(rig, kind) as readonly Part[]).map(inOrder)])) };
  const text = `${JSON.stringify(document, null, 2)}\n`;
  return text.length <= LARGEST_FILE ? text : `${JSON.stringify(document)}\n`;
};

const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'file', where, wrong, would });

/** @returns the rig, or every reason why the text is none, each with its path inside the document */
export const readRigFile = (text: string): Result<Rig, readonly Refusal[]> => {
  if (text.length > LARGEST_FILE) return refuse([refusal('', `The file has ${text.length.toLocaleString('en')} characters.`, `A rig file has at most ${LARGEST_FILE.toLocaleString('en')}.`)]);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (e) {
    return refuse([refusal('', `This is not JSON: ${(e as Error).message}.`, 'Export the rig again, or correct the file at that place.')]);
  }
  if (!data || typeof data !== 'object' || Array.isArray(data) || (data as { yunta?: unknown }).yunta !== 'rig') {
    return refuse([refusal('yunta', 'This JSON is not a rig of Yunta.', 'A rig file begins with "yunta": "rig".')]);
  }
  const document = data as Readonly<Record<string, unknown>>;
  if (broughtUpToDate({}, document.format) === undefined) {
    return refuse([refusal('format', `${JSON.stringify(document.format) ?? 'nothing'} is not a format that this Yunta reads.`, `It reads 1 to ${FORMAT}; a newer file needs a newer Yunta.`)]);
  }
  const unknownKeys = Object.keys(document).filter((k) => !['yunta', 'format', ...Object.values(LISTS)].includes(k));
  if (unknownKeys.length) return refuse(unknownKeys.map((k) => refusal(k, 'This is not part of a rig file.', `It holds ${Object.values(LISTS).join(', ')}.`)));
  const parts: Part[] = [];
  const seen = new Set<string>();
  const wrong: Refusal[] = [];
  for (const kind of KINDS) {
    const list = document[LISTS[kind]] ?? [];
    if (!Array.isArray(list)) {
      wrong.push(refusal(LISTS[kind], 'A list belongs here.', 'Use [ ] around its parts.'));
      continue;
    }
    list.forEach((raw, i) => {
      const where = `${LISTS[kind]}[${i}]`;
      const read = readPart(broughtUpToDate(raw, document.format), where);
      if (!read.ok) wrong.push(...read.error);
      else if (read.value.kind !== kind) wrong.push(refusal(`${where}.kind`, `A ${read.value.kind} stands among the ${LISTS[kind]}.`, `Move it to ${LISTS[read.value.kind]}.`));
      else if (seen.has(read.value.id)) wrong.push(refusal(`${where}.id`, `"${read.value.id}" is there twice.`, 'Give each part an id of its own.'));
      else {
        seen.add(read.value.id);
        parts.push(read.value);
      }
    });
  }
  if (wrong.length) return refuse(wrong);
  const applied = apply(emptyRig('Rig'), { put: parts, remove: [] });
  if (!applied.ok) return refuse(applied.error);
  return ok({ ...applied.value.rig, revision: 0 });
};

/** JSON Schema (2020-12) of the rig file, made from the shapes that the product itself reads by. */
export const rigFileSchema = (): Record<string, unknown> => {
  const lists = Object.fromEntries(KINDS.map((kind) => [LISTS[kind], z.array(SHAPES[kind] as z.ZodType)]));
  const schema = z.strictObject({ yunta: z.literal('rig'), format: z.literal(FORMAT), ...lists });
  return { title: 'Rig file of Yunta', ...z.toJSONSchema(schema, { target: 'draft-2020-12', reused: 'ref', unrepresentable: 'any' }) };
};

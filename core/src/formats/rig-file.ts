import { z } from 'zod';
import { apply } from '../change/apply.js';
import { KINDS, type Kind } from '../rig/ids.js';
import { LARGEST_FILE } from '../rig/limits.js';
import { readPart } from '../rig/read.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { all, emptyRig, type Part, type Rig } from '../rig/rig.js';
import { SHAPES } from '../rig/shape.js';
import { broughtUpToDate, FORMAT } from '../rig/versions/index.js';
import { isRecord } from '../known/keys.js';
import { saidBy } from '../known/said-by.js';

/** Names of the lists in a rig file, in the order in which they are written. */
const LISTS: Readonly<Record<Kind, string>> = {
  about: 'about',
  device: 'devices',
  program: 'programs',
  hookup: 'hookups',
  cable: 'cables',
  sound: 'sounds',
  move: 'moves',
  song: 'songs',
  engagement: 'engagements',
  setList: 'setLists',
  logEntry: 'log',
  standingTest: 'standingTests',
  acceptance: 'acceptances',
  tick: 'ticks',
  dialCard: 'dialCards',
  packCase: 'cases',
  packing: 'packings',
  house: 'houses',
  photo: 'photos',
};

/** A part with its fields in the order of its shape, so that equal rigs give equal text. */
const inOrder = (part: Part): unknown => {
  const shaped = SHAPES[part.kind].safeParse(part);
  return shaped.success ? shaped.data : part;
};

/**
 * The whole rig as one JSON document (docs/formats.md). Writing what was read gives the same text. One so large that
 * it could not be read again goes without line breaks.
 */
export const writeRigFile = (rig: Rig): string => {
  const document = {
    yunta: 'rig',
    format: FORMAT,
    ...Object.fromEntries(KINDS.map((kind) => [LISTS[kind], all(rig, kind).map(inOrder)])),
  };
  const text = `${JSON.stringify(document, null, 2)}\n`;
  return text.length <= LARGEST_FILE ? text : `${JSON.stringify(document)}\n`;
};

const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'file', where, wrong, would });

/** @returns the rig, or every reason why the text is none, each with its path inside the document */
export const readRigFile = (text: string): Result<Rig, readonly Refusal[]> => {
  const document = documentIn(text);
  if (!document.ok) return refuse([document.error]);
  const known = ['yunta', 'format', ...Object.values(LISTS)];
  const unknown = Object.keys(document.value).filter((k) => !known.includes(k));
  const would = `It holds ${Object.values(LISTS).join(', ')}.`;
  if (unknown.length) return refuse(unknown.map((k) => refusal(k, 'This is not part of a rig file.', would)));
  const parts = partsIn(document.value);
  if (!parts.ok) return parts;
  const applied = apply(emptyRig('Rig'), { put: parts.value, remove: [] });
  return applied.ok ? ok({ ...applied.value.rig, revision: 0 }) : refuse(applied.error);
};

type Document = Readonly<Record<string, unknown>>;

/** The text as a document of a format that is known; nothing of what it holds is looked at yet. */
const documentIn = (text: string): Result<Document, Refusal> => {
  if (text.length > LARGEST_FILE) {
    const wrong = `The file has ${text.length.toLocaleString('en')} characters.`;
    return refuse(refusal('', wrong, `A rig file has at most ${LARGEST_FILE.toLocaleString('en')}.`));
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (e) {
    const wrong = `This is not JSON: ${saidBy(e)}.`;
    return refuse(refusal('', wrong, 'Export the rig again, or correct the file at that place.'));
  }
  if (!isRecord(data) || data.yunta !== 'rig')
    return refuse(refusal('yunta', 'This JSON is not a rig of Yunta.', 'A rig file begins with "yunta": "rig".'));
  if (broughtUpToDate({}, data.format) !== undefined) return ok(data);
  const wrong = `${JSON.stringify(data.format) ?? 'nothing'} is not a format that this Yunta reads.`;
  return refuse(refusal('format', wrong, `It reads 1 to ${FORMAT}; a newer file needs a newer Yunta.`));
};

const partsIn = (document: Document): Result<readonly Part[], readonly Refusal[]> => {
  const parts: Part[] = [];
  const seen = new Set<string>();
  const wrong: Refusal[] = [];
  const take = (kind: Kind, raw: unknown, where: string): void => {
    const read = readPart(broughtUpToDate(raw, document.format), where);
    if (!read.ok) return void wrong.push(...read.error);
    const part = read.value;
    if (part.kind !== kind) {
      const stray = `A ${part.kind} stands among the ${LISTS[kind]}.`;
      return void wrong.push(refusal(`${where}.kind`, stray, `Move it to ${LISTS[part.kind]}.`));
    }
    if (seen.has(part.id))
      return void wrong.push(
        refusal(`${where}.id`, `"${part.id}" is there twice.`, 'Give each part an id of its own.'),
      );
    seen.add(part.id);
    parts.push(part);
  };
  for (const kind of KINDS) {
    const list = document[LISTS[kind]] ?? [];
    if (Array.isArray(list)) list.forEach((raw, i) => take(kind, raw, `${LISTS[kind]}[${i}]`));
    else wrong.push(refusal(LISTS[kind], 'A list belongs here.', 'Use [ ] around its parts.'));
  }
  return wrong.length ? refuse(wrong) : ok(parts);
};

/** JSON Schema (2020-12) of the rig file, made from the shapes that the product itself reads by. */
export const rigFileSchema = (): Record<string, unknown> => {
  const lists = Object.fromEntries(KINDS.map((kind) => [LISTS[kind], z.array(SHAPES[kind])]));
  const schema = z.strictObject({ yunta: z.literal('rig'), format: z.literal(FORMAT), ...lists });
  return {
    title: 'Rig file of Yunta',
    ...z.toJSONSchema(schema, { target: 'draft-2020-12', reused: 'ref', unrepresentable: 'any' }),
  };
};

import { saidBy } from '../known/said-by.js';
import { isRecord } from '../known/keys.js';
import type { Device } from '../rig/device.js';
import { readPart } from '../rig/read.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { broughtUpToDate, FORMAT } from '../rig/versions/index.js';

/** A shelf of boxes as one JSON document (docs/formats.md). */
export const writeShelfFile = (boxes: readonly Device[]): string =>
  `${JSON.stringify({ yunta: 'shelf', format: FORMAT, boxes }, null, 2)}\n`;

const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'file', where, wrong, would });

/** @returns the boxes, or every reason why the text is no shelf, each with its path inside the document */
export const readShelfFile = (text: string): Result<readonly Device[], readonly Refusal[]> => {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (e) {
    return refuse([
      refusal('', `This is not JSON: ${saidBy(e)}.`, 'Export the shelf again, or correct the file at that place.'),
    ]);
  }
  if (!isRecord(data) || data.yunta !== 'shelf')
    return refuse([
      refusal('yunta', 'This JSON is not a shelf of Yunta.', 'A shelf file begins with "yunta": "shelf".'),
    ]);
  if (broughtUpToDate({}, data.format) === undefined)
    return refuse([
      refusal(
        'format',
        `${JSON.stringify(data.format) ?? 'nothing'} is not a format that this Yunta reads.`,
        `It reads 1 to ${FORMAT}; a newer file needs a newer Yunta.`,
      ),
    ]);
  if (!Array.isArray(data.boxes))
    return refuse([refusal('boxes', 'A list belongs here.', 'Use [ ] around its boxes.')]);
  const wrong: Refusal[] = [];
  const boxes = data.boxes.flatMap((raw: unknown, i): Device[] => {
    const read = readPart(broughtUpToDate(raw, data.format), `boxes[${i}]`);
    if (!read.ok) wrong.push(...read.error);
    else if (read.value.kind !== 'device')
      wrong.push(
        refusal(`boxes[${i}].kind`, `A ${read.value.kind} stands among the boxes.`, 'Only devices stand on a shelf.'),
      );
    else return [read.value];
    return [];
  });
  return wrong.length ? refuse(wrong) : ok(boxes);
};

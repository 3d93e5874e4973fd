import { ok, refuse, type Refusal, type Result } from '../rig/result.js';

/** Sides of a sheet of paper, in mm (ISO 216; ANSI/ASME Y14.1). */
const PAPERS = { A4: [210, 297], Letter: [215.9, 279.4] } as const;
type PaperName = keyof typeof PAPERS;

/** Label paper as its wrapper says it: so many labels across and down, all lengths in mm. */
export interface LabelPaper {
  readonly paper: PaperName;
  readonly across: number;
  readonly down: number;
  readonly label: readonly [width: number, height: number];
  readonly gap: readonly [across: number, down: number];
  /** To the first label from the left and from above. */
  readonly margin: readonly [left: number, top: number];
}

/** Where a label lies on its sheet, in mm from the left and from above. */
export interface LabelPlace {
  readonly x: number;
  readonly y: number;
}

/** A sheet holds no more labels than that across or down. */
const MOST = 40;

const NUMBER = String.raw`(\d+(?:[.,]\d+)?)`;
const BY = String.raw`\s*[x×]\s*`;
const LINE = new RegExp(
  String.raw`^(\d+)${BY}(\d+)\s*(?:labels?)?\s*(?:of|,|:|;)?\s*${NUMBER}${BY}${NUMBER}\s*(mm|cm)?\s*(?:(?:on|,|;)\s*)?(A4|letter)?\s*(?:[,;]?\s*gaps?\s*${NUMBER}${BY}${NUMBER}\s*(?:mm)?)?\s*(?:[,;]?\s*margins?\s*${NUMBER}${BY}${NUMBER}\s*(?:mm)?)?$`,
  'iu',
);
const EXAMPLE = '3 x 8 of 70 x 36 mm on A4';

/** To a hundredth of a mm. */
const rounded = (mm: number): number => Math.round(mm * 100) / 100;
const mmOf = (text: string | undefined): number => rounded(Number((text ?? '0').replace(',', '.')));

export const sidesOf = ({ paper }: LabelPaper): readonly [width: number, height: number] => PAPERS[paper];

const refused = (wrong: string, would: string): Result<never, readonly Refusal[]> =>
  refuse([{ code: 'label paper', where: 'Label paper', wrong, would }]);

/** How much some labels with their gaps take in a row. */
const taken = (labels: number, length: number, gap: number): number => labels * length + (labels - 1) * gap;

/**
 * Reads label paper as one says it. Where no margin is said, the labels lie in the middle of the sheet.
 *
 * @example readLabelPaper('3 x 8 of 70 x 36 mm on A4, gap 0 x 0, margin 0 x 4.5')
 * @returns refused where it cannot be read, or the labels do not fit on the paper
 */
export const readLabelPaper = (text: string): Result<LabelPaper, readonly Refusal[]> => {
  const found = LINE.exec(text.trim());
  if (!found)
    return refused(
      `"${text.trim().slice(0, 40)}" is no label paper.`,
      `Write how many across and down, and their size, such as “${EXAMPLE}”; “gap 2.5 x 0” and “margin 7 x 15” may follow.`,
    );
  const [, columns, rows, width, height, unit, name, gapAcross, gapDown, left, top] = found;
  const [across, down] = [Number(columns), Number(rows)];
  const scale = unit?.toLowerCase() === 'cm' ? 10 : 1;
  const label = [mmOf(width) * scale, mmOf(height) * scale] as const;
  const gap = [mmOf(gapAcross), mmOf(gapDown)] as const;
  const paper: PaperName = name?.toLowerCase() === 'letter' ? 'Letter' : 'A4';
  if (across < 1 || down < 1 || across > MOST || down > MOST || label[0] <= 0 || label[1] <= 0)
    return refused('That is no sheet of labels.', `Write from 1 to ${MOST} labels across and down, each above 0 mm.`);
  for (const [i, many, side] of [
    [0, across, 'wide'],
    [1, down, 'high'],
  ] as const) {
    const needs = taken(many, label[i], gap[i]) + mmOf(i === 0 ? left : top);
    if (needs > PAPERS[paper][i] + 0.01)
      return refused(
        `The labels need ${rounded(needs)} mm, and ${paper} is ${PAPERS[paper][i]} mm ${side}.`,
        'Look at the size on the wrapper, and at what stands across and what down.',
      );
  }
  const middle = (i: 0 | 1, many: number): number => rounded((PAPERS[paper][i] - taken(many, label[i], gap[i])) / 2);
  const margin =
    left === undefined ? ([middle(0, across), middle(1, down)] as const) : ([mmOf(left), mmOf(top)] as const);
  return ok({ paper, across, down, label, gap, margin });
};

/** How many labels a sheet has. */
export const labelsOn = ({ across, down }: LabelPaper): number => across * down;

/** Where a label lies, counted from 0 along the rows of a sheet. */
export const placeOf = ({ across, label, gap, margin }: LabelPaper, number: number): LabelPlace => ({
  x: margin[0] + (number % across) * (label[0] + gap[0]),
  y: margin[1] + Math.floor(number / across) * (label[1] + gap[1]),
});

/**
 * Things on sheets of labels, sheet by sheet.
 * @param used labels of the first sheet that are used already
 */
export const onSheets = <T>(
  paper: LabelPaper,
  things: readonly T[],
  used = 0,
): readonly (readonly { readonly thing: T; readonly at: LabelPlace }[])[] => {
  const each = labelsOn(paper);
  const sheets: { readonly thing: T; readonly at: LabelPlace }[][] = [];
  things.forEach((thing, i) => {
    const number = i + (used % each);
    const sheet = (sheets[Math.floor(number / each)] ??= []);
    sheet.push({ thing, at: placeOf(paper, number % each) });
  });
  return sheets;
};

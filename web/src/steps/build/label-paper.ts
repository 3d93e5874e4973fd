import { readLabelPaper, type LabelPaper } from '@yunta/core/board/label-paper';

const PAPER = 'yunta-label-paper';

/** The label paper that lies in this printer, as it was said; empty for plain paper. */
export const labelPaperHere = (): string => globalThis.localStorage?.getItem(PAPER) ?? '';
export const rememberLabelPaper = (text: string): void => localStorage.setItem(PAPER, text);

/** What was said, read; undefined for plain paper. */
export const labelPaperOf = (text: string): LabelPaper | undefined => {
  const is = text ? readLabelPaper(text) : undefined;
  return is?.ok ? is.value : undefined;
};

import type { Device } from './device.js';

/** Where a figure of a box can come from, the surest first. */
export const FIGURE_ORIGINS = ['measured', 'maker', 'ear', 'assumed'] as const;
export type FigureOrigin = (typeof FIGURE_ORIGINS)[number];

/** Where one figure comes from. */
export interface FigureSource {
  readonly from: FigureOrigin;
  /** The day on which it was measured, as 2026-05-31. */
  readonly on?: string;
  /** With what, and how. */
  readonly with?: string;
}

/** The same, with the figure that it is about: a jack, a source, a stage or an arm of a split, and the field (`jack in.ohm`, `drive.gain`, `channels/clean.gain`, `box.battery`). */
export interface FigureNote extends FigureSource {
  readonly of: string;
}

/** Where a figure of a box comes from: as noted for it alone, else as said of all figures of the box. */
export const sourceOf = ({ figures }: Device, of: string): FigureSource => {
  const noted = figures.sources?.find((s) => s.of === of);
  if (!noted) return { from: figures.origin ?? 'assumed' };
  const { of: _, ...source } = noted;
  return source;
};

/** The box with the source of one figure noted; undefined: it follows what is said of the whole box. */
export const withSource = (device: Device, of: string, source: FigureSource | undefined): Device => {
  const { sources = [], ...figures } = device.figures;
  const others = sources.filter((s) => s.of !== of);
  const kept = source ? [...others, { of, ...source }] : others;
  return { ...device, figures: kept.length ? { ...figures, sources: kept } : figures };
};

export const ORIGIN_WORDS: Readonly<Record<FigureOrigin, string>> = {
  measured: 'measured',
  maker: 'maker’s figure',
  ear: 'set by ear',
  assumed: 'assumed',
};

/** @example sourceText({ from: 'measured', on: '2026-05-31', with: 'a clamp meter' }) // 'measured on 2026-05-31 with a clamp meter' */
export const sourceText = ({ from, on, with: tool }: FigureSource): string =>
  [ORIGIN_WORDS[from], ...(on ? [`on ${on}`] : []), ...(tool ? [`with ${tool}`] : [])].join(' ');

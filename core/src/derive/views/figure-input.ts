import { figuresOf } from '../../catalogue/figures.js';
import { sourceOf, type FigureSource } from '../../rig/figure-source.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';

/** A figure of a box that went into a number, with where it comes from. */
export interface FigureInput {
  readonly device: Id<'device'>;
  /** By what its source is noted, such as `drive.gain`. */
  readonly of: string;
  /** What it is a figure of. */
  readonly where: string;
  readonly what: string;
  /** What was reckoned with: as it is written down, or a typical value; absent where it was left out. */
  readonly counted?: string;
  readonly source: FigureSource;
}

/**
 * A figure of a jack, stage or source of a rig.
 * @param kind which of them it is: a stage may be called as a jack is
 * @param at the jack, stage or source
 * @param field as a box calls it
 * @param usual what counts as long as nobody wrote it down; absent where nothing does
 */
export const figureInput = (
  rig: Rig,
  kind: 'jack' | 'stage' | 'source',
  at: Ref,
  field: string,
  usual?: string,
): FigureInput => {
  const { device: id, name } = splitRef(at);
  const device = thePart(rig, id);
  const of = `${kind === 'stage' ? '' : `${kind} `}${name}.${field}`;
  const figure = figuresOf(device).find((f) => f.source === of);
  const text = figure?.text ?? '';
  const counted = text === '' ? usual : text;
  return {
    device: id,
    of,
    where: figure?.where ?? name,
    what: figure?.what ?? field,
    ...(counted === undefined ? {} : { counted }),
    source: text === '' ? { from: 'assumed' } : sourceOf(device, of),
  };
};

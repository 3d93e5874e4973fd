import { together } from './limit.js';

/** A copy of a sound that comes to a point by ways of one length. */
export interface Wave {
  /** Its average level in dBu. */
  readonly db: number;
  /** How late it is. */
  readonly ms: number;
  readonly inverted: boolean;
  /** Only the effect of a delay or reverb: unlike the direct sound. */
  readonly wet: boolean;
}

/** Copies that are closer count as one. */
const SAME_MS = 0.02;
/** The weakest copies are given up: so many are enough for what is heard. */
const MOST = 6;

const volts = (w: Wave): number => (w.inverted ? -1 : 1) * 10 ** (w.db / 20);

/**
 * Copies that come together: those of one time add as they are, loud and soft, right way up and upside down; the others
 * stay apart.
 */
export const merged = (arriving: readonly Wave[]): readonly Wave[] => {
  if (arriving.length < 2) return arriving;
  const apart: Wave[] = [];
  for (const wave of arriving) {
    const i = apart.findIndex((w) => Math.abs(w.ms - wave.ms) < SAME_MS && w.wet === wave.wet);
    const known = apart[i];
    if (!known) {
      apart.push(wave);
      continue;
    }
    const sum = volts(known) + volts(wave);
    apart[i] = { ...known, db: 20 * Math.log10(Math.abs(sum)), inverted: sum < 0 };
  }
  return apart.length > MOST ? [...apart].sort((a, b) => b.db - a.db).slice(0, MOST) : apart;
};

/** How loud copies are together: of different times, so their powers add. */
export const loudness = (waves: readonly Wave[]): number =>
  waves.length === 1 && waves[0] ? waves[0].db : together(waves.map((w) => w.db));

export const louder = (waves: readonly Wave[], db: number): readonly Wave[] =>
  db === 0 ? waves : waves.map(({ db: was, ms, inverted, wet }) => ({ db: was + db, ms, inverted, wet }));

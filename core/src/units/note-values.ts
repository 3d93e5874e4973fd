/** A note value by its length in quarters. */
export interface NoteValue {
  readonly name: string;
  readonly beats: number;
}

/** The plainest first: of two that are as near, the plainer one is meant. */
export const NOTE_VALUES: readonly NoteValue[] = [
  { name: 'quarter', beats: 1 },
  { name: 'eighth', beats: 1 / 2 },
  { name: 'dotted eighth', beats: 3 / 4 },
  { name: 'half', beats: 2 },
  { name: 'sixteenth', beats: 1 / 4 },
  { name: 'eighth triplet', beats: 1 / 3 },
  { name: 'dotted quarter', beats: 3 / 2 },
  { name: 'quarter triplet', beats: 2 / 3 },
  { name: 'whole', beats: 4 },
  { name: 'dotted half', beats: 3 },
  { name: 'dotted sixteenth', beats: 3 / 8 },
  { name: 'sixteenth triplet', beats: 1 / 6 },
  { name: 'thirty-second', beats: 1 / 8 },
];

const MINUTE_MS = 60_000;

/** How long a note lasts, in ms. @example noteMs(1, 120) // 500 */
export const noteMs = (beats: number, bpm: number): number => (MINUTE_MS / bpm) * beats;

export interface NearestNote {
  readonly note: NoteValue;
  /** By how many ms the delay is longer than the note. */
  readonly offMs: number;
  /** By how many ms its repeats have run away from the beat after a bar, if nobody corrects it. */
  readonly driftMs: number;
}

/** The note value that a fixed delay is nearest to, by their ratio. @param metre quarters in a bar */
export const nearestNote = (ms: number, bpm: number, metre = 4): NearestNote => {
  const far = (note: NoteValue): number => Math.abs(Math.log(ms / noteMs(note.beats, bpm)));
  const note = NOTE_VALUES.reduce((best, one) => (far(one) < far(best) - 1e-9 ? one : best));
  const offMs = ms - noteMs(note.beats, bpm);
  return { note, offMs, driftMs: (offMs * metre) / note.beats };
};

export interface DelayPattern {
  readonly first: NoteValue;
  readonly second: NoteValue;
  /** The tempo at which the first is exact. */
  readonly bpm: number;
  /** By how much the second is off there, in percent of itself. */
  readonly offPercent: number;
}

/** Tempi that are counted in quarters; a pattern is told at one of these. */
const [SLOW, FAST] = [60, 180];
/** So far off, the repeats of two delays still fall together (common practice: one hears more than about 2 %). */
export const CLEAN_PERCENT = 2;

/**
 * What two delays make together: the notes and the tempo at which both fit best. Nobody says the tempo, so the plainest
 * notes count among those that fit.
 * @example twoDelays(500, 375) // quarter and dotted eighth at 120
 */
export const twoDelays = (firstMs: number, secondMs: number): DelayPattern => {
  const patterns = NOTE_VALUES.flatMap((first, i) =>
    NOTE_VALUES.flatMap((second, k) => {
      const bpm = (MINUTE_MS * first.beats) / firstMs;
      const exact = noteMs(second.beats, bpm);
      const plainness = i + k + (bpm < SLOW || bpm > FAST ? NOTE_VALUES.length : 0);
      return [{ first, second, bpm, offPercent: (100 * (secondMs - exact)) / exact, plainness }];
    }),
  );
  const isClean = ({ offPercent }: DelayPattern): boolean => Math.abs(offPercent) <= CLEAN_PERCENT;
  const clean = patterns.filter(isClean);
  const { plainness: _, ...best } = clean.length
    ? clean.reduce((a, b) => (b.plainness < a.plainness ? b : a))
    : patterns.reduce((a, b) => (Math.abs(b.offPercent) < Math.abs(a.offPercent) ? b : a));
  return best;
};

/** Two seconds without a tap begin anew. */
const LONGEST_BEAT_MS = 2000;

/**
 * The time between taps, in ms: the middle one of those since the last pause, so that one bad tap does not count.
 * @param taps when each was, in ms
 * @returns undefined after fewer than two
 */
export const tappedMs = (taps: readonly number[]): number | undefined => {
  const between = taps.slice(1).map((at, i) => at - (taps[i] ?? at));
  const pause = between.findLastIndex((ms) => ms > LONGEST_BEAT_MS);
  const beats = between.slice(pause + 1).sort((a, b) => a - b);
  const [low, high] = [beats[Math.floor((beats.length - 1) / 2)], beats[Math.floor(beats.length / 2)]];
  return low === undefined || high === undefined ? undefined : (low + high) / 2;
};

/**
 * How long texts may be, in UTF-16 units as the browser counts them, by what they are. Fields on screen and the shapes
 * of parts go by the same.
 */
export const LONGEST = {
  /** Of a box, a sound, a song, a hook-up, a place where it is heard. */
  name: 120,
  code: 4,
  /** Names within a box: jacks, controls, stages, programs of a memory. */
  word: 64,
  label: 40,
  tuning: 60,
  /** One value of a control. */
  value: 200,
  /** Why something is taken for granted; what a cue says. */
  remark: 500,
  /** One line to type into a box. */
  line: 400,
  /** Why a finding is accepted. */
  reason: 2000,
  /** Notes of a rig, entries of its log. */
  text: 20_000,
} as const;

/** Label of a change set. */
export const LONGEST_LABEL = 200;

/** A capo sits on one of these frets at most. */
export const MOST_FRETS = 24;
/** Three hours. */
export const LONGEST_SONG_SECONDS = 3 * 60 * 60;

/** In beats a minute. */
export const TEMPO = { min: 20, max: 400 } as const;

/**
 * How many lists and records may stand inside one another in a part. The journal puts two around it, and the database
 * takes 31 (measured: MariaDB 10.11's JSON_VALID refuses 32).
 */
export const DEEPEST = 29;

/** Parts of a rig, and parts that one change touches. */
export const MOST_PARTS = 20_000;
/** So many rigs that a rig is a copy of are remembered; the oldest are forgotten first. */
export const MOST_ORIGINS = 20;

/**
 * A rig as a rig file without blanks, in characters. What is kept can be written as a file, and every file that was
 * written can be read.
 */
export const HEAVIEST_RIG = 12_000_000;

/** A rig file, in characters. */
export const LARGEST_FILE = 16_000_000;

/** A number beyond this is a slip of the finger or a fault. */
export const LARGEST_NUMBER = 1e12;

/** A text cut to a length for a label; never in the middle of a character. */
export const cutTo = (text: string, most: number): string => {
  if (text.length <= most) return text;
  const cut = text.slice(0, most - 1);
  return `${cut.isWellFormed() ? cut : cut.slice(0, -1)}…`;
};

/** What keeps a text from being kept, in words for whoever types it; undefined when nothing does. */
export const wrongText = (text: string, most: number): string | undefined => {
  if (!text.isWellFormed()) return 'It holds half a character, cut out of an emoji. Type that one again.';
  return text.length > most
    ? `${text.length.toLocaleString('en')} characters; at most ${most.toLocaleString('en')} are kept.`
    : undefined;
};

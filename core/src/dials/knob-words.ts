/** One knob or switch, and where somebody says that it stands. */
export interface Stand {
  readonly knob: string;
  readonly at: string;
}

export interface DialLine {
  readonly stands: readonly Stand[];
  /** What was not understood, each in a sentence; it is kept as it was typed wherever a knob has a name. */
  readonly unclear: readonly string[];
}

const NUMBER_WORDS: Readonly<Record<string, string>> = {
  zero: '0',
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
  ten: '10',
  eleven: '11',
  twelve: '12',
};

const MINUTES: Readonly<Record<string, string>> = { thirty: '30', fifteen: '15' };

/** A pot turns from 7 o'clock to 5 o'clock, 300 degrees (common practice). */
const FIRST_HOUR = 7;
const HOURS = 10;
/** How far "just under" or "a bit over" is meant: about a twenty-fifth of the whole turn (assumed). */
const A_BIT = 0.04;

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replaceAll(/[’`´]/g, "'")
    .replaceAll(/\b[a-z]+\b/g, (word) => NUMBER_WORDS[word] ?? word)
    .replaceAll(
      /\b(\d{1,2}) (thirty|fifteen|forty[- ]5)\b/g,
      (_, hour: string, past: string) => `${hour}:${MINUTES[past] ?? '45'}`,
    )
    .replaceAll(/o' ?clock|oclock/g, "o'clock")
    .replaceAll(/\s+/g, ' ')
    .trim();

const onTheClock = (hour: number, minutes = 0): number | undefined => {
  const hours = hour >= FIRST_HOUR && hour <= 12 ? hour : hour >= 1 && hour <= 5 ? hour + 12 : undefined;
  const turn = hours === undefined ? undefined : (hours + minutes / 60 - FIRST_HOUR) / HOURS;
  return turn === undefined || turn > 1 ? undefined : turn;
};

const FIXED: Readonly<Record<string, number>> = {
  noon: 0.5,
  midday: 0.5,
  'straight up': 0.5,
  centre: 0.5,
  center: 0.5,
  half: 0.5,
  halfway: 0.5,
  'half way': 0.5,
  'half way up': 0.5,
  'a half': 0.5,
  'a quarter': 0.25,
  quarter: 0.25,
  '1 quarter': 0.25,
  '3 quarters': 0.75,
  'a third': 1 / 3,
  third: 1 / 3,
  '1 third': 1 / 3,
  '2 thirds': 2 / 3,
  full: 1,
  'full up': 1,
  max: 1,
  maximum: 1,
  'all the way up': 1,
  'all the way': 1,
  'wide open': 1,
  'fully up': 1,
  'fully clockwise': 1,
  zero: 0,
  min: 0,
  minimum: 0,
  'all the way down': 0,
  'fully down': 0,
  'fully anticlockwise': 0,
  'fully counterclockwise': 0,
};

const MORE =
  /^(?:just over|just past|just after|just above|a bit over|a bit past|a bit above|slightly over|slightly past|slightly above|a hair past|a hair over|a touch over|a touch past|a little over|a little past|past) (.+)$/;
const LESS =
  /^(?:just under|just below|just before|a bit under|a bit below|a bit before|slightly under|slightly below|a hair under|a hair before|a touch under|a touch below|a little under|a little below|nearly|almost) (.+)$/;
const ROUGHLY = /^(?:about|around|roughly|maybe|some|at) (.+)$/;

const baseTurn = (text: string): number | undefined => {
  const fixed = FIXED[text];
  if (fixed !== undefined) return fixed;
  const clock = /^(\d{1,2})(?:[:.](\d\d))? o'clock$/.exec(text) ?? /^(\d{1,2}):(\d\d)$/.exec(text);
  if (clock) return onTheClock(Number(clock[1]), Number(clock[2] ?? 0));
  const past = /^(half|quarter|a quarter) (past|to) (\d{1,2})(?: o'clock)?$/.exec(text);
  if (past) {
    const minutes = past[1] === 'half' ? 30 : 15;
    const hour = Number(past[3]);
    return past[2] === 'past' ? onTheClock(hour, minutes) : minutes === 30 ? undefined : onTheClock(hour, -15);
  }
  const between = /^(?:between )?(\d{1,2})(?:(?: and | to |-|–)(\d{1,2}))(?: o'clock)$/.exec(text);
  if (between) {
    const [a, b] = [onTheClock(Number(between[1])), onTheClock(Number(between[2]))];
    return a === undefined || b === undefined ? undefined : (a + b) / 2;
  }
  const parts = /^(\d{1,2}(?:\.\d+)?) ?(?:\/|of|out of) ?(\d{1,2})$/.exec(text);
  if (parts) return within(Number(parts[1]) / Number(parts[2]));
  const percent = /^(\d{1,3}(?:\.\d+)?) ?(?:%|percent|per cent)$/.exec(text);
  if (percent) return within(Number(percent[1]) / 100);
  return /^\d{1,2}(?:\.\d+)?$/.test(text) ? within(Number(text) / 10) : undefined;
};

const within = (turn: number): number | undefined => (turn >= 0 && turn <= 1 ? turn : undefined);
const clamped = (turn: number): number => Math.max(0, Math.min(1, turn));

/**
 * How far a knob is turned, from 0 (7 o'clock) to 1 (5 o'clock); a number without a unit counts to ten.
 * @example turnOf("2 o'clock") // 0.7
 * @example turnOf('just under half') // 0.46
 * @returns undefined where the words name a position of a switch, an amount with a unit, or nothing that is known
 */
export const turnOf = (words: string): number | undefined => {
  const text = plain(words);
  const bare = ROUGHLY.exec(text)?.[1] ?? text;
  const base = baseTurn(bare);
  if (base !== undefined) return base;
  const [more, less] = [MORE.exec(bare)?.[1], LESS.exec(bare)?.[1]];
  const near = baseTurn(more ?? less ?? '');
  return near === undefined ? undefined : clamped(near + (more === undefined ? -A_BIT : A_BIT));
};

const SWITCHED = new Set(
  'on;off;in;out;up;down;middle;left;right;neck;bridge;both;neck and middle;middle and bridge;neck and bridge;a;b;i;ii;iii;high;low;normal;bright;dark;fat;flat;open;closed;clean;lead;warm;tight;vintage;modern;fast;slow;hard;soft;series;parallel;split;coil split;humbucker;single coil;loose;stereo;mono'.split(
    ';',
  ),
);
const AMOUNT = /^[+-]?\d+(?:\.\d+)? ?(?:ms|s|hz|khz|db|bpm|cents|semitones?|%)$/;
const PLACE = /^(?:position |fret |no\.? ?)?\d{1,2}$/;

/** Whether words say where something stands: a turn, a position of a switch, or an amount with its unit. */
export const isPosition = (words: string): boolean => {
  const text = plain(words);
  return turnOf(text) !== undefined || SWITCHED.has(text) || AMOUNT.test(text) || PLACE.test(text);
};

/** Whether two say the same position. @example samePosition('noon', "12 o'clock") // true */
export const samePosition = (a: string | undefined, b: string | undefined): boolean => {
  if (a === undefined || b === undefined) return a === b;
  const [x, y] = [turnOf(a), turnOf(b)];
  return x !== undefined && y !== undefined ? Math.abs(x - y) < 1e-6 : plain(a) === plain(b);
};

const MOST_WORDS = 6;
const JOINERS = new Set(['at', 'to', 'is', 'on', 'set', '=', ':', 'and', 'then', '-', '–']);
const isJoiner = (word: string | undefined): boolean => word !== undefined && JOINERS.has(word.toLowerCase());

/** So many words from here say a position; 0 when none does. */
const positionAt = (words: readonly string[], from: number): number => {
  for (let length = Math.min(MOST_WORDS, words.length - from); length > 0; length -= 1)
    if (isPosition(words.slice(from, from + length).join(' '))) return length;
  return 0;
};

const wordsOf = (segment: string): readonly string[] =>
  segment
    .replaceAll(/([=:])(?!\d\d\b)/g, ' $1 ')
    .trim()
    .split(/\s+/)
    .filter(Boolean);

/** Where the next position begins behind a name, joiners passed over. */
const next = (words: readonly string[], from: number): { readonly at: number; readonly length: number } | undefined => {
  for (let at = from; at < words.length; at += 1) {
    let start = at;
    while (start < words.length - 1 && isJoiner(words[start]) && !positionAtWhole(words, start)) start += 1;
    const length = positionAt(words, start);
    if (length > 0) return { at: start, length };
  }
  return undefined;
};
/** "On" is a joiner before a position, and a position itself at the end. */
const positionAtWhole = (words: readonly string[], at: number): boolean =>
  positionAt(words, at) > 0 && positionAt(words, at + 1) === 0;

const nameOf = (words: readonly string[]): string => {
  const kept = [...words];
  while (isJoiner(kept[0])) kept.shift();
  while (isJoiner(kept.at(-1))) kept.pop();
  return kept.join(' ');
};

class Reading {
  readonly stands: Stand[] = [];
  readonly unclear: string[] = [];

  segment(text: string): void {
    const words = wordsOf(text);
    for (let at = 0; at < words.length;) {
      // What stands first is a name, whatever else it may mean: "low 2 o'clock, high noon".
      const found = next(words, at + 1);
      const name = nameOf(words.slice(at, found?.at));
      if (!found) return this.rest(name, words.slice(at));
      this.put(name, words.slice(found.at, found.at + found.length).join(' '));
      at = found.at + found.length;
    }
  }

  /** A word that stands alone is on; of several the last is where it stands, which is kept though nobody knows it. */
  private rest(name: string, words: readonly string[]): void {
    if (name === '') return;
    if (words.length === 1) {
      const [last] = this.stands.slice(-1);
      if (!isPosition(name)) return this.put(name, 'on');
      this.unclear.push(
        `“${name}” says a position, and not of which knob${last ? ` (before it stands ${last.knob})` : ''}.`,
      );
      return;
    }
    const at = words.at(-1) ?? '';
    this.put(nameOf(words.slice(0, -1)), at);
    this.unclear.push(`“${at}” is kept as it is, but how far it is turned is not known.`);
  }

  private put(knob: string, at: string): void {
    if (knob === '') {
      this.unclear.push(`“${at}” says a position, and not of which knob.`);
      return;
    }
    const place = this.stands.findIndex((s) => s.knob.toLowerCase() === knob.toLowerCase());
    const before = this.stands[place];
    if (before) {
      this.unclear.push(`${knob} is said twice; “${at}” counts, not “${before.at}”.`);
      this.stands[place] = { knob, at };
    } else this.stands.push({ knob, at });
  }
}

/**
 * A line of knobs as somebody says them to whoever writes down: with commas or without.
 * @example readDials('gain two o\'clock, tone noon level 3').stands // gain, tone and level
 */
export const readDials = (line: string): DialLine => {
  const reading = new Reading();
  for (const segment of line.split(/[,;\n]+/)) reading.segment(segment);
  return { stands: reading.stands, unclear: reading.unclear };
};

/** The line that says them again. @example dialLine([{ knob: 'gain', at: 'noon' }]) // 'gain noon' */
export const dialLine = (stands: readonly Stand[]): string => stands.map(({ knob, at }) => `${knob} ${at}`).join(', ');

import { theItem } from '../../known/the.js';

/** A series–parallel order of slots, written `a b ( c d | e ) f`. */
export type Arrangement = readonly Step[];
type Step = string | { readonly arms: readonly Arrangement[] };

/**
 * Reads an arrangement; words that stand in no bracket follow one another.
 * @example readArrangement('a ( b | c )') // ['a', { arms: [['b'], ['c']] }]
 */
export const readArrangement = (text: string): Arrangement => {
  const words = text.replaceAll(/[()|]/g, ' $& ').split(/\s+/).filter(Boolean);
  let at = 0;
  const series = (): Arrangement => {
    const steps: Step[] = [];
    while (at < words.length && words[at] !== '|' && words[at] !== ')') {
      if (words[at] !== '(') {
        steps.push(theItem(words, at));
        at += 1;
        continue;
      }
      const arms: Arrangement[] = [];
      do {
        at += 1;
        arms.push(series());
      } while (words[at] === '|');
      at += 1;
      steps.push({ arms });
    }
    return steps;
  };
  return series();
};

/** @example writeArrangement(['a', { arms: [['b'], ['c']] }]) // 'a ( b | c )' */
export const writeArrangement = (arrangement: Arrangement): string =>
  arrangement
    .map((step) => (typeof step === 'string' ? step : `( ${step.arms.map(writeArrangement).join(' | ')} )`))
    .join(' ');

/** Every slot of an arrangement, in the order in which it is written. */
export const slotsOf = (arrangement: Arrangement): readonly string[] =>
  arrangement.flatMap((step) => (typeof step === 'string' ? [step] : step.arms.flatMap(slotsOf)));

/** How many ways lie beside each other where there are most; one where all is in line. */
export const mostBeside = (arrangement: Arrangement): number =>
  arrangement.reduce(
    (most, step) => (typeof step === 'string' ? most : Math.max(most, step.arms.length, ...step.arms.map(mostBeside))),
    1,
  );

/** An arm that only led through the slot goes with it, and what stands beside nothing then stands in line. */
const without = (arrangement: Arrangement, slot: string): Arrangement =>
  arrangement.flatMap((step): Arrangement => {
    if (typeof step === 'string') return step === slot ? [] : [step];
    const arms = step.arms.flatMap((arm): readonly Arrangement[] => {
      if (!slotsOf(arm).includes(slot)) return [arm];
      const rest = without(arm, slot);
      return rest.length > 0 ? [rest] : [];
    });
    return arms.length > 1 ? [{ arms }] : (arms[0] ?? []);
  });

const shows = (step: Step, shown: ReadonlySet<string>): boolean =>
  typeof step === 'string' ? shown.has(step) : slotsOf([step]).some((s) => shown.has(s));

const holdsSlot = (step: Step, slot: string): boolean => slotsOf([step]).includes(slot);

/** Carries a step of a row past the nearest that is seen; undefined where it is the last on that side. */
const past = (row: Arrangement, i: number, by: -1 | 1, shown: ReadonlySet<string>): Arrangement | undefined => {
  for (let at = i + by; at >= 0 && at < row.length; at += by)
    if (shows(theItem(row, at), shown)) return row.toSpliced(i, 1).toSpliced(at, 0, theItem(row, i));
  return undefined;
};

/**
 * Carries a slot one place earlier or later among those that are seen: past its neighbour, or out of the arm at whose
 * end it stands.
 * @example carriedIn('a b c', 'c', -1, new Set(['a', 'c'])) // 'c a b'
 */
export const carriedIn = (text: string, slot: string, by: -1 | 1, shown: ReadonlySet<string>): string => {
  const row = readArrangement(text);
  const i = row.findIndex((step) => holdsSlot(step, slot));
  const step = row[i];
  if (step === undefined) return text;
  if (typeof step === 'string') return writeArrangement(past(row, i, by, shown) ?? row);
  const arm = step.arms.findIndex((a) => a.includes(slot));
  const inside = step.arms[arm];
  const within = inside && past(inside, inside.indexOf(slot), by, shown);
  if (within) return writeArrangement(row.with(i, { arms: step.arms.with(arm, within) }));
  const rest = without([step], slot);
  return writeArrangement(row.toSpliced(i, 1, ...(by < 0 ? [slot, ...rest] : [...rest, slot])));
};

/**
 * Puts a slot beside the one before it, as another way from the same point to the same point.
 * @param most ways that the box can lead beside each other
 * @returns the same where nothing stands before it, or no more ways are to be had
 * @example besideIn('a b c', 'c', new Set(['a', 'b', 'c']), 2) // 'a ( b | c )'
 */
export const besideIn = (text: string, slot: string, shown: ReadonlySet<string>, most: number): string => {
  const row = readArrangement(text);
  const i = row.indexOf(slot);
  const before = row.slice(0, Math.max(0, i)).findLastIndex((step) => shows(step, shown));
  const other = row[before];
  if (i < 0 || other === undefined) return text;
  const arms = typeof other === 'string' ? [[other]] : other.arms;
  if (arms.length >= most) return text;
  return writeArrangement(row.toSpliced(i, 1).with(before, { arms: [...arms, [slot]] }));
};

/** Puts a slot that stands beside others in line again, behind them. */
export const inLineIn = (text: string, slot: string): string => {
  const row = readArrangement(text);
  const i = row.findIndex((step) => typeof step !== 'string' && holdsSlot(step, slot));
  const group = row[i];
  if (group === undefined) return text;
  return writeArrangement(row.toSpliced(i, 1, ...without([group], slot), slot));
};

/** Start and end of the chain, as they stand in pairs of neighbours. */
export const START = '^';
export const FINISH = '$';

/**
 * Notes which slot follows which from these slots on. An arm without slots lets pass what comes.
 * @returns the slots at which it ends
 */
const link = (arrangement: Arrangement, from: readonly string[], pairs: Set<string>): readonly string[] =>
  arrangement.reduce<readonly string[]>((before, step) => {
    if (typeof step !== 'string') return [...new Set(step.arms.flatMap((arm) => link(arm, before, pairs)))];
    for (const slot of before) pairs.add(`${slot}>${step}`);
    return [step];
  }, from);

const known = new Map<string, ReadonlySet<string>>();

/** The pairs of slots that follow one another, as `a>b`, with `^` for the chain's start and `$` for its end. */
export const neighbours = (text: string): ReadonlySet<string> => {
  const found = known.get(text);
  if (found) return found;
  const set = new Set<string>();
  for (const last of link(readArrangement(text), [START], set)) set.add(`${last}>${FINISH}`);
  if (known.size > 5000) known.clear();
  known.set(text, set);
  return set;
};

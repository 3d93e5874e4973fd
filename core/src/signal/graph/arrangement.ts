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

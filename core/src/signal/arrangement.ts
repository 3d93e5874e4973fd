/** A series–parallel order of slots, written `a b ( c d | e ) f`. */
export type Arrangement = readonly Step[];
type Step = string | { readonly arms: readonly Arrangement[] };

/** Reads an arrangement; words that stand in no bracket follow one another. @example readArrangement('a ( b | c )') // ['a', { arms: [['b'], ['c']] }] */
export const readArrangement = (text: string): Arrangement => {
  const words = text.replaceAll(/[()|]/g, ' $& ').split(/\s+/).filter(Boolean);
  let at = 0;
  const series = (): Arrangement => {
    const steps: Step[] = [];
    while (at < words.length && words[at] !== '|' && words[at] !== ')') {
      if (words[at] !== '(') {
        steps.push(words[at]!);
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

const firsts = (arrangement: Arrangement): readonly string[] => {
  const [head] = arrangement;
  if (head === undefined) return [];
  return typeof head === 'string' ? [head] : head.arms.flatMap(firsts);
};
const lasts = (arrangement: Arrangement): readonly string[] => {
  const tail = arrangement.at(-1);
  if (tail === undefined) return [];
  return typeof tail === 'string' ? [tail] : tail.arms.flatMap(lasts);
};

const pairs = (arrangement: Arrangement): readonly (readonly [string, string])[] => [
  ...arrangement.flatMap((step) => (typeof step === 'string' ? [] : step.arms.flatMap(pairs))),
  ...arrangement.slice(1).flatMap((step, i) => lasts([arrangement[i]!]).flatMap((a) => firsts([step]).map((b) => [a, b] as const))),
];

/** Start and end of the chain, as they stand in pairs of neighbours. */
export const START = '^';
export const FINISH = '$';

const known = new Map<string, ReadonlySet<string>>();

/** The pairs of slots that follow one another, as `a>b`, with `^` for the chain's start and `$` for its end. */
export const neighbours = (text: string): ReadonlySet<string> => {
  const found = known.get(text);
  if (found) return found;
  const arrangement = readArrangement(text);
  const set = new Set(arrangement.length === 0 ? [`${START}>${FINISH}`] : [
    ...firsts(arrangement).map((b) => `${START}>${b}`), ...lasts(arrangement).map((a) => `${a}>${FINISH}`), ...pairs(arrangement).map(([a, b]) => `${a}>${b}`),
  ]);
  if (known.size > 5000) known.clear();
  known.set(text, set);
  return set;
};

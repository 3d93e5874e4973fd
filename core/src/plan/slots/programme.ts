import type { Programme } from '../solver.js';
import { callsIn, pinnedIn, usedSounds, withoutRepeats, type SlotsProblem } from './problem.js';

/** A variable that is always 0. */
const NOTHING = 'nothing';

/** Sums of variables, written down: 2 a - b. */
const sum = (terms: readonly (readonly [number, string])[]): string =>
  terms.map(([n, v]) => `${n < 0 ? '-' : '+'} ${Math.abs(n)} ${v}`).join(' ') || `0 ${NOTHING}`;

const count = (n: number): readonly number[] => Array.from({ length: n }, (_, i) => i);

/** The variable that says whether a sound stands in a bank. */
export const standsIn = (sound: number, bank: number): string => `x_${sound}_${bank}`;

/** Something that is in one bank at a time: a sound with one slot, or a cue for which one of two slots is taken. */
interface Stay {
  readonly name: string;
  readonly sound: number;
}

/** Two stays that follow each other in songs, so often. */
interface Step {
  readonly from: Stay;
  readonly to: Stay;
  times: number;
}

const staysOf = ({ copies, songs }: SlotsProblem): readonly (readonly Stay[])[] =>
  songs.map((song, s) =>
    withoutRepeats(song).map((sound, k): Stay =>
      copies > 1 ? { name: `y_${s}_${k}`, sound } : { name: `x_${sound}`, sound },
    ),
  );

const stepsOf = (problem: SlotsProblem): readonly Step[] => {
  const steps = new Map<string, Step>();
  const isEven = problem.bankKeys === 'both';
  for (const stays of staysOf(problem))
    stays.slice(1).forEach((to, i) => {
      const from = stays[i]!;
      const [a, b] = isEven && to.name < from.name ? [to, from] : [from, to];
      const key = `${a.name} ${b.name}`;
      const known = steps.get(key);
      if (known) known.times += 1;
      else steps.set(key, { from: a, to: b, times: 1 });
    });
  return [...steps.values()];
};

/** Sets of banks that tell all distances: as many of them lie between two banks as keys are pressed, or twice as many. */
const cutsOf = ({
  banks,
  wrap,
}: SlotsProblem): { readonly cuts: readonly (readonly number[])[]; readonly each: number } => {
  if (!wrap)
    return {
      cuts: count(banks - 1).map((b) => count(b + 1)),
      each: 1,
    };
  const isOdd = banks % 2 === 1;
  return {
    cuts: count(isOdd ? banks : banks / 2).map((b) => count(Math.floor(banks / 2)).map((k) => (b + k) % banks)),
    each: isOdd ? 0.5 : 1,
  };
};

type Terms = readonly (readonly [times: number, variable: string])[];

/** Rows of a programme, gathered one after the other. */
class Rows {
  readonly texts: string[] = [];

  add(terms: Terms, is: string): void {
    this.texts.push(`r${this.texts.length}: ${sum(terms)} ${is}`);
  }
}

const at = ({ name }: Stay, bank: number): string => `${name}_${bank}`;
const within = (stay: Stay, cut: readonly number[], sign: 1 | -1): Terms => cut.map((b) => [sign, at(stay, b)]);

/** Where each sound stands: in as many banks as it may, no bank holding more than it has switches. */
const addHomes = (rows: Rows, problem: SlotsProblem, used: readonly number[]): void => {
  const { banks, switches, copies, pinned = [] } = problem;
  for (const s of used) {
    const homes = count(banks).map((b) => [1, standsIn(s, b)] as const);
    rows.add(homes, copies > 1 ? '>= 1' : '= 1');
    if (copies > 1) rows.add(homes, `<= ${copies}`);
  }
  for (const b of count(banks)) {
    const isPinnedHere = (s: number): boolean => pinned.some(([sound, bank]) => sound === s && bank === b);
    rows.add(
      used.filter((s) => !isPinnedHere(s)).map((s) => [1, standsIn(s, b)]),
      `<= ${switches - pinnedIn(problem, b)}`,
    );
  }
  for (const [s, b] of pinned) if (used.includes(s)) rows.add([[1, standsIn(s, b)]], '= 1');
};

/** The variable that says whether a bank is of a group. */
const isOf = (group: number, bank: number): string => `g_${group}_${bank}`;

/** Pinned sounds stand where they stand: what is asked of a bank is asked of the others in it. */
const loose = ({ pinned = [] }: SlotsProblem, sounds: readonly number[], bank: number): readonly number[] =>
  sounds.filter((s) => !pinned.some(([sound, b]) => sound === s && b === bank));

/** No two of those that are to be apart in one bank; in each bank one group. @returns the variables of the groups */
const addWishes = (rows: Rows, problem: SlotsProblem, used: readonly number[]): readonly string[] => {
  const { banks, apart = [], groups, pinned = [] } = problem;
  for (const those of apart)
    for (const b of count(banks)) {
      const here = loose(
        problem,
        those.filter((s) => used.includes(s)),
        b,
      );
      const taken = pinned.some(([s, bank]) => bank === b && those.includes(s));
      if (here.length > (taken ? 0 : 1))
        rows.add(
          here.map((s) => [1, standsIn(s, b)]),
          `<= ${taken ? 0 : 1}`,
        );
    }
  if (!groups) return [];
  const all = [...new Set(used.map((s) => groups[s] ?? 0))];
  for (const b of count(banks)) {
    const fixed = pinned.filter(([, bank]) => bank === b).map(([s]) => groups[s]);
    rows.add(
      all.map((g) => [1, isOf(g, b)]),
      '<= 1',
    );
    for (const g of all) if (fixed.length && !fixed.includes(g)) rows.add([[1, isOf(g, b)]], '= 0');
    for (const s of loose(problem, used, b))
      rows.add(
        [
          [1, standsIn(s, b)],
          [-1, isOf(groups[s] ?? 0, b)],
        ],
        '<= 0',
      );
  }
  return all.flatMap((g) => count(banks).map((b) => isOf(g, b)));
};

/** Of a sound in two slots each cue takes one. */
const addChoices = (rows: Rows, problem: SlotsProblem): void => {
  const all = count(problem.banks);
  for (const stay of staysOf(problem).flat()) {
    rows.add(
      all.map((b) => [1, at(stay, b)]),
      '= 1',
    );
    for (const b of all)
      rows.add(
        [
          [1, at(stay, b)],
          [-1, standsIn(stay.sound, b)],
        ],
        '<= 0',
      );
  }
};

/** What a step from one stay to the next costs, with the rows that make it cost so much. */
const addStep = (rows: Rows, problem: SlotsProblem, { from, to, times }: Step): Terms => {
  const { banks, bankKeys } = problem;
  if (bankKeys === 'both') {
    const { cuts, each } = cutsOf(problem);
    return cuts.map((cut, c) => {
      const crossed = `z_${from.name}_${to.name}_${c}`;
      rows.add([[1, crossed], ...within(from, cut, -1), ...within(to, cut, 1)], '>= 0');
      rows.add([[1, crossed], ...within(to, cut, -1), ...within(from, cut, 1)], '>= 0');
      return [times * each, crossed];
    });
  }
  const turn = `v_${from.name}_${to.name}`;
  for (const b of count(banks))
    rows.add([[1, turn], ...within(to, count(b + 1), -1), ...within(from, count(b + 1), 1)], '>= 0');
  return [
    [times * banks, turn],
    ...count(banks).flatMap((b): Terms => [
      [times * b, at(to, b)],
      [-times * b, at(from, b)],
    ]),
  ];
};

/** With how many others a sound can share its bank at most; what is pinned to one switch together needs but one. */
const mostBeside = (problem: SlotsProblem): number => {
  const { banks, switches, pinned = [] } = problem;
  const together = count(banks).map((b) => pinned.filter(([, bank]) => bank === b).length - pinnedIn(problem, b));
  return switches - 1 + Math.max(0, ...together);
};

/** A sound cannot share its bank with more others than there are switches: whatever else follows it costs a key. */
const addNeighbours = (
  rows: Rows,
  problem: SlotsProblem,
  sound: number,
  costs: readonly { readonly step: Step; readonly cost: Terms }[],
): void => {
  const own = costs.filter(({ step }) => step.from.sound === sound || step.to.sound === sound);
  const beside = new Map<number, number>();
  for (const { step } of own) {
    const other = step.from.sound === sound ? step.to.sound : step.from.sound;
    beside.set(other, (beside.get(other) ?? 0) + step.times);
  }
  const times = [...beside.values()].sort((a, b) => b - a);
  const apart = times.slice(mostBeside(problem)).reduce((a, b) => a + b, 0);
  if (apart > 0) rows.add(gathered(own.flatMap((o) => o.cost)), `>= ${apart}`);
};

/**
 * The placement as an integer programme: in which bank each sound stands, and how many bank keys lie between sounds that
 * follow each other. Distances are sums of cuts: on a line between two banks, on a ring through half of it; with a key up
 * only, the way round counts a whole turn once it is passed.
 * Source: cut metrics of lines and cycles (Deza and Laurent, Geometry of Cuts and Metrics, 1997; from memory).
 */
export const slotsProgramme = (problem: SlotsProblem): Programme => {
  const { banks, copies, wrap, songs } = problem;
  const used = usedSounds(problem);
  const rows = new Rows();
  addHomes(rows, problem, used);
  const groups = addWishes(rows, problem, used);
  if (copies > 1) addChoices(rows, problem);
  const costs = stepsOf(problem).map((step) => ({ step, cost: addStep(rows, problem, step) }));
  if (copies === 1) for (const sound of used) addNeighbours(rows, problem, sound, costs);
  // On a line the cheapest choice among two slots is whole of itself; on a ring it is asked for.
  const choices = copies > 1 && wrap ? staysOf(problem).flat() : [];
  const whole = [
    ...used.flatMap((s) => count(banks).map((b) => standsIn(s, b))),
    ...groups,
    ...choices.flatMap((stay) => count(banks).map((b) => at(stay, b))),
  ];
  return {
    text: [
      'Minimize',
      `obj: ${sum(gathered(costs.flatMap((c) => c.cost)))}`,
      'Subject To',
      ...rows.texts,
      'Bounds',
      `${NOTHING} = 0`,
      'Binary',
      whole.join(' '),
      'End',
    ].join('\n'),
    plus: callsIn(songs),
  };
};

const gathered = (terms: Terms): Terms => {
  const total = new Map<string, number>();
  for (const [n, v] of terms) total.set(v, (total.get(v) ?? 0) + n);
  return [...total].map(([v, n]) => [n, v] as const);
};

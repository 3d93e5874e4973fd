import type { Programme, Solver } from '../solver.js';
import { keptBy, loopsNeeded, type FewerLoops, type LoopGroup, type LoopsProblem } from './problem.js';

/** What a smaller switcher would keep, and how far it is proved that no other use of it keeps more. */
export interface LoopsPlan extends FewerLoops {
  /** No use of so few loops keeps more sounds. */
  readonly bound: number;
}

/** Where a group of boxes may be: in one of the loops, always on, or left out. */
const placesFor = (loops: number, group: number): readonly string[] => [
  // Loops are alike: a group is in none beyond its own number, so that the same answer is not found again and again.
  ...Array.from({ length: Math.min(loops, group + 1) }, (_, g) => String(g)),
  'on',
  'off',
];
const at = (group: number, place: string): string => `x_${group}_${place}`;
const right = (sound: number): string => `y_${sound}`;

/**
 * Which groups of boxes share which loops, so that as many sounds as possible come out right: a sound is right when all
 * boxes of each loop are wanted alike, those always on are wanted in, and those left out are wanted out.
 */
const loopsProgramme = (problem: LoopsProblem, groups: readonly LoopGroup[], loops: number): Programme => {
  const { sounds } = problem;
  const rows: string[] = [];
  const row = (text: string): void => void rows.push(`r${rows.length}: ${text}`);
  const wants = (sound: readonly boolean[], group: LoopGroup): boolean => group.boxes.every((box) => sound[box]);
  groups.forEach((group, p) => {
    row(
      `${placesFor(loops, p)
        .map((place) => at(p, place))
        .join(' + ')} = 1`,
    );
    sounds.forEach((sound, s) => row(`${right(s)} + ${at(p, wants(sound, group) ? 'off' : 'on')} <= 1`));
    groups.slice(p + 1).forEach((other, i) => {
      const q = p + 1 + i;
      sounds.forEach((sound, s) => {
        if (wants(sound, group) === wants(sound, other)) return;
        for (let g = 0; g < Math.min(loops, p + 1); g += 1)
          row(`${right(s)} + ${at(p, String(g))} + ${at(q, String(g))} <= 2`);
      });
    });
  });
  const variables = [
    ...sounds.map((_, s) => right(s)),
    ...groups.flatMap((_, p) => placesFor(loops, p).map((place) => at(p, place))),
  ];
  const lost = sounds.map((_, s) => `- ${right(s)}`).join(' ');
  return {
    text: `Minimize\nobj: ${lost}\nSubject To\n${rows.join('\n')}\nBinary\n${variables.join(' ')}\nEnd\n`,
    plus: sounds.length,
  };
};

/**
 * The best use of so many loops. @param seconds that the solver may take
 * @returns undefined when the solver found nothing in its time
 */
export const planLoops = (
  problem: LoopsProblem,
  loops: number,
  solver: Solver,
  seconds: number,
): LoopsPlan | undefined => {
  const needed = loopsNeeded(problem);
  if (needed.loops.length <= loops) return { ...needed, kept: keptBy(problem, needed), bound: problem.sounds.length };
  const { bound, value } = solver(loopsProgramme(problem, needed.loops, loops), seconds);
  if (!value) return undefined;
  const boxesAt = (place: string): readonly number[] =>
    needed.loops.flatMap(({ boxes }, p) =>
      placesFor(loops, p).includes(place) && value(at(p, place)) > 0.5 ? boxes : [],
    );
  const use = {
    loops: Array.from({ length: loops }, (_, g) => ({ boxes: boxesAt(String(g)) })).filter((l) => l.boxes.length > 0),
    alwaysIn: [...needed.alwaysIn, ...boxesAt('on')],
    neverIn: [...needed.neverIn, ...boxesAt('off')],
  };
  const most = problem.sounds.length - Math.ceil(bound - 1e-6);
  return { ...use, kept: keptBy(problem, use), bound: Math.min(problem.sounds.length, most) };
};

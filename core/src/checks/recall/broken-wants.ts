import { splitRef, theRef, theId, type Id, type Ref } from '../../rig/ids.js';
import { footstepsText } from '../../recall/words/words.js';
import { keptIn, once } from '../../kept/kept.js';
import type { Verdict, WrongWant } from '../../prover/prove.js';
import type { CheckInputs } from '../check.js';
import { grouped } from '../../known/grouped.js';
import { theEntry, theFirst } from '../../known/the.js';

/** A want that a recall can leave wrong. */
export interface Broken {
  readonly sound: Id<'sound'>;
  readonly control: Ref;
  readonly want: WrongWant;
  /** The shortest way there goes over a move that was left on or let go late. */
  readonly byMove: boolean;
}

export const brokenWants = (inputs: CheckInputs): readonly Broken[] => brokenBySound(inputs).flat();

const brokenBySound = ({ verdicts, modelled }: CheckInputs): readonly (readonly Broken[])[] =>
  keptIn(known, verdicts, () =>
    [...verdicts].flatMap(([sound, verdict]) => {
      const broken = brokenIn(sound, verdict, modelled);
      return broken.length ? [broken] : [];
    }),
  );

const known = new WeakMap<CheckInputs['verdicts'], readonly (readonly Broken[])[]>();
/** An edit leaves most verdicts the very same: what was said of these is said again. */
const knownOf = new WeakMap<Verdict, readonly Broken[]>();

const brokenIn = (sound: string, verdict: Verdict, { steps }: CheckInputs['modelled']): readonly Broken[] =>
  verdict.is !== 'broken'
    ? []
    : keptIn(knownOf, verdict, () =>
        verdict.wrong.map((want): Broken => ({
          sound: theId('sound', sound),
          control: theRef(want.variable),
          want,
          byMove:
            want.length > 1 &&
            want.example().events.some((e) => ['press', 'release', 'stomp'].includes(theEntry(steps, e).does)),
        })),
      );

/** What goes wrong in one sound, by box and by whether a move is to blame. */
const byBoxIn = once((broken: readonly Broken[]) =>
  grouped(broken, (b) => `${splitRef(b.control).device} ${b.byMove}`),
);

/** One cause, one finding: wants of one box that go wrong in the same way belong together. */
export const byBox = (inputs: CheckInputs, byMove: boolean): readonly (readonly Broken[])[] => {
  const groups = new Map<string, Broken[]>();
  for (const broken of brokenBySound(inputs))
    for (const [key, those] of byBoxIn(broken))
      if (those[0].byMove === byMove) for (const b of those) keptIn(groups, key, (): Broken[] => []).push(b);
  return [...groups.values()];
};

/** The shortest of several counterexamples, as one sentence. */
export const inShort = ({ rig, modelled }: CheckInputs, broken: readonly Broken[]): string => {
  const shortest = broken.reduce((a, b) => (b.want.length < a.want.length ? b : a), theFirst(broken));
  return footstepsText(rig, modelled, shortest.want.example());
};

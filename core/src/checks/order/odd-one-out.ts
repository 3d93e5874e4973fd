import { stageText } from '../../recall/words/part-words.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import { stagesMet } from '../../signal/graph/order.js';
import { keptIn } from '../../kept/kept.js';
import type { Check, CheckInputs } from '../check.js';
import { isArrangement } from '../../rig/box.js';
import { soundNames } from '../names.js';

/** From so many others on, one sound is the odd one out. */
const MOST_ALIKE = 3;

/** Two stages of different boxes, and in which sounds the first is met before the second. */
interface Pair {
  readonly first: Ref;
  readonly second: Ref;
  readonly before: Id<'sound'>[];
  readonly behind: Id<'sound'>[];
}

const pairsIn = ({ compilation }: CheckInputs): Iterable<Pair> => {
  const pairs = new Map<string, Pair>();
  for (const { sound, trace } of compilation.sounds.values()) {
    const met = stagesMet(trace);
    met.forEach((a, i) =>
      met.slice(i + 1).forEach((b) => {
        if (splitRef(a).device === splitRef(b).device) return;
        const [first, second] = a < b ? [a, b] : [b, a];
        const pair = keptIn(pairs, `${first} ${second}`, (): Pair => ({ first, second, before: [], behind: [] }));
        (first === a ? pair.before : pair.behind).push(sound);
      }),
    );
  }
  return pairs.values();
};

export const oddOneOut: Check = {
  code: 'order.odd-one-out',
  title: 'One sound has two boxes the other way round',
  severities: ['note'],
  source: 'the sheet: of many sounds alike the one that differs is often a slip; a reason said beside it settles it',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const { first, second, before, behind } of pairsIn(inputs)) {
      const [few, many] = before.length < behind.length ? [before, behind] : [behind, before];
      const [odd] = few;
      const sound = odd && partOf(rig, odd);
      if (!sound || few.length !== 1 || many.length < MOST_ALIKE) continue;
      const isSaidWhy =
        sound.orderWhy !== undefined ||
        sound.wants.some((w) => 'control' in w && w.why !== undefined && isArrangement(rig, w.control));
      if (isSaidWhy) continue;
      const [a, b] = many === before ? [first, second] : [second, first];
      yield {
        severity: 'note' as const,
        evidence: [sound.id, splitRef(a).device, splitRef(b).device],
        about: `${first} ${second}`,
        why: `In ${many.length} sounds ${stageText(rig, a)} stands before ${stageText(rig, b)}, in ${soundNames(rig, [sound.id])} behind it, and nobody said why.`,
        remedies: () => [
          {
            id: 'say-why',
            label: `Say why beside the order of ${sound.name}, in Sounds`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

import { stageText } from '../../recall/words/part-words.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import { stagesMet } from '../../signal/graph/order.js';
import { keptIn, once } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import type { Check, CheckInputs } from '../check.js';
import { isArrangement } from '../../rig/box.js';
import { soundNames } from '../names.js';

/** From so many others on, one sound is the odd one out. */
const MOST_ALIKE = 3;

/** Two stages of different boxes: in all sounds but one the first is met before the second. */
interface OddPair {
  readonly first: Ref;
  readonly second: Ref;
  readonly many: number;
  readonly odd: Id<'sound'>;
}

const metIn = once(({ trace }: Compiled): readonly Ref[] => stagesMet(trace));

/** Counts by numbers, because every edit asks for it: how often one stage was met before another. */
const oddPairs = ({ compilation }: CheckInputs): readonly OddPair[] => {
  const sounds = [...compilation.sounds.values()];
  const places = new Map<Ref, number>();
  const met = sounds.map((c) => metIn(c).map((stage) => keptIn(places, stage, () => places.size)));
  const stages = [...places.keys()];
  const size = stages.length;
  const before = new Uint32Array(size * size);
  const last = new Uint32Array(size * size);
  met.forEach((order, sound) =>
    order.forEach((a, i) => {
      for (let k = i + 1; k < order.length; k += 1) {
        const pair = a * size + theItem(order, k);
        before[pair]! += 1;
        last[pair] = sound;
      }
    }),
  );
  const found: OddPair[] = [];
  for (let a = 0; a < size; a += 1)
    for (let b = 0; b < size; b += 1) {
      const many = before[a * size + b]!;
      if (many < MOST_ALIKE || before[b * size + a] !== 1) continue;
      const [first, second] = [theItem(stages, a), theItem(stages, b)];
      const odd = theItem(sounds, last[b * size + a]!).sound;
      if (splitRef(first).device !== splitRef(second).device) found.push({ first, second, many, odd });
    }
  return found;
};

export const oddOneOut: Check = {
  code: 'order.odd-one-out',
  title: 'One sound has two boxes the other way round',
  severities: ['note'],
  source: 'the sheet: of many sounds alike the one that differs is often a slip; a reason said beside it settles it',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const { first, second, many, odd } of oddPairs(inputs)) {
      const sound = partOf(rig, odd);
      if (!sound) continue;
      const isSaidWhy =
        sound.orderWhy !== undefined ||
        sound.wants.some((w) => 'control' in w && w.why !== undefined && isArrangement(rig, w.control));
      if (isSaidWhy) continue;
      yield {
        severity: 'note' as const,
        evidence: [sound.id, splitRef(first).device, splitRef(second).device],
        about: `${first} ${second}`,
        why: `In ${many} sounds ${stageText(rig, first)} stands before ${stageText(rig, second)}, in ${soundNames(rig, [sound.id])} behind it, and nobody said why.`,
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

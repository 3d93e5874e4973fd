import { jackOf } from '../../signal/graph/wiring.js';
import type { Id } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { audible } from './audible.js';
import { bareDirt, type Bare } from './cabinets.js';
import { oncePerSound } from './found.js';
import { theItem } from '../../known/the.js';

const bare = oncePerSound(bareDirt);

/** Why it may be meant so; only an electric guitar with nothing of a cabinet at all is a doubt. */
const BUT = {
  guitar: 'It will fizz.',
  bass: 'Many basses go to the desk like this; with a guitar-like gain the top gets harsh.',
  acoustic: 'An acoustic instrument wants no cabinet; what drives it gets harsh.',
  'behind a cabinet': 'The cabinet stands before it: what it drives comes out unfiltered.',
} as const satisfies Record<Bare['why'], string>;

export const noCabSim: Check = {
  code: 'order.no-cab-sim',
  title: 'A drive into the desk without a cabinet',
  severities: ['doubt', 'note'],
  source:
    'common practice: a guitar cabinet takes away what a drive makes above some 5 kHz; without one it fizzes; bass and acoustic often go without',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const cases = audible(inputs).flatMap((a) =>
      [...grouped(bare(a), (b) => b.why).values()].map((group) => ({
        sound: a.sound,
        why: group[0].why,
        boxes: [...new Set(group.map((b) => b.device))],
      })),
    );
    for (const group of grouped(cases, (c) => `${c.why} ${c.boxes.join()}`).values()) {
      const { boxes, why } = group[0];
      const sounds = group.map((c) => c.sound);
      const carriers = boxes.flatMap((id) =>
        simulated(inputs, id).map((jack) => `${boxName(rig, id)} carries it at its jack ${jack}`),
      );
      yield {
        severity: why === 'guitar' ? ('doubt' as const) : ('note' as const),
        evidence: [...boxes, ...sounds],
        about: `${why} ${boxes.join()}`,
        why: `${listed(boxes.map((d) => boxName(rig, d)))} ${boxes.length === 1 ? 'comes' : 'come'} to the desk in ${soundNames(rig, sounds)} with no cabinet, microphone or cabinet simulation behind. ${BUT[why]}${carriers.length ? ` ${listed(carriers)}.` : ''}`,
        remedies: () => [
          {
            id: 'cab',
            promise: 'clears' as const,
            by: 'hand' as const,
            label: carriers.length
              ? `Lead the jack with the simulation to the desk: ${listed(carriers)}`
              : 'Put a cabinet simulation before the desk, or a microphone before a cabinet',
          },
        ],
      };
    }
  },
};

/** The jacks of a box at which a cabinet simulation inside it comes out. */
const simulated = ({ rig, compilation }: CheckInputs, id: Id<'device'>): readonly string[] => {
  const { wiring } = compilation.bearings.anatomy;
  const seen = new Set(
    wiring.blocks
      .filter((b) => b.device === id && b.block.stage === 'cabinet simulation')
      .map((b) => theItem(wiring.to, b.edge)),
  );
  for (const p of seen)
    if (theItem(wiring.points, p).inside || theItem(wiring.points, p).id.startsWith('#', id.length + 1))
      for (const e of theItem(wiring.out, p)) seen.add(theItem(wiring.to, e));
  const jacks = new Set(partOf(rig, id)?.jacks.map((j) => j.id));
  return [...new Set([...seen].map((p) => jackOf(theItem(wiring.points, p).id.slice(id.length + 1))))].filter((j) =>
    jacks.has(j),
  );
};

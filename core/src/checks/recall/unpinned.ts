import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Check, CheckInputs } from '../check.js';
import { listed, soundNames } from '../names.js';
import { byBox, inShort, type Broken } from './broken-wants.js';
import { cures } from './cures.js';
import { keptIn } from '../../kept/kept.js';
import { theFirst } from '../../known/the.js';

/**
 * What is wanted of what goes wrong, each value with the sounds that want it.
 * @example wantedText(inputs, group) // 'wanted on in “Lead”, off in “Verse”'
 */
const wantedText = ({ rig }: CheckInputs, group: readonly Broken[]): string => {
  const controls = new Set(group.map((b) => b.control));
  const byControl = new Map<Ref, Map<string, Set<Id<'sound'>>>>();
  for (const { control, want, sound } of group) {
    const byWanted = keptIn(byControl, control, () => new Map<string, Set<Id<'sound'>>>());
    keptIn(byWanted, want.wanted, () => new Set<Id<'sound'>>()).add(sound);
  }
  const values = [...byControl].flatMap(([control, byWanted]) =>
    [...byWanted].map(
      ([wanted, sounds]) =>
        [
          `${controls.size > 1 ? `${controlText(rig, control)} ` : ''}${valueText(rig, control, wanted)}`,
          [...sounds],
        ] as const,
    ),
  );
  if (values.length === 1 || new Set(group.map((b) => b.sound)).size === 1)
    return `wanted ${listed(values.map(([value]) => value))}`;
  return `wanted ${listed(values.map(([value, sounds]) => `${value} in ${soundNames(rig, sounds)}`))}`;
};

export const unpinned: Check = {
  code: 'recall.unpinned',
  title: 'A sound that can come back wrong',
  severities: ['broken'],
  source: 'the proof: a reachable state from which the recall leaves a want unmet',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const group of byBox(inputs, false)) {
      const sounds = [...new Set(group.map((b) => b.sound))];
      const controls = [...new Set(group.map((b) => b.control))];
      const first = theFirst(group);
      yield {
        severity: 'broken' as const,
        evidence: [splitRef(first.control).device, ...sounds],
        about: `${controls.join()} ${group.map((b) => `${b.sound}:${b.want.length}`).join()}`,
        why: `${soundNames(rig, sounds)} can come back with ${listed(controls.map((c) => controlText(rig, c)))} wrong (${wantedText(inputs, group)}). Shortest way there: ${inShort(inputs, group)}.`,
        remedies: () => cures(inputs, group),
      };
    }
  },
};

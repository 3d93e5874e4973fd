import { splitRef } from '../../rig/ids.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Check, CheckInputs } from '../check.js';
import { grouped, listed, soundNames } from '../names.js';
import { brokenWants, byBox, inShort, type Broken } from './broken-wants.js';
import { cures } from './cures.js';
import { keptIn } from '../../kept/kept.js';
import { theFirst } from '../../known/the.js';

/**
 * What is wanted of what goes wrong, each value with the sounds that want it.
 * @example wantedText(inputs, group) // 'wanted on in “Lead”, off in “Verse”'
 */
const wantedText = ({ rig }: CheckInputs, group: readonly Broken[]): string => {
  const controls = new Set(group.map((b) => b.control));
  const texts = new Map<string, string>();
  const textOf = ({ control, want }: Broken): string =>
    keptIn(
      texts,
      `${control}=${want.wanted}`,
      () => `${controls.size > 1 ? `${controlText(rig, control)} ` : ''}${valueText(rig, control, want.wanted)}`,
    );
  const byValue = grouped(group, textOf);
  const values = [...byValue];
  if (values.length === 1 || new Set(group.map((b) => b.sound)).size === 1)
    return `wanted ${listed(values.map(([value]) => value))}`;
  return `wanted ${listed(values.map(([value, wants]) => `${value} in ${soundNames(rig, [...new Set(wants.map((w) => w.sound))])}`))}`;
};

export const unpinned: Check = {
  code: 'recall.unpinned',
  title: 'A sound that can come back wrong',
  severities: ['broken'],
  source: 'the proof: a reachable state from which the recall leaves a want unmet',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const group of byBox(brokenWants(inputs).filter((b) => !b.byMove))) {
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

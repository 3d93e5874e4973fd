import { splitRef } from '../../rig/ids.js';
import { controlText, valueText } from '../../recall/words.js';
import type { Check, CheckInputs } from '../check.js';
import { listed, soundNames } from '../names.js';
import { brokenWants, byBox, inShort } from './broken-wants.js';
import { cures } from './cures.js';

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
      const first = group[0]!;
      yield {
        severity: 'broken' as const,
        evidence: [splitRef(first.control).device, ...sounds],
        about: `${controls.join()} ${group.map((b) => `${b.sound}:${b.want.length}`).join()}`,
        why: `${soundNames(rig, sounds)} can come back with ${listed(controls.map((c) => controlText(rig, c)))} wrong (wanted ${valueText(rig, first.control, first.want.wanted)}). Shortest way there: ${inShort(inputs, group)}.`,
        remedies: () => cures(inputs, group),
      };
    }
  },
};

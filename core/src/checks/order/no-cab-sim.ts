import type { Check, CheckInputs } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { bareDirt, isElectric } from './cabinets.js';
import { meetings, oncePerSound } from './found.js';

const bare = oncePerSound((a) => {
  const boxes = isElectric(a) ? [...new Set(bareDirt(a))] : [];
  return boxes.length ? [boxes] : [];
});

export const noCabSim: Check = {
  code: 'order.no-cab-sim',
  title: 'A drive into the desk without a cabinet',
  severities: ['doubt'],
  source: 'common practice: a guitar cabinet takes away what a drive makes above some 5 kHz; without one it fizzes',
  *find(inputs: CheckInputs) {
    for (const { boxes, sounds, evidence } of meetings(inputs, bare)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        about: boxes.join(),
        why: `${listed(boxes.map((d) => boxName(inputs.rig, d)))} ${boxes.length === 1 ? 'comes' : 'come'} to the desk in ${soundNames(inputs.rig, sounds)} with no cabinet, microphone or cabinet simulation on the way: it will fizz.`,
        remedies: () => [{ id: 'cab', label: 'Put a cabinet simulation before the desk, or a microphone before a cabinet', promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

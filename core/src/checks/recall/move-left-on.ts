import { splitRef } from '../../rig/ids.js';
import { controlText } from '../../recall/words.js';
import type { Check, CheckInputs } from '../check.js';
import { listed, soundNames } from '../names.js';
import { brokenWants, byBox, inShort } from './broken-wants.js';
import { cures } from './cures.js';

export const moveLeftOn: Check = {
  code: 'recall.move-left-on',
  title: 'A move left on spoils the next sound',
  severities: ['broken'],
  source: 'the proof: the shortest counterexample goes over a move',
  *find(inputs: CheckInputs) {
    const { rig, modelled } = inputs;
    for (const group of byBox(brokenWants(inputs).filter((b) => b.byMove))) {
      const sounds = [...new Set(group.map((b) => b.sound))];
      const switches = new Set(group.flatMap((b) => b.want.example().events.flatMap((e) => {
        const step = modelled.steps.get(e)!;
        return step.does === 'press' || step.does === 'release' || step.does === 'stomp' ? [`${step.device} ${step.switch}`] : [];
      })));
      const moves = [...rig.parts.move.values()].filter((m) => m.at.some((a) => switches.has(`${a.device} ${a.switch}`)));
      yield {
        severity: 'broken' as const,
        evidence: [splitRef(group[0]!.control).device, ...moves.map((m) => m.id), ...sounds],
        about: group.map((b) => `${b.sound}:${b.control}:${b.want.length}`).join(),
        why: `Leaving a sound with ${listed(moves.map((m) => m.name)) || 'a move'} on leaves ${listed([...new Set(group.map((b) => controlText(rig, b.control)))])} wrong in ${soundNames(rig, sounds)}: ${inShort(inputs, group)}.`,
        remedies: () => cures(inputs, group),
      };
    }
  },
};

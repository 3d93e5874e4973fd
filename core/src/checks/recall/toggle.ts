import { splitRef } from '../../rig/ids.js';
import { programsOf, thePart } from '../../rig/rig.js';
import { controlText } from '../../recall/words/words.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { cures } from './cures.js';
import { brokenWants } from './broken-wants.js';

export const toggle: Check = {
  code: 'recall.toggle',
  title: 'Only a toggle reaches it',
  severities: ['doubt'],
  source: 'compile: no message sets it, so where it ends depends on how often it was sent',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const uses = [...compilation.sounds.values()].flatMap((c) =>
      c.toggled.map((control) => ({ control, sound: c.sound })),
    );
    for (const group of grouped(uses, (u) => u.control).values()) {
      const { control } = group[0];
      const { device, name } = splitRef(control);
      const sounds = group.map((u) => u.sound);
      const broken = brokenWants(inputs).filter((b) => b.control === control && sounds.includes(b.sound));
      const holds =
        thePart(rig, device).memories.some((m) => m.stores.includes(name)) && programsOf(rig, device).length > 0;
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...sounds],
        about: control,
        why: `In ${soundNames(rig, sounds)} ${controlText(rig, control)} answers only to a message that turns it over. Where it ends depends on how it stood before.${holds ? ` ${boxName(rig, device)} holds it in its programs: calling one sets it.` : ''}`,
        remedies: () => (broken.length ? cures(inputs, broken) : []),
      };
    }
  },
};

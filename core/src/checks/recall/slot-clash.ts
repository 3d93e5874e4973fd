import { shown } from '../../midi/numbering.js';
import { once } from '../../kept/kept.js';
import { theMemory } from '../../rig/box.js';
import type { Program } from '../../rig/program.js';
import { thePart } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';

const whatItHolds = once(({ contents, acts, assigns }: Program) => JSON.stringify([contents, acts, assigns]));

export const slotClash: Check = {
  code: 'recall.slot-clash',
  title: 'One slot that two sounds fill with different contents',
  severities: ['broken'],
  source: 'compile: a slot holds one thing; the sound that is stored last overwrites the other',
  *find({ rig, compilation }: CheckInputs) {
    const filled = [...compilation.sounds.values()].flatMap((c) =>
      c.stored.filter((s) => !s.typed).map((s) => ({ sound: c.sound, program: s.program })),
    );
    for (const group of grouped(
      filled,
      (f) => `${f.program.device} ${f.program.memory} ${f.program.of ?? ''} ${f.program.number}`,
    ).values()) {
      const programs = new Set(group.map((f) => f.program));
      if (programs.size < 2 || new Set([...programs].map(whatItHolds)).size < 2) continue;
      const { device, memory: id, number } = group[0].program;
      const memory = theMemory(thePart(rig, device), id);
      const sounds = group.map((f) => f.sound);
      yield {
        severity: 'broken' as const,
        evidence: [device, ...sounds],
        about: `${id} ${number}`,
        why: `${soundNames(rig, sounds)} both call slot ${shown(memory.shows, number)} of ${boxName(rig, device)} and need different things in it; it can hold only one.`,
        remedies: () => [
          { id: 'slots', label: 'Give each sound a slot of its own', promise: 'clears' as const, by: 'hand' as const },
        ],
      };
    }
  },
};

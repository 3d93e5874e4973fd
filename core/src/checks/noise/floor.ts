import { noiseAt } from '../../electric/levels/noise.js';
import { grouped } from '../../known/grouped.js';
import { theFirst } from '../../known/the.js';
import { splitRef } from '../../rig/ids.js';
import { alongsHere } from '../level/alongs-here.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';

/** A quiet passage lies so much under a sound's average (assumed). */
const QUIET = 20;
/** Noise that lies closer under a quiet passage is heard in it (common practice, assumed). */
const LEAST = 12;

export const floor: Check = {
  code: 'noise.floor',
  title: 'Noise that a quiet passage does not cover',
  severities: ['note'],
  source:
    'each stage’s own noise through the gains behind it, powers added; a quiet passage taken as 20 dB under the average; figures of noise are assumed where nobody measured them',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const loud = alongsHere(inputs).flatMap(({ sound, trace, along }) => {
      const worst = along.outputs
        .map((output) => ({ output, noise: noiseAt(rig, trace, along, output.point) }))
        .map(({ output, noise }) => ({ under: output.average - noise.paused, noise }))
        .sort((a, b) => a.under - b.under)[0];
      const most = worst?.noise.shares.find((s) => s.stage)?.stage;
      return worst && most && worst.under < QUIET + LEAST ? [{ sound, most, under: worst.under }] : [];
    });
    for (const here of grouped(loud, (l) => l.most).values()) {
      const { most } = theFirst(here);
      const box = splitRef(most).device;
      const sounds = [...new Set(here.map((l) => l.sound))];
      const least = Math.round(Math.min(...here.map((l) => l.under)));
      yield {
        severity: 'note' as const,
        evidence: [box, ...sounds],
        why: `In ${soundNames(rig, sounds)} noise lies only ${least} dB under the sound, and ${boxName(rig, box)} makes most of it: a quiet passage does not cover it.`,
        remedies: () => [
          {
            id: 'gate',
            label: `Put a gate behind what is driven, or turn down the gain behind ${boxName(rig, box)}`,
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

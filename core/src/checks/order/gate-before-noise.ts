import type { Check, CheckInputs } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { isDirt, isDriven, type Audible, type SoundingStage } from './audible.js';
import { meetings, oncePerSound } from './found.js';
import { behind, orExchanged } from '../ways-out.js';
import { surely } from '../../known/the.js';

const isNoisy = (s: SoundingStage): boolean => isDirt(s) || isDriven(s) || s.block.stage === 'compressor';

const gatesBefore = oncePerSound(({ stages, before }: Audible) =>
  stages
    .filter((s) => s.block.stage === 'gate' && !s.block.key)
    .flatMap((gate) => {
      const noisy = stages.filter(isNoisy);
      const after = noisy.filter((s) => before(gate, s));
      return after.length && after.length === noisy.length
        ? [[gate.device, ...new Set(after.map((s) => s.device))] as const]
        : [];
    }),
);

export const gateBeforeNoise: Check = {
  code: 'order.gate-before-noise',
  title: 'A gate before what makes the noise',
  severities: ['note'],
  source: 'common practice: schools differ: a gate first tracks the strings best, a gate behind the drives quiets them',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [gate, ...noisy],
      sounds,
      evidence,
    } of meetings(inputs, gatesBefore)) {
      yield {
        severity: 'note' as const,
        evidence,
        why: `${boxName(inputs.rig, gate)} stands before ${listed(noisy.map((d) => boxName(inputs.rig, d)))} in ${soundNames(inputs.rig, sounds)}: it keeps hum from the guitar out of them, not the hiss that they make themselves. Behind them, or keyed from the guitar, it would quiet that too.`,
        remedies: () => orExchanged(inputs, gate, surely(noisy.at(-1)), behind(inputs, gate, surely(noisy.at(-1)))),
      };
    }
  },
};

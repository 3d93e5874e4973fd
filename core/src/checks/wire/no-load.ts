import { ref } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { afterWire } from '../joined.js';
import { speakerOutputs } from './speaker-outputs.js';

export const noLoad: Check = {
  code: 'wire.no-load',
  title: 'A valve amp without its load',
  severities: ['danger'],
  source: 'common practice: a valve output stage that is driven without a load destroys its transformer',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const { device, jack } of speakerOutputs(inputs)) {
      if (device.figures.powerStage !== 'valve' || afterWire(rig, hookup, ref(device.id, jack.id)).some((p) => p.jack.load === 'speaker')) continue;
      yield {
        severity: 'danger' as const,
        evidence: [device.id],
        about: jack.id,
        why: `${device.name} is wired in ${hookup.name}, and its speaker jack (${jack.id}) leads to no loudspeaker and no load. Driven like that its output transformer can burn out. Give it a cabinet or a load box before it is switched on; repairs inside belong to a licensed technician.`,
        remedies: [{ id: 'load', label: 'Plug in a cabinet, or a load box that suits the amp', promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

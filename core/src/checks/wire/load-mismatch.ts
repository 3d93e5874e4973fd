import { surely } from '../../known/the.js';
import { ref } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { afterWire } from '../joined.js';
import { boxName, listed } from '../names.js';
import { speakerOutputs } from './speaker-outputs.js';

/** Loads side by side, in ohms. @example sideBySide([8, 8]) // 4 */
export const sideBySide = (ohms: readonly number[]): number => 1 / ohms.reduce((sum, ohm) => sum + 1 / ohm, 0);

export const loadMismatch: Check = {
  code: 'wire.load-mismatch',
  title: 'Cabinets that load the amp too heavily',
  severities: ['danger', 'doubt'],
  source: 'loads side by side: 1/R = 1/R1 + 1/R2 (Ohm’s law); what an amp stands is a figure of its maker',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    for (const { device, jack } of speakerOutputs(inputs)) {
      const loads = afterWire(rig, hookup, ref(device.id, jack.id)).filter(
        (p) => p.jack.load === 'speaker' && p.jack.ohm,
      );
      const total = sideBySide(loads.map((l) => surely(l.jack.ohm)));
      if (loads.length === 0 || !jack.ohm || total >= jack.ohm * 0.99) continue;
      const solid = device.figures.powerStage === 'solid state';
      yield {
        severity: solid ? ('danger' as const) : ('doubt' as const),
        evidence: [device.id, ...loads.map((l) => l.device.id)],
        about: jack.id,
        why: `${listed(loads.map((l) => `${boxName(rig, l.device.id)} (${l.jack.ohm} Ω)`))} together are ${Number(total.toFixed(1))} Ω on the ${jack.ohm} Ω jack of ${boxName(rig, device.id)}. ${solid ? 'A transistor amp can overheat and fail below its rated load.' : 'A valve amp loses power and wears its valves; use the tap that fits the cabinets.'}`,
        remedies: () => [
          {
            id: 'tap',
            label: `Use a ${Number(total.toFixed(1))} Ω jack of the amp, or cabinets of a higher impedance`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

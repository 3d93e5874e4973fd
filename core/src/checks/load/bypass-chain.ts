import { buffered, withHung } from '../../electric/front/front-response.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { db } from '../level/alongs-here.js';
import { dullFronts, isBypassChain, lossAt5k } from './fronts-here.js';

export const bypassChain: Check = {
  code: 'load.bypass-chain',
  title: 'Bypassed boxes in a row with no buffer',
  severities: ['doubt'],
  source:
    'capacitance of leads and true-bypassed boxes (20 to 50 pF each, common practice; 35 assumed) by nodal analysis, against 3 m of cable into 1 megohm',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const { front, sounds, db: loss } of dullFronts(inputs).filter((d) => isBypassChain(d.front))) {
      const boxes = [...new Set(front.bypassed)];
      yield {
        severity: 'doubt' as const,
        evidence: [front.source.device, ...boxes, ...sounds],
        why: `${boxName(rig, front.source.device)} feels ${boxes.length} bypassed boxes (${listed(boxes.map((id) => boxName(rig, id)))}) and ${Math.round(front.metres * 10) / 10} m of cable in ${soundNames(rig, sounds)}. Together that is ${Math.round(front.pF)} pF, and ${db(loss)} less at 5 kHz than with 3 m of cable.`,
        remedies: () => [
          {
            id: 'buffer',
            label: `Put a buffer at the end of the first lead: ${db(lossAt5k(buffered(front)))} at 5 kHz are left then`,
            promise: lossAt5k(buffered(front)) > -3 ? ('clears' as const) : ('eases' as const),
            by: 'hand' as const,
          },
          {
            id: 'loops',
            label: `Put them into loops of a switcher: without them it would be ${db(lossAt5k(withHung(front, (h) => (h.piece.is === 'bypassed' ? undefined : h))))}`,
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import type { Audible } from './audible.js';
import { meetings, oncePerSound, type TwoBoxes } from './found.js';
import { elseByHand, inFrontOf, orExchanged } from '../ways-out.js';
import { theItem } from '../../known/the.js';

/** Input impedance, in ohms, under which a fuzz wants to feel the coils of the guitar. */
const LOW_OHM = 50_000;

/** What drives a fuzz of low input impedance: the nearest box before it that is no bare wire and no relay bypass. */
const drivenByBuffer = oncePerSound(({ stages, trace: { wiring, active, onPath, stages: states } }: Audible) =>
  stages
    .filter((s) => s.block.stage === 'fuzz' && (s.block.inputOhm ?? 1_000_000) < LOW_OHM)
    .flatMap((fuzz) => {
      const start = wiring.blocks.filter((b) => b.stage === fuzz.stage).map((b) => theItem(wiring.edges, b.edge).from);
      const seen = new Set(start);
      const blocks = new Map(wiring.blocks.map((b) => [b.edge, b]));
      const found: TwoBoxes[] = [];
      for (const point of seen) {
        for (const e of theItem(wiring.into, point)) {
          if (!active[e] || !onPath[theItem(wiring.edges, e).from]) continue;
          const b = blocks.get(e);
          const sounding = b && states.get(b.stage) === 'in';
          const buffers =
            b &&
            (['buffer', 'wireless'].includes(b.block.stage) ||
              b.block.bypass === 'buffered' ||
              (b.block.stage === 'wah' && sounding));
          if (b && buffers) found.push([fuzz.device, b.device]);
          else if (!b || !sounding) seen.add(theItem(wiring.edges, e).from);
        }
      }
      return found.slice(0, 1);
    }),
);

export const fuzzAfterBuffer: Check = {
  code: 'order.fuzz-after-buffer',
  title: 'A fuzz that does not feel the guitar',
  severities: ['doubt'],
  source:
    'common practice: a fuzz of low input impedance works with the coils of the guitar; a buffer or wireless between them hardens it',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [fuzz, buffer],
      sounds,
      evidence,
    } of meetings(inputs, drivenByBuffer)) {
      yield {
        severity: 'doubt' as const,
        evidence,
        why: `${boxName(inputs.rig, fuzz)} is fed by ${boxName(inputs.rig, buffer)} in ${soundNames(inputs.rig, sounds)}, not by the coils of the guitar: it turns brittle and no longer cleans up with the volume knob. It likes to stand first; some live well with the difference.`,
        remedies: () =>
          elseByHand(
            orExchanged(inputs, fuzz, buffer, inFrontOf(inputs, fuzz, buffer)),
            `Put ${boxName(inputs.rig, fuzz)} before ${boxName(inputs.rig, buffer)}, or use a fuzz with a buffered input`,
          ),
      };
    }
  },
};

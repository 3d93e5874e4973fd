import { thePart } from '../../rig/rig.js';
import type { SupplyNeed } from '../../electric/supply.js';
import { grouped } from '../../known/grouped.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { feedFrom, loadsHere, outputText } from './fed.js';

/** Above this share of its rating an output has little to spare (common practice: a fifth is left). */
const FULL = 0.8;
const whole = (amount: number): number => Math.round(amount * 10) / 10;
const lightest = (needs: readonly SupplyNeed[]): SupplyNeed | undefined =>
  [...needs].sort((a, b) => a.milliamps - b.milliamps).at(0);

export const current: Check = {
  code: 'supply.current',
  title: 'An output that has to give more than it can',
  severities: ['broken', 'note'],
  source: 'common practice: what boxes take together stays under what the output gives, with about a fifth to spare',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const loads = loadsHere(inputs);
    for (const { output, feeds, milliamps } of loads) {
      if (feeds.length === 0 || milliamps <= output.milliamps * FULL + 1e-9) continue;
      const isOver = milliamps > output.milliamps + 1e-9;
      const needs = feeds.map((f) => f.need);
      const names = listed(needs.map((n) => boxName(rig, n.device)));
      const least = lightest(needs);
      yield {
        severity: isOver ? ('broken' as const) : ('note' as const),
        evidence: [output.device, ...needs.map((n) => n.device)],
        about: output.jack,
        why: `${names} ${needs.length === 1 ? 'takes' : 'take'} ${whole(milliamps)} mA of ${outputText(rig, output.jack)}, which gives ${output.milliamps} mA${isOver ? ': it will sag, hum or switch off' : ', so little is left to spare'}.`,
        remedies: () =>
          least
            ? feedFrom(inputs, least, `Feed it from an output of ${least.milliamps} mA or more`, (o) => {
                return least.milliamps <= o.milliamps * FULL;
              })
            : [],
      };
    }
    for (const [device, outputs] of grouped(loads, (l) => l.output.device)) {
      const { givesWatts } = thePart(rig, device).figures;
      const watts = outputs.reduce(
        (sum, l) => sum + (l.milliamps * (l.volts ?? Math.min(...l.output.volts))) / 1000,
        0,
      );
      if (givesWatts === undefined || watts <= givesWatts + 1e-9) continue;
      yield {
        severity: 'broken' as const,
        evidence: [device, ...new Set(outputs.flatMap((l) => l.feeds.map((f) => f.need.device)))],
        about: 'altogether',
        why: `What hangs on ${boxName(rig, device)} takes ${whole(watts)} W, and it gives ${givesWatts} W altogether.`,
        remedies: () => [
          {
            id: 'hand',
            label: 'Feed some of the boxes from another supply',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

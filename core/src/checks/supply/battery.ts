import { BATTERY_EFFICIENCY } from '../../electric/supply.js';
import { setSeconds } from '../../edits/set-list.js';
import { all } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';
import { loadsHere } from './fed.js';

/** A battery is asked to last so much longer than the set, in hours (common practice). */
const SPARE_HOURS = 1;
const hours = (n: number): string => `${Math.round(n * 10) / 10} hours`;

export const battery: Check = {
  code: 'supply.battery',
  title: 'A battery that does not last for the set and an hour',
  severities: ['doubt'],
  source: 'Wh = mAh × V / 1000; hours = Wh × efficiency / W; an hour to spare is common practice',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const longest = Math.max(0, ...all(rig, 'setList').map((list) => setSeconds(rig, list))) / 3600;
    if (longest === 0) return;
    const loads = loadsHere(inputs);
    for (const { id, figures } of all(rig, 'device')) {
      const cell = figures.battery;
      if (!cell) continue;
      const watts = loads
        .filter((l) => l.output.device === id)
        .reduce((sum, l) => sum + (l.milliamps * (l.volts ?? cell.volts)) / 1000, 0);
      const lasts =
        cell.milliamps !== undefined
          ? cell.mAh / cell.milliamps
          : watts > 0
            ? (cell.mAh * cell.volts * BATTERY_EFFICIENCY) / 1000 / watts
            : Infinity;
      if (lasts >= longest + SPARE_HOURS) continue;
      yield {
        severity: 'doubt' as const,
        evidence: [id],
        why: `${boxName(rig, id)} lasts about ${hours(lasts)}; the longest set takes ${hours(longest)}, and an hour should be left.`,
        remedies: () => [
          { id: 'hand', label: 'Bring a second one, or a larger one', promise: 'clears' as const, by: 'hand' as const },
        ],
      };
    }
  },
};

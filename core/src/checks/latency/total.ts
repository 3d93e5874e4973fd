import { grouped } from '../../known/grouped.js';
import { splitRef } from '../../rig/ids.js';
import { alongsHere } from '../level/alongs-here.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, endName, soundNames } from '../names.js';

/** From here on most players feel it (common practice); sound in air travels 3.4 m in that time. */
const FELT_MS = 10;

export const total: Check = {
  code: 'latency.total',
  title: 'A sound that comes late',
  severities: ['note'],
  source:
    'sum of what digital boxes need on the way (1.5 ms each, assumed where nobody said it); common practice: about 10 ms are felt',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const late = alongsHere(inputs).flatMap(({ sound, along }) =>
      along.outputs.filter((o) => o.ms[0] > FELT_MS).map((o) => ({ sound, end: o.end, ms: o.ms[0] })),
    );
    for (const here of grouped(late, (l) => l.end).values()) {
      const [{ end }] = here;
      const most = Math.max(...here.map((l) => l.ms));
      const sounds = [...new Set(here.map((l) => l.sound))];
      yield {
        severity: 'note' as const,
        evidence: [splitRef(end).device, ...sounds],
        about: end,
        why: `${soundNames(rig, sounds)} comes to ${endName(rig, end)} at ${boxName(rig, splitRef(end).device)} ${Math.round(most * 10) / 10} ms late, as if it stood ${Math.round(most * 0.3432 * 10) / 10} m further away: some players feel that.`,
      };
    }
  },
};

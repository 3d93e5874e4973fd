import type { Check, CheckInputs } from '../check.js';
import { boxName, listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { isTime } from './audible.js';
import { meetings, oncePerSound } from './found.js';
import { inFrontOf, orExchanged } from '../ways-out.js';
import { surely, theFirst } from '../../known/the.js';

/** Each gate with the delays and reverbs before it, and whether nothing but level comes behind it. */
const gatesBehindTime = oncePerSound((a) =>
  a.stages
    .filter((s) => s.block.stage === 'gate')
    .flatMap((gate) => {
      const times = a.stages.filter((s) => isTime(s) && a.before(s, gate));
      return times.length ? [[gate.device, ...new Set(times.map((s) => s.device))] as const] : [];
    }),
);

export const gateCutsTails: Check = {
  code: 'order.gate-cuts-tails',
  title: 'A gate behind the repeats',
  severities: ['note'],
  source:
    'common practice: four placements of a gate: first, behind the drives, keyed from the guitar, or last in the loop',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const met = [...grouped(meetings(inputs, gatesBehindTime), (m) => theFirst(m.boxes)).values()];
    for (const group of met) {
      const gate = theFirst(group[0].boxes);
      const times = [...new Set(group.flatMap((m) => m.boxes.slice(1)))];
      const sounds = [...new Set(group.flatMap((m) => m.sounds))];
      const last = surely(times.at(-1));
      yield {
        severity: 'note' as const,
        evidence: [gate, ...times, ...sounds],
        why: `${boxName(rig, gate)} stands behind ${listed(times.map((d) => boxName(rig, d)))} in ${soundNames(rig, sounds)}: as soon as it closes, the tails are gone. It is a school of its own, with its threshold set well below the quietest repeat that is to be heard. Others put it first, right behind the drives, or keyed from the guitar.`,
        remedies: () => orExchanged(inputs, gate, last, inFrontOf(inputs, gate, theFirst(times))),
      };
    }
  },
};

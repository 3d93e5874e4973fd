import { mindsTooMuch } from '../../electric/levels/driven-input.js';
import { grouped } from '../../known/grouped.js';
import { splitRef } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { alongsHere, db } from './alongs-here.js';

export const clip: Check = {
  code: 'level.clip',
  title: 'An input that the strongest notes overload',
  severities: ['doubt'],
  source:
    'arithmetic of levels (dBu) against what the input takes: its figure, else an assumed usual one (9 V swing 11 dBu, line 20 dBu)',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const over = alongsHere(inputs).flatMap(({ sound, trace, along }) =>
      along.joints
        .filter((j) => j.level.peak > j.takes.dbu && mindsTooMuch(rig, trace, j))
        .map((joint) => ({ sound, joint })),
    );
    for (const here of grouped(over, (o) => o.joint.to).values()) {
      const worst = here.reduce((a, b) => (b.joint.level.peak > a.joint.level.peak ? b : a));
      const { from, to, cable, level, takes } = worst.joint;
      const [box, before] = [splitRef(to).device, splitRef(from).device];
      const sounds = [...new Set(here.map((o) => o.sound))];
      yield {
        severity: 'doubt' as const,
        evidence: [box, before, cable, ...sounds],
        about: to,
        why: `The strongest notes come into ${boxName(rig, box)} at ${Math.round(level.peak)} dBu, ${db(level.peak - takes.dbu)} more than it takes (${takes.dbu} dBu${takes.said ? '' : ', assumed'}), in ${soundNames(rig, sounds)}: they distort where nobody wants it.`,
        remedies: () => [
          {
            id: 'lower',
            label: `Turn ${boxName(rig, before)} down by ${Math.ceil(level.peak - takes.dbu)} dB, or use an input for that level`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

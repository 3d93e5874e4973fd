import { pack } from '../../edits/packing.js';
import { cutTo, LONGEST } from '../../rig/limits.js';
import { splitRef } from '../../rig/ids.js';
import { all, partOf, soundsInOrder } from '../../rig/rig.js';
import type { Check } from '../check.js';
import { boxName } from '../names.js';

/** Fewer sounds than these make no box indispensable. */
const FEW = 2;

export const noSpare: Check = {
  code: 'fail.no-spare',
  title: 'A box in every sound with no spare packed',
  severities: ['note'],
  source: 'common practice: a spare for what every sound goes through',
  *find({ rig, compilation }) {
    const cases = all(rig, 'packCase');
    const [first] = cases;
    const sounds = soundsInOrder(rig).flatMap((s) => compilation.sounds.get(s.id) ?? []);
    if (!first || sounds.length < FEW) return;
    const spares = cases.flatMap((c) => Object.values(c.holds)).filter((t) => t.is === 'spare');
    const inAll = sounds
      .map(({ trace }) => new Set([...trace.stages].filter(([, is]) => is === 'in').map(([s]) => splitRef(s).device)))
      .reduce((some, more) => new Set([...some].filter((id) => more.has(id))));
    for (const device of inAll) {
      if (partOf(rig, device)?.zone === 'outputs' || spares.some((t) => t.device === device)) continue;
      const name = boxName(rig, device);
      yield {
        severity: 'note' as const,
        evidence: [device],
        why: `${name} is in every sound, and no spare of it is packed.`,
        remedies: () => [
          {
            id: 'pack',
            label: `Pack a spare into ${first.name}`,
            promise: 'clears' as const,
            by: 'program' as const,
            edit: pack(first, cutTo(`Spare: ${name}`, LONGEST.name), { device, is: 'spare' }),
          },
        ],
      };
    }
  },
};

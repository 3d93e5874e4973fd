import { listsOf, soundsOfEngagement } from '../../edits/engagements.js';
import { bankName, bankSize } from '../../edits/mirror.js';
import { callFits } from '../../recall/intend/wants.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { KeptBanks } from '../../rig/show.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';

/** Sounds that are called from a controller outside the banks that are kept there. */
const strayFrom = (
  { rig, hookup }: CheckInputs,
  sounds: Iterable<Id<'sound'>>,
  kept: KeptBanks,
): readonly Id<'sound'>[] => {
  const size = bankSize(rig, kept) ?? 1;
  return [...sounds].filter((id) =>
    (partOf(rig, id)?.calls ?? []).some((c) => {
      const bank = Math.floor(c.slot / size);
      const isOf = c.device === kept.device && c.memory === kept.memory && callFits(rig, c, hookup.id);
      return isOf && (bank < kept.from || bank > kept.to);
    }),
  );
};

export const actBanks: Check = {
  code: 'set.act-banks',
  title: 'A sound of an act stands outside its banks',
  severities: ['note'],
  source: 'what was said of the act: which banks are kept for it',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const one of all(rig, 'engagement')) {
      if (listsOf(rig, one.id).length === 0) continue;
      const sounds = soundsOfEngagement(rig, one.id);
      for (const kept of one.banks ?? []) {
        const stray = strayFrom(inputs, sounds, kept);
        if (stray.length === 0) continue;
        const banks =
          kept.from === kept.to
            ? bankName(rig, kept, kept.from)
            : `${bankName(rig, kept, kept.from)} to ${bankName(rig, kept, kept.to).replace('bank ', '')}`;
        yield {
          severity: 'note' as const,
          evidence: [one.id, kept.device, ...stray],
          about: kept.memory,
          why: `${soundNames(rig, stray)} ${stray.length === 1 ? 'is' : 'are'} needed in “${one.name}”, for which ${banks} of ${boxName(rig, kept.device)} ${kept.from === kept.to ? 'is' : 'are'} kept, and ${stray.length === 1 ? 'stands' : 'stand'} elsewhere.`,
          remedies: () => [
            {
              id: 'slots',
              label: `Plan the slots of “${one.name}” in its banks: room Set, Slots`,
              promise: 'eases' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
    }
  },
};

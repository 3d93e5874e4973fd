import { removeDevice } from '../../edits/devices.js';
import { all } from '../../rig/rig.js';
import { wiredBoxes } from '../../rig/box.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName } from '../names.js';

export const unused: Check = {
  code: 'wire.unused',
  title: 'A box that is wired to nothing',
  severities: ['note'],
  source: 'common practice: what is carried along should be used, or stay at home',
  *find({ rig, hookup }: CheckInputs) {
    const wired = wiredBoxes(rig);
    /** An instrument that a song names is there to be played, whether it hangs on a cable just now or not. */
    const played = new Set(all(rig, 'song').map((s) => s.instrument));
    for (const device of all(rig, 'device')) {
      if (wired.has(device.id) || played.has(device.id) || device.zone === 'supply' || device.jacks.length === 0)
        continue;
      yield {
        severity: 'note' as const,
        evidence: [device.id],
        why:
          rig.parts.hookup.size > 1
            ? `${boxName(rig, device.id)} has no cable in any hook-up.`
            : `${boxName(rig, device.id)} has no cable in ${hookup.name}.`,
        remedies: () => [
          {
            id: 'remove',
            label: `Take ${boxName(rig, device.id)} out of the kit`,
            note: 'what sounds want of it goes too',
            promise: 'clears' as const,
            by: 'program' as const,
            edit: removeDevice(rig, device.id),
          },
        ],
      };
    }
  },
};

import { callersIn } from '../../edits/calls.js';
import { bankChangesNow, slotsOfRig, type BankChange } from '../../plan/slots/of-rig.js';
import { all } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { grouped } from '../../known/grouped.js';

const changeText = ({ from, to, presses }: BankChange): string =>
  `from “${from}” to “${to}” ${presses === 1 ? 'a bank key' : `${presses} bank keys`}`;

export const stomps: Check = {
  code: 'set.stomps',
  title: 'A bank key in the middle of a song',
  severities: ['doubt'],
  source: 'common practice: what a song needs stands in one bank, so that every change in it is one stomp',
  *find({ rig }: CheckInputs) {
    const songs = all(rig, 'song');
    for (const caller of callersIn(rig)) {
      if (caller.by !== 'slot' || caller.isScene) continue;
      const setup = slotsOfRig(rig, caller, songs);
      if (!setup) continue;
      for (const changes of grouped(bankChangesNow(setup, songs), (c) => c.song).values()) {
        const [{ song, title }] = changes;
        yield {
          severity: 'doubt' as const,
          evidence: [song, caller.device],
          about: caller.memory,
          why: `In “${title}” ${boxName(rig, caller.device)} needs more than one stomp: ${listed([...new Set(changes.map(changeText))])} first.`,
          remedies: () => [
            {
              id: 'slots',
              label: 'Have the slots planned for the fewest stomps: room Set, Slots',
              promise: 'eases' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
    }
  },
};

import { knobText } from '../../recall/words/words.js';
import type { AnyId } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { listed, soundNames, soundsDo } from '../names.js';
import { grouped } from '../../known/grouped.js';

export const knobLeft: Check = {
  code: 'recall.knob-left',
  title: 'A knob that a sound turns and nobody turns back',
  severities: ['doubt'],
  source: 'dial cards: what no memory holds stays where a hand left it; a sound that does not say it has what was left',
  *find({ rig, dials }: CheckInputs) {
    for (const { device, knob, turned, open } of dials.left) {
      const where = [...grouped(turned, (t) => t.at)].map(
        ([at, those]) =>
          `${at} in ${soundNames(
            rig,
            those.map((t) => t.sound),
          )}`,
      );
      yield {
        severity: 'doubt' as const,
        evidence: [...(device ? [device] : []), ...turned.map((t) => t.sound), ...open] as AnyId[],
        about: `${device ?? 'hands'} ${knob}`,
        why: `${knobText(rig, device, knob)} stands at ${listed(where)}, and ${soundsDo(rig, open, 'does', 'do')} not say where: there it stays as it was left.`,
        remedies: () => [
          {
            id: 'say',
            label: `Write where ${knob} stands otherwise on the card that holds for all sounds`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

import { soundsDo } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { theId } from '../../rig/ids.js';
import { caseLeftOpen } from '../../recall/verdict/sound-verdict.js';
import type { Check, CheckInputs } from '../check.js';

export const undecided: Check = {
  code: 'recall.undecided',
  title: 'A sound of which nobody knows whether it comes back',
  severities: ['doubt'],
  source: 'the proof: what a want depends on is too much to search to the end',
  *find({ rig, hookup, verdicts }: CheckInputs) {
    const open = [...verdicts].flatMap(([id, v]) => {
      const sound = theId('sound', id);
      const because =
        v.is === 'undecided' ? v.because : v.is === 'proved' ? caseLeftOpen(rig, sound, hookup.id) : undefined;
      return because === undefined ? [] : [{ sound, because }];
    });
    for (const group of grouped(open, (o) => o.because).values()) {
      const sounds = group.map((o) => o.sound);
      yield {
        severity: 'doubt' as const,
        evidence: sounds,
        about: group[0].because.slice(0, 200),
        why: `${soundsDo(rig, sounds, 'is', 'are')} neither proved nor found broken: ${group[0].because}`,
        remedies: () => [
          {
            id: 'granted',
            label:
              'Take something for granted in this hook-up, such as that nobody steps on a box, and it can be searched',
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

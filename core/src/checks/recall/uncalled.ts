import { all } from '../../rig/rig.js';
import { wiredBoxes } from '../../rig/box.js';
import type { Check, CheckInputs } from '../check.js';
import { soundsDo } from '../names.js';
import { theFirst } from '../../known/the.js';

export const uncalled: Check = {
  code: 'recall.uncalled',
  title: 'A sound that nothing calls',
  severities: ['doubt', 'note'],
  source:
    'the sheet: no switch, song list or timeline calls it in this hook-up, so every box has to be set by foot or hand',
  *find({ rig, hookup, compilation }: CheckInputs) {
    const uncalled = [...compilation.sounds.values()].filter((c) => c.stored.length === 0).map((c) => c.sound);
    if (uncalled.length === 0) return;
    const wired = wiredBoxes(rig, hookup.id);
    const callers = all(rig, 'device').filter((d) => wired.has(d.id) && d.memories.some((m) => m.by !== undefined));
    yield {
      /** Where nothing could call them, it is how this rig is played. */
      severity: callers.length ? ('doubt' as const) : ('note' as const),
      evidence: uncalled,
      about: hookup.id,
      why: `${soundsDo(rig, uncalled, 'is', 'are')} called by nothing here: what differs from sound to sound has to be set box by box.${callers.length ? ` ${callers.map((d) => d.name).join(' or ')} could call ${uncalled.length === 1 ? 'it' : 'them'}.` : ''}`,
      remedies: () =>
        callers.length
          ? [
              {
                id: 'call',
                label: `Give ${uncalled.length === 1 ? 'it' : 'them'} a slot of ${theFirst(callers).name} in Sounds`,
                promise: 'eases' as const,
                by: 'hand' as const,
              },
            ]
          : [],
    };
  },
};

import { mannerOf } from '../../rig/sound.js';
import { all } from '../../rig/rig.js';
import { splitRef } from '../../rig/ids.js';
import { isDialled } from '../../signal/graph/state.js';
import { controlAt } from '../../rig/box.js';
import { controlText } from '../../recall/words/words.js';
import type { Check, CheckInputs } from '../check.js';
import { soundsDo } from '../names.js';

export const unsaid: Check = {
  code: 'recall.unsaid',
  title: 'A move whose amount nothing takes back',
  severities: ['doubt'],
  source:
    'compile: without a list of its own a move gives back what the sound says; an amount that the sound does not say is dialled in as it pleases, and not known',
  *find({ rig, compilation }: CheckInputs) {
    for (const move of all(rig, 'move')) {
      if (move.off.length > 0 || mannerOf(move) === 'one way') continue;
      for (const want of move.on) {
        if (!('control' in want)) continue;
        const found = controlAt(rig, want.control);
        if (!found || !isDialled(found)) continue;
        const sounds = [...compilation.sounds.values()]
          .filter((c) => move.sounds === 'all' || move.sounds.includes(c.sound))
          .filter((c) => c.stored.some((s) => move.at.some((a) => a.device === s.program.device)))
          .filter((c) => !c.wants.some((w) => w.control === want.control))
          .map((c) => c.sound);
        if (sounds.length === 0) continue;
        const what = controlText(rig, want.control);
        yield {
          severity: 'doubt' as const,
          evidence: [move.id, splitRef(want.control).device, ...sounds],
          about: want.control,
          why: `${move.name} moves ${what}, and ${soundsDo(rig, sounds, 'does', 'do')} not say where it stands: nothing gives it back there.`,
          remedies: () => [
            {
              id: 'say',
              label: `Say ${what} in ${sounds.length === 1 ? 'that sound' : 'those sounds'}, in its column of the sheet`,
              promise: 'clears' as const,
              by: 'hand' as const,
            },
          ],
        };
      }
    }
  },
};

import { splitRef } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import { tailsOf } from '../../signal/graph/tails.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';

export const tails: Check = {
  code: 'recall.tails',
  title: 'Repeats that are cut, or that ring on',
  severities: ['doubt'],
  source:
    'common practice: a box rings on if its bypass keeps its output open, and in a loop only if the loop keeps the return open; a box that loads a program is silent',
  *find({ rig, compilation }: CheckInputs) {
    const sounds = [...compilation.sounds.values()];
    const cases = sounds.flatMap((leaving) => {
      const wish = partOf(rig, leaving.sound)?.leaving;
      if (!wish) return [];
      return sounds
        .filter((next) => next !== leaving)
        .flatMap((next) => {
          const { ring, cut } = tailsOf(rig, leaving.trace, next.trace);
          return (wish === 'ring' ? cut : ring).map((stage) => ({
            wish,
            stage,
            leaving: leaving.sound,
            next: next.sound,
          }));
        });
    });
    for (const group of grouped(cases, (c) => `${c.stage} ${c.wish}`).values()) {
      const { stage, wish } = group[0];
      const { device } = splitRef(stage);
      const leaving = [...new Set(group.map((c) => c.leaving))];
      const next = [...new Set(group.map((c) => c.next))];
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...leaving],
        about: wish,
        why:
          wish === 'ring'
            ? `${soundNames(rig, leaving)} ${leaving.length === 1 ? 'is' : 'are'} to ring out, but ${boxName(rig, device)} is cut off on the way to ${soundNames(rig, next)}.`
            : `${soundNames(rig, leaving)} ${leaving.length === 1 ? 'is' : 'are'} to stop at once, but ${boxName(rig, device)} rings on in ${soundNames(rig, next)}.`,
        remedies: () => [
          wish === 'ring'
            ? {
                id: 'ring',
                label: `Switch ${boxName(rig, device)} itself with its tails on, behind the loops, or use a loop that keeps its return open`,
                promise: 'clears' as const,
                by: 'hand' as const,
              }
            : {
                id: 'cut',
                label: `Put ${boxName(rig, device)} into a loop that closes, or switch its tails off`,
                promise: 'clears' as const,
                by: 'hand' as const,
              },
        ],
      };
    }
  },
};

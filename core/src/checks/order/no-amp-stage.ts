import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { downstream } from '../../signal/graph/trace.js';
import type { Audible } from './audible.js';
import { meetings, oncePerSound } from './found.js';

const AMP = new Set(['preamp', 'power amp', 'cabinet simulation']);

/** Guitars that come to the house without any stage of an amp. */
const bare = oncePerSound(({ trace, sources }: Audible) => {
  const { wiring, onPath, stages } = trace;
  if (!sources.has('guitar')) return [];
  const ampAt = new Set(
    wiring.blocks.filter((b) => AMP.has(b.block.stage) && stages.get(b.stage) === 'in').map((b) => b.edge),
  );
  return wiring.sources
    .filter((s) => s.end.what === 'guitar' && onPath[s.point])
    .flatMap((s) => {
      const reached = downstream(trace, [s.point], (e) => ampAt.has(e));
      return wiring.ends.some((e) => e.end.is === 'house' && reached[e.point]) ? [[s.device] as const] : [];
    });
});

export const noAmpStage: Check = {
  code: 'order.no-amp-stage',
  title: 'A guitar to the desk without an amp of any kind',
  severities: ['note'],
  source: 'common practice: without a preamp stage an electric guitar sounds thin; for some parts that is wanted',
  *find(inputs: CheckInputs) {
    for (const {
      boxes: [guitar],
      sounds,
      evidence,
    } of meetings(inputs, bare)) {
      yield {
        severity: 'note' as const,
        evidence,
        why: `${boxName(inputs.rig, guitar)} comes to the desk in ${soundNames(inputs.rig, sounds)} without a preamp, an amp or a simulation of one: clean and thin, unless that is the idea.`,
      };
    }
  },
};

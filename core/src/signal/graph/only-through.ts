import { theItem } from '../../known/the.js';
import type { Id, Ref } from '../../rig/ids.js';
import { downstream, upstream, type StageState, type Trace } from './trace.js';

/** One of several ways beside each other, by itself: of a trace only what passes a box, before it and behind it. */
export const onlyThrough = (t: Trace, device: Id<'device'>): Trace => {
  const { wiring, active } = t;
  const own = wiring.points.flatMap((p, i) => (p.device === device && t.onPath[i] ? [i] : []));
  const [after, before] = [downstream(t, own), upstream(t, own, () => false)];
  const onPath = t.onPath.map((on, i) => (on && (after[i] || before[i]) ? 1 : 0));
  const stages = new Map<Ref, StageState>([...t.stages.keys()].map((stage) => [stage, 'outside']));
  for (const { edge, stage } of wiring.blocks)
    if (active[edge] && onPath[theItem(wiring.from, edge)] && onPath[theItem(wiring.to, edge)])
      stages.set(stage, t.stages.get(stage) ?? 'outside');
  return { ...t, onPath, stages, reaches: t.reaches.filter((r) => after[r.end.point]) };
};

import type { Gain } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { thePart, type Rig } from '../rig/rig.js';
import { type RigState } from '../signal/graph/state.js';
import { pointsInOrder } from '../signal/graph/order.js';
import type { Trace } from '../signal/graph/trace.js';
import { gainOf, USUAL_DBU } from './gain.js';
import { theItem } from '../known/the.js';
import { controlAt } from '../rig/box.js';

/** A gain in dB in this state; 0 where nothing is known. */
export const decibels = (rig: Rig, device: Id<'device'>, gain: Gain | undefined, state: RigState): number => {
  if (gain === undefined) return 0;
  if (typeof gain === 'number') return gain;
  const control = ref(device, gain.control);
  const value = Number(state.get(control));
  if (!Number.isFinite(value)) return 0;
  const domain = controlAt(rig, control)?.domain;
  if (!gain.scale || !domain || !('min' in domain) || domain.max === domain.min) return value;
  return gain.scale[0] + ((gain.scale[1] - gain.scale[0]) * (value - domain.min)) / (domain.max - domain.min);
};

/**
 * Average level at every end that the signal reaches, in dBu: along each way the gains in dB, each stage giving at
 * most what it can give;
 * where ways meet again the louder one counts. Gains that no box states are typical ones (assumed), so differences
 * mean more than levels.
 */
export const levelsAt = (rig: Rig, t: Trace): ReadonlyMap<Ref, number> => {
  const {
    wiring: { points, edges, sources, ends },
    leaving,
    onPath,
    stages,
    state,
  } = t;
  const level = new Float64Array(points.length).fill(-Infinity);
  for (const s of sources) if (onPath[s.point]) level[s.point] = s.end.dbu?.average ?? USUAL_DBU;
  for (const point of pointsInOrder(t)) {
    if (level[point] === -Infinity) continue;
    for (let k = theItem(leaving.at, point); k < theItem(leaving.at, point + 1); k += 1) {
      const edge = theItem(edges, theItem(leaving.edges, k));
      if (!onPath[edge.to]) continue;
      level[edge.to] = Math.max(theItem(level, edge.to), behind(edge, theItem(level, point)));
    }
  }
  return new Map(
    ends.flatMap((end) =>
      theItem(level, end.point) > -Infinity ? [[end.ref, theItem(level, end.point)] as const] : [],
    ),
  );

  function behind(edge: (typeof edges)[number], before: number): number {
    const { carries } = edge;
    if (carries.by === 'cable') return before;
    if (carries.by !== 'block') return before + decibels(rig, carries.device, edge.gain, state);
    if (stages.get(ref(carries.device, carries.block.id)) !== 'in') return before;
    const device = thePart(rig, carries.device);
    const { db, ceiling } = gainOf(device, carries.block);
    const own = typeof carries.block.gain === 'object' ? decibels(rig, carries.device, carries.block.gain, state) : db;
    return Math.min(before + own, ceiling);
  }
};

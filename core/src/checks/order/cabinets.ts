import type { Id } from '../../rig/ids.js';
import { downstream } from '../../signal/trace.js';
import { isDirt, type Audible, type Heard } from './audible.js';

const CABINETS = new Set(['cabinet', 'cabinet simulation', 'microphone']);
export const isCabinet = (s: Heard): boolean => s.block.stage === 'cabinet' || s.block.stage === 'cabinet simulation';
export const isElectric = ({ sources }: Audible): boolean => sources.has('guitar') || sources.has('bass');

/** Drives and preamps whose sound comes to the house or a recorder without any cabinet, real or simulated. */
export const bareDirt = ({ stages, trace }: Audible): readonly Id<'device'>[] => {
  const { wiring } = trace;
  const cabinets = new Set(wiring.blocks.filter((b) => CABINETS.has(b.block.stage) && trace.stages.get(b.stage) === 'in').map((b) => b.edge));
  const isCab = (e: number): boolean => cabinets.has(e);
  const ends = wiring.ends.filter((e) => e.end.is === 'house' || e.end.is === 'recorder').map((e) => e.point);
  return stages.filter((s) => (isDirt(s) || s.block.stage === 'preamp')).filter((s) => {
    const start = wiring.blocks.filter((b) => b.stage === s.stage).map((b) => wiring.edges[b.edge]!.to);
    const reached = downstream(trace, start, isCab);
    return ends.some((p) => reached[p]);
  }).map((s) => s.device);
};

import type { Id } from '../../rig/ids.js';
import { upstream } from '../../signal/trace.js';
import { isDirt, type Audible, type Heard } from './audible.js';

const CABINETS = new Set(['cabinet', 'cabinet simulation', 'microphone']);
export const isCabinet = (s: Heard): boolean => s.block.stage === 'cabinet' || s.block.stage === 'cabinet simulation';
export const isElectric = ({ sources }: Audible): boolean => sources.has('guitar') || sources.has('bass');

/** Drives and preamps whose sound comes to the house or a recorder without any cabinet, real or simulated. */
export const bareDirt = ({ stages, trace }: Audible): readonly Id<'device'>[] => {
  const { wiring } = trace;
  const cabinets = new Set(wiring.blocks.filter((b) => CABINETS.has(b.block.stage) && trace.stages.get(b.stage) === 'in').map((b) => b.edge));
  const ends = wiring.ends.filter((e) => e.end.is === 'house' || e.end.is === 'recorder').map((e) => e.point);
  const comesBare = upstream(trace, ends, (e) => cabinets.has(e));
  return stages.filter((s) => isDirt(s) || s.block.stage === 'preamp').filter((s) => wiring.blocks.some((b) => b.stage === s.stage && comesBare[wiring.edges[b.edge]!.to])).map((s) => s.device);
};

import { alongs, levelsAt } from '../../electric/levels/along.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';

/** How loud a state of the rig is on average, in dBu: behind each box that is in, and where it ends. Plain data. */
export interface LevelsShown {
  readonly boxes: Readonly<Record<Id<'device'>, number>>;
  readonly ends: Readonly<Record<Ref, number>>;
}

const tenth = (value: number): number => Math.round(value * 10) / 10 + 0;

/** What is written beside boxes on the run, the map and the bench; of several sources the loudest. */
export const levelsShown = (rig: Rig, trace: Trace): LevelsShown => {
  const boxes = new Map<Id<'device'>, number>();
  for (const { source, start, stages } of alongs(trace, rig)) {
    const behind = new Map([[source.device, start.average]]);
    for (const { stage, out } of stages) behind.set(splitRef(stage).device, out.average);
    for (const [device, dbu] of behind) boxes.set(device, Math.max(dbu, boxes.get(device) ?? -Infinity));
  }
  return {
    boxes: Object.fromEntries([...boxes].map(([device, dbu]) => [device, tenth(dbu)])),
    ends: Object.fromEntries([...levelsAt(rig, trace)].map(([end, dbu]) => [end, tenth(dbu)])),
  };
};

import { controlAt } from '../../rig/box.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';

import { stopsBetween, type Stop, type WantedWay } from '../../signal/graph/stops.js';
import type { Compiled } from '../intend/compiled.js';
import { boxText, pointText } from './part-words.js';
import { valueText } from './words.js';

/** The way that a sound wants: through the stages that it wants in, past gates that it does not want shut. */
const wayOf = ({ wants }: Compiled): WantedWay => {
  const own = wants.filter((w) => w.why.by !== 'gate');
  const asked = new Set(own.map((w) => w.control));
  return {
    stages: new Set(own.flatMap((w) => (w.why.by === 'stage' && w.why.is === 'in' ? [w.why.stage] : []))),
    isWanted: (control) => asked.has(control),
  };
};

/** Where the signal of a sound stops on its way from a source to an end at which it is not heard. */
export const stopsOf = (
  compiled: Compiled,
  { from, at }: { readonly from: Ref; readonly at: Ref },
): readonly Stop[] => {
  const { wiring } = compiled.trace;
  const source = wiring.sources.find((s) => s.ref === from);
  const end = wiring.ends.find((e) => e.ref === at);
  return source && end ? stopsBetween(compiled.trace, source, end, wayOf(compiled)) : [];
};

/** @example stopText(rig, stop) // 'Eight-loop switcher: output is muted' */
export const stopText = (rig: Rig, stop: Stop): string => {
  if (stop.because === 'nothing plugged in') return `${pointText(rig, stop)}, with no cable that leads on`;
  const by = stop.by.map(
    ({ control, value }) =>
      `${controlAt(rig, control)?.name ?? splitRef(control).name} is ${value === undefined ? 'not set' : valueText(rig, control, value)}`,
  );
  return `${boxText(rig, partOf(rig, stop.device)?.id ?? stop.device)}: ${[...new Set(by)].join(', ') || 'its order leaves the way out'}`;
};

import { theItem } from '../../known/the.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { jackOf } from '../../signal/graph/wiring.js';

/** Something on the way of a sound that may be dead. */
export type Suspect =
  | { readonly is: 'box'; readonly device: Id<'device'>; readonly out: Ref | undefined; readonly weight: number }
  | { readonly is: 'lead'; readonly cable: Id<'cable'>; readonly from: Ref; readonly to: Ref; readonly weight: number };

/**
 * How likely things are to be it (common practice: leads and plugs first, the long ones most, then what runs on a battery
 * or radio; amps and cabinets seldom). Assumed.
 */
const WEIGHT = { lead: 3, longLead: 4, radio: 3, box: 2, amp: 1 } as const;
const LONG_METRES = 5;

/**
 * The way of a sound from its source to the first end at which it is to be heard, thing by thing: boxes and leads in
 * turn. A box that it passes several times, such as a switcher, stands there each time. Of ways side by side one is
 * taken; what the air carries is no lead.
 */
export const suspectsOf = (rig: Rig, { trace, heard }: Compiled): readonly Suspect[] => {
  const { wiring, active, onPath } = trace;
  const pair = heard.find((h) => h.as === 'sounds' || h.as === 'stereo');
  const start = wiring.sources.find((s) => s.ref === pair?.from)?.point;
  const end = wiring.ends.find((e) => e.ref === pair?.at)?.point;
  if (start === undefined || end === undefined) return [];
  const cameOver = new Map<number, number>();
  const seen = new Set([start]);
  for (const point of seen)
    for (const e of theItem(wiring.out, point)) {
      const to = theItem(wiring.to, e);
      if (active[e] !== 1 || onPath[to] !== 1 || seen.has(to)) continue;
      seen.add(to);
      cameOver.set(to, e);
    }
  const edges: number[] = [];
  for (let at = end; at !== start;) {
    const e = cameOver.get(at);
    if (e === undefined) return [];
    edges.unshift(e);
    at = theItem(wiring.from, e);
  }
  const boxAt = (point: number): Id<'device'> => theItem(wiring.points, point).device;
  const found: Suspect[] = [
    {
      is: 'box',
      device: boxAt(start),
      out: jackRef(rig, theItem(wiring.points, start).id),
      weight: weightOf(rig, boxAt(start)),
    },
  ];
  for (const e of edges) {
    const { carries } = theItem(wiring.edges, e);
    if (carries.by !== 'cable') continue;
    const [from, to] = [theItem(wiring.from, e), theItem(wiring.to, e)].map((p) =>
      jackRef(rig, theItem(wiring.points, p).id),
    );
    const last = found.at(-1);
    if (last?.is === 'box') found[found.length - 1] = { ...last, out: from };
    const cable = partOf(rig, carries.cable);
    const isAir =
      from !== undefined &&
      partOf(rig, splitRef(from).device)?.jacks.find((j) => j.id === splitRef(from).name)?.kind === 'air';
    if (from && to && !isAir)
      found.push({
        is: 'lead',
        cable: carries.cable,
        from,
        to,
        weight: (cable?.m ?? 0) > LONG_METRES ? WEIGHT.longLead : WEIGHT.lead,
      });
    const device = boxAt(theItem(wiring.to, e));
    found.push({ is: 'box', device, out: undefined, weight: weightOf(rig, device) });
  }
  return found;
};

const jackRef = (rig: Rig, point: string): Ref | undefined => {
  const at = jackOf(point) as Ref;
  const { device, name } = splitRef(at);
  return partOf(rig, device)?.jacks.some((j) => j.id === name) ? at : undefined;
};

const weightOf = (rig: Rig, id: Id<'device'>): number => {
  const box = partOf(rig, id);
  const stages = box?.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' ? [s.stage] : []))) ?? [];
  if (stages.includes('wireless')) return WEIGHT.radio;
  return box?.zone === 'amp' || box?.zone === 'outputs' ? WEIGHT.amp : WEIGHT.box;
};

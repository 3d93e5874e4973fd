import type { Edit } from '../change/edit.js';
import type { Device, Jack } from '../rig/device.js';
import type { Cable } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, partOf, type Rig } from '../rig/rig.js';

/** Plugs a cable; whatever sat in either jack is pulled first. */
export const connect = (rig: Rig, hookup: Id<'hookup'>, id: Id<'cable'>, from: Ref, to: Ref): Edit => ({
  put: [{ kind: 'cable', id, hookup, ends: [from, to] }],
  remove: cablesOf(rig, hookup).filter((c) => c.id !== id && (c.ends.includes(from) || c.ends.includes(to))).map((c) => c.id),
});

export const unplug = (...ids: readonly Id<'cable'>[]): Edit => ({ put: [], remove: ids });

export const changeCable = (cable: Cable, change: Partial<Pick<Cable, 'label' | 'm' | 'have' | 'plugs'>>): Edit => ({ put: [{ ...cable, ...change }], remove: [] });

export const givesOut = (jack: Jack): boolean => jack.poles.tip === 'out';
export const takesIn = (jack: Jack): boolean => jack.poles.tip === 'in';

export interface Offer {
  readonly jack: Ref;
  /** Lower is better; offers come best first. */
  readonly rank: number;
  readonly why: string;
  readonly taken: boolean;
}

const LEVELS_TOGETHER: Readonly<Record<string, readonly string[]>> = {
  instrument: ['instrument', 'line'], line: ['line', 'instrument'], mic: ['mic', 'line'], speaker: ['speaker'], phones: ['phones', 'line'],
};

/** The jacks that a cable from this one can go to, best first: right way round, same kind of signal, a level that suits. */
export const offers = (rig: Rig, hookup: Id<'hookup'>, from: Ref): readonly Offer[] => {
  const { device: fromId, name } = splitRef(from);
  const start = partOf(rig, fromId)?.jacks.find((j) => j.id === name);
  if (!start) return [];
  const taken = new Set(cablesOf(rig, hookup).filter((c) => !c.ends.includes(from)).flatMap((c) => c.ends));
  return all(rig, 'device').flatMap((device) => device.jacks.flatMap((jack): readonly Offer[] => {
    const fit = device.id === fromId ? undefined : fits(start, jack);
    const r = ref(device.id, jack.id);
    return fit ? [{ jack: r, taken: taken.has(r), why: taken.has(r) ? `${fit.why}; holds a plug, which would be pulled` : fit.why, rank: fit.rank + (taken.has(r) ? 10 : 0) + zoneDistance(rig, fromId, device) }] : [];
  })).sort((a, b) => a.rank - b.rank);
};

const ZONE_ORDER = ['hands', 'floor', 'amp', 'outputs'];
const zoneDistance = (rig: Rig, from: Id<'device'>, to: Device): number => {
  const distance = ZONE_ORDER.indexOf(to.zone) - ZONE_ORDER.indexOf(partOf(rig, from)!.zone);
  return distance < 0 ? 3 : distance * 0.5;
};

const fits = (from: Jack, to: Jack): { rank: number; why: string } | undefined => {
  if (from.kind !== to.kind || !(givesOut(from) ? takesIn(to) : givesOut(to))) return undefined;
  if (from.kind !== 'audio') return { rank: 0, why: `${from.kind} to ${to.kind}` };
  const [out, into] = givesOut(from) ? [from, to] : [to, from];
  const suitable = LEVELS_TOGETHER[out.level ?? 'instrument'] ?? [];
  if (out.level === into.level) return { rank: 0, why: `${into.level ?? 'same'} level` };
  if (suitable.includes(into.level ?? 'instrument')) return { rank: 2, why: `${out.level} into ${into.level}: close enough` };
  if (out.level === 'speaker' || into.level === 'speaker') return undefined;
  return { rank: 6, why: `${out.level} into ${into.level}: levels differ, look at the findings` };
};

import type { Edit } from '../change/edit.js';
import { jackAt, jackIn, wiredBoxes } from '../rig/box.js';
import { theOne } from '../known/the.js';
import type { Device, Jack } from '../rig/device.js';
import type { Cable } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, partOf, thePart, type Rig } from '../rig/rig.js';

/** Plugs a cable; whatever sat in either jack is pulled first. */
export const connect = (rig: Rig, hookup: Id<'hookup'>, id: Id<'cable'>, from: Ref, to: Ref): Edit => ({
  put: [{ kind: 'cable', id, hookup, ends: [from, to] }],
  remove: cablesOf(rig, hookup)
    .filter((c) => c.id !== id && (c.ends.includes(from) || c.ends.includes(to)))
    .map((c) => c.id),
});

export const unplug = (...ids: readonly Id<'cable'>[]): Edit => ({ put: [], remove: ids });

type CableFacts = Pick<
  Cable,
  | 'label'
  | 'colour'
  | 'm'
  | 'pFPerM'
  | 'pFFrom'
  | 'awg'
  | 'byHand'
  | 'have'
  | 'plugs'
  | 'angled'
  | 'turns'
  | 'forNow'
  | 'loom'
>;
/** What is undefined is taken away. */
export const changeCable = (
  cable: Cable,
  change: { readonly [K in keyof CableFacts]?: CableFacts[K] | undefined },
): Edit => {
  const changed = Object.fromEntries(Object.entries({ ...cable, ...change }).filter(([, v]) => v !== undefined));
  return { put: [changed as unknown as Cable], remove: [] };
};

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
  instrument: ['instrument', 'line'],
  line: ['line', 'instrument'],
  mic: ['mic', 'line'],
  speaker: ['speaker'],
  phones: ['phones', 'line'],
};

/**
 * The jacks that a cable from this one can go to, best first: right way round, same kind of signal, a level that
 * suits, the loop that it would close.
 */
export const offers = (rig: Rig, hookup: Id<'hookup'>, from: Ref): readonly Offer[] => {
  const { device: fromId, name } = splitRef(from);
  const start = jackIn(partOf(rig, fromId), name);
  if (!start) return [];
  const cables = cablesOf(rig, hookup);
  const taken = new Set(cables.filter((c) => !c.ends.includes(from)).flatMap((c) => c.ends));
  const wired = wiredBoxes(rig, hookup);
  const closes = givesOut(start) ? loopsAround(rig, cables, fromId) : new Set<Ref>();
  return all(rig, 'device')
    .flatMap((device) =>
      device.jacks.flatMap((jack): readonly Offer[] => {
        const fit = device.id === fromId ? undefined : fits(start, jack);
        if (!fit || !fit.possible) return [];
        const r = ref(device.id, jack.id);
        if (closes.has(r) && !taken.has(r))
          return [{ jack: r, taken: false, rank: -4, why: 'comes back to the loop in which it hangs' }];
        const news = wired.has(device.id) ? '' : 'not wired yet, ';
        const rank =
          fit.rank +
          (taken.has(r) ? 10 : 0) +
          (news && start.kind === 'audio' ? -0.8 : 0) +
          zoneDistance(rig, fromId, device);
        return [
          {
            jack: r,
            taken: taken.has(r),
            why: taken.has(r) ? `${fit.why}; holds a plug, which would be pulled` : `${news}${fit.why}`,
            rank,
          },
        ];
      }),
    )
    .sort((a, b) => a.rank - b.rank);
};

/** Returns of the loops whose send feeds this box, over however many boxes. */
const loopsAround = (rig: Rig, cables: readonly Cable[], device: Id<'device'>): ReadonlySet<Ref> => {
  const returns = new Map(
    all(rig, 'device').flatMap((d) =>
      d.chains.flatMap((c) =>
        c.slots.flatMap((s) =>
          s.is === 'insert'
            ? s.send.map((t, i) => [ref(d.id, t.at), ref(d.id, (s.return[i] ?? s.return[0])?.at ?? '')] as const)
            : [],
        ),
      ),
    ),
  );
  const found = new Set<Ref>();
  const seen = new Set([device]);
  for (const id of seen) {
    for (const { ends } of cables) {
      const into = ends.find((end) => splitRef(end).device === id && isInput(rig, end));
      const out = into && theOne(ends, (end) => end !== into);
      if (!out || jackAt(rig, out)?.kind !== 'audio') continue;
      const back = returns.get(out);
      if (back) found.add(back);
      else seen.add(splitRef(out).device);
    }
  }
  return found;
};

const isInput = (rig: Rig, r: Ref): boolean => jackAt(rig, r)?.poles.tip === 'in';

/** Jacks of the same kind of signal that are not offered, each with the reason. */
export const notOffered = (rig: Rig, from: Ref): readonly { readonly jack: Ref; readonly why: string }[] => {
  const start = jackAt(rig, from);
  if (!start) return [];
  return all(rig, 'device').flatMap((device) =>
    device.jacks.flatMap((jack) => {
      if (jack.kind !== start.kind || ref(device.id, jack.id) === from) return [];
      if (device.id === splitRef(from).device)
        return [{ jack: ref(device.id, jack.id), why: 'the same box: a signal fed back into itself' }];
      const fit = fits(start, jack);
      return fit && !fit.possible ? [{ jack: ref(device.id, jack.id), why: fit.why }] : [];
    }),
  );
};

const ZONE_ORDER = ['hands', 'floor', 'amp', 'outputs'];
const zoneDistance = (rig: Rig, from: Id<'device'>, to: Device): number => {
  const distance = ZONE_ORDER.indexOf(to.zone) - ZONE_ORDER.indexOf(thePart(rig, from).zone);
  return distance < 0 ? 3 : distance * 0.5;
};

interface Fit {
  readonly possible: boolean;
  readonly rank: number;
  readonly why: string;
}
const never = (why: string): Fit => ({ possible: false, rank: Infinity, why });

/** The TRS end of an insert lead in an expression jack, as passive volume pedals are used there (common practice). */
const isInsertLead = (expression: Jack, lead: Jack): boolean =>
  expression.kind === 'expression' && lead.kind === 'audio' && lead.poles.tip === 'in' && lead.poles.ring === 'out';

/** @returns undefined when the two are of different kinds altogether */
/** Whether a lead may join two jacks: right way round, one kind of signal, nothing that would be ruined. */
export const mayJoin = (rig: Rig, a: Ref, b: Ref): boolean => {
  const [from, to] = [jackAt(rig, a), jackAt(rig, b)];
  return from !== undefined && to !== undefined && (fits(from, to)?.possible ?? false);
};

const fits = (from: Jack, to: Jack): Fit | undefined => {
  if (from.kind !== to.kind)
    return isInsertLead(from, to) || isInsertLead(to, from)
      ? { possible: true, rank: 4, why: 'an insert lead into an expression jack: for a passive pedal' }
      : undefined;
  if (givesOut(from) ? !takesIn(to) : !givesOut(to)) return never(givesOut(from) ? 'both give out' : 'both take in');
  if (from.kind !== 'audio') return { possible: true, rank: 0, why: `${from.kind} to ${to.kind}` };
  const [out, into] = givesOut(from) ? [from, to] : [to, from];
  const suitable = LEVELS_TOGETHER[out.level ?? 'instrument'] ?? [];
  if (out.level === into.level) return { possible: true, rank: 0, why: `${into.level ?? 'same'} level` };
  if (suitable.includes(into.level ?? 'instrument'))
    return { possible: true, rank: 2, why: `${out.level} into ${into.level}: close enough` };
  if (out.level === 'speaker') return never('the power of a speaker output would ruin it');
  if (into.level === 'speaker') return never('a loudspeaker wants a power amp');
  return { possible: true, rank: 6, why: `${out.level} into ${into.level}: levels differ, look at the findings` };
};

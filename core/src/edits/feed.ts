import { together, type Edit } from '../change/edit.js';
import { surely, theItem } from '../known/the.js';
import type { Device } from '../rig/device.js';
import type { Cable } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, thePart, type Rig } from '../rig/rig.js';
import { addDevice } from './devices.js';

/** Boxes that are to be fed from these outputs: one from one, several from one, or one from several. */
export interface FeedWish {
  readonly needs: readonly Ref[];
  readonly outputs: readonly Ref[];
  /** How several outputs are joined. */
  readonly adds?: 'current' | 'volts';
  /** The lead turns the polarity round. */
  readonly turns?: true;
}

const leadFor = ({ needs, outputs, adds }: FeedWish): string | undefined => {
  if (needs.length > 1) return 'daisy-lead';
  if (outputs.length === 1) return undefined;
  if (adds === 'volts') return 'doubling-lead';
  return outputs.length === 2 ? 'bridging-lead' : 'bridging-lead-3';
};

/** A box that only leads a supply on: a chain of plugs, or a lead that joins outputs. */
const isSupplyLead = ({ zone, chains, jacks }: Device): boolean =>
  zone === 'supply' && chains.length > 0 && jacks.every((j) => j.kind === 'power');

/** The cables in these jacks, and all of every lead on which they hang. */
const pulledFor = (rig: Rig, cables: readonly Cable[], jacks: ReadonlySet<Ref>): ReadonlySet<Cable> => {
  const pulled = new Set<Cable>();
  const leads = new Set<Id<'device'>>();
  const pull = (at: (end: Ref) => boolean): void => {
    for (const cable of cables) {
      if (pulled.has(cable) || !cable.ends.some(at)) continue;
      pulled.add(cable);
      for (const end of cable.ends) {
        const { device } = splitRef(end);
        if (leads.has(device) || !isSupplyLead(thePart(rig, device))) continue;
        leads.add(device);
        pull((other) => splitRef(other).device === device);
      }
    }
  };
  pull((end) => jacks.has(end));
  return pulled;
};

/** How a supply comes to a box over the ways of multicores. */
interface Coming {
  /** Its own lead first. */
  readonly leads: readonly Cable[];
  /** What the first of them comes from; absent where the first way is not fed. */
  readonly from?: Ref;
  /** Where that lead is plugged in: at the first way, or at the box itself. */
  readonly at: Ref;
}
const comesBy = (rig: Rig, cables: readonly Cable[], need: Ref): Coming => {
  const lead = cables.find((c) => c.ends.includes(need));
  const from = lead?.ends.find((end) => end !== need);
  if (!lead || !from) return { leads: [], at: need };
  const way = supplyWaysOf(thePart(rig, splitRef(from).device)).find((w) => w.out === from);
  if (!way) return { leads: [lead], from, at: need };
  const before = comesBy(rig, cables, way.into);
  return { ...before, leads: [lead, ...before.leads] };
};

/** A way of a multicore that leads a supply on: where it is fed, and where a box hangs on it. */
export interface SupplyWay {
  readonly device: Id<'device'>;
  readonly into: Ref;
  readonly out: Ref;
}

const supplyWaysOf = (box: Device): readonly SupplyWay[] =>
  isSupplyLead(box)
    ? []
    : box.chains.flatMap(({ from, to }) => {
        const [into, out] = [from[0]?.at, to[0]?.at];
        const isSupply = box.jacks.some((j) => j.id === into && j.kind === 'power');
        return isSupply && into && out ? [{ device: box.id, into: ref(box.id, into), out: ref(box.id, out) }] : [];
      });

/** Every way in the kit that leads a supply on. */
export const supplyWays = (rig: Rig): readonly SupplyWay[] => all(rig, 'device').flatMap(supplyWaysOf);

/** The way over which a box is fed in a hook-up; undefined where its lead goes straight. */
export const fedOver = (rig: Rig, hookup: Id<'hookup'>, need: Ref): SupplyWay | undefined => {
  const lead = cablesOf(rig, hookup).find((c) => c.ends.includes(need));
  return lead && supplyWays(rig).find((w) => lead.ends.includes(w.out));
};

/**
 * Leads the supply of a box over a way of a multicore, or straight again: what feeds it stays. Whatever sat in the way is
 * pulled.
 */
export const leadOver = (
  rig: Rig,
  hookup: Id<'hookup'>,
  need: Ref,
  way: SupplyWay | undefined,
  newId: () => Id<'cable'>,
): Edit => {
  const cables = cablesOf(rig, hookup);
  const { leads, from } = comesBy(rig, cables, need);
  const sat = way ? cables.filter((c) => c.ends.some((end) => end === way.into || end === way.out)) : [];
  const lead = (from: Ref, to: Ref): Cable => ({ kind: 'cable', id: newId(), hookup, ends: [from, to] });
  const last = (from: Ref): Cable => ({
    ...lead(from, need),
    ...(leads.some((c) => c.turns) ? { turns: true } : {}),
  });
  return {
    put: way ? [...(from ? [lead(from, way.into)] : []), last(way.out)] : from ? [last(from)] : [],
    remove: [...new Set([...leads, ...sat])].map((c) => c.id),
  };
};

const insOf = (lead: Device) => lead.jacks.filter((j) => j.poles.tip === 'in');
const outsOf = (lead: Device) => lead.jacks.filter((j) => j.poles.tip === 'out');

/**
 * Feeds boxes as it is wished. What sits in their jacks and in those outputs is pulled first, together with the leads
 * that hang on them; such leads are used again, and new ones come into the kit where there are not enough. A box that
 * hangs on a multicore is fed over it.
 */
export const feedBoxes = (
  rig: Rig,
  hookup: Id<'hookup'>,
  asked: readonly FeedWish[],
  newId: { readonly cable: () => Id<'cable'>; readonly device: () => Id<'device'> },
): Edit => {
  const cables = cablesOf(rig, hookup);
  const wishes = asked.map((wish) => ({ ...wish, needs: wish.needs.map((need) => comesBy(rig, cables, need).at) }));
  const pulled = pulledFor(rig, cables, new Set(wishes.flatMap((w) => [...w.needs, ...w.outputs])));
  const used = new Set(cables.filter((c) => !pulled.has(c)).flatMap((c) => c.ends.map((end) => splitRef(end).device)));
  const free = all(rig, 'device').filter((d) => isSupplyLead(d) && !used.has(d.id));
  const made: Edit[] = [];
  const takeLead = (key: string): Device => {
    const at = free.findIndex((d) => d.made === key);
    if (at >= 0) return surely(free.splice(at, 1)[0]);
    const codes = made.flatMap((e) => e.put.flatMap((p) => (p.kind === 'device' ? [p.code] : [])));
    const added = addDevice(rig, key, newId.device(), {}, codes);
    made.push(added);
    return added.put[0];
  };
  const plug = (from: Ref, to: Ref, turns: boolean): Cable => ({
    kind: 'cable',
    id: newId.cable(),
    hookup,
    ends: [from, to],
    ...(turns ? { turns: true } : {}),
  });
  /** As many boxes as there are plugs; the last plug feeds another such lead where they are not enough. */
  const spread = (lead: Device, needs: readonly Ref[], turns: boolean, key: string): readonly Cable[] => {
    const outs = outsOf(lead).map((j) => ref(lead.id, j.id));
    if (needs.length <= outs.length) return needs.map((to, i) => plug(theItem(outs, i), to, turns));
    const next = takeLead(key);
    const here = needs.slice(0, outs.length - 1);
    return [
      ...here.map((to, i) => plug(theItem(outs, i), to, turns)),
      plug(theItem(outs, outs.length - 1), ref(next.id, theItem(insOf(next), 0).id), false),
      ...spread(next, needs.slice(here.length), turns, key),
    ];
  };
  const plugged = wishes.flatMap((wish): readonly Cable[] => {
    const { needs, outputs, turns = false } = wish;
    const key = leadFor(wish);
    if (key === undefined) return needs.map((need) => plug(surely(outputs[0]), need, turns));
    const lead = takeLead(key);
    const into = outputs.map((from, i) => plug(from, ref(lead.id, theItem(insOf(lead), i).id), false));
    return [...into, ...spread(lead, needs, turns, key)];
  });
  return together({ put: [], remove: [...pulled].map((c) => c.id) }, ...made, { put: plugged, remove: [] });
};

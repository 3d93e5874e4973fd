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

const insOf = (lead: Device) => lead.jacks.filter((j) => j.poles.tip === 'in');
const outsOf = (lead: Device) => lead.jacks.filter((j) => j.poles.tip === 'out');

/**
 * Feeds boxes as it is wished. What sits in their jacks and in those outputs is pulled first, together with the leads
 * that hang on them; such leads are used again, and new ones come into the kit where there are not enough.
 */
export const feedBoxes = (
  rig: Rig,
  hookup: Id<'hookup'>,
  wishes: readonly FeedWish[],
  newId: { readonly cable: () => Id<'cable'>; readonly device: () => Id<'device'> },
): Edit => {
  const cables = cablesOf(rig, hookup);
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

import type { Edit } from '../change/edit.js';
import type { Device, Insert } from '../rig/device.js';
import type { Cable } from '../rig/hookup.js';
import { loopsOf } from '../rig/inserts.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, cablesOf, partOf, thePart, type Rig } from '../rig/rig.js';
import { inOf, outOf, theOutput, theInput, waysIn, waysOut } from './wire.js';
import { theItem } from '../known/the.js';
import { jackAt } from '../rig/box.js';

/** Where a box can go with its cables in one step. */
export type BoxPlace =
  | {
      readonly is: 'loop';
      readonly host: Id<'device'>;
      readonly insert: string;
      readonly send: Ref;
      readonly back: Ref;
      /** The last free loop of its host: where one tries things. */ readonly test: boolean;
    }
  | { readonly is: 'between'; readonly cable: Id<'cable'>; readonly from: Ref; readonly to: Ref }
  /** The two take each other's place. */
  | { readonly is: 'exchange'; readonly with: Id<'device'> }
  | { readonly is: 'out of the path' };

const isSignal = (rig: Rig, r: Ref): boolean => {
  const jack = jackAt(rig, r);
  return jack?.kind === 'audio' && (jack.level === undefined || jack.level === 'instrument' || jack.level === 'line');
};
const gives = (rig: Rig, r: Ref): boolean => jackAt(rig, r)?.poles.tip === 'out';
const turned = (rig: Rig, { ends: [a, b] }: Cable): readonly [Ref, Ref] => (gives(rig, a) ? [a, b] : [b, a]);

const jacksOf = (host: Id<'device'>, insert: Insert): { readonly send: Ref; readonly back: Ref } | undefined => {
  const [send, back] = [insert.send[0]?.at, insert.return[0]?.at];
  return send && back && !send.startsWith('#') && !back.startsWith('#') && !send.includes(':') && !back.includes(':')
    ? { send: ref(host, send), back: ref(host, back) }
    : undefined;
};

/**
 * The places to which a box can move: free loops, between any two boxes, where another stands, out of the path. A box
 * without a way through has none.
 */
export const placesFor = (rig: Rig, hookup: Id<'hookup'>, id: Id<'device'>): readonly BoxPlace[] => {
  const device = partOf(rig, id);
  if (!device || !inOf(device) || !outOf(device)) return [];
  const cables = cablesOf(rig, hookup);
  const taken = new Set(cables.flatMap((c) => c.ends));
  const free = all(rig, 'device')
    .filter((d) => d.id !== id)
    .flatMap((host): BoxPlace[] => {
      const loops = loopsOf(host).flatMap((insert) => {
        const jacks = jacksOf(host.id, insert);
        return jacks && !taken.has(jacks.send) && !taken.has(jacks.back) ? [{ insert: insert.id, ...jacks }] : [];
      });
      const isHost = loopsOf(host).length > 1;
      return loops.map((l, i) => ({
        is: 'loop' as const,
        host: host.id,
        ...l,
        test: isHost && i === loops.length - 1,
      }));
    });
  const between = cables.flatMap((cable): BoxPlace[] => {
    const [from, to] = turned(rig, cable);
    const own = [from, to].some((r) => splitRef(r).device === id);
    return !own && isSignal(rig, from) && isSignal(rig, to) && gives(rig, from)
      ? [{ is: 'between', cable: cable.id, from, to }]
      : [];
  });
  const passes = (d: Device): boolean =>
    inOf(d) !== undefined &&
    outOf(d) !== undefined &&
    taken.has(ref(d.id, theInput(d).id)) &&
    taken.has(ref(d.id, theOutput(d).id));
  const exchanges = passes(device)
    ? all(rig, 'device')
        .filter((d) => d.id !== id && d.zone === device.zone && passes(d))
        .map((d) => ({ is: 'exchange' as const, with: d.id }))
    : [];
  const wired = taken.has(ref(id, theInput(device).id)) || taken.has(ref(id, theOutput(device).id));
  return [...free, ...between, ...exchanges, ...(wired ? [{ is: 'out of the path' as const }] : [])];
};

/**
 * The box at another place, with its way in and its way out: what stood before and after it is joined again, unless
 * it hung alone in a loop,
 * which then stands free. Its other cables, such as MIDI, supply or a second side, stay.
 */
export const moveBox = (
  rig: Rig,
  hookup: Id<'hookup'>,
  id: Id<'device'>,
  place: BoxPlace,
  newCable: () => Id<'cable'>,
): Edit => {
  if (place.is === 'exchange') return exchange(rig, hookup, id, place.with);
  if (place.is === 'out of the path') return bridged(rig, hookup, id, newCable);
  const device = thePart(rig, id);
  const [into, out] = [ref(id, theInput(device).id), ref(id, theOutput(device).id)];
  const cables = cablesOf(rig, hookup);
  const feeding = cables.find((c) => c.ends.includes(into));
  const leaving = cables.find((c) => c.ends.includes(out));
  const before = feeding && turned(rig, feeding)[0];
  const after = leaving && turned(rig, leaving)[1];
  const lead = (from: Ref, to: Ref): Cable => ({ kind: 'cable', id: newCable(), hookup, ends: [from, to] });
  const remove = [feeding?.id, leaving?.id, place.is === 'between' ? place.cable : undefined].filter(
    (c) => c !== undefined,
  );
  const put: Cable[] = [];
  if (before && after && !inOneLoop(rig, before, after)) put.push(lead(before, after));
  if (place.is === 'loop') put.push(lead(place.send, into), lead(out, place.back));
  if (place.is === 'between') put.push(lead(place.from, into), lead(out, place.to));
  return { put, remove };
};

/**
 * Every cable into or out of one of the two goes to the like jack of the other; a side that only one of them has stays
 * where it is.
 */
const exchange = (rig: Rig, hookup: Id<'hookup'>, a: Id<'device'>, b: Id<'device'>): Edit => {
  const other = new Map<Ref, Ref>();
  for (const way of [waysIn, waysOut]) {
    const [mine, theirs] = [way(thePart(rig, a)), way(thePart(rig, b))];
    mine
      .slice(0, theirs.length)
      .forEach((jack, i) =>
        other.set(ref(a, jack.id), ref(b, theItem(theirs, i).id)).set(ref(b, theItem(theirs, i).id), ref(a, jack.id)),
      );
  }
  const moved = (end: Ref): Ref => other.get(end) ?? end;
  return {
    put: cablesOf(rig, hookup)
      .filter((c) => c.ends.some((e) => other.has(e)))
      .map((c): Cable => ({ ...c, ends: [moved(c.ends[0]), moved(c.ends[1])] })),
    remove: [],
  };
};

const inOneLoop = (rig: Rig, send: Ref, back: Ref): boolean => {
  const host = partOf(rig, splitRef(send).device);
  return (
    host !== undefined &&
    loopsOf(host).some((i) => {
      const jacks = jacksOf(host.id, i);
      return jacks?.send === send && jacks.back === back;
    })
  );
};

/** Jacks of the way through a box, in pairs: not those of its loops. */
const waysThrough = (device: Device): readonly (readonly [into: Ref, out: Ref])[] => {
  const inLoops = new Set(loopsOf(device).flatMap((i) => [...i.send, ...i.return].map((tap) => tap.at)));
  const own = (jacks: readonly { readonly id: string }[]) => jacks.filter((j) => !inLoops.has(j.id));
  const [ins, outs] = [own(waysIn(device)), own(waysOut(device))];
  return ins.flatMap((jack, i) => {
    const out = outs[i];
    return out ? [[ref(device.id, jack.id), ref(device.id, out.id)] as const] : [];
  });
};

/** The box pulled out of the way, and the leads that came and went joined, side by side. Its other leads stay. */
export const bridged = (rig: Rig, hookup: Id<'hookup'>, id: Id<'device'>, newCable: () => Id<'cable'>): Edit => {
  const cables = cablesOf(rig, hookup);
  const put: Cable[] = [];
  const remove: Id<'cable'>[] = [];
  for (const [into, out] of waysThrough(thePart(rig, id))) {
    const feeding = cables.find((c) => c.ends.includes(into));
    const leaving = cables.find((c) => c.ends.includes(out));
    remove.push(...[feeding, leaving].flatMap((c) => (c ? [c.id] : [])));
    if (!feeding || !leaving) continue;
    const [before, after] = [turned(rig, feeding)[0], turned(rig, leaving)[1]];
    if (!inOneLoop(rig, before, after)) put.push({ kind: 'cable', id: newCable(), hookup, ends: [before, after] });
  }
  return { put, remove };
};

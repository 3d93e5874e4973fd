import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { cablesOf, partOf, type Rig } from '../../rig/rig.js';
import type { Cable } from '../../rig/hookup.js';
import { inArrangement } from './state.js';
import type { Anatomy } from './anatomy.js';
import { ringsOf, type Trace } from './trace.js';
import type { WiredBlock } from './wiring.js';
import { surely, theEntry, theItem } from '../../known/the.js';
import { jackIn } from '../../rig/box.js';

/**
 * Devices in the order in which the signal meets them when every loop is on and in its usual place: loops before what
 * follows them.
 */
export const signalOrder = ({ wiring }: Anatomy): ReadonlyMap<Id<'device'>, number> => {
  const order = new Map<Id<'device'>, number>();
  const seen = new Set<number>();
  const inLine = new Set([...wiring.plain, ...wiring.ordered.flatMap((o) => inArrangement(o, o.usual))]);
  const stack = wiring.sources
    .filter((s) => wiring.wired.has(s.device))
    .map((s) => s.point)
    .reverse();
  for (let point = stack.pop(); point !== undefined; point = stack.pop()) {
    if (seen.has(point)) continue;
    seen.add(point);
    const { device } = theItem(wiring.points, point);
    if (!order.has(device)) order.set(device, order.size);
    stack.push(
      ...theItem(wiring.out, point)
        .filter((e) => inLine.has(e))
        .map((e) => theItem(wiring.edges, e).to)
        .reverse(),
    );
  }
  return order;
};

const KINDS = ['audio', 'air', 'midi', 'contact', 'expression', 'power', 'mains', 'usb'];

export interface ListedCable {
  readonly cable: Cable;
  /** The end that gives, then the end that takes. */
  readonly from: Cable['ends'][number];
  readonly to: Cable['ends'][number];
  readonly kind: string;
}

/** The cables of a hook-up as one walks along the signal: audio first, then MIDI, control and supply. */
export const cablesInOrder = (rig: Rig, anatomy: Anatomy): readonly ListedCable[] => {
  const order = signalOrder(anatomy);
  const jack = (end: string) => {
    const { device, name } = splitRef(end);
    return jackIn(partOf(rig, device), name);
  };
  const rank = (end: string): number => order.get(splitRef(end).device) ?? 999;
  /** A cable is met when both of its boxes have been; the way there before the way back. */
  const place = (from: string, to: string): number => {
    const [a, b] = [rank(from), rank(to)];
    return Math.max(a, b) * 1000 + a;
  };
  return cablesOf(rig, anatomy.hookup.id)
    .map((cable): ListedCable => {
      const [a, b] = cable.ends;
      const turned = jack(a)?.poles.tip === 'in' && jack(b)?.poles.tip === 'out';
      return { cable, from: turned ? b : a, to: turned ? a : b, kind: jack(a)?.kind ?? 'audio' };
    })
    .sort(
      (x, y) =>
        KINDS.indexOf(x.kind === 'air' ? 'audio' : x.kind) - KINDS.indexOf(y.kind === 'air' ? 'audio' : y.kind) ||
        place(x.from, x.to) - place(y.from, y.to),
    );
};

/** Points on the path, each behind all that lead to it; a way that leads back in a ring is left out. */
export const pointsInOrder = ({
  wiring: { points, to: leads, sources },
  leaving,
  onPath,
}: Trace): readonly number[] => {
  const seen = new Uint8Array(points.length);
  const done: number[] = [];
  const visit = (from: number): void => {
    const stack = [from];
    const next = [theItem(leaving.at, from)];
    seen[from] = 1;
    while (stack.length) {
      const top = stack.length - 1;
      const k = theItem(next, top);
      if (k === leaving.at[theItem(stack, top) + 1]) {
        done.push(surely(stack.pop()));
        next.pop();
        continue;
      }
      next[top] = k + 1;
      const to = theItem(leads, theItem(leaving.edges, k));
      if (!onPath[to] || seen[to]) continue;
      seen[to] = 1;
      stack.push(to);
      next.push(theItem(leaving.at, to));
    }
  };
  for (const s of sources) if (onPath[s.point] && !seen[s.point]) visit(s.point);
  return done.reverse();
};

/**
 * Says from which points the signal still comes to which of these edges.
 * @returns whether the signal at a point comes to the edge at that place of the list
 */
export const stillMeets = (t: Trace, wanted: readonly number[]): ((point: number, place: number) => boolean) => {
  const {
    wiring: { from, to: leads },
    leaving,
    onPath,
  } = t;
  const words = Math.ceil(wanted.length / 32);
  const ahead = new Uint32Array(onPath.length * words);
  wanted.forEach((e, place) => {
    ahead[theItem(from, e) * words + (place >> 5)]! |= 1 << (place & 31);
  });
  const points = pointsInOrder(t);
  const isOnce = ringsOf(t).length === 0;
  for (let isNew = true; isNew;) {
    isNew = false;
    for (let i = points.length - 1; i >= 0; i -= 1) {
      const point = theItem(points, i);
      for (let k = theItem(leaving.at, point); k < theItem(leaving.at, point + 1); k += 1) {
        const to = theItem(leads, theItem(leaving.edges, k));
        if (!onPath[to]) continue;
        for (let w = 0; w < words; w += 1) {
          const more = theItem(ahead, point * words + w) | theItem(ahead, to * words + w);
          if (more >>> 0 === ahead[point * words + w]) continue;
          ahead[point * words + w] = more;
          isNew = !isOnce;
        }
      }
    }
  }
  return (point, place) =>
    onPath[point] === 1 && (theItem(ahead, point * words + (place >> 5)) & (1 << (place & 31))) !== 0;
};

/** Stages that sound, in the order in which the signal meets them. */
export const stagesMet = (t: Trace): readonly Ref[] => {
  const place = new Map(pointsInOrder(t).map((point, i) => [point, i]));
  const met = sounding(t).sort(
    (a, b) => theEntry(place, theItem(t.wiring.from, a.edge)) - theEntry(place, theItem(t.wiring.from, b.edge)),
  );
  return [...new Set(met.map((b) => b.stage))];
};

/** The ways through the stages that sound: of a stage with two sides those that are on the path. */
export const sounding = ({ wiring: { blocks, from, to }, active, onPath, stages }: Trace): WiredBlock[] =>
  blocks.filter(
    (b) =>
      stages.get(b.stage) === 'in' &&
      active[b.edge] === 1 &&
      onPath[theItem(from, b.edge)] === 1 &&
      onPath[theItem(to, b.edge)] === 1,
  );

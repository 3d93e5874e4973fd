import { outputLoads, feeds } from '../../electric/supply.js';
import { grouped } from '../../known/grouped.js';
import type { Hookup } from '../../rig/hookup.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';
import { cablesInOrder, signalOrder } from '../../signal/graph/order.js';
import { NOTHING_BROKEN, type Broken } from './left.js';

/** One thing that can fail on stage. */
export type Failure =
  | { readonly is: 'box'; readonly device: Id<'device'> }
  | { readonly is: 'cable'; readonly cable: Id<'cable'>; readonly from: Ref; readonly to: Ref; readonly kind: string }
  /** An output of a supply, with the jacks that hang on it. */
  | { readonly is: 'output'; readonly output: Ref; readonly feeds: readonly Ref[] }
  /** A supply with all that hangs on it. */
  | { readonly is: 'supply'; readonly device: Id<'device'>; readonly feeds: readonly Ref[] };

/** Its name for keys: one failure of a hook-up has one. */
export const keyOf = (f: Failure): string => (f.is === 'cable' ? f.cable : f.is === 'output' ? f.output : f.device);

/**
 * Everything that can fail by itself in a hook-up, as one walks along the signal: boxes, then leads, then what feeds.
 */
export const failuresOf = (rig: Rig, hookup: Hookup, anatomy: Anatomy): readonly Failure[] => {
  const order = signalOrder(anatomy);
  const cables = cablesInOrder(rig, anatomy);
  const plugged = new Set(cables.flatMap((c) => [c.from, c.to].map((end) => splitRef(end).device)));
  const fed = feeds(rig, hookup);
  const loads = outputLoads(rig, fed).filter((l) => l.feeds.length > 0);
  const bySupply = grouped(loads, (l) => l.output.device);
  const boxes = all(rig, 'device')
    .filter((d) => plugged.has(d.id) && d.zone !== 'supply')
    .sort((a, b) => (order.get(a.id) ?? Infinity) - (order.get(b.id) ?? Infinity));
  return [
    ...boxes.map((d): Failure => ({ is: 'box', device: d.id })),
    // What comes through the air has no lead that breaks.
    ...cables
      .filter((c) => c.kind !== 'air')
      .map(({ cable, from, to, kind }): Failure => ({ is: 'cable', cable: cable.id, from, to, kind })),
    ...loads.map((l): Failure => ({ is: 'output', output: l.output.jack, feeds: l.feeds.map((f) => f.need.jack) })),
    ...[...bySupply].map(([device, of]): Failure => ({
      is: 'supply',
      device,
      feeds: [...new Set(of.flatMap((l) => l.feeds.map((f) => f.need.jack)))],
    })),
  ];
};

/** What is broken by a failure, as the signal sees it. A box that runs on a battery as well does not go dark. */
export const brokenBy = (rig: Rig, hookup: Hookup, failure: Failure): Broken => {
  const darkOf = (jacks: readonly Ref[]): ReadonlySet<Id<'device'>> =>
    new Set(jacks.map((j) => splitRef(j).device).filter((id) => !thePart(rig, id).figures.battery));
  switch (failure.is) {
    case 'box':
      return { ...NOTHING_BROKEN, dead: new Set([failure.device]) };
    case 'cable':
      return {
        ...NOTHING_BROKEN,
        ...(failure.kind === 'power' ? { dark: darkOf(fedOver(rig, hookup, failure.cable)) } : {}),
        cut: new Set([failure.cable]),
      };
    case 'output':
    case 'supply':
      return { ...NOTHING_BROKEN, dark: darkOf(failure.feeds) };
  }
};

/** Jacks that are fed now and would not be without a lead. */
const fedOver = (rig: Rig, hookup: Hookup, cable: Id<'cable'>): readonly Ref[] => {
  const fedIn = (of: Rig): readonly Ref[] => feeds(of, hookup).flatMap((f) => (f.given ? [f.need.jack] : []));
  const still = new Set(fedIn(withoutCables(rig, new Set([cable]))));
  return fedIn(rig).filter((jack) => !still.has(jack));
};

/** The rig with some of its cables gone. */
export const withoutCables = (rig: Rig, gone: ReadonlySet<Id<'cable'>>): Rig => ({
  ...rig,
  parts: { ...rig.parts, cable: new Map([...rig.parts.cable].filter(([id]) => !gone.has(id))) },
});

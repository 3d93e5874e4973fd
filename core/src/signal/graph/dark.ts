import { theItem } from '../../known/the.js';
import { keptIn, once } from '../../kept/kept.js';
import type { Chain, Device } from '../../rig/device.js';
import { ref, type Id } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { RigState } from './state.js';
import type { Wiring } from './wiring.js';

/** What a chain does in a box without supply: all that it is, the signal straight through, or nothing. */
export type WithoutSupply = 'as it is' | 'through' | 'nothing';

/**
 * A box without supply lets only passive chains pass, those that say so, and pedals that a mechanical true bypass has
 * out of the signal (common practice).
 */
export const withoutSupply = (device: Device, chain: Chain, state: RigState): WithoutSupply => {
  if (chain.passive) return 'as it is';
  const isOut =
    chain.slots.length > 0 &&
    chain.slots.every(
      (s) =>
        s.is === 'block' &&
        s.bypass === 'true' &&
        s.on?.some((f) => 'in' in f && !f.in.includes(state.get(ref(device.id, f.control)) ?? '')),
    );
  return chain.unpowered === 'through' || isOut ? 'through' : 'nothing';
};

/** By edge: the chain in which it lies or into which it leads; undefined for cables and inner buses. */
const chainsByEdge = once(({ edges, points }: Wiring): readonly (string | undefined)[] =>
  edges.map(({ from, to, carries }) => {
    if (carries.by === 'cable') return undefined;
    const inner = [to, from].map((p) => theItem(points, p)).find((p) => p.inside);
    return inner?.place.slice(inner.device.length + 1).split('/')[0];
  }),
);

/** By box: its own edges. */
const edgesByBox = once(({ edges }: Wiring): ReadonlyMap<Id<'device'>, readonly number[]> => {
  const found = new Map<Id<'device'>, number[]>();
  edges.forEach(({ carries }, e) => {
    if (carries.by !== 'cable') keptIn(found, carries.device, (): number[] => []).push(e);
  });
  return found;
});

/** What boxes without supply do to a hook-up in a state. */
export interface Darkened {
  /** Edges over which nothing comes any more. */
  readonly dead: readonly number[];
  /** Ways that are open instead, from point to point. */
  readonly instead: ReadonlyMap<number, number>;
}

/** Boxes of a hook-up that do not work: without supply, or dead altogether. */
export interface Unlit {
  readonly dark: ReadonlySet<Id<'device'>>;
  /** Not even what is nothing but wire passes any more. */
  readonly dead?: ReadonlySet<Id<'device'>>;
}

/**
 * Says for each state which edges carry nothing while boxes do not work, and where it goes straight through instead.
 * States in which all of their chains do the same share an answer.
 */
export const darkening = (
  rig: Rig,
  wiring: Wiring,
  { dark, dead = new Set() }: Unlit,
): ((state: RigState) => Darkened) => {
  const chains = [...new Set([...dark, ...dead])].flatMap((id) => {
    const device = partOf(rig, id);
    return (device?.chains ?? []).flatMap((chain) => (device ? [{ device, chain }] : []));
  });
  const known = new Map<string, Darkened>();
  return (state) => {
    const does = chains.map(({ device, chain }) => {
      const is = withoutSupply(device, chain, state);
      return is === 'as it is' && dead.has(device.id) ? 'nothing' : is;
    });
    return keptIn(known, does.join(), () =>
      darkened(
        wiring,
        new Set([...dark, ...dead]),
        new Map(chains.map(({ device, chain }, i) => [`${device.id}/${chain.id}`, theItem(does, i)])),
      ),
    );
  };
};

const darkened = (
  wiring: Wiring,
  boxes: ReadonlySet<Id<'device'>>,
  does: ReadonlyMap<string, WithoutSupply>,
): Darkened => {
  const dead: number[] = [];
  const instead = new Map<number, number>();
  for (const [chain, is] of does)
    for (const side of is === 'through' ? ['', '@left', '@right'] : []) {
      const [start, finish] = [wiring.at.get(`${chain}${side}`), wiring.at.get(`${chain}/end${side}`)];
      if (start !== undefined && finish !== undefined) instead.set(start, finish);
    }
  const chains = chainsByEdge(wiring);
  for (const id of boxes)
    for (const e of edgesByBox(wiring).get(id) ?? []) {
      const chain = chains[e];
      const is = chain === undefined ? 'nothing' : does.get(`${id}/${chain}`);
      const { from, to } = theItem(wiring.edges, e);
      const leaves = theItem(wiring.points, from);
      const isWithin = leaves.inside && theItem(wiring.points, to).inside && !leaves.place.endsWith('/end');
      if (is === 'nothing' || is === undefined || (is === 'through' && isWithin)) dead.push(e);
    }
  return { dead, instead };
};

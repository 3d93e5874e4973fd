import { once } from '../../kept/kept.js';
import { blocksIn } from '../../rig/domain.js';
import type { Chain, Slot, Tap } from '../../rig/device.js';
import { ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import { needsNoSupply } from '../supply.js';

/** A way through a box: of which box, and which of its chains. */
export interface Way {
  readonly device: Wiring['points'][number]['device'];
  readonly chain: Chain;
  /** Its box has a supply, so that a way without stages may still be a buffer. */
  readonly isFed: boolean;
}

/** By box: its ways, each with the place of its first point. */
const waysByBox = once(
  (devices: Rig['parts']['device']): ReadonlyMap<string, readonly (readonly [place: string, way: Way])[]> =>
    new Map(
      [...devices.values()].map((device) => {
        const isFed = !needsNoSupply(device);
        return [
          device.id,
          device.chains.map((chain) => [`${device.id}/${chain.id}`, { device: device.id, chain, isFed }] as const),
        ];
      }),
    ),
);

/** By edge: the chain in which it lies; undefined for cables. */
const waysOf = once((wiring: Wiring, rig: Rig): readonly (Way | undefined)[] => {
  const known = waysByBox(rig.parts.device);
  const at = wiring.points.map(({ inside, place, device }) =>
    inside ? known.get(device)?.find(([start]) => place === start || place.startsWith(`${start}/`))?.[1] : undefined,
  );
  return wiring.edges.map((e) => (e.carries.by === 'cable' ? undefined : (at[e.from] ?? at[e.to])));
});

/** The chain in which an edge of a wiring lies; undefined for a cable. */
export const wayOf = (rig: Rig, wiring: Wiring, edge: number): Way | undefined => waysOf(wiring, rig)[edge];

const hasGain = (taps: readonly Tap[]): boolean => taps.some((t) => t.gain !== undefined);
const bends = (slot: Slot): boolean =>
  slot.is === 'fork' || (slot.is === 'insert' && hasGain([...slot.send, ...slot.return]));

/**
 * Whether a way is nothing but contacts and wire in a state: said to be, all of its stages out by a true bypass, or
 * loops switched by relays with no gain anywhere.
 */
export const isWire = ({ stages }: Pick<Trace, 'stages'>, { device, chain, isFed }: Way): boolean => {
  if (chain.passive) return true;
  if (chain.slots.length === 0) return !isFed;
  if (hasGain([...chain.from, ...chain.to]) || chain.slots.some(bends)) return false;
  return blocksIn(chain.slots).every(
    (b) => (b.bypass === 'true' || b.bypass === 'relay') && stages.get(ref(device, b.id)) !== 'in',
  );
};

/** Every box with stages of its own on a way that is nothing but wire now: bypassed, and still felt by a coil. */
export const isBypassed = (way: Way): boolean => !way.chain.passive && blocksIn(way.chain.slots).length > 0;

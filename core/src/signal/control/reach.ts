import type { Id, Ref } from '../../rig/ids.js';
import type { Jack } from '../../rig/device.js';
import type { Hookup } from '../../rig/hookup.js';
import type { Rig } from '../../rig/rig.js';
import { pointId, wire, type Wiring } from '../graph/wiring.js';
import { theItem } from '../../known/the.js';

/** Where a message or a contact from a jack arrives: the jack, and how many boxes passed it on. */
export interface Arrival {
  readonly device: Id<'device'>;
  readonly jack: string;
  readonly hops: number;
}

/**
 * Control wiring of a hook-up: who hears whom over MIDI, and which contact switches which box. One walk serves both,
 * as it serves audio.
 */
export interface ControlWiring {
  /**
   * From a MIDI output jack (`device.jack`) to every jack that hears it, nearest first: once for each way by which it
   * comes there.
   */
  readonly midi: ReadonlyMap<Ref, readonly Arrival[]>;
  /** From a contact output jack to the contact inputs that it closes. */
  readonly contacts: ReadonlyMap<Ref, readonly Arrival[]>;
}

export const controlWiring = (rig: Rig, hookup: Hookup): ControlWiring => ({
  midi: arrivals(rig, wire(rig, hookup, 'midi'), 'midi'),
  contacts: arrivals(rig, wire(rig, hookup, 'contact'), 'contact'),
});

const arrivals = (rig: Rig, wiring: Wiring, kind: 'midi' | 'contact'): ReadonlyMap<Ref, readonly Arrival[]> => {
  const found = new Map<Ref, readonly Arrival[]>();
  for (const device of rig.parts.device.values()) {
    for (const jack of device.jacks) {
      if (jack.kind !== kind || !hasPole(jack, 'out')) continue;
      for (const pole of outPoles(jack)) found.set(`${device.id}.${pole}`, heard(wiring, `${device.id}.${pole}`));
    }
  }
  return found;
};

const hasPole = (jack: Jack, way: 'in' | 'out'): boolean => jack.poles.tip === way || jack.poles.ring === way;
const outPoles = (jack: Jack): readonly string[] => [
  ...(jack.poles.tip === 'out' ? [jack.id] : []),
  ...(jack.poles.ring === 'out' ? [`${jack.id}:ring`] : []),
];

const heard = (wiring: Wiring, from: string): readonly Arrival[] => {
  const start = wiring.at.get(from);
  if (start === undefined) return [];
  const found: Arrival[] = [];
  const ways: WirePath[] = [{ at: start, hops: 0, before: undefined }];
  for (const way of ways) {
    if (found.length >= MOST_ARRIVALS) break;
    for (const e of theItem(wiring.out, way.at)) {
      const { to, carries } = theItem(wiring.edges, e);
      if (passes(way, to)) continue;
      const hops = carries.by === 'cable' ? way.hops + 1 : way.hops;
      ways.push({ at: to, hops, before: way });
      if (carries.by !== 'cable') continue;
      const { device, id } = theItem(wiring.points, to);
      found.push({ device, jack: id.slice(pointId(device, '').length), hops });
    }
  }
  return found;
};

/** A way as it comes to a point, from where it began. */
interface WirePath {
  readonly at: number;
  readonly hops: number;
  readonly before: WirePath | undefined;
}

const passes = (way: WirePath, point: number): boolean => {
  for (let one: WirePath | undefined = way; one; one = one.before) if (one.at === point) return true;
  return false;
};

/** Ways beyond this are not followed: a message that arrives so often is found fault with long before. */
const MOST_ARRIVALS = 256;

import { controlIn, memoriesThatStore, relaysOf, setByContact, type Device, type Memory } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import type { Bearings } from '../actuate/bearings.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import { programOn, type Shelf } from './shelf.js';

/** The memory whose loaded program brings a control up at power-up. */
export const loaderOf = (device: Device, control: string): Memory | undefined =>
  controlIn(device, control)?.powerUp === 'loaded' ? memoriesThatStore(device, control)[0] : undefined;

/** What is written down of a program by its name in the domain. @param of the program that is loaded around it */
export const contentsOf = (
  shelf: Shelf,
  device: Device,
  memory: Memory,
  program: string,
  of?: string,
): Readonly<Record<string, Value>> | undefined => {
  const numbered = (name: string) => (name === UNKNOWN || isOther(name) ? undefined : Number(name));
  const number = numbered(program);
  const known =
    number === undefined
      ? undefined
      : programOn(shelf, device, memory, number, of === undefined ? undefined : numbered(of));
  return known && known.contents !== 'unplanned' ? known.contents : undefined;
};

/** What a program brings into a control, as the domain names it. @param of the program that is loaded around it */
export const bringer = (
  domains: Domains,
  shelf: Shelf,
  device: Device,
  memory: Memory,
  program: string,
  of?: string,
): ((control: string, named: Ref) => string) => {
  const contents = contentsOf(shelf, device, memory, program, of);
  return (control, named) => {
    const value = contents?.[control];
    return value === undefined ? UNKNOWN : domains.named(named, value);
  };
};

/** A latching input of another box that follows one of this rig's relays. */
export interface Follower {
  readonly leader: Ref;
  readonly control: Ref;
  readonly closedIn: readonly string[];
  readonly closed: Value | undefined;
  readonly open: Value | undefined;
}

export const followersOf = once((b: Bearings): readonly Follower[] =>
  all(b.rig, 'device').flatMap((device) =>
    relaysOf(device).flatMap(({ at, closedWhen }) => {
      const fact = closedWhen?.[0];
      if (!fact || !('in' in fact)) return [];
      return (b.control.contacts.get(ref(device.id, at)) ?? []).flatMap((arrival): Follower[] => {
        const receiver = thePart(b.rig, arrival.device);
        return [...setByContact(receiver, arrival.jack)].map(([control, to]) => ({
          leader: ref(device.id, fact.control),
          control: ref(receiver.id, control),
          closedIn: fact.in.map(String),
          closed: to.closed,
          open: to.open,
        }));
      });
    }),
  ),
);

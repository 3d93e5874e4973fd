import { relaysOf, type Device } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { thePart } from '../../rig/rig.js';
import { type Guard } from './guards.js';
import type { SystemAct } from '../../prover/system.js';
import type { Effects } from './effects.js';
import { type How, DEEPEST, deeper } from './how.js';
import { surely } from '../../known/the.js';

/** A control that goes from one value to another. */
export type ValueChange = readonly [from: string, to: string];

/** What follows over contact cables when a relay moves or a pulse is sent (docs/behaviour.md, 3). */
export class Contacts {
  constructor(private readonly effects: Effects) {}

  pulse(device: Device, jack: string, when: readonly Guard[], how: How): readonly SystemAct[] {
    return [
      ...this.arrive(device, jack, 'closing', 'closed', when, how),
      ...this.arrive(device, jack, 'opening', 'open', when, how),
    ];
  }

  private arrive(
    device: Device,
    jack: string,
    edge: 'closing' | 'opening',
    level: 'closed' | 'open',
    when: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    if (how.depth > DEEPEST) return [];
    return (this.effects.b.control.contacts.get(ref(device.id, jack)) ?? []).flatMap((arrival) => {
      const receiver = thePart(this.effects.b.rig, arrival.device);
      return receiver.actuators.flatMap((a) => {
        if (!('contact' in a.by) || a.by.contact !== arrival.jack) return [];
        if ('edge' in a.by ? a.by.edge !== edge : a.by.level !== level) return [];
        return this.effects.setOff(receiver, a, when, undefined, deeper(how));
      });
    });
  }

  /**
   * What boxes at the other end of a contact do when the control that closes it goes from one value to another: before
   * it is set, guarded by the old value.
   */
  followed(
    device: Device,
    control: Ref,
    moves: () => readonly ValueChange[],
    when: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    return relaysOf(device).flatMap(({ at, closedWhen }) => {
      const fact = closedWhen?.find((f) => 'control' in f && ref(device.id, f.control) === control);
      if (!fact || !('in' in fact)) return [];
      const others = this.effects.guards(
        device.id,
        surely(closedWhen).filter((f) => f !== fact),
      );
      if (!others) return [];
      const closed = (v: string) => this.effects.domains.allowed(fact, v);
      /** From these values the contact surely closes or opens; from those nobody knows. */
      const going = (to: 'yes' | 'no'): readonly Guard[] => {
        const from = to === 'yes' ? 'no' : 'yes';
        const sure = moves()
          .filter(([a, b]) => closed(a) === from && closed(b) === to)
          .map(([a]) => a);
        const open = moves()
          .filter(
            ([a, b]) =>
              a !== b && closed(a) !== to && closed(b) !== from && (closed(a) === 'open' || closed(b) === 'open'),
          )
          .map(([a]) => a);
        return sure.length + open.length ? [{ variable: control, in: sure, ...(open.length ? { open } : {}) }] : [];
      };
      const [closing, opening] = [going('yes'), going('no')];
      return [
        ...(closing.length ? this.arrive(device, at, 'closing', 'closed', [...when, ...others, ...closing], how) : []),
        ...(opening.length ? this.arrive(device, at, 'opening', 'open', [...when, ...others, ...opening], how) : []),
      ];
    });
  }
}

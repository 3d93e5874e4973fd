import type { Control, Device } from '../../rig/device.js';
import { controlText } from '../../recall/words/words.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';

/** Something that a foot holds until it lets go: a frozen note, a loop that plays. No sound takes it back. */
export interface Latched {
  readonly control: Ref;
  /** @example 'HLD hold' */
  readonly text: string;
  /** Sounds in which it is still heard once it is held. */
  readonly rings: readonly Id<'sound'>[];
  /** Sounds that cut it off: its way out is closed there. */
  readonly cut: readonly Id<'sound'>[];
}

const latching = (device: Device): readonly Control[] => device.controls.filter((c) => c.latches);

/** Whether what a box gives comes to an end that counts. */
const comesOut = (t: Trace, device: Id<'device'>): boolean =>
  t.wiring.points.some((p, i) => p.device === device && t.leads[i] === 1);

/** What may still ring when a sound is called: everything latched that has a plug here, and what each sound does to it. */
export const latchedIn = (d: Derived): readonly Latched[] =>
  all(d.rig, 'device')
    .filter((device) => d.anatomy.wiring.wired.has(device.id))
    .flatMap((device) =>
      latching(device).map((control): Latched => {
        const sounds = soundsInOrder(d.rig).map((s) => s.id);
        const rings = sounds.filter((id) => {
          const t = d.compilation.sounds.get(id)?.trace;
          return t !== undefined && comesOut(t, device.id);
        });
        return {
          control: ref(device.id, control.id),
          text: controlText(d.rig, ref(device.id, control.id)),
          rings,
          cut: sounds.filter((id) => !rings.includes(id)),
        };
      }),
    );

/** What is held at this moment, and whether it is heard. */
export const heldNow = (d: Derived, state: ReadonlyMap<Ref, Value>, traced: Trace): readonly string[] =>
  all(d.rig, 'device').flatMap((device) =>
    latching(device).flatMap((control): readonly string[] => {
      const now = state.get(ref(device.id, control.id));
      const rest = 'values' in control.domain ? control.domain.values[0] : undefined;
      if (now === undefined || rest === undefined || String(now) === String(rest)) return [];
      const isHeard = comesOut(traced, device.id);
      return [
        `${controlText(d.rig, ref(device.id, control.id))} ${now}${isHeard ? '' : ', and not heard: its way out is closed'}`,
      ];
    }),
  );

import { controlIn, type Control, type Device } from '../../rig/device.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import type { Value } from '../../rig/value.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import { askedIn } from './asked.js';
import { pluggedBoxes, type Bearings } from '../actuate/bearings.js';
import type { Compilation } from '../actuate/compile.js';
import type { Domains } from './domains.js';

/** What the proof takes for granted, in the order in which a line check would go through it. */
export interface Granted {
  readonly control: Ref;
  readonly value: Value;
  readonly why: string;
  /** How it comes up when its box wakes, where that may differ: then a hand has to set it again. */
  readonly wakes?: Value | 'not known' | 'as programmed';
}

/**
 * What is said to be left alone, what all sounds want alike, and what the signal and the boxes ask of settings and of
 * what is in the player's hands.
 */
export const grantedIn = (c: Compilation, domains: Domains): readonly Granted[] => {
  const { bearings: b, leftAlone } = c;
  const said: readonly Granted[] = [
    ...b.hookup.assumes.map(({ control, value, why }) => ({ control, value, why })),
    ...[...leftAlone].map(([control, value]) => ({
      control,
      value,
      why: 'set once by hand and left alone: nothing else reaches it, and all sounds want it so',
    })),
    ...atRest(b, domains),
  ];
  return said.map((g) => ({ ...g, ...wakesOtherwise(b, g) }));
};

const wakesOtherwise = ({ rig }: Bearings, { control, value }: Granted): Pick<Granted, 'wakes'> => {
  const { device, name } = splitRef(control);
  const wakes = controlIn(thePart(rig, device), name)?.powerUp;
  if (typeof wakes === 'object') return String(wakes.at) === String(value) ? {} : { wakes: wakes.at };
  return wakes === 'unknown' ? { wakes: 'not known' } : wakes === 'loaded' ? { wakes: 'as programmed' } : {};
};

/**
 * Settings, and what is in the player's hands, that nothing reckoned with moves and that the way of the signal or a
 * condition of a box rests on.
 */
const atRest = (b: Bearings, domains: Domains): readonly Granted[] => {
  const plugged = pluggedBoxes(b.anatomy);
  const said = new Set(b.hookup.assumes.map((a) => a.control));
  const asks = askedBySignal(b.anatomy.wiring);
  return all(b.rig, 'device')
    .filter((d) => plugged.has(d.id))
    .flatMap((device) =>
      device.controls.flatMap((control): readonly Granted[] => {
        const r = ref(device.id, control.id);
        if (control.use === 'sound' || domains.of.has(r) || said.has(r) || isShown(device, control)) return [];
        const value = domains.constant(r);
        if (value === undefined || !(asks.has(r) || askedIn(b, device).has(control.id))) return [];
        return [
          {
            control: r,
            value,
            why:
              r in b.hookup.settings
                ? 'set for this hook-up'
                : control.use === 'play'
                  ? 'in the player’s hands, as it rests'
                  : 'a setting, as it rests',
          },
        ];
      }),
    );
};

/** A bank that shows changes nothing that sounds: each slot is called by itself. */
const isShown = (device: Device, { id }: Control): boolean =>
  device.memories.some((m) => m.bank?.control === id || m.control === id);

const askedBySignal = once(
  ({ edges }: Wiring): ReadonlySet<Ref> =>
    new Set(edges.flatMap((e) => e.needs.flatMap((n) => n.facts.map((f) => f.control)))),
);

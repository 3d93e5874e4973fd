import type { Hookup } from '../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { all, type Rig } from '../rig/rig.js';
import type { Control } from '../rig/device.js';
import { holds, type Value, type When } from '../rig/value.js';
import { neighbours } from './arrangement.js';
import type { Need, SeenFact } from './wiring.js';

/** The value of every control of a rig at one moment; controls that are not in it have none. */
export type RigState = ReadonlyMap<Ref, Value>;

export const whenHolds = (device: Id<'device'>, when: When, state: RigState): boolean =>
  holds(when, { value: (control) => state.get(ref(device, control)), plugged: () => false });

/** Judges needs in one state; an arrangement is read once, however many edges ask for it. */
export const needsIn = (state: RigState): ((need: Need) => boolean) => {
  const orders = new Map<Ref, ReadonlySet<string>>();
  const holdsNow = (facts: readonly SeenFact[]): boolean => facts.every(({ control, allows }) => {
    const value = state.get(control);
    return value !== undefined && allows(value);
  });
  return (need) => {
    if ('when' in need) return holdsNow(need.facts);
    if ('unless' in need) return !holdsNow(need.facts);
    let order = orders.get(need.order);
    if (!order) orders.set(need.order, order = neighbours(String(state.get(need.order) ?? need.usual)));
    return order.has(need.pair);
  };
};

/** The plainest value of a control: what it wakes with, else the first of its domain. */
export const restingValue = (control: Control): Value => {
  if (typeof control.powerUp === 'object') return control.powerUp.at;
  const { domain } = control;
  if ('values' in domain) return domain.values[0] ?? '';
  return 'min' in domain ? Math.min(domain.max, Math.max(domain.min, 0)) : domain.arrange.join(' ');
};

/** Every control at rest, with the hook-up's settings and what it takes for granted on top. */
export const restingState = (rig: Rig, hookup: Hookup): Map<Ref, Value> => {
  const state = new Map<Ref, Value>();
  for (const device of all(rig, 'device')) for (const control of device.controls) state.set(ref(device.id, control.id), restingValue(control));
  for (const [r, value] of Object.entries(hookup.settings)) state.set(r as Ref, value);
  for (const { control, value } of hookup.assumes) state.set(control, value);
  return state;
};

export const controlOf = (rig: Rig, r: Ref): Control | undefined => {
  const { device, name } = splitRef(r);
  return rig.parts.device.get(device)?.controls.find((c) => c.id === name);
};

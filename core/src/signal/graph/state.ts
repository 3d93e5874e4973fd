import type { Hookup } from '../../rig/hookup.js';
import { ref, theRef, type Id, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { all, type Rig } from '../../rig/rig.js';
import { type Control } from '../../rig/device.js';
import { holds, type Value, type When } from '../../rig/value.js';
import { neighbours } from './arrangement.js';
import type { Need, Ordered, SeenFact, Wiring } from './wiring.js';
import { theItem } from '../../known/the.js';

/** The value of every control of a rig at one moment; controls that are not in it have none. */
export type RigState = Pick<ReadonlyMap<Ref, Value>, 'get'>;

/** A state with another on top of it: what that says counts, the rest is as it was. */
export const onTopOf = (state: RigState, top: RigState): RigState => ({
  get: (control) => top.get(control) ?? state.get(control),
});

export const whenHolds = (device: Id<'device'>, when: When, state: RigState): boolean =>
  holds(when, { value: (control) => state.get(ref(device, control)), plugged: () => false });

export const factsHold = (facts: readonly SeenFact[], state: RigState): boolean => {
  for (const { control, allows } of facts) {
    const value = state.get(control);
    if (value === undefined || !allows(value)) return false;
  }
  return true;
};

/**
 * By edge: whether it carries the signal.
 * @param active is filled and returned, where there is one already
 */
export const activeIn = (
  wiring: Wiring,
  state: RigState,
  active: Uint8Array = new Uint8Array(wiring.open.length),
): Uint8Array => {
  active.set(wiring.open);
  edges: for (const e of wiring.needy) {
    for (const need of theItem(wiring.edges, e).needs) if (!isMet(need, state)) continue edges;
    active[e] = 1;
  }
  for (const ordered of wiring.ordered)
    for (const e of inArrangement(ordered, String(state.get(ordered.control) ?? ordered.usual))) active[e] = 1;
  return active;
};

const isMet = (need: Need, state: RigState): boolean =>
  'when' in need ? factsHold(need.facts, state) : !factsHold(need.facts, state);

const arranged = new WeakMap<Ordered, Map<string, readonly number[]>>();

/**
 * The edges of an ordered chain from one slot to the next in an arrangement; the same arrangement is asked for again
 * and again.
 */
export const inArrangement = (ordered: Ordered, text: string): readonly number[] =>
  keptIn(
    keptIn(arranged, ordered, () => new Map<string, readonly number[]>()),
    text,
    () => {
      const follow = neighbours(text);
      return ordered.pairs.flatMap(({ edge, pair }) => (follow.has(pair) ? [edge] : []));
    },
  );

/** The plainest value of a control: what it wakes with, else the first of its domain. */
export const restingValue = (control: Control): Value => {
  if (typeof control.powerUp === 'object') return control.powerUp.at;
  const { domain } = control;
  if ('values' in domain) return domain.values[0] ?? '';
  return 'min' in domain ? Math.min(domain.max, Math.max(domain.min, 0)) : domain.arrange.join(' ');
};

/**
 * An amount without a middle, such as the gain of a drive in a preset: where no sound says one, somebody dials it in as
 * it pleases, and nobody here knows it.
 */
export const isDialled = ({ domain, powerUp }: Control): boolean =>
  'min' in domain && domain.unit !== 'dB' && powerUp === 'loaded' && domain.min >= 0;

/** Every control at rest, with the hook-up's settings and what it takes for granted on top. */
export const restingState = (rig: Rig, hookup: Hookup): Map<Ref, Value> => {
  const state = new Map<Ref, Value>();
  for (const device of all(rig, 'device'))
    for (const control of device.controls) state.set(ref(device.id, control.id), restingValue(control));
  for (const [r, value] of Object.entries(hookup.settings)) state.set(theRef(r), value);
  for (const { control, value } of hookup.assumes) state.set(control, value);
  return state;
};

import type { Ref } from '../../rig/ids.js';
import { restingValue } from '../../signal/graph/state.js';
import type { Bearings } from '../actuate/bearings.js';
import { isOther, stretchOf, UNKNOWN } from '../model/domains.js';
import type { Modelled } from '../model/model.js';
import type { SystemState } from '../../prover/system.js';
import type { Value } from '../../rig/value.js';
import { controlAt } from '../../rig/box.js';

/** A real value of the control for its name in the system; for another value one that nobody names. */
export const realValue = (b: Bearings, m: Modelled, control: Ref, name: string): Value | undefined => {
  const found = controlAt(b.rig, control);
  if (!found) return undefined;
  const { domain } = found;
  if (!isOther(name))
    return 'min' in domain ||
      ('values' in domain && domain.values.some((v) => typeof v === 'number' && String(v) === name))
      ? Number(name)
      : name;
  const named = new Set(m.system.variables.find((v) => v.id === control)?.domain);
  if ('values' in domain) return domain.values.find((v) => !named.has(String(v)));
  if ('min' in domain) {
    const [least, most] = stretchOf(name) ?? [domain.min, domain.max];
    for (let v = most; v >= least; v = Number((v - (domain.step ?? 1)).toFixed(6))) if (!named.has(String(v))) return v;
    return domain.max;
  }
  const reversed = [...domain.arrange].reverse().join(' ');
  return named.has(reversed) ? domain.arrange[0] : reversed;
};

/**
 * How every control stands when the power comes on, for a power-up state of the system; what the system leaves out is
 * at rest.
 */
export const foundAt = (b: Bearings, m: Modelled, powerUp: SystemState): ((control: Ref) => Value | undefined) => {
  const granted = new Map(m.granted.map((g) => [g.control, g.value]));
  return (control) => {
    const given = granted.get(control);
    if (given !== undefined) return given;
    const name = powerUp[control];
    const real = name === undefined ? undefined : realValue(b, m, control, name);
    if (real !== undefined) return real;
    const found = controlAt(b.rig, control);
    return b.grounds.resting.get(control) ?? (found && restingValue(found));
  };
};

/** What a power-up state says of a control that comes up with a program which nobody wrote down. */
export const namedAt = (b: Bearings, m: Modelled, powerUp: SystemState, control: Ref): Value | undefined => {
  const name = powerUp[control];
  return name === undefined || name === UNKNOWN ? undefined : realValue(b, m, control, name);
};

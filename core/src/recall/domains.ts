import type { Act } from '../rig/act.js';
import type { Control } from '../rig/device.js';
import { ref, type Ref } from '../rig/ids.js';
import { NOT_KNOWN, type Program } from '../rig/program.js';
import { all } from '../rig/rig.js';
import type { Value, When } from '../rig/value.js';
import type { Compilation } from './compile.js';

/** Every value that nobody names: one value of the domain stands for them all. */
export const OTHER = 'any other';
/** What a program holds whose contents are not known. It is never the wanted one. */
export const UNKNOWN = NOT_KNOWN;

/** Finite domains for the controls that can change: every value named by a want, program, act or condition, and one for all others. */
export interface Domains {
  readonly of: ReadonlyMap<Ref, readonly string[]>;
  /** The value's name within the domain. */
  readonly named: (control: Ref, value: Value) => string;
  /** The value of a control that is no variable: taken for granted, set for the hook-up, or left alone. */
  readonly constant: (control: Ref) => Value | undefined;
}

const SMALL = 16;

export const domainsOf = (c: Compilation, programs: readonly Program[]): Domains => {
  const { rig, grounds } = c.bearings;
  const named = new Map<Ref, Set<string>>();
  const unknown = new Set<Ref>();
  const variables = new Map<Ref, Control>();
  for (const device of all(rig, 'device')) {
    for (const control of device.controls) {
      const r = ref(device.id, control.id);
      if (!grounds.given.has(r) && !c.leftAlone.has(r)) variables.set(r, control);
    }
  }
  const note = (control: Ref, value: Value) => {
    const values = named.get(control);
    if (values) values.add(String(value));
    else named.set(control, new Set([String(value)]));
  };
  const noteWhen = (device: `device:${string}`, when: When | undefined) => when?.forEach((f) => 'in' in f && f.in.forEach((v) => note(ref(device, f.control), v)));
  const noteActs = (device: `device:${string}`, acts: readonly Act[]) => acts.forEach((act) => {
    noteWhen(device, act.when);
    if (!('control' in act)) return;
    const control = ref(device, act.control);
    if ('set' in act) note(control, act.set);
    else if ('toggle' in act) act.toggle.forEach((v) => note(control, v));
    else if ('step' in act) act.step.forEach((v) => note(control, v));
    else if ('map' in act) act.map.forEach(([, , v]) => note(control, v));
  });
  for (const compiled of c.sounds.values()) for (const { control, value } of compiled.wants) note(control, value);
  for (const program of programs) {
    const memory = rig.parts.device.get(program.device)?.memories.find((m) => m.id === program.memory);
    if (!memory) continue;
    note(ref(program.device, memory.control), program.number);
    if (program.contents === 'unplanned') memory.stores.forEach((s) => unknown.add(ref(program.device, s)));
    else for (const [control, value] of Object.entries(program.contents)) note(ref(program.device, control), value);
    noteActs(program.device, program.acts);
    for (const assign of program.assigns) noteActs(program.device, [...assign.on, ...assign.off]);
  }
  const sent = numbersSent(programs);
  for (const device of all(rig, 'device')) {
    if (device.midi) for (const memory of device.memories) for (const number of sent) if (number < memory.size) note(ref(device.id, memory.control), number);
    for (const actuator of device.actuators) {
      noteWhen(device.id, actuator.when);
      noteActs(device.id, actuator.acts);
    }
    for (const jack of device.jacks) noteWhen(device.id, jack.closedWhen);
    for (const memory of device.memories) {
      const program = variables.get(ref(device.id, memory.control));
      const fixed = program && typeof program.powerUp === 'object';
      if (!fixed || !named.get(ref(device.id, memory.control))?.has(String((program.powerUp as { at: Value }).at))) memory.stores.forEach((s) => unknown.add(ref(device.id, s)));
    }
  }
  const of = new Map<Ref, readonly string[]>();
  for (const [r, control] of variables) of.set(r, domainOf(control, named.get(r) ?? new Set(), unknown.has(r)));
  return {
    of,
    constant: (control) => c.leftAlone.get(control) ?? grounds.resting.get(control),
    named: (control, value) => (of.get(control)?.includes(String(value)) ? String(value) : OTHER),
  };
};

/** Every program number on the wire: who else listens may load it too, and must be known by its own number. */
const numbersSent = (programs: readonly Program[]): ReadonlySet<number> =>
  new Set(programs.flatMap((p) => [...p.acts, ...p.assigns.flatMap((a) => [...a.on, ...a.off])])
    .flatMap((act) => ('send' in act && 'pc' in act.send ? [act.send.pc + 128 * (act.send.bank ?? 0)] : [])));

const domainOf = (control: Control, named: ReadonlySet<string>, unknown: boolean): readonly string[] => {
  const { domain, powerUp } = control;
  const values = new Set(named);
  if (typeof powerUp === 'object') values.add(String(powerUp.at));
  let complete = false;
  if ('values' in domain && domain.values.length <= SMALL) {
    domain.values.forEach((v) => values.add(String(v)));
    complete = true;
  } else if ('values' in domain) complete = domain.values.every((v) => values.has(String(v)));
  return [...[...values].sort(compareValues), ...(complete ? [] : [OTHER]), ...(unknown ? [UNKNOWN] : [])];
};

const compareValues = (a: string, b: string): number => {
  const [x, y] = [Number(a), Number(b)];
  return Number.isNaN(x) || Number.isNaN(y) ? (a < b ? -1 : a > b ? 1 : 0) : x - y;
};


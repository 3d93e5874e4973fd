import type { Act } from '../rig/act.js';
import { relaysOf, type Control, type Device } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { keptIn, once } from '../rig/kept.js';
import { NOT_KNOWN, type Program } from '../rig/program.js';
import { all, partOf, type Rig } from '../rig/rig.js';
import { clockActuators } from '../rig/midi-manners.js';
import type { Value, When } from '../rig/value.js';
import type { Compilation } from './compile.js';
import type { Compiled } from './compiled.js';

/** Every value that nobody names: one value of the domain stands for them all. */
export const OTHER = 'another value';
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

/** Keeps what each part names from one edit to the next, and the domains as long as all of it together stays the same. */
export class DomainMemory {
  private readonly numbers = new Map<Ref, Map<Value, number>>();
  private readonly pairs: (readonly [control: Ref, value: string])[] = [];
  private readonly sent = new Map<number, object>();
  private mentions = new WeakMap<object, readonly number[]>();
  private ground: readonly unknown[] = [];
  private marks: readonly true[] = [];
  private domains: Domains | undefined;

  /** A part that stands for a number that is sent. */
  standFor(number: number): object {
    return keptIn(this.sent, number, () => ({}));
  }

  /** What one part names, as numbers of pairs of a control and a value. */
  of(part: object, say: (note: (control: Ref, value: Value) => void) => void): readonly number[] {
    let known = this.mentions.get(part);
    if (!known) {
      const found = new Set<number>();
      say((control, value) => found.add(this.numberOf(control, value)));
      this.mentions.set(part, known = [...found]);
    }
    return known;
  }

  /** The same for a number and the text of it. */
  private numberOf(control: Ref, value: Value): number {
    const values = keptIn(this.numbers, control, () => new Map<Value, number>());
    let number = values.get(value);
    if (number === undefined) {
      const text = String(value);
      number = values.get(text) ?? this.pairs.push([control, text]) - 1;
      values.set(text, number).set(value, number);
    }
    return number;
  }

  /** What parts name rests on the boxes alone. */
  on(ground: readonly unknown[]): void {
    if (ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i])) return;
    this.mentions = new WeakMap();
    this.domains = undefined;
    this.ground = ground;
  }

  same(marks: readonly true[], make: (pairs: readonly (readonly [Ref, string])[]) => Domains): Domains {
    const isSame = this.domains && marks.length === this.marks.length && marks.every((_, i) => this.marks[i]) && this.marks.every((_, i) => marks[i]);
    if (!isSame) {
      this.domains = make(this.pairs.filter((_, i) => marks[i]));
      this.marks = marks;
    }
    return this.domains!;
  }
}

export const domainsOf = (c: Compilation, programs: readonly Program[], memory = new DomainMemory()): Domains => {
  const { rig, grounds } = c.bearings;
  memory.on([rig.parts.device, grounds, ...[...c.leftAlone].flat()]);
  const marks: true[] = [];
  const mark = (numbers: readonly number[]) => {
    for (const n of numbers) marks[n] = true;
  };
  for (const compiled of c.sounds.values()) mark(memory.of(compiled, (note) => namedBySound(compiled, note)));
  for (const program of programs) mark(memory.of(program, (note) => namedByProgram(rig, program, note)));
  for (const number of new Set(programs.flatMap(numbersSent))) mark(memory.of(memory.standFor(number), (note) => namedByNumber(rig, number, note)));
  for (const device of all(rig, 'device')) mark(memory.of(device, (note) => namedByDevice(device, note)));
  return memory.same(marks, (pairs) => {
    const named = new Map<Ref, Set<string>>();
    const unknown = new Set<Ref>();
    for (const [control, value] of pairs) {
      const values = named.get(control);
      if (value === UNKNOWN) unknown.add(control);
      else if (values) values.add(value);
      else named.set(control, new Set([value]));
    }
    const of = new Map<Ref, readonly string[]>();
    for (const device of all(rig, 'device')) {
      for (const memory of device.memories) {
        const loaded = ref(device.id, memory.control);
        const wakesIn = device.controls.find((control) => control.id === memory.control)!.powerUp;
        const isVariable = !grounds.given.has(loaded) && !c.leftAlone.has(loaded);
        if (!isVariable || typeof wakesIn !== 'object' || !named.get(loaded)?.has(String(wakesIn.at))) memory.stores.forEach((s) => unknown.add(ref(device.id, s)));
      }
      for (const control of device.controls) {
        const r = ref(device.id, control.id);
        if (!grounds.given.has(r) && !c.leftAlone.has(r)) of.set(r, domainOf(control, named.get(r) ?? new Set(), unknown.has(r)));
      }
    }
    const names = new Map([...of].map(([control, domain]) => [control, new Set(domain)]));
    return {
      of,
      constant: (control) => c.leftAlone.get(control) ?? grounds.resting.get(control),
      named: (control, value) => (names.get(control)?.has(String(value)) ? String(value) : OTHER),
    };
  });
};

type Note = (control: Ref, value: Value) => void;

const noteWhen = (device: Id<'device'>, when: When | undefined, note: Note): void => when?.forEach((f) => 'in' in f && f.in.forEach((v) => note(ref(device, f.control), v)));

const noteActs = (device: Id<'device'>, acts: readonly Act[], note: Note): void => acts.forEach((act) => {
  noteWhen(device, act.when, note);
  if (!('control' in act)) return;
  const control = ref(device, act.control);
  if ('set' in act) note(control, act.set);
  else if ('toggle' in act) act.toggle.forEach((v) => note(control, v));
  else if ('step' in act) act.step.forEach((v) => note(control, v));
  else if ('map' in act) act.map.forEach(([, , v]) => note(control, v));
});

/** What a sound wants with a program is named by that. */
const namedBySound = ({ wants }: Compiled, note: Note): void => {
  for (const { control, value, why } of wants) if (why.by !== 'program') note(control, value);
};

/** A program names its number and what it holds. */
const namedByProgram = (rig: Rig, program: Program, note: Note): void => {
  const memory = partOf(rig, program.device)?.memories.find((m) => m.id === program.memory);
  if (!memory) return;
  note(ref(program.device, memory.control), program.number);
  if (program.contents === 'unplanned') memory.stores.forEach((s) => note(ref(program.device, s), UNKNOWN));
  else for (const [control, value] of Object.entries(program.contents)) note(ref(program.device, control), value);
  const acts = actsIn(program);
  noteActs(program.device, acts, note);
  for (const act of acts) {
    if (!('send' in act) || !('bpm' in act.send)) continue;
    for (const device of all(rig, 'device')) for (const a of clockActuators(device)) for (const take of a.acts) if ('take' in take) note(ref(device.id, take.control), act.send.bpm);
  }
};

/** A number that is sent must be known by name to whoever listens. */
const namedByNumber = (rig: Rig, number: number, note: Note): void => {
  for (const device of all(rig, 'device')) if (device.midi) for (const memory of device.memories) if (number < memory.size) note(ref(device.id, memory.control), number);
};

const namedByDevice = (device: Device, note: Note): void => {
  for (const actuator of device.actuators) {
    noteWhen(device.id, actuator.when, note);
    noteActs(device.id, actuator.acts, note);
  }
  for (const relay of relaysOf(device)) noteWhen(device.id, relay.closedWhen, note);
};

const actsIn = (program: Program): readonly Act[] => [...program.acts, ...program.assigns.flatMap((a) => [...a.on, ...a.off])];

const numbersSent = once((program: Program): readonly number[] => actsIn(program).flatMap((act) => ('send' in act && 'pc' in act.send ? [act.send.pc + 128 * (act.send.bank ?? 0)] : [])));

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


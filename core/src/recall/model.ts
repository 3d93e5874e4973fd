import type { Act } from '../rig/act.js';
import type { Device } from '../rig/device.js';
import { USUAL_DISTURBANCES } from '../rig/hookup.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import type { Assign, Program } from '../rig/program.js';
import { all, partOf } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import type { Compiled } from './compiled.js';
import { domainsOf, type Domains } from './domains.js';
import { Effects, shelfKey, type Shelf } from './effects.js';
import { powerCycle, powerUp } from './power-up.js';
import type { Condition, RecallSystem, SystemAct, SystemEvent } from './system.js';

/** One thing that can happen to the rig, as a player would do it and the bench can repeat it. */
export type Footstep =
  | { readonly does: 'recall'; readonly sound: Id<'sound'> }
  | { readonly does: 'call'; readonly device: Id<'device'>; readonly memory: string; readonly slot: number }
  /** `stomp` is pressed and let go at once: enough where a switch only latches. */
  | { readonly does: 'press' | 'release' | 'stomp'; readonly device: Id<'device'>; readonly switch: string }
  | { readonly does: 'foot'; readonly device: Id<'device'>; readonly actuator: string }
  | { readonly does: 'power'; readonly device: Id<'device'>; readonly wakes: Readonly<Record<Ref, string>> };

/** What the proof takes for granted, in the order in which a line check would go through it. */
export interface Granted {
  readonly control: Ref;
  readonly value: Value;
  readonly why: string;
}

export interface Modelled {
  readonly system: RecallSystem;
  readonly steps: ReadonlyMap<string, Footstep>;
  readonly granted: readonly Granted[];
  /** Every program that stands in a box: the planned ones of the controllers and those of the rig. */
  readonly programs: readonly Program[];
}

/** Keeps events of sounds that did not change from one edit to the next, so that the prover meets the very same acts again. */
export class ModelMemory {
  private key: readonly unknown[] = [];
  private recalls = new Map<Compiled, SystemEvent>();

  recall(key: readonly unknown[]): { event: (compiled: Compiled, make: () => SystemEvent) => SystemEvent } {
    const old = key.length === this.key.length && key.every((k, i) => k === this.key[i]) ? this.recalls : new Map<Compiled, SystemEvent>();
    this.key = key;
    const kept = new Map<Compiled, SystemEvent>();
    this.recalls = kept;
    return {
      event: (compiled, make) => {
        const event = old.get(compiled) ?? make();
        kept.set(compiled, event);
        return event;
      },
    };
  }
}

export const model = (c: Compilation, memory = new ModelMemory()): Modelled => {
  const b = c.bearings;
  const shelf = shelfOf(c);
  const domains = domainsOf(c, [...shelf.values()]);
  const effects = new Effects(b, domains, shelf);
  const admits = b.hookup.admits ?? USUAL_DISTURBANCES;
  const events: SystemEvent[] = [];
  const steps = new Map<string, Footstep>();
  const add = (event: SystemEvent, step: Footstep) => {
    if (event.acts.length === 0 && step.does !== 'recall') return;
    events.push(event);
    steps.set(event.id, step);
  };
  const remembered = memory.recall([b.rig.parts.device, b.rig.parts.program, b.control, JSON.stringify([...domains.of]), b.hookup]);
  for (const compiled of c.sounds.values()) {
    add(remembered.event(compiled, () => ({ id: `recall:${compiled.sound}`, acts: compiled.stored.flatMap((s) => loadSlot(b, effects, s.program)) })), { does: 'recall', sound: compiled.sound });
  }
  for (const program of callsByHalf(c, shelf)) {
    add({ id: `call:${program.device}:${program.number}`, acts: loadSlot(b, effects, program) }, { does: 'call', device: program.device, memory: program.memory, slot: program.number });
  }
  if (admits.moves) for (const [event, step] of moveEvents(b, domains, effects, shelf)) add(event, step);
  if (admits.feet) for (const [event, step] of footEvents(b, effects)) add(event, step);
  if (admits.powerCycle) for (const [event, step] of powerEvents(b, domains, shelf, effects)) add(event, step);
  const { variables, together } = powerUp(b, domains, shelf);
  return { system: relevant({ variables, together, events, sounds: soundsOf(c, domains) }), steps, granted: grantedIn(c), programs: [...shelf.values()] };
};

const shelfOf = (c: Compilation): Shelf => {
  const shelf = new Map<string, Program>();
  for (const program of all(c.bearings.rig, 'program')) shelf.set(shelfKey(program.device, program.memory, program.number), program);
  for (const compiled of c.sounds.values()) for (const { program } of compiled.stored) shelf.set(shelfKey(program.device, program.memory, program.number), program);
  return shelf;
};

const memoryOf = (b: Bearings, program: Program) => {
  const device = partOf(b.rig, program.device)!;
  return { device, memory: device.memories.find((m) => m.id === program.memory)! };
};

const loadSlot = (b: Bearings, effects: Effects, program: Program): readonly SystemAct[] => {
  const { device, memory } = memoryOf(b, program);
  return effects.load(device, memory, program.number, []);
};

/** Stomps that call only part of a sound, and typed slots that no sound calls: states that feet reach as well. */
const callsByHalf = (c: Compilation, shelf: Shelf): readonly Program[] => {
  const whole = new Set<Program>();
  const controllers = new Set<string>();
  const parts = new Set<Program>();
  for (const { stored } of c.sounds.values()) {
    for (const { program } of stored) {
      controllers.add(`${program.device} ${program.memory}`);
      (stored.length === 1 ? whole : parts).add(program);
    }
  }
  const uncalled = [...shelf.values()].filter((p) => controllers.has(`${p.device} ${p.memory}`) && !whole.has(p) && p.contents !== 'unplanned');
  return [...new Set([...parts, ...uncalled])].filter((p) => !whole.has(p));
};

/** Switches that programs assign: press and release follow what the loaded program says about them. */
const moveEvents = (b: Bearings, domains: Domains, effects: Effects, shelf: Shelf): readonly (readonly [SystemEvent, Footstep])[] =>
  all(b.rig, 'device').flatMap((device) => device.memories.flatMap((memory) => (memory.assignable ?? []).flatMap((place): readonly (readonly [SystemEvent, Footstep])[] => {
    const loaded = ref(device.id, memory.control);
    const latch = ref(device.id, place.latch);
    const held = ref(device.id, place.held);
    const assigned = [...shelf.values()].flatMap((program) => {
      const assign = program.device === device.id && program.memory === memory.id ? program.assigns.find((a) => a.switch === place.switch) : undefined;
      return assign ? [{ assign, program: domains.named(loaded, program.number) }] : [];
    });
    if (assigned.length === 0) return [];
    const when = (programs: readonly string[], ...more: readonly Condition[]): readonly Condition[] => [{ variable: loaded, in: programs }, ...more];
    const follow = (list: 'on' | 'off', latches: boolean, ...more: readonly Condition[]): readonly SystemAct[] =>
      actsAlike(assigned.filter(({ assign }) => assign.latch === latches), list).flatMap(({ act, programs }) => effects.acts(device, [act], when(programs, ...more)));
    const latching = assigned.filter(({ assign }) => assign.latch).map(({ program }) => program);
    const onlyLatches = latching.length === assigned.length;
    const press: SystemAct[] = [
      ...(onlyLatches ? [] : [{ variable: held, set: 'on' }]),
      ...(latching.length ? [{ variable: latch, when: when(latching), toggle: ['off', 'on'] as const }] : []),
      ...follow('on', true, { variable: latch, in: ['on'] }),
      ...follow('off', true, { variable: latch, in: ['off'] }),
      ...follow('on', false),
    ];
    const release: SystemAct[] = [...follow('off', false)];
    release.push({ variable: held, set: 'off' });
    const step = (does: 'press' | 'release' | 'stomp'): Footstep => ({ does, device: device.id, switch: place.switch });
    if (onlyLatches) return [[{ id: `stomp:${device.id}.${place.switch}`, acts: press }, step('stomp')] as const];
    return [
      [{ id: `press:${device.id}.${place.switch}`, when: [{ variable: held, in: ['off'] }], acts: press }, step('press')],
      [{ id: `release:${device.id}.${place.switch}`, when: [{ variable: held, in: ['on'] }], acts: release }, step('release')],
    ] as const;
  })));

interface Assigned {
  readonly assign: Assign;
  readonly program: string;
}

/** The acts of one list, place by place; programs that say the same act at the same place share it. Each program keeps its order. */
const actsAlike = (assigned: readonly Assigned[], list: 'on' | 'off'): readonly { readonly act: Act; readonly programs: readonly string[] }[] => {
  const longest = Math.max(0, ...assigned.map(({ assign }) => assign[list].length));
  return Array.from({ length: longest }, (_, place) => {
    const alike = new Map<string, { act: Act; programs: string[] }>();
    for (const { assign, program } of assigned) {
      const act = assign[list][place];
      if (!act) continue;
      const key = JSON.stringify(act);
      const entry = alike.get(key);
      if (entry) entry.programs.push(program);
      else alike.set(key, { act, programs: [program] });
    }
    return [...alike.values()];
  }).flat();
};

/** A foot or hand on a box itself; not on what is taken for granted, and not on the switches of a controller that recall. */
const footEvents = (b: Bearings, effects: Effects): readonly (readonly [SystemEvent, Footstep])[] =>
  all(b.rig, 'device').flatMap((device) => device.actuators.flatMap((a) => {
    if (!('foot' in a.by || 'hand' in a.by)) return [];
    const acts = a.acts.filter((act) => 'control' in act && effects.isVariable(ref(device.id, act.control)) && !isBank(device, act.control));
    const guards = effects.guards(device.id, a.when);
    if (acts.length === 0 || !guards) return [];
    return [[{ id: `foot:${device.id}.${a.id}`, when: guards, acts: effects.acts(device, acts, []) }, { does: 'foot', device: device.id, actuator: a.id }] as const];
  }));

const isBank = (device: Device, control: string): boolean => device.memories.some((m) => m.bank?.control === control);

const powerEvents = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects): readonly (readonly [SystemEvent, Footstep])[] =>
  all(b.rig, 'device').flatMap((device) => powerCycle(b, domains, shelf, effects, device).map((acts, i) => {
    const unknown = device.controls.filter((control) => control.powerUp === 'unknown').map((control) => ref(device.id, control.id));
    const wakes = Object.fromEntries(acts.flatMap((act) => (unknown.includes(act.variable as Ref) && 'set' in act && !act.when ? [[act.variable, act.set]] : []))) as Record<Ref, string>;
    return [{ id: `power:${device.id}${i ? `:${i}` : ''}`, acts }, { does: 'power', device: device.id, wakes }] as const;
  }));

/** A sound's wants less what is done by hand: that is reported apart, and the rest is proved under "done by hand". */
const soundsOf = (c: Compilation, domains: Domains): RecallSystem['sounds'] =>
  [...c.sounds.values()].map((compiled) => {
    const byHand = new Set(compiled.hand.map((h) => h.control));
    return {
      id: compiled.sound,
      recall: `recall:${compiled.sound}`,
      wants: compiled.wants.filter((w) => domains.of.has(w.control) && !byHand.has(w.control)).map((w) => ({ variable: w.control, value: domains.named(w.control, w.value) })),
    };
  });

/** Variables that nothing writes, reads or wants say nothing; they are left out. */
const relevant = (system: RecallSystem): RecallSystem => {
  const used = new Set<string>();
  const read = (when: readonly Condition[] | undefined) => when?.forEach((g) => used.add(g.variable));
  for (const event of system.events) {
    read(event.when);
    for (const act of event.acts) {
      used.add(act.variable);
      read(act.when);
    }
  }
  for (const sound of system.sounds) for (const want of sound.wants) used.add(want.variable);
  for (const group of system.together ?? []) if (group.variables.some((v) => used.has(v))) group.variables.forEach((v) => used.add(v));
  return { ...system, variables: system.variables.filter((v) => used.has(v.id)), together: (system.together ?? []).filter((g) => used.has(g.variables[0]!)) };
};

const grantedIn = (c: Compilation): readonly Granted[] => [
  ...c.bearings.hookup.assumes.map(({ control, value, why }) => ({ control, value, why })),
  ...[...c.leftAlone].map(([control, value]) => ({ control, value, why: 'set once by hand and left alone: nothing else reaches it, and all sounds want it so' })),
];



import type { Act } from '../rig/act.js';
import type { Device, Memory } from '../rig/device.js';
import { USUAL_DISTURBANCES } from '../rig/hookup.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import type { Assign, Program } from '../rig/program.js';
import { all, partOf } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import type { Compiled } from './compiled.js';
import { DomainMemory, domainsOf, type Domains } from './domains.js';
import { EAR_DOMAIN, earOf, Effects, hasEar, shelfKey, type Shelf } from './effects.js';
import { powerCycle, powerUp } from './power-up.js';
import type { Condition, RecallSystem, SystemAct, SystemEvent, SystemSound, Variable } from './system.js';

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

type Happening = readonly [SystemEvent, Footstep];

/** Keeps what did not change from one edit to the next, so that the prover meets the very same events and wants again. */
export class ModelMemory {
  readonly domains = new DomainMemory();
  private ground: readonly unknown[] = [];
  private old = new Map<string, unknown>();
  private now = new Map<string, unknown>();
  private readonly tags = new WeakMap<object, number>();
  private lastTag = 0;

  /** Everything kept rests on this ground; on another one all is made anew. */
  on(ground: readonly unknown[]): void {
    this.old = ground.length === this.ground.length && ground.every((g, i) => g === this.ground[i]) ? this.now : new Map<string, unknown>();
    this.now = new Map();
    this.ground = ground;
  }

  /** A number for an object, to make keys of. */
  tag(object: object | undefined): number {
    if (!object) return 0;
    const tag = this.tags.get(object) ?? (this.lastTag += 1);
    this.tags.set(object, tag);
    return tag;
  }

  keep<T>(key: string, make: () => T): T {
    const kept = this.old.has(key) ? this.old.get(key) as T : make();
    this.now.set(key, kept);
    return kept;
  }
}

export const model = (c: Compilation, memory = new ModelMemory()): Modelled => {
  const b = c.bearings;
  const shelf = shelfOf(c);
  const domains = domainsOf(c, [...shelf.values()], memory.domains);
  const effects = new Effects(b, domains, shelf);
  const admits = b.hookup.admits ?? USUAL_DISTURBANCES;
  memory.on([b.rig.parts.device, b.rig.parts.program, b.control, b.hookup, domains, ...calledByOthers(b, shelf)]);
  const happenings: Happening[] = [];
  for (const compiled of c.sounds.values()) {
    happenings.push(memory.keep(`recall ${memory.tag(compiled)}`, (): Happening => [{ id: `recall:${compiled.sound}`, acts: compiled.stored.flatMap((s) => loadSlot(b, effects, s.program)) }, { does: 'recall', sound: compiled.sound }]));
  }
  for (const program of callsByHalf(c, shelf)) {
    happenings.push(memory.keep(`call ${memory.tag(program)}`, (): Happening => [{ id: `call:${program.device}:${program.number}`, acts: loadSlot(b, effects, program) }, { does: 'call', device: program.device, memory: program.memory, slot: program.number }]));
  }
  if (admits.moves) happenings.push(...moveEvents(b, domains, effects, shelf, memory));
  if (admits.feet) happenings.push(...memory.keep('feet', () => footEvents(b, effects)));
  if (admits.powerCycle) happenings.push(...powerEvents(b, domains, shelf, effects, memory));
  const happens = happenings.filter(([event, step]) => event.acts.length > 0 || step.does === 'recall');
  const { variables, together } = powerUp(b, domains, shelf);
  const sounds = [...c.sounds.values()].map((compiled) => memory.keep(`sound ${memory.tag(compiled)}`, () => soundOf(compiled, domains)));
  return {
    system: relevant({ variables: [...variables, ...ears(b)], together, events: happens.map(([event]) => event), sounds }),
    steps: new Map(happens.map(([event, step]) => [event.id, step])), granted: grantedIn(c), programs: [...shelf.values()],
  };
};

const ears = (b: Bearings): readonly Variable[] => all(b.rig, 'device').filter(hasEar).map((d) => ({ id: earOf(d.id), domain: EAR_DOMAIN, initial: EAR_DOMAIN.slice(0, 1) }));

/** Planned slots of controllers that other boxes reach: what such a slot holds is part of what a call does. */
const calledByOthers = (b: Bearings, shelf: Shelf): readonly Program[] => {
  const reached = new Set([...b.control.midi.values(), ...b.control.contacts.values()].flatMap((arrivals) => arrivals.map((a) => a.device)));
  return [...shelf.values()].filter((p) => reached.has(p.device) && b.rig.parts.program.get(p.id) !== p);
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
const moveEvents = (b: Bearings, domains: Domains, effects: Effects, shelf: Shelf, kept: ModelMemory): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) => device.memories.flatMap((memory) => (memory.assignable ?? []).flatMap((place) => {
    const assigned = [...shelf.values()].flatMap((program) => {
      const assign = program.device === device.id && program.memory === memory.id ? program.assigns.find((a) => a.switch === place.switch) : undefined;
      return assign ? [{ assign, program: domains.named(ref(device.id, memory.control), program.number) }] : [];
    });
    const text = assigned.map(({ assign, program }) => `${program}=${assignText(assign)}`).join('\n');
    return assigned.length === 0 ? [] : kept.keep(`${device.id}.${memory.id}.${place.switch} ${text}`, () => switchEvents(device, memory, place, assigned, effects));
  })));

const assignTexts = new WeakMap<Assign, string>();
const assignText = (assign: Assign): string => {
  const text = assignTexts.get(assign) ?? JSON.stringify(assign);
  assignTexts.set(assign, text);
  return text;
};

/** What one switch does, program by program. */
const switchEvents = (device: Device, memory: Memory, place: NonNullable<Memory['assignable']>[number], assigned: readonly Assigned[], effects: Effects): readonly Happening[] => {
  const loaded = ref(device.id, memory.control);
  const latch = ref(device.id, place.latch);
  const held = ref(device.id, place.held);
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
};

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
const footEvents = (b: Bearings, effects: Effects): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) => device.actuators.flatMap((a) => {
    if (!('foot' in a.by || 'hand' in a.by)) return [];
    const acts = a.acts.filter((act) => 'control' in act && effects.isVariable(ref(device.id, act.control)) && !isBank(device, act.control));
    const guards = effects.guards(device.id, a.when);
    if (acts.length === 0 || !guards) return [];
    return [[{ id: `foot:${device.id}.${a.id}`, when: guards, acts: effects.acts(device, acts, []) }, { does: 'foot', device: device.id, actuator: a.id }] as const];
  }));

const isBank = (device: Device, control: string): boolean => device.memories.some((m) => m.bank?.control === control);

const powerEvents = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects, kept: ModelMemory): readonly Happening[] => {
  const programs = new Map<Id<'device'>, number[]>();
  for (const program of shelf.values()) {
    const tags = programs.get(program.device);
    if (tags) tags.push(kept.tag(program));
    else programs.set(program.device, [kept.tag(program)]);
  }
  return all(b.rig, 'device').flatMap((device) => kept.keep(`power ${device.id} ${programs.get(device.id)?.join() ?? ''}`, () => powerCycle(b, domains, shelf, effects, device).map((acts, i): Happening => {
    const unknown = device.controls.filter((control) => control.powerUp === 'unknown').map((control) => ref(device.id, control.id));
    const wakes = Object.fromEntries(acts.flatMap((act) => (unknown.includes(act.variable as Ref) && 'set' in act && !act.when ? [[act.variable, act.set]] : []))) as Record<Ref, string>;
    return [{ id: `power:${device.id}${i ? `:${i}` : ''}`, acts }, { does: 'power', device: device.id, wakes }];
  })));
};

/** A sound's wants less what is done by hand: that is reported apart, and the rest is proved under "done by hand". */
const soundOf = (compiled: Compiled, domains: Domains): SystemSound => {
  const byHand = new Set(compiled.hand.map((h) => h.control));
  return {
    id: compiled.sound,
    recall: `recall:${compiled.sound}`,
    wants: compiled.wants.filter((w) => domains.of.has(w.control) && !byHand.has(w.control)).map((w) => ({ variable: w.control, value: domains.named(w.control, w.value) })),
  };
};

/** Variables that nothing writes, reads or wants say nothing; they are left out. */
const relevant = (system: RecallSystem): RecallSystem => {
  const used = new Set<string>();
  for (const event of system.events) {
    for (const variable of usedBy(event)) used.add(variable);
    if (used.size === system.variables.length) return system;
  }
  for (const sound of system.sounds) for (const want of sound.wants) used.add(want.variable);
  for (const group of system.together ?? []) if (group.variables.some((v) => used.has(v))) group.variables.forEach((v) => used.add(v));
  return { ...system, variables: system.variables.filter((v) => used.has(v.id)), together: (system.together ?? []).filter((g) => used.has(g.variables[0]!)) };
};

const usedBefore = new WeakMap<SystemEvent, ReadonlySet<string>>();
/** Variables that an event writes or reads. */
const usedBy = (event: SystemEvent): ReadonlySet<string> => {
  let used = usedBefore.get(event);
  if (!used) {
    const reads = (when: readonly Condition[] | undefined) => (when ?? []).map((c) => c.variable);
    usedBefore.set(event, used = new Set([...reads(event.when), ...event.acts.flatMap((act) => (act.when ? [act.variable, ...reads(act.when)] : [act.variable]))]));
  }
  return used;
};

const grantedIn = (c: Compilation): readonly Granted[] => [
  ...c.bearings.hookup.assumes.map(({ control, value, why }) => ({ control, value, why })),
  ...[...c.leftAlone].map(([control, value]) => ({ control, value, why: 'set once by hand and left alone: nothing else reaches it, and all sounds want it so' })),
];



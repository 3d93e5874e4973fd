import type { Act } from '../rig/act.js';
import type { Device, Memory } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { USUAL_DISTURBANCES } from '../rig/hookup.js';
import { actsAt, type Assign, type Program } from '../rig/program.js';
import { keptIn, once } from '../rig/kept.js';
import { all, partOf } from '../rig/rig.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import { OTHER, type Domains } from './domains.js';
import type { Effects, Evening, Loading, Shelf } from './effects.js';
import { ModelMemory } from './model-memory.js';
import { pluggedPedals } from './pedals.js';
import { powerCycle } from './power-up.js';
import type { Condition, SystemAct, SystemEvent } from './proof/system.js';
import { numberOf } from './proof/texts.js';

/** One thing that can happen to the rig, as a player would do it and the bench can repeat it. */
export type Footstep =
  | {
    readonly does: 'recall'; readonly sound: Id<'sound'>;
    /** So soon after the stomp before, which need not have settled. */
    readonly afterMs?: number;
    /** The message that this controller sends in its place, counted from 0, never arrives. */
    readonly loses?: { readonly device: Id<'device'>; readonly message: number };
  }
  | { readonly does: 'call'; readonly device: Id<'device'>; readonly memory: string; readonly slot: number }
  /** `stomp` is pressed and let go at once: enough where a switch only latches. */
  | { readonly does: 'press' | 'release' | 'stomp'; readonly device: Id<'device'>; readonly switch: string; /** The message that it sends in this place, counted from 0, never arrives. */ readonly loses?: number }
  | { readonly does: 'foot'; readonly device: Id<'device'>; readonly actuator: string }
  | { readonly does: 'power'; readonly device: Id<'device'>; readonly wakes: Readonly<Record<Ref, string>> }
  /** A pedal is moved to a position of 0 (heel) to 127 (toe), and left there. */
  | { readonly does: 'pedal'; readonly device: Id<'device'>; readonly jack: string; readonly byte: number }
  /** A knob is turned to a value by the system's name. */
  | { readonly does: 'turn'; readonly control: Ref; readonly to: string }
  /** One after the other, taken together as one thing that happens. */
  | { readonly does: 'row'; readonly steps: readonly Footstep[] };

export type Happening = readonly [SystemEvent, Footstep];

/** What events are said with. */
export interface Said {
  readonly domains: Domains;
  readonly shelf: Shelf;
  readonly effects: Effects;
}

/** Everything that can happen to a rig, as far as the hook-up admits it. */
export const happenings = (c: Compilation, { domains, shelf, effects }: Said, memory = new ModelMemory()): readonly Happening[] => {
  const b = c.bearings;
  const admits = b.hookup.admits ?? USUAL_DISTURBANCES;
  const found: Happening[] = [];
  for (const compiled of c.sounds.values()) {
    found.push(memory.keep(`recall ${memory.tag(compiled)}`, (): Happening => [{ id: `recall:${compiled.sound}`, acts: oneAfterTheOther(compiled.stored.map((s) => loadSlot(b, effects, s.program))) }, { does: 'recall', sound: compiled.sound }]));
  }
  for (const program of callsByHalf(c, shelf)) {
    found.push(memory.keep(`call ${memory.tag(program)}`, (): Happening => [{ id: `call:${program.device}:${program.number}`, acts: loadSlot(b, effects, program) }, { does: 'call', device: program.device, memory: program.memory, slot: program.number }]));
  }
  if (admits.moves) found.push(...moveEvents(b, domains, effects, shelf, memory), ...pedalEvents(b, domains, effects, shelf, memory));
  if (admits.feet) found.push(...memory.keep('feet', () => footEvents(b, effects)));
  if (admits.powerCycle) found.push(...powerEvents(b, domains, shelf, effects, memory));
  if (admits.knobs) found.push(...memory.keep('knobs', () => knobEvents(b, domains)));
  return found.filter(([event, step]) => event.acts.length > 0 || step.does === 'recall');
};

const oneAfterTheOther = (lists: readonly (readonly SystemAct[])[]): readonly SystemAct[] => (lists.length === 1 ? lists[0]! : lists.flat());

const memoryOf = (b: Bearings, program: Program) => {
  const device = partOf(b.rig, program.device)!;
  return { device, memory: device.memories.find((m) => m.id === program.memory)! };
};

/** What calling a stored slot does. */
export const loadSlot = (b: Bearings, effects: Effects, program: Program): readonly SystemAct[] => {
  const { device, memory } = memoryOf(b, program);
  return effects.load(device, memory, program.number, []);
};

/** The same with what each place of its list brings about, also on an evening that is not as usual. */
export const slotLoading = (b: Bearings, effects: Effects, program: Program, evening?: Evening): Loading => {
  const { device, memory } = memoryOf(b, program);
  return effects.loading(device, memory, program.number, [], 0, evening);
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

/** What the programs of a memory assign to one of its switches. */
export const assignedTo = (domains: Domains, shelf: Shelf, device: Device, memory: Memory, name: string): readonly Assigned[] =>
  (keptIn(assigning, shelf, () => [...shelf.values()].filter((p) => p.assigns.length > 0))).flatMap((program) => {
    const assign = program.device === device.id && program.memory === memory.id ? program.assigns.find((a) => a.switch === name) : undefined;
    return assign ? [{ assign, program: domains.named(ref(device.id, memory.control), program.number) }] : [];
  });

const assigning = new WeakMap<Shelf, readonly Program[]>();

/** Switches that programs assign: press and release follow what the loaded program says about them. */
export const moveEvents = (b: Bearings, domains: Domains, effects: Effects, shelf: Shelf, kept: ModelMemory): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) => device.memories.flatMap((memory) => (memory.assignable ?? []).flatMap((place) => {
    const assigned = assignedTo(domains, shelf, device, memory, place.switch);
    const text = assigned.map(({ assign, program }) => `${program}=${assignNumber(assign)}`).join();
    return assigned.length === 0 ? [] : kept.keep(`${device.id}.${memory.id}.${place.switch} ${text}`, () => switchEvents(device, memory, place, assigned, effects));
  })));

/** Of the same number: they say the same. */
const assignNumber = once((assign: Assign): number => numberOf(JSON.stringify(assign)));

const actText = once((act: Act): string => JSON.stringify(act));

/** What one switch does, program by program. */
export const switchEvents = (device: Device, memory: Memory, place: NonNullable<Memory['assignable']>[number], assigned: readonly Assigned[], effects: Effects): readonly Happening[] => {
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

export interface Assigned {
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
      const key = actText(act);
      const entry = alike.get(key);
      if (entry) entry.programs.push(program);
      else alike.set(key, { act, programs: [program] });
    }
    return [...alike.values()];
  }).flat();
};

const POSITIONS = [0, 64, 127];

/** A pedal moved to its heel, half way or to its toe: what follows is what the loaded program says about it. */
const pedalEvents = (b: Bearings, domains: Domains, effects: Effects, shelf: Shelf, kept: ModelMemory): readonly Happening[] =>
  [...pluggedPedals(b)].flatMap((input) => {
    const { device: id, name: jack } = splitRef(input);
    const device = partOf(b.rig, id)!;
    const sweeping = [...shelf.values()].filter((p) => p.device === id && p.sweeps?.some((s) => s.jack === jack));
    const fixed = device.actuators.filter((a) => 'expression' in a.by && a.by.expression === jack);
    if (sweeping.length + fixed.length === 0) return [];
    return kept.keep(`pedal ${input} ${sweeping.map((p) => `${p.memory} ${p.number} ${JSON.stringify(p.sweeps)}`).join('\n')}`, () => POSITIONS.map((byte): Happening => {
      const acts = [
        ...sweeping.flatMap((p) => effects.acts(device, actsAt(p.sweeps, jack, byte), loadedIs(b, domains, p))),
        ...fixed.flatMap((a) => { const guards = effects.guards(id, a.when); return guards ? effects.acts(device, a.acts, guards, byte) : []; }),
      ];
      return [{ id: `pedal:${input}:${byte}`, acts }, { does: 'pedal', device: id, jack, byte }];
    }));
  });

const loadedIs = (b: Bearings, domains: Domains, program: Program): readonly Condition[] => {
  const { device, memory } = memoryOf(b, program);
  const loaded = ref(device.id, memory.control);
  return domains.of.has(loaded) ? [{ variable: loaded, in: [domains.named(loaded, program.number)] }] : [];
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

/** Somebody turns a knob of a box that no stored slot owns: it may end anywhere. */
export const knobEvents = (b: Bearings, domains: Domains): readonly Happening[] =>
  all(b.rig, 'device').filter((device) => !device.memories.some((m) => m.by)).flatMap((device) => device.controls.flatMap((control): readonly Happening[] => {
    const turned = ref(device.id, control.id);
    if (!('min' in control.domain) || control.use !== 'sound' || !domains.of.get(turned)?.includes(OTHER) || device.memories.some((m) => m.control === control.id)) return [];
    return [[{ id: `knob:${turned}`, acts: [{ variable: turned, set: OTHER }] }, { does: 'turn', control: turned, to: OTHER }]];
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

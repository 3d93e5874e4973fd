import type { Act } from '../rig/act.js';
import type { Actuator, Device, Memory } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import { USUAL_DISTURBANCES } from '../rig/hookup.js';
import { actsAt, type Assign, type Program } from '../rig/program.js';
import { keptIn, once } from '../rig/kept.js';
import { all, partOf } from '../rig/rig.js';
import { pluggedBoxes, type Bearings } from './bearings.js';
import { chosenByHand, type Compilation } from './compile.js';
import { askedIn } from './asked.js';
import { isOther, UNKNOWN, type Domains } from './domains.js';
import type { Effects, Evening, Said } from './effects.js';
import type { Loading } from './loading.js';
import { isOpen } from './guards.js';
import { heldTags, ModelMemory } from './model-memory.js';
import { pluggedPedals } from './pedals.js';
import { powerCycle } from './power-up.js';
import { shelfKey, type Shelf } from './shelf.js';
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
  | {
    readonly does: 'call'; readonly device: Id<'device'>; readonly memory: string; readonly slot: number;
    /** Nobody wrote down what it holds; here it is taken to hold these, by the system's names. */
    readonly holds?: Readonly<Record<string, string>>;
    /** Stands for any of several that nobody wrote down; this one is called where the first is loaded already. */
    readonly or?: number;
  }
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

/** Everything that can happen to a rig, as far as the hook-up admits it. */
export const happenings = (c: Compilation, { domains, shelf, effects }: Said, memory = new ModelMemory()): readonly Happening[] => {
  const b = c.bearings;
  const admits = b.hookup.admits ?? USUAL_DISTURBANCES;
  const found: Happening[] = [];
  for (const compiled of c.sounds.values()) {
    const chosen = chosenByHand(c, compiled.sound);
    found.push(memory.keep(`recall ${memory.tag(compiled)} ${chosen.map(({ device, memory: m, number }) => `${device.id}.${m.id} ${number}`).join()}`, (): Happening => [
      { id: `recall:${compiled.sound}`, acts: oneAfterTheOther([...chosen.map((x) => effects.load(x.device, x.memory, x.number, [])), ...compiled.stored.map((s) => loadSlot(b, effects, s.program))]) }, { does: 'recall', sound: compiled.sound },
    ]));
  }
  const halves = callsByHalf(c, shelf);
  for (const program of halves) {
    found.push(memory.keep(`call ${memory.tag(program)}`, (): Happening => [{ id: callId(program.device, program.memory, program.number), acts: loadSlot(b, effects, program) }, { does: 'call', device: program.device, memory: program.memory, slot: program.number }]));
  }
  if (admits.feet) found.push(...otherCalls(c, { domains, shelf, effects }, new Set(halves), memory));
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
  return effects.loading(device, memory, program.number, [], undefined, evening);
};

/** Stomps that call only part of a sound: states that feet reach as well, whatever else is reckoned with. */
const callsByHalf = (c: Compilation, shelf: Shelf): readonly Program[] => {
  const { whole, parts, controllers } = calledIn(c);
  const uncalled = [...shelf.values()].filter((p) => controllers.has(`${p.device} ${p.memory}`) && !whole.has(p) && p.contents !== 'unplanned');
  const halves = [...new Set([...parts, ...uncalled])].filter((p) => !whole.has(p));
  return [...new Map(halves.map((p) => [callId(p.device, p.memory, p.number), p])).values()];
};

/** Programs that are a sound by themselves, those that are a part of one, and the memories that hold them. */
const calledIn = (c: Compilation) => {
  const [whole, parts, controllers] = [new Set<Program>(), new Set<Program>(), new Set<string>()];
  for (const { stored } of c.sounds.values()) {
    for (const { program } of stored) {
      controllers.add(`${program.device} ${program.memory}`);
      (stored.length === 1 ? whole : parts).add(program);
    }
  }
  return { whole, parts, controllers };
};

/** Where a foot or hand on a box itself can call a slot: numbers of its memory, as far as they fit. */
const footCalls = once((device: Device): ReadonlyMap<Memory, ReadonlySet<number>> => {
  const found = new Map<Memory, Set<number>>();
  for (const { by, acts } of device.actuators) {
    if (!('foot' in by || 'hand' in by)) continue;
    for (const act of acts) {
      const memory = 'load' in act ? device.memories.find((m) => m.id === act.load) : undefined;
      if (!memory || !('load' in act) || act.slot === 'value') continue;
      const { slot } = act;
      const numbers = typeof slot === 'number' ? [slot] : slot.banks.map((_, i) => i * slot.size + slot.plus);
      for (const n of numbers) if (n < memory.size) keptIn(found, memory, () => new Set<number>()).add(n);
    }
  }
  return found;
});

/** Slots that a foot can call and no sound does: those that somebody wrote down, and one that is empty for all that are. */
const otherCalls = (c: Compilation, { domains, shelf, effects }: Said, halves: ReadonlySet<Program>, kept: ModelMemory): readonly Happening[] => {
  const b = c.bearings;
  const plugged = pluggedBoxes(b.anatomy);
  const { whole } = calledIn(c);
  return all(b.rig, 'device').filter((d) => plugged.has(d.id)).flatMap((device) => [...footCalls(device)].flatMap(([memory, numbers]) => {
    const loaded = ref(device.id, memory.control);
    if (memory.inside !== undefined) return callEach(device, memory, [...numbers].filter((n) => ![...halves].some((p) => p.device === device.id && p.memory === memory.id && p.number === n)), effects);
    const empty = new Map<string, number[]>();
    const written: number[] = [];
    for (const n of numbers) {
      const program = shelf.get(shelfKey(device.id, memory.id, n));
      if (!program) keptIn(empty, domains.named(loaded, n), () => []).push(n);
      else if (!whole.has(program) && !halves.has(program)) written.push(n);
    }
    const named = [...empty].flatMap(([name, those]) => (isOther(name) ? [] : those));
    const unnamed = [...empty].flatMap(([name, those]) => (isOther(name) ? [those] : []));
    const key = `feet call ${device.id}.${memory.id} ${[...written, ...named, ...unnamed.flat()].join()} ${written.map((n) => kept.tag(shelf.get(shelfKey(device.id, memory.id, n)))).join()}`;
    return kept.keep(key, () => [...callEach(device, memory, [...written, ...named], effects), ...unnamed.flatMap((those) => callEmpty(b, device, memory, those, effects))]);
  }));
};

/** With more of them what an empty slot leaves is just not known. */
const MOST_HELD = 64;

/** A foot calls a slot that nobody wrote anything down for: once for each way in which it may leave what other things rest on. */
const callEmpty = (b: Bearings, device: Device, memory: Memory, [slot, or]: readonly number[], effects: Effects): readonly Happening[] => {
  if (slot === undefined) return [];
  const asked = memory.stores.filter((s) => s !== memory.control && askedIn(b, device).has(s) && effects.isVariable(ref(device.id, s)));
  const held = asked.reduce<Readonly<Record<string, string>>[]>((before, s) => before.flatMap((one) => effects.knownValues(ref(device.id, s)).map((v) => ({ ...one, [s]: v }))), [{}]);
  const ways = held.length <= MOST_HELD ? held : [Object.fromEntries(asked.map((s) => [s, UNKNOWN]))];
  return ways.map((holds, i): Happening => [
    { id: `${callId(device.id, memory.id, slot)}${i ? `:${i}` : ''}`, acts: effects.loadAsIf(device, memory, slot, holds) },
    { does: 'call', device: device.id, memory: memory.id, slot, ...(or === undefined ? {} : { or }), ...(asked.length && ways.length > 1 ? { holds } : {}) },
  ]);
};

const callId = (device: Id<'device'>, memory: string, slot: number): string => `call:${device}:${memory === 'slots' ? '' : `${memory}:`}${slot}`;

const callEach = (device: Device, memory: Memory, numbers: readonly number[], effects: Effects): readonly Happening[] => numbers.map((slot): Happening =>
  [{ id: callId(device.id, memory.id, slot), acts: effects.load(device, memory, slot, []) }, { does: 'call', device: device.id, memory: memory.id, slot }]);

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
  const follow = (list: 'on' | 'off', latches: boolean, ...more: readonly Condition[]): readonly SystemAct[] => {
    const those = assigned.filter(({ assign }) => assign.latch === latches);
    if (those.every(({ assign }) => effects.isSaidAtOnce(device, assign[list]))) return actsAlike(those, list).flatMap(({ act, programs }) => effects.acts(device, [act], when(programs, ...more)));
    return listsAlike(those, list).flatMap(({ acts, programs }) => effects.follow(device, acts, when(programs, ...more)));
  };
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

/** Whole lists, those together that say the same. */
const listsAlike = (assigned: readonly Assigned[], list: 'on' | 'off'): readonly { readonly acts: readonly Act[]; readonly programs: readonly string[] }[] => {
  const alike = new Map<string, { readonly acts: readonly Act[]; readonly programs: string[] }>();
  for (const { assign, program } of assigned) if (assign[list].length) keptIn(alike, assign[list].map(actText).join(), () => ({ acts: assign[list], programs: [] })).programs.push(program);
  return [...alike.values()];
};

/** Heel, toe and half way come first: where several positions do the same, one of these stands for them. */
const POSITIONS = [0, 64, 127, ...Array.from({ length: 128 }, (_, i) => i).filter((i) => ![0, 64, 127].includes(i))];

/** A pedal moved to any position that does something of its own: what follows is what the loaded program says about it. */
const pedalEvents = (b: Bearings, domains: Domains, effects: Effects, shelf: Shelf, kept: ModelMemory): readonly Happening[] =>
  [...pluggedPedals(b)].flatMap((input) => {
    const { device: id, name: jack } = splitRef(input);
    const device = partOf(b.rig, id)!;
    const sweeping = [...shelf.values()].filter((p) => p.device === id && p.sweeps?.some((s) => s.jack === jack));
    const fixed = device.actuators.filter((a) => 'expression' in a.by && a.by.expression === jack);
    if (sweeping.length + fixed.length === 0) return [];
    return kept.keep(`pedal ${input} ${sweeping.map((p) => `${p.memory} ${p.number} ${JSON.stringify(p.sweeps)}`).join('\n')}`, () => {
      const byText = new Map<string, Happening>();
      for (const byte of POSITIONS) {
        const acts = [
          ...sweeping.flatMap((p) => effects.follow(device, actsAt(p.sweeps, jack, byte), loadedIs(b, domains, p))),
          ...effects.setOffInTime(fixed.map((a) => [device, a] as const), byte),
        ];
        keptIn(byText, JSON.stringify(acts), (): Happening => [{ id: `pedal:${input}:${byte}`, acts }, { does: 'pedal', device: id, jack, byte }]);
      }
      return [...byText.values()].sort(([, x], [, y]) => (x as { byte: number }).byte - (y as { byte: number }).byte);
    });
  });

const loadedIs = (b: Bearings, domains: Domains, program: Program): readonly Condition[] => {
  const { device, memory } = memoryOf(b, program);
  const loaded = ref(device.id, memory.control);
  return domains.of.has(loaded) ? [{ variable: loaded, in: [domains.named(loaded, program.number)] }] : [];
};

/** A foot or hand on a switch of a box that is plugged in: all that the switch sets off. Not what recalls a slot, nor what programs assign: those are told by themselves. */
const footEvents = (b: Bearings, effects: Effects): readonly Happening[] =>
  all(b.rig, 'device').filter((d) => pluggedBoxes(b.anatomy).has(d.id)).flatMap((device) => {
    const bySwitch = new Map<string, Actuator[]>();
    for (const a of device.actuators) if ('foot' in a.by || 'hand' in a.by) keptIn(bySwitch, 'foot' in a.by ? `${a.by.foot} ${a.by.gesture}` : `hand ${a.by.hand}`, () => []).push(a);
    return [...bySwitch.values()].flatMap((actuators): readonly Happening[] => {
      const [first] = actuators;
      const own = actuators.map((a) => ({ ...a, acts: a.acts.filter((act) => isOfFoot(device, act, effects)) })).filter((a) => a.acts.length > 0);
      if (own.length === 0) return [];
      const step: Footstep = { does: 'foot', device: device.id, actuator: first!.id };
      const guards = own.length === 1 ? effects.guards(device.id, own[0]!.when) : undefined;
      if (guards && !isOpen(guards)) return [[{ id: `foot:${device.id}.${first!.id}`, ...(guards.length ? { when: guards } : {}), acts: effects.follow(device, own[0]!.acts, []) }, step]];
      return [[{ id: `foot:${device.id}.${first!.id}`, acts: effects.setOffInTime(own.map((a) => [device, a] as const)) }, step]];
    });
  });

/** Whether an act of a foot switch is told by the switch: what loads a slot is told as a call, what a program assigns as a move, and the bank that shows changes nothing that sounds. */
const isOfFoot = (device: Device, act: Act, effects: Effects): boolean => {
  if ('load' in act || 'follow' in act) return false;
  return !('control' in act) || (effects.isVariable(ref(device.id, act.control)) && !isBank(device, act.control));
};

/** Somebody turns a knob of a box that no stored slot owns: it may end anywhere. */
export const knobEvents = (b: Bearings, domains: Domains): readonly Happening[] =>
  all(b.rig, 'device').filter((device) => !device.memories.some((m) => m.by)).flatMap((device) => device.controls.flatMap((control): readonly Happening[] => {
    const turned = ref(device.id, control.id);
    if (!('min' in control.domain) || control.use !== 'sound' || device.memories.some((m) => m.control === control.id)) return [];
    return (domains.of.get(turned) ?? []).filter(isOther).map((to, i): Happening => [{ id: `knob:${turned}${i ? `:${i}` : ''}`, acts: [{ variable: turned, set: to }] }, { does: 'turn', control: turned, to }]);
  }));

const isBank = (device: Device, control: string): boolean => device.memories.some((m) => m.bank?.control === control);

const powerEvents = (b: Bearings, domains: Domains, shelf: Shelf, effects: Effects, kept: ModelMemory): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) => kept.keep(`power ${device.id}${heldTags(shelf, kept).get(device.id) ?? ''}`, () => powerCycle(b, domains, shelf, effects, device).map(({ acts, wakes }, i): Happening => {
    return [{ id: `power:${device.id}${i ? `:${i}` : ''}`, acts }, { does: 'power', device: device.id, wakes }];
  })));

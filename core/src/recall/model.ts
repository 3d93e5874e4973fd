import type { Ref } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { all } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import type { Compiled, Wanted } from './compiled.js';
import { domainsOf, type Domains } from './domains.js';
import { EAR_DOMAIN, earOf, Effects, hasEar, shelfKey, type Shelf } from './effects.js';
import { happenings, type Footstep, type Said } from './happenings.js';
import { ModelMemory } from './model-memory.js';
import { powerUp } from './power-up.js';
import type { Condition, RecallSystem, SystemEvent, SystemSound, SystemWant, Variable } from './proof/system.js';

/** What the proof takes for granted, in the order in which a line check would go through it. */
export interface Granted {
  readonly control: Ref;
  readonly value: Value;
  readonly why: string;
}

export interface Modelled {
  readonly system: RecallSystem;
  /** The same with the variables that nothing in it writes, reads or wants: for those who ask what else can happen. */
  readonly ground: RecallSystem;
  readonly steps: ReadonlyMap<string, Footstep>;
  readonly granted: readonly Granted[];
  /** Every program that stands in a box: the planned ones of the controllers and those of the rig. */
  readonly programs: readonly Program[];
  readonly said: Said;
}

export const model = (c: Compilation, memory = new ModelMemory()): Modelled => {
  const b = c.bearings;
  const shelf = shelfOf(c);
  const domains = domainsOf(c, [...shelf.values()], memory.domains);
  const said: Said = { domains, shelf, effects: new Effects(b, domains, shelf) };
  memory.on([b.rig.parts.device, b.rig.parts.program, b.control, b.anatomy, b.hookup, domains, ...calledByOthers(b, shelf)]);
  const happens = happenings(c, said, memory);
  const { variables, together } = powerUp(b, domains, shelf);
  const wanted = new Map<Wanted, SystemWant | undefined>();
  const sounds = [...c.sounds.values()].map((compiled) => memory.keep(`sound ${memory.tag(compiled)}`, () => soundOf(compiled, domains, wanted)));
  const ground: RecallSystem = { variables: [...variables, ...ears(b)], together, events: happens.map(([event]) => event), sounds };
  return {
    system: relevant(ground, memory), ground,
    steps: new Map(happens.map(([event, step]) => [event.id, step])), granted: grantedIn(c), programs: [...shelf.values()], said,
  };
};

/** For each box of which it can depend on what is loaded whether it misses a message: whether it had the program already. */
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

/**
 * A sound's wants less what is done by hand: that is reported apart, and the rest is proved under "done by hand".
 * @param known what sounds before this one want; nothing where it is of no variable
 */
const soundOf = (compiled: Compiled, domains: Domains, known: Map<Wanted, SystemWant | undefined>): SystemSound => {
  const byHand = new Set(compiled.hand.map((h) => h.control));
  const wants: SystemWant[] = [];
  for (const wanted of compiled.wants) {
    let want = known.get(wanted);
    if (!want && !known.has(wanted)) {
      want = domains.of.has(wanted.control) ? { variable: wanted.control, value: domains.named(wanted.control, wanted.value) } : undefined;
      known.set(wanted, want);
    }
    if (want && !byHand.has(wanted.control)) wants.push(want);
  }
  return { id: compiled.sound, recall: `recall:${compiled.sound}`, wants };
};

/** Variables that nothing writes, reads or wants say nothing; they are left out. */
const relevant = (system: RecallSystem, memory: ModelMemory): RecallSystem => {
  const said = new Set(memory.usedInEvents.of(system.events, usedBy));
  for (const variable of memory.wantedBySounds.of(system.sounds, (sound, note) => sound.wants.forEach((want) => note(want.variable)))) said.add(variable);
  if (said.size === system.variables.length) return system;
  for (const group of system.together ?? []) if (group.variables.some((v) => said.has(v))) group.variables.forEach((v) => said.add(v));
  return { ...system, variables: system.variables.filter((v) => said.has(v.id)), together: (system.together ?? []).filter((g) => said.has(g.variables[0]!)) };
};

/** Variables that an event writes or reads. */
const usedBy = (event: SystemEvent, note: (variable: string) => void): void => {
  const reads = (when: readonly Condition[] | undefined): void => {
    if (when) for (const c of when) note(c.variable);
  };
  reads(event.when);
  for (const act of event.acts) {
    note(act.variable);
    reads(act.when);
  }
};

const grantedIn = (c: Compilation): readonly Granted[] => [
  ...c.bearings.hookup.assumes.map(({ control, value, why }) => ({ control, value, why })),
  ...[...c.leftAlone].map(([control, value]) => ({ control, value, why: 'set once by hand and left alone: nothing else reaches it, and all sounds want it so' })),
];

import { ref, type Ref } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { all } from '../rig/rig.js';
import type { Value } from '../rig/value.js';
import type { Bearings } from './bearings.js';
import type { Compilation } from './compile.js';
import type { Compiled, Wanted } from './compiled.js';
import { domainsOf, UNKNOWN, type Domains } from './domains.js';
import { bankOf, EAR_DOMAIN, earOf, Effects, hasEar } from './effects.js';
import { isThen, MAYBE, THEN_DOMAIN } from './guards.js';
import { DEAF_DOMAIN, deafOf, ENDLESS } from './on-the-wire.js';
import { once } from '../rig/kept.js';
import { isHolds, placeOnShelf, unwrittenOf, type Shelf } from './shelf.js';
import { happenings, type Footstep, type Happening, type Said } from './happenings.js';
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
  /** Controls that wake in too many ways together for what boxes do on waking to be worked out. */
  readonly tooMany: readonly string[];
  /** After some stomp boxes tell each other what to do without end. */
  readonly isEndless: boolean;
  /** Events after which it is not known how a box woke, because it can in too many ways. */
  readonly anyhow: ReadonlySet<string>;
}

export const model = (c: Compilation, memory = new ModelMemory()): Modelled => {
  const b = c.bearings;
  const shelf = shelfOf(c);
  const domains = domainsOf(c, [...shelf.values()], memory.domains);
  const said: Said = { domains, shelf, effects: new Effects(b, domains, shelf) };
  memory.on([b.rig.parts.device, b.rig.parts.program, b.control, b.anatomy, b.hookup, domains, ...calledByOthers(b, shelf)]);
  const happens = happenings(c, said, memory);
  const { variables, together, tooMany } = powerUp(b, domains, shelf, said.effects);
  const wanted = new Map<Wanted, SystemWant | undefined>();
  const sounds = [...c.sounds.values()].map((compiled) => memory.keep(`sound ${memory.tag(compiled)}`, () => soundOf(compiled, domains, wanted)));
  const ground: RecallSystem = { variables: [...variables, ...memos(b, domains, happens)], together, events: happens.map(([event]) => event), sounds };
  return {
    system: relevant(ground, memory), ground,
    steps: new Map(happens.map(([event, step]) => [event.id, step])), granted: grantedIn(c), programs: [...shelf.values()], said, tooMany, isEndless: isEndless(happens),
    anyhow: new Set(happens.flatMap(([event, step]) => (step.does === 'power' && Object.values(step.wakes).includes(UNKNOWN) ? [event.id] : []))),
  };
};

/** What is no control of a box but has to be remembered: within one event, whether a box has to load, whether it hears, whether something came about; and for good, which bank it is in. */
const memos = (b: Bearings, domains: Domains, happens: readonly Happening[]): readonly Variable[] => {
  const devices = all(b.rig, 'device');
  const ears = devices.filter(hasEar).map((d) => ({ id: earOf(d.id), domain: EAR_DOMAIN, initial: EAR_DOMAIN.slice(0, 1) }));
  const deaf = devices.filter((d) => d.midi).map((d) => ({ id: deafOf(d.id), domain: DEAF_DOMAIN, initial: DEAF_DOMAIN.slice(0, 1) }));
  const banks = devices.flatMap((d) => {
    const { coarse, fine } = domains.banks(d);
    const of = (id: string, numbers: readonly number[]): readonly Variable[] => (numbers.length > 1 ? [{ id, domain: [...numbers.map(String), MAYBE], initial: ['0'] }] : []);
    return [...of(bankOf(d.id).coarse, coarse), ...of(bankOf(d.id).fine, fine)];
  });
  const holds = [...new Set(happens.flatMap(([event]) => holdsIn(event)))].map((id) => {
    const { device, control } = unwrittenOf(id);
    const known = domains.of.get(ref(device, control))!.filter((v) => v !== UNKNOWN);
    return { id, domain: known, initial: known };
  });
  return [...ears, ...deaf, ...banks, ...holds, ...thenVariables(happens.map(([event]) => event)), ...(isEndless(happens) ? [{ id: ENDLESS, domain: ['no', 'yes'], initial: ['no'] }] : [])];
};

const isEndless = (happens: readonly Happening[]): boolean => happens.some(([event]) => endlessOf(event));
const endlessOf = once((event: SystemEvent): boolean => event.acts.some((act) => act.variable === ENDLESS));
const thensOf = once((event: SystemEvent): readonly string[] => [...new Set(event.acts.flatMap((act) => (isThen(act.variable) ? [act.variable] : [])))]);
const holdsIn = once((event: SystemEvent): readonly string[] => [...new Set(event.acts.flatMap((act) => (act.when ?? []).flatMap((c) => (isHolds(c.variable) ? [c.variable] : []))))]);
/** What events remember within themselves. */
export const thenVariables = (events: readonly SystemEvent[]): readonly Variable[] => [...new Set(events.flatMap(thensOf))].map((id) => ({ id, domain: THEN_DOMAIN, initial: THEN_DOMAIN.slice(0, 1) }));

/** Planned slots of controllers that other boxes reach: what such a slot holds is part of what a call does. */
const calledByOthers = (b: Bearings, shelf: Shelf): readonly Program[] => {
  const reached = new Set([...b.control.midi.values(), ...b.control.contacts.values()].flatMap((arrivals) => arrivals.map((a) => a.device)));
  return [...shelf.values()].filter((p) => reached.has(p.device) && b.rig.parts.program.get(p.id) !== p);
};

const shelfOf = (c: Compilation): Shelf => {
  const shelf = new Map<string, Program>();
  for (const program of all(c.bearings.rig, 'program')) shelf.set(placeOnShelf(program), program);
  for (const compiled of c.sounds.values()) for (const { program } of compiled.stored) shelf.set(placeOnShelf(program), program);
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

import type { Program } from '../../rig/program.js';
import { all } from '../../rig/rig.js';
import type { Bearings } from '../actuate/bearings.js';
import type { Compilation } from '../actuate/compile.js';
import type { Compiled, Wanted } from '../intend/compiled.js';
import { domainsOf, UNKNOWN, type Domains } from './domains.js';
import { Effects, type ModelTools } from './effects.js';
import { ENDLESS, memos } from './memos.js';
import { placeOnShelf, type Shelf } from './shelf.js';
import { grantedIn, type Granted } from './granted.js';
import { happenings, type Footstep } from './happenings.js';
import { ModelMemory } from './model-memory.js';
import { powerUp } from './power-up.js';
import { usedBy, type RecallSystem, type SystemSound, type SystemWant } from '../../prover/system.js';
import { theFirst } from '../../known/the.js';

export interface Modelled {
  readonly system: RecallSystem;
  /** The same with the variables that nothing in it writes, reads or wants: for those who ask what else can happen. */
  readonly ground: RecallSystem;
  readonly steps: ReadonlyMap<string, Footstep>;
  readonly granted: readonly Granted[];
  /** Every program that stands in a box: the planned ones of the controllers and those of the rig. */
  readonly programs: readonly Program[];
  readonly said: ModelTools;
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
  const said: ModelTools = { domains, shelf, effects: new Effects(b, domains, shelf) };
  memory.on([
    b.rig.parts.device,
    b.rig.parts.program,
    b.control,
    b.anatomy,
    b.hookup,
    domains,
    ...calledByOthers(b, shelf),
  ]);
  const happens = happenings(c, said, memory);
  const { variables, together, tooMany } = powerUp(b, said, memory);
  const wanted = new Map<Wanted, SystemWant | undefined>();
  const sounds = [...c.sounds.values()].map((compiled) =>
    memory.keep(`sound ${memory.tag(compiled)}`, () => soundOf(compiled, domains, wanted)),
  );
  const events = happens.map(([event]) => event);
  const used = new Set(memory.usedInEvents.of(events, usedBy));
  const ground: RecallSystem = { variables: [...variables, ...memos(b, domains, used)], together, events, sounds };
  return {
    system: relevant(ground, used, memory),
    ground,
    steps: new Map(happens.map(([event, step]) => [event.id, step])),
    granted: grantedIn(c, domains),
    programs: [...shelf.values()],
    said,
    tooMany,
    isEndless: used.has(ENDLESS),
    anyhow: new Set(
      happens.flatMap(([event, step]) =>
        step.does === 'power' && Object.values(step.wakes).includes(UNKNOWN) ? [event.id] : [],
      ),
    ),
  };
};

/** Planned slots of controllers that other boxes reach: what such a slot holds is part of what a call does. */
const calledByOthers = (b: Bearings, shelf: Shelf): readonly Program[] => {
  const reached = new Set(
    [...b.control.midi.values(), ...b.control.contacts.values()].flatMap((arrivals) => arrivals.map((a) => a.device)),
  );
  return [...shelf.values()].filter((p) => reached.has(p.device) && b.rig.parts.program.get(p.id) !== p);
};

const shelfOf = (c: Compilation): Shelf => {
  const shelf = new Map<string, Program>();
  for (const program of all(c.bearings.rig, 'program')) shelf.set(placeOnShelf(program), program);
  for (const compiled of c.sounds.values())
    for (const { program } of compiled.stored) shelf.set(placeOnShelf(program), program);
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
      want = wantOf(domains, wanted);
      known.set(wanted, want);
    }
    if (want && !byHand.has(wanted.control)) wants.push(want);
  }
  return { id: compiled.sound, recall: `recall:${compiled.sound}`, wants };
};

/** A want as the system says it, with every other value that serves; undefined of a control that is no variable. */
export const wantOf = (
  domains: Domains,
  { control, value, within }: Pick<Wanted, 'control' | 'value' | 'within'>,
): SystemWant | undefined => {
  const domain = domains.of.get(control);
  if (!domain) return undefined;
  const name = domains.named(control, value);
  const others = within ? domain.filter((other) => other !== name && domains.allowed(within, other) === 'yes') : [];
  return { variable: control, value: name, ...(others.length ? { or: others } : {}) };
};

/** Variables that nothing writes, reads or wants say nothing; they are left out. */
const relevant = (system: RecallSystem, used: ReadonlySet<string>, memory: ModelMemory): RecallSystem => {
  const said = new Set(used);
  for (const variable of memory.wantedBySounds.of(system.sounds, (sound, note) =>
    sound.wants.forEach((want) => note(want.variable)),
  ))
    said.add(variable);
  if (said.size === system.variables.length) return system;
  for (const group of system.together ?? [])
    if (group.variables.some((v) => said.has(v))) group.variables.forEach((v) => said.add(v));
  return {
    ...system,
    variables: system.variables.filter((v) => said.has(v.id)),
    together: (system.together ?? []).filter((g) => said.has(theFirst(g.variables))),
  };
};

import type { Act } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import { keptIn } from '../../rig/kept.js';
import { all, partOf } from '../../rig/rig.js';
import type { Bearings } from '../bearings.js';
import type { Compilation } from '../compile.js';
import { shelfKey, type Hearing, type Loading, type NoteLoad } from '../effects.js';
import { loadSlot, slotListOn, slotLoading, type Footstep } from '../happenings.js';
import { ears, model, type Modelled } from '../model.js';
import { ModelMemory } from '../model-memory.js';
import { arrivals, missedBy, reaching, type Missed, type Reaching } from '../slot-timing.js';
import type { Condition, SystemAct, SystemEvent, SystemSound, Variable } from '../system.js';
import { wantsOn, type Asked, type Question } from './question.js';
import { apart, Cutter, Reach, wantedIn, type Extra } from './reach.js';

/** Remembers for how long a box is still loading after the stomp before. It is no control of the box. */
const busyOf = (device: Id<'device'>): string => `busy:${device}`;
const SETTLED = 'settled';
/** Remembers whether a box has begun to load in the stomp that is going on. */
const loadsOf = (device: Id<'device'>): string => `loads:${device}`;
const [NO, YES] = ['no', 'yes'];

const isDeaf = (device: Device, memory: Memory): boolean => device.midi?.messages === 'lost' && memory.gapMs > 0;

/**
 * A sound is stomped before all boxes have settled from the stomp before: a box that is still loading misses what comes too early. Each sound is judged at
 * every moment at which one more message of it is missed; the last wrong one says how long to wait. Only the judged stomp is hasty; a controller is taken to
 * finish what it sends before it sends what comes next on the same wire.
 */
export const hastyFeet = (c: Compilation, usual: Modelled): Question => {
  const { bearings: b } = c;
  const deaf = all(b.rig, 'device').filter((d) => d.memories.some((x) => isDeaf(d, x)));
  const none: Question = { about: 'hasty feet', systems: [], steps: usual.steps, asked: new Map() };
  if (deaf.length === 0) return none;
  const noteLoad: NoteLoad = (device, memory, when) => (isDeaf(device, memory) ? [{ variable: loadsOf(device.id), ...(when.length ? { when } : {}), set: YES! }] : []);
  const m = model(c, new ModelMemory(), { noteLoad, domains: usual.said.domains });
  const busy = new BusyTimes(b, [...m.said.shelf.values()], deaf);
  const reset = deaf.map((d): SystemAct => ({ variable: busyOf(d.id), set: SETTLED }));
  const stored = new Map([...c.sounds.values()].map((s) => [`recall:${s.sound}`, s.stored.map((x) => x.program)]));
  const settled = m.system.events.map((event): SystemEvent => ({ ...event, acts: settledActs(b, m, event, programsOf(m, event, stored), reset, busy) }));
  const variables = deaf.flatMap((d): readonly Variable[] => [
    { id: busyOf(d.id), domain: [SETTLED, ...busy.of(d.id).map((t) => t.name)], initial: [SETTLED] }, { id: loadsOf(d.id), domain: [NO!, YES!], initial: [NO!] },
  ]);
  const there = new Set(m.system.variables.map((v) => v.id));
  const ground = { ...m.system, variables: [...m.system.variables, ...ears(b).filter((v) => !there.has(v.id)), ...variables], events: settled };
  const steps = new Map<string, Footstep>(m.steps);
  const asked = new Map<string, Asked>();
  const calls = [...c.sounds.values()].map((compiled) => ({ compiled, call: new HastyCall(b, m, compiled.stored.map((x) => x.program), busy) }));
  const soonest = calls.flatMap(({ compiled, call }): SystemEvent[] => {
    const first = call.moments.at(-1);
    return first ? [{ id: `soonest:${compiled.sound}`, acts: call.acts(first.waitMs) }] : [];
  });
  if (soonest.length === 0) return none;
  const reach = new Reach({ ...ground, events: [...settled, ...soonest] }, wantedIn(m.system.sounds));
  const extras: Extra[] = [];
  const cutter = new Cutter();
  const heard = new Heard(m, b);
  const sounds: SystemSound[] = [];
  const wantsBySound = new Map(m.system.sounds.map((s) => [s.id, s]));
  for (const { compiled, call } of calls) {
    for (const { waitMs, boxes } of call.moments) {
      const matters = boxes.map((box) => reach.from([busyOf(box)]));
      const wants = wantsOn(wantsBySound.get(compiled.sound)!, new Set(matters.flatMap((m) => [...m])));
      if (!wants) continue;
      const id = `hasty:${compiled.sound}:${waitMs}`;
      for (const one of matters) extras.push({ id, last: true, acts: (inside) => call.acts(waitMs, heard.byBoxes(inside), (acts) => cutter.cut(acts, inside)), matters: one });
      steps.set(id, { does: 'recall', sound: compiled.sound, afterMs: waitMs });
      sounds.push({ id, recall: id, wants });
      asked.set(id, { sound: compiled.sound, waitMs: Math.ceil(waitMs) });
    }
  }
  return { about: 'hasty feet', systems: apart(ground, extras, sounds, reach), steps, asked };
};

/** Which boxes have to hear something for it to come to certain variables. */
class Heard {
  private readonly changes = new Map<Device, Set<string>>();
  private readonly known = new Map<ReadonlySet<string>, ReadonlySet<Device>>();

  constructor({ said: { shelf, effects } }: Modelled, b: Bearings) {
    for (const program of shelf.values()) {
      const device = partOf(b.rig, program.device)!;
      for (const act of program.acts) {
        if (!('send' in act)) continue;
        for (const [to, acts] of effects.heard(device, act)) for (const { variable } of acts) keptIn(this.changes, to, () => new Set<string>()).add(variable);
      }
    }
  }

  /** Boxes that can change one of these variables when they are told something. */
  byBoxes(inside: ReadonlySet<string>): ReadonlySet<Device> {
    return keptIn(this.known, inside, () => new Set([...this.changes].flatMap(([device, changes]) => ([...changes].some((v) => inside.has(v)) ? [device] : []))));
  }
}

/** Stored slots that an event calls. */
const programsOf = (m: Modelled, event: SystemEvent, stored: ReadonlyMap<string, readonly Program[]>): readonly Program[] => {
  const step = m.steps.get(event.id);
  return stored.get(event.id) ?? (step?.does === 'call' ? [m.said.shelf.get(shelfKey(step.device, step.memory, step.slot))!] : []);
};

/** An event before which all has settled. Of a sound that takes several stomps only the last is still going on after it. */
const settledActs = (b: Bearings, m: Modelled, event: SystemEvent, programs: readonly Program[], reset: readonly SystemAct[], busy: BusyTimes): readonly SystemAct[] => {
  const stomps = programs.length > 1 ? programs.map((p) => loadSlot(b, m.said.effects, p)) : [event.acts];
  return stomps.flatMap((acts, i) => [...reset, ...acts, ...busy.goOn(programs[i])]);
};

interface Moment {
  readonly waitMs: number;
  /** Boxes that miss one more message when it follows sooner. */
  readonly boxes: readonly Id<'device'>[];
}

type Hears = (to: Device) => readonly Hearing[] | undefined;

/** The stomps of one sound, each so soon after the one before. */
class HastyCall {
  private readonly usual = new Map<Program, Loading>();
  private readonly heard = new Map<number, Map<Program, Hears>>();
  private readonly reached: ReadonlyMap<Program, ReadonlyMap<Device, readonly Reaching[]>>;
  /** How soon a stomp must follow, in ms, for one more of its messages to be missed; the longest first. */
  readonly moments: readonly Moment[];

  constructor(private readonly b: Bearings, private readonly m: Modelled, private readonly programs: readonly Program[], private readonly busy: BusyTimes) {
    const found = new Map<number, Set<Id<'device'>>>();
    this.reached = new Map(programs.map((p) => [p, new Map([...reaching(b, p.device, p.acts)].filter(([box]) => busy.of(box.id).length))]));
    for (const [{ device: from, acts }, boxes] of this.reached) {
      for (const [box, messages] of boxes) {
        for (const { place, us } of messages) {
          const act = acts[place]!;
          for (const time of busy.of(box.id)) {
            const waitMs = Math.round(time.ms * 1000 - us) / 1000;
            if (waitMs > 0 && !('send' in act && isQueuedPast(time, ref(from, act.at), us))) found.set(waitMs, (found.get(waitMs) ?? new Set()).add(box.id));
          }
        }
      }
    }
    this.moments = [...found].sort(([a], [z]) => z - a).map(([waitMs, boxes]) => ({ waitMs, boxes: [...boxes] }));
  }

  /** What it does, as far as it counts, when each stomp follows just sooner than so many ms after the one before. */
  acts(waitMs: number, only?: ReadonlySet<Device>, within: (acts: readonly SystemAct[]) => readonly SystemAct[] = (acts) => acts): readonly SystemAct[] {
    const { effects } = this.m.said;
    return this.programs.flatMap((program, i) => {
      const { first, last } = keptIn(this.usual, program, () => slotLoading(this.b, effects, program));
      const hearing = keptIn(keptIn(this.heard, waitMs, () => new Map<Program, Hears>()), program, () => this.hearing(program, waitMs));
      const list = slotListOn({ hearing, ...(only ? { only } : {}) }, this.b, effects, program);
      return [...within(first), ...list.flatMap(within), ...within(last), ...(i < this.programs.length - 1 ? within(this.busy.goOn(program)) : [])];
    });
  }

  private hearing(program: Program, waitMs: number): Hears {
    const { device: from, acts } = program;
    const reached = this.reached.get(program)!;
    const known = new Map<Device, readonly Hearing[]>();
    return (to) => {
      const messages = reached.get(to);
      if (!messages) return undefined;
      const before = known.get(to);
      if (before) return before;
      const alike = new Map<string, { readonly values: string[]; readonly missed: ReadonlyMap<number, Missed> }>();
      for (const time of [undefined, ...this.busy.of(to.id)]) {
        const untilUs = time ? time.ms * 1000 - Math.max(waitMs * 1000 - 1, isSentOn(time, from, acts) ? time.wireMs * 1000 : 0) : 0;
        const missed = missedBy(to, messages, untilUs);
        const text = [...missed].map(([place, { first, depends }]) => `${place} ${first} ${depends?.only ?? ''}`).join();
        const group = alike.get(text);
        if (group) group.values.push(time?.name ?? SETTLED);
        else alike.set(text, { values: [time?.name ?? SETTLED], missed });
      }
      const hearing = [...alike.values()].map(({ values, missed }) => ({ when: alike.size > 1 ? this.busy.when(to.id, values) : [], missed }));
      known.set(to, hearing);
      return hearing;
    };
  }
}

/** How long a box is busy after a stomp, in ms, and until when the wire is that the stomp was sent on. */
interface BusyTime {
  readonly name: string;
  readonly ms: number;
  readonly wire?: Ref;
  readonly wireMs: number;
}

/** Whether a message has to wait on its wire until the box hears again, however soon it is sent. */
const isQueuedPast = (time: BusyTime, wire: Ref, us: number): boolean => time.wire === wire && time.wireMs * 1000 + us >= time.ms * 1000;

const isSentOn = (time: BusyTime, from: Id<'device'>, acts: readonly Act[]): boolean => acts.some((act) => 'send' in act && ref(from, act.at) === time.wire);

/** More of them are taken together: the longest, with the wire free the soonest. */
const MOST_TIMES = 8;

const listsOf = (program: Program): readonly (readonly Act[])[] => [program.acts, ...program.assigns.flatMap((a) => [a.on, a.off])];

/** For how long the boxes that miss messages while they load are busy after each slot that may have been called. */
class BusyTimes {
  private readonly times = new Map<Id<'device'>, readonly BusyTime[]>();
  private readonly bySlot = new Map<Program, ReadonlyMap<Id<'device'>, BusyTime>>();
  private readonly known = new Map<string, readonly SystemAct[]>();
  private readonly conditions = new Map<string, readonly Condition[]>();

  constructor(private readonly b: Bearings, programs: readonly Program[], deaf: readonly Device[]) {
    const gaps = new Map(deaf.map((d) => [d.id, Math.max(...d.memories.filter((x) => isDeaf(d, x)).map((x) => x.gapMs))]));
    const found = new Map(deaf.map((d) => [d.id, new Map<string, BusyTime>()]));
    const longest = new Map(gaps);
    for (const program of programs) {
      for (const acts of listsOf(program)) {
        const own = this.after(acts, program, gaps);
        if (acts === program.acts) this.bySlot.set(program, own);
        for (const [id, time] of own) {
          if (acts === program.acts) found.get(id)!.set(time.name, time);
          longest.set(id, Math.max(longest.get(id)!, time.ms));
        }
      }
    }
    for (const [id, times] of found) {
      const ms = longest.get(id)!;
      this.times.set(id, [...inFew([...times.values()]), { name: `${ms}`, ms, wireMs: 0 }]);
    }
  }

  private after(acts: readonly Act[], { device: from }: Program, gaps: ReadonlyMap<Id<'device'>, number>): ReadonlyMap<Id<'device'>, BusyTime> {
    const until = new Map<Id<'device'>, BusyTime>();
    if (!acts.some((act) => 'send' in act && 'pc' in act.send)) return until;
    const us = arrivals(acts);
    for (const [device, messages] of reaching(this.b, from, acts)) {
      const gap = gaps.get(device.id);
      if (gap === undefined) continue;
      const missed = missedBy(device, messages);
      const last = messages.findLast(({ place, message }) => 'pc' in message && (!missed.has(place) || missed.get(place)!.depends));
      const act = last && acts[last.place]!;
      if (!act || !('send' in act)) continue;
      const [ms, wireMs] = [last.us / 1000 + gap, Math.max(...acts.map((a, i) => ('send' in a && a.at === act.at ? us[i]! : 0))) / 1000];
      const wire = ref(from, act.at);
      until.set(device.id, { name: `${ms} ${wire} ${wireMs}`, ms, wire, wireMs });
    }
    return until;
  }

  /** Every time that can keep this box busy; empty when it always hears. */
  of(device: Id<'device'>): readonly BusyTime[] {
    return this.times.get(device) ?? [];
  }

  /** The box is busy for one of these times; the very same conditions each time. */
  when(device: Id<'device'>, names: readonly string[]): readonly Condition[] {
    const key = `${device} ${names.join()}`;
    const known = this.conditions.get(key) ?? [{ variable: busyOf(device), in: names }];
    this.conditions.set(key, known);
    return known;
  }

  /** After a slot was called, or whatever else was done: what began to load goes on loading. */
  goOn(called?: Program): readonly SystemAct[] {
    const acts = [...this.times].map(([device, times]) => {
      const own = called && this.bySlot.get(called)?.get(device);
      const time = own && (times.find((t) => t.name === own.name) ?? times.find((t) => t.ms >= own.ms && t.wire === own.wire && t.wireMs <= own.wireMs));
      return [device, (time ?? times.at(-1)!).name] as const;
    });
    const key = acts.map(([, to]) => to).join();
    const known = this.known.get(key) ?? acts.flatMap(([device, to]): readonly SystemAct[] => [
      { variable: busyOf(device), when: [{ variable: loadsOf(device), in: [YES!] }], set: to }, { variable: loadsOf(device), set: NO! },
    ]);
    this.known.set(key, known);
    return known;
  }
}

const inFew = (times: readonly BusyTime[]): readonly BusyTime[] => {
  if (times.length <= MOST_TIMES) return times;
  return [...new Set(times.map((t) => t.wire))].map((wire) => {
    const alike = times.filter((t) => t.wire === wire);
    const [ms, wireMs] = [Math.max(...alike.map((t) => t.ms)), Math.min(...alike.map((t) => t.wireMs))];
    return { name: `${ms} ${wire} ${wireMs}`, ms, wire, wireMs };
  });
};

import type { Act } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import { all } from '../../rig/rig.js';
import type { Bearings } from '../bearings.js';
import type { Compilation } from '../compile.js';
import { shelfKey, type Hearing } from '../effects.js';
import { loadSlot, slotLoading, type Footstep } from '../happenings.js';
import { model, type Modelled } from '../model.js';
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
  const m = model(c, new ModelMemory(), (device, memory, when) => (isDeaf(device, memory) ? [{ variable: loadsOf(device.id), ...(when.length ? { when } : {}), set: YES! }] : []));
  const busy = new BusyTimes(b, [...m.said.shelf.values()], deaf);
  const reset = deaf.map((d): SystemAct => ({ variable: busyOf(d.id), set: SETTLED }));
  const stored = new Map([...c.sounds.values()].map((s) => [`recall:${s.sound}`, s.stored.map((x) => x.program)]));
  const settled = m.system.events.map((event): SystemEvent => ({ ...event, acts: settledActs(b, m, event, programsOf(m, event, stored), reset, busy) }));
  const variables = deaf.flatMap((d): readonly Variable[] => [
    { id: busyOf(d.id), domain: [SETTLED, ...busy.of(d.id).map((t) => t.name)], initial: [SETTLED] }, { id: loadsOf(d.id), domain: [NO!, YES!], initial: [NO!] },
  ]);
  const ground = { ...m.system, variables: [...m.system.variables, ...variables], events: settled };
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
  const sounds: SystemSound[] = [];
  const wantsBySound = new Map(m.system.sounds.map((s) => [s.id, s]));
  for (const { compiled, call } of calls) {
    for (const { waitMs, boxes } of call.moments) {
      const matters = boxes.map((box) => reach.from([busyOf(box)]));
      const wants = wantsOn(wantsBySound.get(compiled.sound)!, new Set(matters.flatMap((m) => [...m])));
      if (!wants) continue;
      const id = `hasty:${compiled.sound}:${waitMs}`;
      for (const one of matters) extras.push({ id, last: true, acts: (inside) => cutter.cut(call.acts(waitMs), inside), matters: one });
      steps.set(id, { does: 'recall', sound: compiled.sound, afterMs: waitMs });
      sounds.push({ id, recall: id, wants });
      asked.set(id, { sound: compiled.sound, waitMs: Math.ceil(waitMs) });
    }
  }
  return { about: 'hasty feet', systems: apart(ground, extras, sounds, reach), steps, asked };
};

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

/** The stomps of one sound, each so soon after the one before. */
class HastyCall {
  private readonly known = new Map<number, readonly SystemAct[]>();
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

  /** What it does when each stomp follows just sooner than so many ms after the one before. */
  acts(waitMs: number): readonly SystemAct[] {
    const known = this.known.get(waitMs) ?? this.programs.flatMap((program, i) => {
      const { first, list, last } = slotLoading(this.b, this.m.said.effects, program, { hearing: this.hearing(program, waitMs) });
      return [...first, ...list.flat(), ...last, ...(i < this.programs.length - 1 ? this.busy.goOn(program) : [])];
    });
    this.known.set(waitMs, known);
    return known;
  }

  private hearing(program: Program, waitMs: number): (to: Device) => readonly Hearing[] | undefined {
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
    for (const program of programs) {
      const own = this.after(program.acts, program, gaps);
      this.bySlot.set(program, own);
      for (const [id, time] of own) found.get(id)!.set(time.name, time);
    }
    for (const [id, times] of found) {
      const others = Math.max(gaps.get(id)!, ...programs.flatMap((p) => listsOf(p).flatMap((acts) => this.after(acts, p, gaps).get(id)?.ms ?? [])));
      this.times.set(id, [...inFew([...times.values()]), { name: `${others}`, ms: others, wireMs: 0 }]);
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

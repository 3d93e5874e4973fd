import type { Device } from '../../rig/device.js';
import { ref, type Id } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import { keptIn } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import type { Bearings } from '../actuate/bearings.js';
import { chosenByHand, type Compilation } from '../actuate/compile.js';
import type { Compiled } from '../intend/compiled.js';
import { Effects, type ModelTools } from '../model/effects.js';
import type { Hearing, NoteLoad } from '../model/how.js';
import { allOf } from '../model/loading.js';
import { earOf, hasEar } from '../model/memos.js';
import { callActs, calledIn, happenings, slotLoading, type Footstep } from '../model/happenings.js';
import type { Modelled } from '../model/model.js';
import { perhaps } from '../model/guards.js';
import { shelfKey } from '../model/shelf.js';
import { missedBy, reaching, type Reaching } from '../actuate/slot-timing.js';
import type { RecallSystem, SystemAct, SystemEvent, SystemSound, Variable } from '../../prover/system.js';
import { BusyTimes, busyOf, isDeaf, isQueuedPast, isSentOn, loadsOf, NO, SETTLED, YES } from './busy.js';
import { wantsOn, type Asked, type Question } from './question.js';
import { apart, Cutter, Influence, wantedIn, type Extra } from './reach.js';
import { theEntry, theItem } from '../../known/the.js';

/**
 * A sound is stomped before all boxes have settled from the stomp before: a box that is still loading misses what
 * comes too early. Each sound is judged at
 * every moment at which one more message of it is missed; the last wrong one says how long to wait. Only the judged
 * stomp is hasty; a controller is taken to
 * finish what it sends before it sends what comes next on the same wire.
 */
export const hastyFeet = (c: Compilation, usual: Modelled): Question => {
  const { bearings: b } = c;
  const deaf = all(b.rig, 'device').filter((d) => d.memories.some((x) => isDeaf(d, x)));
  const { ground, steps } = usual;
  const none: Question = { about: 'hasty feet', ground, systems: [], steps, asked: new Map() };
  if (deaf.length === 0) return none;
  const noteLoad: NoteLoad = (device, memory, when) =>
    isDeaf(device, memory)
      ? [{ variable: loadsOf(device.id), ...(when.length ? { when: perhaps(when) } : {}), set: YES }]
      : [];
  const said = { ...usual.said, effects: new Effects(b, usual.said.domains, usual.said.shelf, noteLoad) };
  const sounds = [...c.sounds.values()];
  if (!sounds.every((sound) => isClear(c, said, sound)))
    return { ...none, beyond: sounds.map(({ sound }): Asked => ({ sound })) };
  const busy = new BusyTimes(b, [...said.shelf.values()], deaf);
  const calls = sounds.map((compiled) => {
    const programs = compiled.stored.map((x) => x.program);
    return { compiled, call: new HastyCall(b, said, programs, busy) };
  });
  if (calls.every(({ call }) => call.moments.length === 0)) return none;
  return asking(c, usual, said, withBusyTimes(c, usual, said, deaf, busy), deaf, calls);
};

/**
 * Boxes tell each other nothing, have their wires to themselves, and nobody chooses programs by hand: it is known when
 * everything arrives.
 */
const isClear = (c: Compilation, { effects }: ModelTools, { sound, stored }: Compiled): boolean =>
  chosenByHand(c, sound).length === 0 &&
  stored.every(({ program }) => effects.isPlainSlot(program) && effects.hasWiresOfItsOwn(program));

/** The usual system, in which each event also notes which boxes load and for how long they are busy. */
const withBusyTimes = (
  c: Compilation,
  usual: Modelled,
  said: ModelTools,
  deaf: readonly Device[],
  busy: BusyTimes,
): RecallSystem => {
  const reset = deaf.map((d): SystemAct => ({ variable: busyOf(d.id), set: SETTLED }));
  const stored = new Map([...c.sounds.values()].map((s) => [`recall:${s.sound}`, s.stored.map((x) => x.program)]));
  const events = happenings(c, said).map(([event, step]): SystemEvent => {
    const programs = stored.get(event.id) ?? programsOf(said, step);
    return { ...event, acts: settledActs(c.bearings, said, event, programs, reset, busy) };
  });
  const variables = deaf.flatMap((d): readonly Variable[] => [
    { id: busyOf(d.id), domain: [SETTLED, ...busy.of(d.id).map((t) => t.name)], initial: [SETTLED] },
    { id: loadsOf(d.id), domain: [NO, YES], initial: [NO] },
  ]);
  return { ...usual.ground, variables: [...usual.ground.variables, ...variables], events };
};

/** For each sound, and each moment at which its stomp may come too early, what is then still wanted. */
const asking = (
  c: Compilation,
  usual: Modelled,
  said: ModelTools,
  ground: RecallSystem,
  deaf: readonly Device[],
  calls: readonly { readonly compiled: Compiled; readonly call: HastyCall }[],
): Question => {
  const stored = [...c.sounds.values()].flatMap((s) => s.stored.map((x) => x.program));
  const heard = new HeardPlaces(said, c.bearings, [...said.shelf.values(), ...stored]);
  const withDeaf = { ...ground, events: [...ground.events, heard.whenBusy(deaf)] };
  const reach = new Influence(withDeaf, wantedIn(usual.system.sounds));
  const cutter = new Cutter();
  const wanted = new Map(usual.system.sounds.map((s) => [s.id, s]));
  const steps = new Map<string, Footstep>(usual.steps);
  const asked = new Map<string, Asked>();
  const extras: Extra[] = [];
  const sounds: SystemSound[] = [];
  for (const { compiled, call } of calls) {
    const { sound } = compiled;
    for (const { waitMs, boxes } of call.moments) {
      const matters = boxes.map((box) => reach.from([busyOf(box)]));
      const wants = wantsOn(theEntry(wanted, sound), new Set(matters.flatMap((m) => [...m])));
      if (!wants) continue;
      const id = `hasty:${sound}:${waitMs}`;
      const acts: Extra['acts'] = (inside) =>
        call.acts(
          waitMs,
          (program) => heard.places(program, inside),
          (those) => cutter.cut(those, inside),
        );
      for (const one of matters) extras.push({ id, last: true, acts, matters: one });
      steps.set(id, { does: 'recall', sound, afterMs: waitMs, ...calledIn(c.bearings, sound) });
      sounds.push({ id, recall: id, wants });
      asked.set(id, { sound, waitMs: Math.ceil(waitMs) });
    }
  }
  return { about: 'hasty feet', ground, systems: apart(ground, extras, sounds, reach), steps, asked };
};

/** What stands in the places of a stored list, by who hears it. */
interface Places {
  /** What nobody has to hear. */
  readonly own: readonly number[];
  readonly by: ReadonlyMap<Device, readonly number[]>;
}

/** Which boxes have to hear something for it to come to certain variables, and where in the slots it stands. */
class HeardPlaces {
  private readonly changes = new Map<Device, Set<string>>();
  private readonly boxes = new Map<ReadonlySet<string>, readonly Device[]>();
  private readonly slots = new Map<Program, Places>();

  constructor(
    private readonly said: ModelTools,
    private readonly b: Bearings,
    programs: Iterable<Program>,
  ) {
    for (const program of programs) this.placesOf(program);
  }

  private placesOf(program: Program): Places {
    return keptIn(this.slots, program, () => {
      const device = thePart(this.b.rig, program.device);
      const own: number[] = [];
      const by = new Map<Device, number[]>();
      program.acts.forEach((act, place) => {
        if (!('send' in act)) own.push(place);
        else
          for (const [to, acts] of this.said.effects.answers.heard(device, act)) {
            keptIn(by, to, () => []).push(place);
            for (const { variable } of acts) keptIn(this.changes, to, () => new Set<string>()).add(variable);
          }
      });
      return { own, by };
    });
  }

  /** Not what happens, but on what it rests when a box may be busy: whatever it changes on being told something. */
  whenBusy(deaf: readonly Device[]): SystemEvent {
    return {
      id: 'busy',
      acts: deaf.flatMap((box): readonly SystemAct[] => {
        const when = [busyOf(box.id), ...(hasEar(box) ? [earOf(box.id)] : [])].map((variable) => ({
          variable,
          in: [],
        }));
        const loaded = [busyOf(box.id), ...box.memories.map((x) => ref(box.id, x.control))].map((variable) => ({
          variable,
          in: [],
        }));
        return [
          ...[...(this.changes.get(box) ?? [])].map((variable) => ({ variable, when, set: '' })),
          ...(hasEar(box) ? [{ variable: earOf(box.id), when: loaded, set: '' }] : []),
        ];
      }),
    };
  }

  /** Places of a slot's list that can come to one of these variables. */
  places(program: Program, inside: ReadonlySet<string>): readonly number[] {
    const { own, by } = this.placesOf(program);
    const boxes = keptIn(this.boxes, inside, () =>
      [...this.changes].flatMap(([device, changes]) => ([...changes].some((v) => inside.has(v)) ? [device] : [])),
    );
    const lists = [own, ...boxes.map((device) => by.get(device) ?? [])].filter((places) => places.length > 0);
    return lists.length > 1 ? [...new Set(lists.flat())].sort((a, z) => a - z) : (lists[0] ?? []);
  }
}

/** Stored slots that a step calls which is no sound's. */
const programsOf = ({ shelf }: ModelTools, step: Footstep): readonly Program[] =>
  step.does === 'call' ? [shelf.get(shelfKey(step.device, step.memory, step.slot))].filter((p) => p !== undefined) : [];

/**
 * An event before which all has settled. Of a sound that takes several stomps only the last is still going on after
 * it.
 */
const settledActs = (
  b: Bearings,
  said: ModelTools,
  event: SystemEvent,
  programs: readonly Program[],
  reset: readonly SystemAct[],
  busy: BusyTimes,
): readonly SystemAct[] => {
  const stomps = programs.length > 1 ? callActs(b, said.effects, programs) : [event.acts];
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
  private readonly heard = new Map<number, Map<Program, Hears>>();
  private readonly missing = new Map<readonly Reaching[], Map<number, ReturnType<HastyCall['missedUntil']>>>();
  private readonly reached: ReadonlyMap<Program, ReadonlyMap<Device, readonly Reaching[]>>;
  /** How soon a stomp must follow, in ms, for one more of its messages to be missed; the longest first. */
  readonly moments: readonly Moment[];

  constructor(
    private readonly b: Bearings,
    private readonly said: ModelTools,
    private readonly programs: readonly Program[],
    private readonly busy: BusyTimes,
  ) {
    const found = new Map<number, Set<Id<'device'>>>();
    this.reached = new Map(
      programs.map((p) => [p, new Map([...reaching(b, p.device, p.acts)].filter(([box]) => busy.of(box.id).length))]),
    );
    for (const [{ device: from, acts }, boxes] of this.reached) {
      for (const [box, messages] of boxes) {
        for (const { place, us } of messages) {
          const act = theItem(acts, place);
          for (const time of busy.of(box.id)) {
            const waitMs = Math.round(time.ms * 1000 - us) / 1000;
            if (waitMs > 0 && !('send' in act && isQueuedPast(time, ref(from, act.at), us)))
              found.set(waitMs, (found.get(waitMs) ?? new Set()).add(box.id));
          }
        }
      }
    }
    this.moments = [...found].sort(([a], [z]) => z - a).map(([waitMs, boxes]) => ({ waitMs, boxes: [...boxes] }));
  }

  /** What it does, as far as it counts, when each stomp follows just sooner than so many ms after the one before. */
  acts(
    waitMs: number,
    places: (program: Program) => readonly number[],
    within: (acts: readonly SystemAct[]) => readonly SystemAct[],
  ): readonly SystemAct[] {
    return this.programs.flatMap((program, i) => {
      const hearing = keptIn(
        keptIn(this.heard, waitMs, () => new Map<Program, Hears>()),
        program,
        () => this.hearing(program, waitMs),
      );
      const acts = allOf(slotLoading(this.b, this.said.effects, program, { hearing, places: places(program), within }));
      return i < this.programs.length - 1 ? [...acts, ...within(this.busy.goOn(program))] : acts;
    });
  }

  private hearing(program: Program, waitMs: number): Hears {
    const { device: from, acts } = program;
    const reached = theEntry(this.reached, program);
    const known = new Map<Device, readonly Hearing[]>();
    return (to) => {
      const messages = reached.get(to);
      if (!messages) return undefined;
      return keptIn(known, to, () => {
        const alike = new Map<string, { readonly values: string[]; readonly missed: Hearing['missed'] }>();
        for (const time of [undefined, ...this.busy.of(to.id)]) {
          const untilUs = time
            ? time.ms * 1000 - Math.max(waitMs * 1000 - 1, isSentOn(time, from, acts) ? time.wireMs * 1000 : 0)
            : 0;
          const { missed, text } = this.missedUntil(untilUs, messages, to);
          keptIn(alike, text, () => ({ values: [], missed })).values.push(time?.name ?? SETTLED);
        }
        return [...alike.values()].map(({ values, missed }) => ({
          when: alike.size > 1 ? this.busy.when(to.id, values) : [],
          missed,
        }));
      });
    };
  }

  /**
   * What a box misses while it is busy until then, with a text that says the same: worked out once for all moments
   * between the same messages.
   */
  private missedUntil(
    untilUs: number,
    messages: readonly Reaching[],
    to: Device,
  ): { readonly missed: Hearing['missed']; readonly text: string } {
    const early = messages.filter(({ us }) => us < untilUs).length;
    return keptIn(
      keptIn(this.missing, messages, () => new Map<number, ReturnType<HastyCall['missedUntil']>>()),
      early,
      () => {
        const missed = missedBy(to, messages, untilUs);
        return {
          missed,
          text: [...missed].map(([place, { first, depends }]) => `${place} ${first} ${depends?.only ?? ''}`).join(),
        };
      },
    );
  }
}

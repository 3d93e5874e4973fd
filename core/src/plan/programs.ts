import type { Edit } from '../change/edit.js';
import { setWant } from '../edits/sounds.js';
import { keptIn } from '../kept/kept.js';
import { theFirst, theItem } from '../known/the.js';
import type { Compilation } from '../recall/actuate/compile.js';
import type { Compiled } from '../recall/intend/compiled.js';
import { listeners } from '../recall/actuate/listeners.js';
import { theMemory } from '../rig/box.js';
import { makesSound, type Device, type Memory } from '../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../rig/ids.js';
import type { Program } from '../rig/program.js';
import { all, partOf, programAt, programsOf, thePart, type Rig } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';
import type { Value } from '../rig/value.js';
import { inFewMemories } from './few-memories.js';
import { agree, type Needed } from './fewest.js';
import type { Solver } from './solver.js';

/**
 * Which sounds get a program: those that cannot come back surely without, or every one, so that fewer messages are
 * sent.
 */
export type PlanFor = 'what needs one' | 'every sound';

export interface PlannedProgram {
  readonly number: number;
  readonly name: string;
  readonly contents: Readonly<Record<string, Value>>;
  readonly sounds: readonly Id<'sound'>[];
  /** Whether it stands in the box so already, holds something else there by an earlier plan, or is new. */
  readonly is: 'there' | 'changed' | 'new';
}

export interface PlannedBox {
  readonly device: Id<'device'>;
  readonly memory: string;
  readonly programs: readonly PlannedProgram[];
}

export interface ProgramPlan {
  readonly boxes: readonly PlannedBox[];
  readonly edit: Edit;
  /** Sounds that are left as they are, and why. */
  readonly left: readonly {
    readonly device: Id<'device'>;
    readonly sounds: readonly Id<'sound'>[];
    readonly why: 'disagree' | 'full' | 'shared channel';
    /** Of a full box: no other use of its memories leaves out what songs call less often. */
    readonly isProved?: boolean;
  }[];
}

/** What one sound needs of one box with programs. */
interface Need {
  readonly sound: Sound;
  readonly needed: Needed;
  /** The number that it calls already. */
  readonly calls: number | undefined;
  /** Something of it is turned over or done by hand without a program. */
  readonly isUnsure: boolean;
  /** A program change for this box makes another one load as well. */
  readonly crosstalk: boolean;
}

/**
 * Plans which program of each box holds what. Recall comes first: whatever only a toggle or a hand would set is put
 * into a program that its sound
 * calls. Then as few programs as possible, no number for two contents; what somebody wrote down is used where it fits
 * and never altered, and
 * what an earlier plan gave a number keeps it as long as its sounds still agree.
 */
export const planPrograms = (c: Compilation, planFor: PlanFor, solver?: Solver): ProgramPlan => {
  const { rig } = c.bearings;
  const boxes: PlannedBox[] = [];
  const left: ProgramPlan['left'][number][] = [];
  const programs: Program[] = [];
  const sounds = new Map<Id<'sound'>, Sound>();
  for (const device of all(rig, 'device')) {
    for (const memory of device.memories) {
      if (memory.inside || memory.stores.length === 0 || isCaller(c, device, memory)) continue;
      const needs = [...c.sounds.values()].flatMap((compiled) => needOf(c, compiled, device, memory) ?? []);
      const asking = needs.filter((n) => n.calls === undefined && (planFor === 'every sound' || n.isUnsure));
      if (asking.some((n) => n.crosstalk)) {
        left.push({ device: device.id, sounds: asking.map((n) => n.sound.id), why: 'shared channel' });
        continue;
      }
      const box = planBox(rig, device, memory, needs, planFor, left, solver);
      if (box.programs.length === 0) continue;
      boxes.push({ device: device.id, memory: memory.id, programs: box.programs });
      programs.push(...box.write);
      for (const { sound, number } of box.calls)
        sounds.set(
          sound.id,
          setWant(sounds.get(sound.id) ?? sound, { control: ref(device.id, memory.control), is: number }).put[0],
        );
    }
  }
  return { boxes, left, edit: { put: [...programs, ...sounds.values()], remove: [] } };
};

/** A memory from which sounds are called is filled by what they want; nothing is planned for it besides. */
const isCaller = (c: Compilation, device: Device, { id, by }: Memory): boolean =>
  by !== undefined &&
  (!makesSound(device) ||
    [...c.sounds.values()].some(({ stored }) =>
      stored.some(({ program }) => program.device === device.id && program.memory === id),
    ));

const needOf = (
  { bearings: b, ...c }: Compilation,
  compiled: Compiled,
  device: Device,
  memory: Memory,
): readonly Need[] | undefined => {
  const program = ref(device.id, memory.control);
  const called = compiled.wants.find((w) => w.control === program);
  const ways = compiled.stored.flatMap((s) => {
    const host = thePart(b.rig, s.program.device);
    return b.finder
      .from(
        host.id,
        theMemory(host, s.program.memory),
      )(program)
      .flatMap((w) => (w.by === 'program' ? [{ host: host.id, ...w }] : []));
  });
  if (ways.length === 0 || compiled.stored.some((s) => s.typed)) return undefined;
  const own = compiled.wants.filter(
    (w) =>
      splitRef(w.control).device === device.id &&
      memory.stores.includes(splitRef(w.control).name) &&
      w.why.by !== 'program',
  );
  if (own.length === 0) return undefined;
  const byHand = new Set(compiled.hand.map((h) => h.control).filter((h) => !c.leftAlone.has(h)));
  // A box that ignores a call of the program that it has does not undo a foot on it: the hand is the surer way there.
  if (memory.again === 'nothing' && own.some((w) => byHand.has(w.control))) return undefined;
  const loose = new Set([...compiled.toggled, ...byHand]);
  return [
    {
      sound: thePart(b.rig, compiled.sound),
      needed: Object.fromEntries(own.map((w) => [splitRef(w.control).name, w.value])),
      calls: called === undefined ? undefined : Number(called.value),
      isUnsure: own.some((w) => loose.has(w.control)),
      crosstalk: ways.some((w) =>
        listeners(b, w.host, w.at, { pc: 0, channel: w.channel }).some((l) => l.device.id !== device.id),
      ),
    },
  ];
};

/**
 * What a number holds that a person named and nobody wrote down stands in the box and is not known here: it is left
 * alone.
 */
const isOurs = (program: Program | undefined): program is Program =>
  program?.planned === true || program?.contents === 'unplanned';

interface PlanOfBox {
  readonly programs: readonly PlannedProgram[];
  /** Programs that are not in the rig yet, or otherwise. */
  readonly write: readonly Program[];
  /** Sounds that are to call another number than now. */
  readonly calls: readonly { readonly sound: Sound; readonly number: number }[];
}

const planBox = (
  rig: Rig,
  device: Device,
  memory: Memory,
  needs: readonly Need[],
  planFor: PlanFor,
  left: ProgramPlan['left'][number][],
  solver: Solver | undefined,
): PlanOfBox => {
  const { groups, free } = alreadyCalled(rig, device, memory, needs, planFor, left);
  const written = programsOf(rig, device.id, memory.id);
  const { there, still } = placedAlready(written, groups, free);
  const taken = new Set([
    ...written.map((p) => p.number),
    ...groups.map((g) => g.number),
    ...needs.flatMap((n) => n.calls ?? []),
  ]);
  const { out, isProved } = placeAnew(rig, memory, groups, still, taken, solver);
  if (out.length) left.push({ device: device.id, sounds: out.map((n) => n.sound.id), why: 'full', isProved });
  const planned = groups.map(({ number, needs: those, old }) => ({
    ...programFor(rig, device, memory, number, those, old),
    needs: those,
  }));
  const programs = [
    ...[...there].map(([p, those]) => inPlan(p, 'there', those)),
    ...planned.map(({ program, is, needs: those }) => inPlan(program, is, those)),
  ];
  const numbers = new Map([
    ...[...there].flatMap(([p, those]) => those.map((n) => [n.sound.id, p.number] as const)),
    ...planned.flatMap((p) => p.needs.map((n) => [n.sound.id, p.program.number] as const)),
  ]);
  return {
    programs: programs.sort((a, b) => a.number - b.number),
    write: planned.filter((p) => p.is !== 'there').map((p) => p.program),
    calls: callsToWrite(rig, ref(device.id, memory.control), needs, numbers),
  };
};

/** Sounds that share a number. */
interface Group {
  readonly number: number;
  readonly needs: Need[];
  readonly old: Program | undefined;
}

/**
 * Sounds that call a number of ours already, by that number; and those that are free to get one. Those that disagree
 * about a number are left as they are.
 */
const alreadyCalled = (
  rig: Rig,
  device: Device,
  memory: Memory,
  needs: readonly Need[],
  planFor: PlanFor,
  left: ProgramPlan['left'][number][],
): { readonly groups: Group[]; readonly free: readonly Need[] } => {
  const groups: Group[] = [];
  const torn = new Set<Group>();
  const free: Need[] = [];
  const asking = needs.filter((n) => n.calls === undefined && (planFor === 'every sound' || n.isUnsure));
  const getsOne = new Set(asking.map((n) => n.sound.id));
  for (const need of needs) {
    if (need.calls === undefined) {
      // Whoever is derived from a sound that gets a program would take it over.
      if (getsOne.has(need.sound.id) || forebears(rig, need.sound).some((id) => getsOne.has(id))) free.push(need);
      continue;
    }
    const old = programAt(rig, device.id, memory.id, need.calls);
    if (!isOurs(old)) continue;
    const group = groups.find((g) => g.number === need.calls);
    if (!group) groups.push({ number: need.calls, needs: [need], old });
    else if (group.needs.every((n) => agree(n.needed, need.needed))) group.needs.push(need);
    else if (old.planned) free.push(need);
    else {
      left.push({ device: device.id, sounds: [theFirst(group.needs).sound.id, need.sound.id], why: 'disagree' });
      torn.add(group);
    }
  }
  return { groups: groups.filter((g) => !torn.has(g)), free };
};

/**
 * Of the free ones those whom a written program fits, and those who are still without; whoever fits into a group joins
 * it.
 */
const placedAlready = (written: readonly Program[], groups: readonly Group[], free: readonly Need[]) => {
  const there = new Map<Program, Need[]>();
  const mayJoin = ({ needs, old }: Group, need: Need): boolean =>
    needs.every((n) => agree(n.needed, need.needed)) && (old === undefined || old.planned === true);
  const still = free.filter((need) => {
    const fits = written.find((p) => p.contents !== 'unplanned' && !p.planned && holdsAll(p.contents, need.needed));
    if (fits) {
      there.set(fits, [...(there.get(fits) ?? []), need]);
      return false;
    }
    const group = groups.find((g) => mayJoin(g, need));
    group?.needs.push(need);
    return !group;
  });
  return { there, still };
};

/** So long a solver looks at one box, in seconds. */
const SECONDS = 5;

/** How often songs call a sound; one that no song calls matters a little. */
const weightOf = (rig: Rig, { id }: Sound): number =>
  1 +
  1000 *
    all(rig, 'song').reduce((n, s) => n + s.cues.filter(({ call }) => 'sound' in call && call.sound === id).length, 0);

/** Gives the fewest free numbers to those who are still without. @returns those for whom no number is left */
const placeAnew = (
  rig: Rig,
  memory: Memory,
  groups: Group[],
  still: readonly Need[],
  taken: Set<number>,
  solver: Solver | undefined,
): { readonly out: readonly Need[]; readonly isProved: boolean } => {
  const made = new Map<number, Group>();
  const free = Array.from({ length: memory.size }, (_, n) => n).filter((n) => !taken.has(n));
  const place = (number: number): Group => {
    const group: Group = { number, needs: [], old: undefined };
    taken.add(number);
    groups.push(group);
    return group;
  };
  const { groups: together, isProved } = inFewMemories(
    still.map((n) => n.needed),
    still.map((n) => weightOf(rig, n.sound)),
    free.length,
    solver,
    SECONDS,
  );
  const out = still.filter((need, i) => {
    const which = together[i];
    if (which === undefined) return true;
    keptIn(made, which, () => place(theItem(free, made.size))).needs.push(need);
    return false;
  });
  return { out, isProved };
};

const inPlan = (
  { number, name, contents }: Program,
  is: PlannedProgram['is'],
  needs: readonly Need[],
): PlannedProgram => ({
  number,
  name,
  contents: contents as PlannedProgram['contents'],
  sounds: needs.map((n) => n.sound.id),
  is,
});

/** Which sounds have to call a number that they do not call yet, or that they would now take over from another. */
const callsToWrite = (
  rig: Rig,
  control: Ref,
  needs: readonly Need[],
  numbers: ReadonlyMap<Id<'sound'>, number>,
): PlanOfBox['calls'] => {
  const moves = new Set(
    needs.filter((n) => numbers.has(n.sound.id) && numbers.get(n.sound.id) !== n.calls).map((n) => n.sound.id),
  );
  const takesOver = (sound: Sound): boolean =>
    !saysItself(sound, control) && forebears(rig, sound).some((id) => moves.has(id));
  return needs.flatMap(({ sound }) => {
    const number = numbers.get(sound.id);
    return number !== undefined && (moves.has(sound.id) || takesOver(sound)) ? [{ sound, number }] : [];
  });
};

const saysItself = (sound: Sound, control: Ref): boolean =>
  sound.wants.some((w) => 'control' in w && w.control === control);

const forebears = (rig: Rig, sound: Sound): readonly Id<'sound'>[] => {
  const line: Id<'sound'>[] = [];
  for (let up = sound.parent; up && !line.includes(up); up = partOf(rig, up)?.parent) line.push(up);
  return line;
};

const freeId = (rig: Rig, id: Id<'program'>): Id<'program'> => (partOf(rig, id) ? freeId(rig, `${id}b`) : id);

const holdsAll = (contents: Readonly<Record<string, Value>>, needed: Needed): boolean =>
  Object.entries(needed).every(([c, v]) => String(contents[c]) === String(v));

/** The program of a group: what its sounds need. What none of them names is left to whoever dials it in. */
const programFor = (
  rig: Rig,
  device: Device,
  memory: Memory,
  number: number,
  needs: readonly Need[],
  old: Program | undefined,
): { readonly program: Program; readonly is: PlannedProgram['is'] } => {
  const needed: Needed = Object.assign({}, ...needs.map((n) => n.needed));
  const before = old && old.contents !== 'unplanned' ? old.contents : {};
  const contents = Object.fromEntries(
    memory.stores.flatMap((c) => {
      const value = needed[c] ?? before[c];
      return value === undefined ? [] : [[c, value]];
    }),
  );
  const { sound } = theFirst(needs);
  const name = old?.name || [...(sound.display ?? sound.name)].slice(0, memory.limits?.nameLength ?? 120).join('');
  const program: Program = {
    kind: 'program',
    id: old?.id ?? freeId(rig, `program:${device.id.slice(7, 47)}-${number}`),
    device: device.id,
    memory: memory.id,
    number,
    name,
    contents,
    acts: old?.acts ?? [],
    assigns: old?.assigns ?? [],
    planned: true,
  };
  return {
    program,
    is: !old ? 'new' : old.contents !== 'unplanned' && holdsAll(old.contents, contents) ? 'there' : 'changed',
  };
};

import { keptIn, lazily, once } from '../kept/kept.js';
import { cutTo, powerUpSpeaker, sameSigns, type Cut } from './cut.js';
import { Merging } from './merging.js';
import { project } from './projection.js';
import { search, type Outcome, type Searched, type StatePath } from './search.js';
import { stand, type Standing } from './standing.js';
import { powerUpOf, type RecallSystem, type SystemSound, type SystemState, type SystemWant } from './system.js';

/** States searched in one cone before it is called undecided. */
export const USUAL_BUDGET = 5_000_000;

export interface Footsteps {
  readonly powerUp: SystemState;
  /** Ids of events; the last is the sound's recall. */
  readonly events: readonly string[];
}

export type Verdict =
  | { readonly is: 'proved' }
  | {
      readonly is: 'broken';
      readonly length: number;
      readonly wrong: readonly WrongWant[];
      /** Wanted variables of which it is not known whether they can end wrong too. */
      readonly open?: readonly string[];
    }
  | { readonly is: 'undecided'; readonly because: string };

export interface WrongWant {
  readonly variable: string;
  readonly wanted: string;
  /** Length of the shortest sequence that ends with this want wrong. */
  readonly length: number;
  readonly example: () => Footsteps;
}

interface ConeProof {
  readonly cut: Cut;
  /** Place of the judged variable in its cone. */
  readonly at: number;
  readonly found: Searched;
}

/** What a sound's wants fall short of; a variable that is not in it is proved. */
type Shortfalls = ReadonlyMap<string, Short>;

interface Proof {
  readonly budget: number;
  readonly standing: Standing;
  readonly cones: ReadonlyMap<string, ConeProof>;
  readonly shortfalls: readonly Shortfalls[];
  readonly verdicts: readonly Verdict[];
}

/**
 * What was proved before: a proof after an edit judges again only what rests on a changed variable, and searches
 * again only
 * cones that are new. Holds two generations of searches.
 */
export class ProofMemory {
  last: Proof | undefined;
  private current = new Map<string, Known[]>();
  private previous = new Map<string, Known[]>();

  nextProof(): void {
    this.previous = this.current;
    this.current = new Map();
  }

  recall(cut: Cut, make: () => Searched): Searched {
    const alike = ({ cut: other }: Known) => other === cut || sameSigns(other, cut);
    const now = keptIn(this.current, cut.text, () => []);
    const known = now.find(alike);
    if (known) return known.found;
    const found = this.previous.get(cut.text)?.find(alike)?.found ?? make();
    now.push({ cut, found });
    return found;
  }
}

interface Known {
  readonly cut: Cut;
  readonly found: Searched;
}

const PROVED: Verdict = { is: 'proved' };

/**
 * The verdict of every sound: proved when in every reachable state its recall leaves all its wants true.
 * Searched breadth-first over each wanted variable's cone of influence alone, which is exact and keeps all lengths.
 * A system must be sound in itself (`wrongInSystem` is empty).
 */
export const prove = (
  system: RecallSystem,
  budget = USUAL_BUDGET,
  memory = new ProofMemory(),
): ReadonlyMap<string, Verdict> => {
  const before = memory.last?.budget === budget ? memory.last : undefined;
  const standing = stand(system, before?.standing);
  const cones = proveCones(standing, budget, memory, before);
  const eventIndex = new Map(system.events.map((e, i) => [e.id, i]));
  const shortfalls = system.sounds.map((sound, i) =>
    judge(
      sound,
      eventIndex.get(sound.recall)!,
      standing,
      cones,
      before?.standing.system.sounds[i] === sound ? before.shortfalls[i] : undefined,
    ),
  );
  const like = before && comesUpAlike(before.standing.system, system) ? before : undefined;
  const verdicts = system.sounds.map(
    (sound, i) =>
      (like && verdictAsBefore(like, standing, i, shortfalls[i]!)) ??
      verdictOf(sound, shortfalls[i]!, standing, cones, budget),
  );
  memory.last = { budget, standing, cones, shortfalls, verdicts };
  return new Map(system.sounds.map((sound, i) => [sound.id, verdicts[i]!]));
};

const alike = <T>(a: readonly T[], b: readonly T[], same = (x: T, y: T): boolean => x === y): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => same(x, b[i]!)));

/** Whether two systems come up alike: then the same way leads through both. */
const comesUpAlike = (a: RecallSystem, b: RecallSystem): boolean =>
  alike(a.variables, b.variables, (v, w) => v === w || (v.id === w.id && alike(v.initial, w.initial))) &&
  alike(
    a.together ?? [],
    b.together ?? [],
    (g, h) =>
      g === h || (alike(g.variables, h.variables) && alike(g.rows, h.rows, (x: readonly string[], y) => alike(x, y))),
  );

/** The very verdict of before, where the sound is the same and falls short of the same: nobody works it through again. */
const verdictAsBefore = (before: Proof, { system }: Standing, i: number, now: Shortfalls): Verdict | undefined => {
  const then = before.shortfalls[i];
  const isSame =
    before.standing.system.sounds[i] === system.sounds[i] &&
    then?.size === now.size &&
    [...now].every(([variable, short]) => then.get(variable) === short);
  return isSame ? before.verdicts[i] : undefined;
};

const proveCones = (
  standing: Standing,
  budget: number,
  memory: ProofMemory,
  before: Proof | undefined,
): ReadonlyMap<string, ConeProof> => {
  const { system, variables, writers, wanted, asBefore } = standing;
  memory.nextProof();
  const about = powerUpSpeaker(system);
  const merging = new Merging(variables, wanted);
  const cones = new Map<string, ConeProof>();
  for (const variable of wanted.keys()) {
    const known = asBefore.has(variable) ? before?.cones.get(variable) : undefined;
    if (known) {
      memory.recall(known.cut, () => known.found);
      cones.set(variable, known);
      continue;
    }
    const cone = standing.cones.get(variable)!;
    const judged = cone
      .filter((v) => wanted.has(v))
      .map((v) => `${v}:${[...wanted.get(v)!.keys()].sort().join(',')}`)
      .join('|');
    const cut = cutTo(system, cone, writers, about, `${budget} ${judged}`);
    cones.set(variable, {
      cut,
      at: cone.indexOf(variable),
      found: memory.recall(cut, () => search(project(system, cut, merging), budget)),
    });
  }
  return cones;
};

const wantsBy = once(
  (sound: SystemSound): ReadonlyMap<string, SystemWant> => new Map(sound.wants.map((w) => [w.variable, w])),
);

type Short = Outcome | 'undecided';

/**
 * What a sound falls short of; of a sound that is the same as before only what rests on changed variables is judged
 * again.
 */
const judge = (
  sound: SystemSound,
  recall: number,
  { asBefore, redone }: Standing,
  cones: ReadonlyMap<string, ConeProof>,
  before: Shortfalls | undefined,
): Shortfalls => {
  const shortfalls = new Map([...(before ?? [])].filter(([variable]) => asBefore.has(variable)));
  const look = (want: SystemWant): void => {
    const { variable } = want;
    const { cut, at, found } = cones.get(variable)!;
    const short = found.otherThan(want, cut.memberOf[recall]!, at) ?? (found.done ? undefined : 'undecided');
    if (short) shortfalls.set(variable, short);
  };
  if (before) {
    const wants = wantsBy(sound);
    for (const variable of redone) if (wants.has(variable)) look(wants.get(variable)!);
  } else sound.wants.forEach(look);
  return shortfalls;
};

const verdictOf = (
  sound: SystemSound,
  shortfalls: Shortfalls,
  standing: Standing,
  cones: ReadonlyMap<string, ConeProof>,
  budget: number,
): Verdict => {
  if (shortfalls.size === 0) return PROVED;
  const wrong = sound.wants.flatMap(({ variable, value }): WrongWant[] => {
    const short = shortfalls.get(variable);
    return short && short !== 'undecided'
      ? [
          {
            variable,
            wanted: value,
            length: short.length,
            example: lazily(() => inWords(standing, cones.get(variable)!, short.way(), sound.recall)),
          },
        ]
      : [];
  });
  if (wrong.length) {
    const open = sound.wants.filter((w) => shortfalls.get(w.variable) === 'undecided').map((w) => w.variable);
    return { is: 'broken', length: Math.min(...wrong.map((w) => w.length)), wrong, ...(open.length ? { open } : {}) };
  }
  const { variable } = sound.wants.find((w) => shortfalls.has(w.variable))!;
  return {
    is: 'undecided',
    because: `${variable} depends on ${cones.get(variable)!.cut.cone.length - 1} others, with more than ${budget.toLocaleString('en')} states to search.`,
  };
};

/**
 * A way through merged values and classes as power-up values and events of the system; what lies outside the cone
 * takes its first power-up value.
 */
const inWords = ({ system }: Standing, { cut, found }: ConeProof, way: StatePath, recall: string): Footsteps => {
  const { names, merged, classOf } = found.projection;
  const inCone = new Map(cut.cone.map((id, i) => [id, i]));
  const powerUp = powerUpOf(system, (variable, value) => {
    const i = inCone.get(variable);
    return i === undefined || merged[i]!.get(value) === names[i]!.indexOf(way.start[i]!);
  });
  return { powerUp, events: [...way.classes.map((c) => cut.members[classOf.indexOf(c)]!.event.id), recall] };
};

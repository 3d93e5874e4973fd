import type { Id } from '../../rig/ids.js';
import { lazily } from '../../kept/kept.js';
import type { Footstep } from '../model/happenings.js';
import { prove, USUAL_BUDGET, type Footsteps, type Verdict, type WrongWant } from '../../prover/prove.js';
import { powerUpOf, type RecallSystem, type SystemSound } from '../../prover/system.js';
import { theEntry } from '../../known/the.js';

/** What the usual proof leaves out: each is proved apart. */
export type Mishap = 'late release' | 'first press' | 'hasty feet' | 'lost message' | 'turned knob';

/** What one judged event of a question stands for. */
export interface Asked {
  readonly sound: Id<'sound'>;
  readonly move?: Id<'move'>;
  /** The press that is judged: the first gives the on list, the second its off list. */
  readonly press?: 'first' | 'second';
  /** Right if the player waits so long, should this one be wrong. */
  readonly waitMs?: number;
  /** The sound is stomped a second time. */
  readonly again?: true;
}

/** What is judged when more can happen: systems that share nothing that is judged. */
export interface Question {
  readonly about: Mishap;
  /** What the systems are cut from. */
  readonly ground: RecallSystem;
  readonly systems: readonly RecallSystem[];
  readonly steps: ReadonlyMap<string, Footstep>;
  /** By the id of the judged sound of the system. */
  readonly asked: ReadonlyMap<string, Asked>;
  /**
   * Sounds of which this cannot be worked out: boxes that hear them tell others what to do, or share a wire with what
   * they say.
   */
  readonly beyond?: readonly Asked[];
}

/** One sound that goes wrong, or a move in it, with every want that can end wrong. */
export interface RecallTrouble extends Asked {
  /** The judged sound of the question's system. */
  readonly id: string;
  readonly system: RecallSystem;
  readonly wants: readonly WrongWant[];
}

export interface Reply {
  readonly about: Mishap;
  readonly question: Question;
  readonly judged: number;
  readonly troubles: readonly RecallTrouble[];
  /** Judged sounds whose cone is too large. */
  readonly undecided: readonly Asked[];
}

/**
 * Proves what a question asks, one system at a time, so that a caller can pause or stop between them. Wants that are
 * wrong without any mishap are not told again.
 */
export function* replying(
  question: Question,
  usual: ReadonlyMap<string, Verdict>,
  budget = USUAL_BUDGET,
): Generator<void, Reply> {
  const troubles = new Map<string, RecallTrouble>();
  const undecided = new Map<string, Asked>();
  for (const system of question.systems) {
    const verdicts = prove(system, budget);
    for (const [id, verdict] of verdicts) {
      const asked = theEntry(question.asked, id);
      if (verdict.is === 'undecided') undecided.set(id, asked);
      if (verdict.is !== 'broken') continue;
      const before = asked.press ? undefined : usual.get(asked.sound);
      const known = before?.is === 'broken' ? before.wrong.map((w) => w.variable) : [];
      const wants = verdict.wrong
        .filter((w) => !known.includes(w.variable))
        .map((w) => ({ ...w, example: lazily(() => onGround(question.ground, w.example())) }));
      if (wants.length)
        troubles.set(id, { ...asked, id, system, wants: [...(troubles.get(id)?.wants ?? []), ...wants] });
    }
    yield;
  }
  return {
    about: question.about,
    question,
    judged: question.asked.size,
    troubles: [...question.asked.keys()].flatMap((id) => troubles.get(id) ?? []),
    undecided: [...undecided.values(), ...(question.beyond ?? [])],
  };
}

/** The same with the power-up of what was cut away. */
const onGround = (ground: RecallSystem, { powerUp, events }: Footsteps): Footsteps => ({
  powerUp: { ...powerUpOf(ground, (variable, value) => (powerUp[variable] ?? value) === value), ...powerUp },
  events,
});

/** The last word of something that is done piece by piece. */
export const finish = <T>(pieces: Generator<void, T>): T => {
  for (;;) {
    const { done, value } = pieces.next();
    if (done) return value;
  }
};

export const reply = (question: Question, usual: ReadonlyMap<string, Verdict>, budget?: number): Reply =>
  finish(replying(question, usual, budget));

/** The wants of a sound on some variables only; undefined when none is left. */
export const wantsOn = (sound: SystemSound, variables: ReadonlySet<string>): SystemSound['wants'] | undefined => {
  const wants = sound.wants.filter((w) => variables.has(w.variable));
  return wants.length ? wants : undefined;
};

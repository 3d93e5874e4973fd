import { soundHere } from '../../recall/intend/wants.js';
import type { Footstep } from '../../recall/model/happenings.js';
import { replying, type Mishap, type RecallTrouble } from '../../recall/what-if/question.js';
import { QUESTIONS, neverHealed } from '../../recall/what-if/what-if.js';
import type { SystemState } from '../../prover/system.js';
import { controlText, sayFootsteps, slotText, valueText, type SaidStep } from '../../recall/words/words.js';
import { theRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { surely, theOne } from '../../known/the.js';

/** One sound that an evening out of the ordinary leaves wrong, or a move in it. Plain data. */
export interface TroubleView {
  readonly id: string;
  readonly sound: Id<'sound'>;
  readonly name: string;
  readonly slot: string;
  readonly move?: string;
  readonly press?: 'first' | 'second';
  /** Right if the player waits so long after the stomp before. */
  readonly waitMs?: number;
  /** A second stomp does not bring it back either. */
  readonly never?: true;
  readonly controls: readonly string[];
  readonly control: Ref;
  readonly text: string;
  readonly wanted: string;
  readonly steps: readonly SaidStep[];
  readonly powerUp: SystemState;
}

export interface WhatIfView {
  readonly about: Mishap;
  readonly judged: number;
  readonly troubles: readonly TroubleView[];
  /** Names of sounds that depend on too much to be decided. */
  readonly undecided: readonly string[];
  /** Why there is no answer; it never keeps the other questions from theirs. */
  readonly fault?: string;
}

export interface Answered {
  readonly view: WhatIfView;
  /** The steps that its troubles are made of, by the ids of their events. */
  readonly steps: ReadonlyMap<string, Footstep>;
}

/**
 * Asks and answers one question piece by piece, so that a caller can stop between them; says how much of it is done,
 * from 0 to 1.
 */
export function* answering(d: Derived, about: Mishap): Generator<number, Answered> {
  try {
    return yield* answers(d, about);
  } catch (e) {
    return {
      steps: new Map(),
      view: { about, judged: 0, troubles: [], undecided: [], fault: e instanceof Error ? e.message : String(e) },
    };
  }
}

function* answers(d: Derived, about: Mishap): Generator<number, Answered> {
  const { compilation, modelled, verdicts, rig } = d;
  yield 0;
  const question = theOne(QUESTIONS, (q) => q.about === about).ask(compilation, modelled);
  const pieces = replying(question, verdicts);
  let done = 0;
  let piece = pieces.next();
  while (!piece.done) {
    done += 1;
    yield done / question.systems.length;
    piece = pieces.next();
  }
  const reply = piece.value;
  const never: ReadonlySet<string> = about === 'lost message' ? neverHealed(reply, verdicts) : new Set();
  const name = (sound: Id<'sound'>) => partOf(rig, sound)?.name ?? sound;
  return {
    steps: question.steps,
    view: {
      about,
      judged: reply.judged,
      undecided: reply.undecided.map((u) => name(u.sound)),
      troubles: longestWaits(reply.troubles).map((t): TroubleView => {
        const [first] = [...t.wants].sort((a, b) => a.length - b.length);
        const control = theRef(surely(first).variable);
        const footsteps = surely(first).example();
        const sound = partOf(rig, t.sound);
        return {
          id: t.id,
          sound: t.sound,
          name: name(t.sound),
          slot: sound ? slotText(rig, soundHere(rig, sound, compilation.bearings.hookup.id)) : '',
          ...(t.move ? { move: partOf(rig, t.move)?.name ?? t.move } : {}),
          ...(t.press ? { press: t.press } : {}),
          ...(t.waitMs === undefined ? {} : { waitMs: t.waitMs }),
          ...(never.has(t.sound) ? { never: true as const } : {}),
          controls: t.wants.map((w) => controlText(rig, theRef(w.variable))),
          control,
          text: controlText(rig, control),
          wanted: valueText(rig, control, surely(first).wanted),
          steps: sayFootsteps(rig, { system: t.system, steps: question.steps }, footsteps, control),
          powerUp: footsteps.powerUp,
        };
      }),
    },
  };
}

/** Of the moments at which a sound would be called too early, the last. */
const longestWaits = (troubles: readonly RecallTrouble[]): readonly RecallTrouble[] =>
  troubles.filter(
    (t) =>
      t.waitMs === undefined ||
      t === troubles.filter((o) => o.sound === t.sound).reduce((a, b) => ((b.waitMs ?? 0) > (a.waitMs ?? 0) ? b : a)),
  );

import type { Compilation } from '../actuate/compile.js';
import type { Modelled } from '../model/model.js';
import type { Verdict } from '../../prover/prove.js';
import { hastyFeet } from './hasty.js';
import { turnedKnob } from './knobs.js';
import { lostMessage, stompedAgain } from './lost.js';
import { firstPress, lateRelease } from './press.js';
import { reply, type Mishap, type Question, type Reply } from './question.js';
import { theOne } from '../../known/the.js';

/** What is asked beside the usual proof, in the order in which it is told. */
export const QUESTIONS: readonly { readonly about: Mishap; readonly ask: (c: Compilation, m: Modelled) => Question }[] =
  [
    { about: 'late release', ask: lateRelease },
    { about: 'first press', ask: firstPress },
    { about: 'hasty feet', ask: hastyFeet },
    { about: 'lost message', ask: lostMessage },
    { about: 'turned knob', ask: turnedKnob },
  ];

/** Asks and answers one of them. */
export const whatIf = (about: Mishap, c: Compilation, m: Modelled, verdicts: ReadonlyMap<string, Verdict>): Reply =>
  reply(theOne(QUESTIONS, (q) => q.about === about).ask(c, m), verdicts);

/**
 * Of the sounds that a lost message leaves wrong at the next stomp, those that a second stomp does not bring back
 * either.
 */
export const neverHealed = (lost: Reply, verdicts: ReadonlyMap<string, Verdict>): ReadonlySet<string> =>
  new Set(
    lost.troubles.length
      ? reply(
          stompedAgain(
            lost.question,
            lost.troubles.map((t) => t.sound),
          ),
          verdicts,
        ).troubles.map((t) => t.sound)
      : [],
  );

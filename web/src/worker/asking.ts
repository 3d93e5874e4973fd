import { checkWire, type WireCheck } from '@yunta/core/derive/views/wire-check';
import { readingCapture } from '@yunta/core/formats/capture';
import type { Refusal } from '@yunta/core/rig/result';
import { answering, type Answered, type WhatIfView } from '@yunta/core/derive/views/what-ifs';
import type { Mishap } from '@yunta/core/recall/what-if/question';
import { QUESTIONS } from '@yunta/core/recall/what-if/what-if';
import type { Footstep } from '@yunta/core/recall/model/happenings';
import type { Modelled } from '@yunta/core/recall/model/model';
import { boardRows, type Transition } from '@yunta/core/recall/verdict/transitions';
import type { Id } from '@yunta/core/rig/ids';
import { keptIn } from '@yunta/core/kept/kept';
import { type Held } from './held.js';

/** Lets the worker do what else it was asked. */
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));
/** A capture compared, or why it could not be read. */
export type WireAnswer =
  { readonly check: WireCheck; readonly notes: readonly string[] } | { readonly refused: readonly Refusal[] };

const A_FRAME_MS = 16;

/** Questions that take long: answered piece by piece, so that others come in between, and given up when the rig has changed. */
export class Asking {
  constructor(private readonly held: Held) {}

  private readonly answered = new WeakMap<Modelled, Map<Mishap, Answered>>();

  /** Counts the rounds of questions: a round that is not the last one stops. */
  private round = 0;

  /**
   * What a controller really sent, beside what it should send. A long capture is read piece by piece; other questions
   * come in between.
   */
  async checkWire(
    controller: Id<'device'>,
    capture: Uint8Array,
    reading: (share: number) => void = () => undefined,
  ): Promise<WireAnswer | undefined> {
    const pieces = readingCapture(capture);
    let piece = pieces.next();
    for (; !piece.done; piece = pieces.next()) {
      reading(piece.value);
      await pause();
    }
    const read = piece.value;
    if (!this.held.derived) return undefined;
    return read.ok
      ? { check: checkWire(this.held.derived, controller, read.value.messages), notes: read.value.notes }
      : { refused: read.error };
  }

  /**
   * Every pair of sounds, with pauses in which the worker does what else it is asked; empty when something else was
   * derived meanwhile.
   */
  async board(): Promise<readonly Transition[]> {
    const { derived } = this.held;
    if (!derived) return [];
    const found: (readonly Transition[])[] = [];
    let since = performance.now();
    for (const row of boardRows(derived.compilation, derived.modelled)) {
      found.push(row);
      if (performance.now() - since < A_FRAME_MS) continue;
      await pause();
      if (this.held.derived !== derived) return [];
      since = performance.now();
    }
    return found.flat();
  }

  /**
   * What the usual proof leaves out, one question after the other, with pauses in which the worker does what else it
   * is asked.
   * @param tell is told each answer, and how much of the round is done, from 0 to 1
   * @returns false when it was stopped: by `stopAsking`, by another round, or because something else was derived
   * meanwhile
   */
  async whatIfs(tell: (answer: WhatIfView | undefined, done: number) => void): Promise<boolean> {
    const { derived } = this.held;
    if (!derived) return false;
    const round = (this.round += 1);
    const { modelled } = derived;
    const known = keptIn(this.answered, modelled, () => new Map<Mishap, Answered>());
    for (const [i, { about }] of QUESTIONS.entries()) {
      let answer = known.get(about);
      for (const pieces = answering(derived, about); !answer;) {
        const piece = pieces.next();
        if (piece.done) answer = piece.value;
        else tell(undefined, (i + piece.value) / QUESTIONS.length);
        await pause();
        if (this.round !== round || this.held.derived?.modelled !== modelled) return false;
      }
      known.set(about, answer);
      tell(answer.view, (i + 1) / QUESTIONS.length);
    }
    return true;
  }

  stopAsking(): void {
    this.round += 1;
  }

  /** A footstep of an answer, by the id of its event. */
  stepOf(modelled: Modelled, event: string): Footstep | undefined {
    return [...(this.answered.get(modelled)?.values() ?? [])].map((a) => a.steps.get(event)).find(Boolean);
  }
}

import { deltaOf, patch } from '@yunta/core/change/delta';
import type { Bench } from '@yunta/core/bench/bench';
import type { Edit } from '@yunta/core/change/edit';
import { consequences, type Consequences } from '@yunta/core/derive/consequences';
import type { FootGesture } from '@yunta/core/bench/box';
import { benchView, momentOf, type BenchView, type Moment } from '@yunta/core/derive/bench-view';
import { faultsOf, goWrong, type Fault, type SaidFault } from '@yunta/core/derive/faults';
import { Deriver, type Derived } from '@yunta/core/derive/deriver';
import { sideBySide, type SideBySide } from '@yunta/core/derive/side-by-side';
import { programPlan, type ProgramPlanView } from '@yunta/core/derive/program-plan';
import type { PlanFor } from '@yunta/core/plan/programs';
import { songHands, type SongHands } from '@yunta/core/derive/songs';
import { soundDetail, type SoundDetail } from '@yunta/core/derive/sound-detail';
import { gainStages, type GainStage } from '@yunta/core/electric/gain';
import { setUpBench, takeStep } from '@yunta/core/derive/play';
import { termsOf, type Terms } from '@yunta/core/derive/terms';
import {
  expectable,
  pedalStep,
  playedText,
  standingTests,
  stompStep,
  turnStep,
  type Expectable,
  type PlayedStep,
  type TestResult,
} from '@yunta/core/derive/standing-tests';
import { typeIn, type TypeBox } from '@yunta/core/derive/type-in';
import { tried, type TriedRemedy } from '@yunta/core/derive/tried';
import { soundRun, soundTrace, storedView, viewOf, type StoredView, type View } from '@yunta/core/derive/view';
import { checkWire, sendingControllers, shouldSend, type WireCheck } from '@yunta/core/derive/wire-check';
import { readCableTable, readKitTable } from '@yunta/core/formats/tables';
import { readingCapture, writeHexText, writeMidiFile } from '@yunta/core/formats/capture';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { placeText, stepText, valueText } from '@yunta/core/recall/words';
import { answering, type Answered, type WhatIfView } from '@yunta/core/derive/what-ifs';
import type { Mishap } from '@yunta/core/recall/what-if/question';
import { QUESTIONS } from '@yunta/core/recall/what-if/what-if';
import { limbsOf, type Limbs } from '@yunta/core/recall/verdict-words';
import { tally, type Tally } from '@yunta/core/recall/sound-verdict';
import type { Footstep } from '@yunta/core/recall/happenings';
import type { Modelled } from '@yunta/core/recall/model';
import type { SystemState } from '@yunta/core/prover/system';
import { boardRows, differences, type Changed, type Transition } from '@yunta/core/recall/transitions';
import type { Id, Ref } from '@yunta/core/rig/ids';
import { keptIn } from '@yunta/core/kept/kept';
import { all, rigOf, soundsInOrder, type Part, type Rig } from '@yunta/core/rig/rig';
import { litBy, mapOf, type Lit, type RoutingMap } from '@yunta/core/signal/map';
import type { Item } from '@yunta/core/signal/picture';
import { newPartId } from '../session/ids.js';
import { surely } from '@yunta/core/known/the';

/** Lets the worker do what else it was asked. */
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** What a person does on the bench. */
export type BenchAct =
  | { readonly stomp: string; readonly device: Id<'device'>; readonly gesture: FootGesture }
  | { readonly pedal: string; readonly device: Id<'device'>; readonly byte: number }
  | { readonly turn: Ref; readonly to: number }
  | { readonly step: string; /** The next one follows so soon, settled or not. */ readonly nextMs?: number }
  | Fault;

export interface HookupStanding {
  readonly hookup: Id<'hookup'>;
  readonly tally: Tally;
  readonly limbs: Limbs;
  /** Findings that ask to be seen to. */
  readonly pressing: number;
}

/** A capture compared, or why it could not be read. */
export type WireAnswer =
  { readonly check: WireCheck; readonly notes: readonly string[] } | { readonly refused: readonly Refusal[] };

const A_FRAME_MS = 16;

/**
 * Lives in the worker: holds its own copy of the rig, brought up to date by edits, and everything that follows from
 * it.
 */
export class Deriving {
  private rig: Rig = rigOf([]);
  private readonly deriver = new Deriver();
  private derived: Derived | undefined;
  private bench: { readonly bench: Bench; readonly of: Derived } | undefined;
  private stompedAt = 0;
  private before: Moment | undefined;
  private steps: PlayedStep[] = [];
  /** The next thing that is done follows at once. */
  private hurried = false;
  private readonly answered = new WeakMap<Modelled, Map<Mishap, Answered>>();
  /** Counts the rounds of questions: a round that is not the last one stops. */
  private round = 0;
  /** Something that no test can do again went wrong since power-up. */
  private faulty = false;

  load(parts: readonly Part[]): void {
    this.rig = rigOf(parts);
    this.derived = undefined;
    this.bench = undefined;
  }

  /** Brings the copy up to date and derives. @returns undefined when the rig has no such hook-up */
  update(edit: Edit, hookup: Id<'hookup'>): View | undefined {
    this.rig = patch(this.rig, deltaOf(this.rig, edit));
    this.derived = this.deriver.derive(this.rig, hookup);
    return this.derived && viewOf(this.derived);
  }

  /** How the sounds stand in each hook-up. */
  standings(): readonly HookupStanding[] {
    return all(this.rig, 'hookup').flatMap(({ id }) => {
      const derived = this.deriver.derive(this.rig, id);
      return derived
        ? [
            {
              hookup: id,
              tally: tally(derived.answers),
              limbs: limbsOf(derived.answers.values()),
              pressing: derived.judgement.findings.filter((f) => !f.accepted && f.severity !== 'note').length,
            },
          ]
        : [];
    });
  }

  /** What the hook-up asks of all its sounds, and what they do. */
  terms(): Terms | undefined {
    return this.derived && termsOf(this.derived);
  }

  /** What every box must hold, to be typed in and ticked off. */
  typeIn(): readonly TypeBox[] {
    return this.derived ? typeIn(this.derived) : [];
  }

  /** Which program of each box is to hold what. */
  programPlan(planFor: PlanFor): ProgramPlanView | undefined {
    return this.derived && programPlan(this.derived, planFor);
  }

  /** Who sends MIDI in this hook-up. */
  controllers(): ReturnType<typeof sendingControllers> {
    return this.derived ? sendingControllers(this.derived) : [];
  }

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
    if (!this.derived) return undefined;
    return read.ok
      ? { check: checkWire(this.derived, controller, read.value.messages), notes: read.value.notes }
      : { refused: read.error };
  }

  /** Boxes or cables from a pasted table, for a rig as the page has it. */
  readTable(of: 'kit' | Id<'hookup'>, parts: readonly Part[], text: string): Result<Edit, readonly Refusal[]> {
    const rig = rigOf(parts);
    return of === 'kit'
      ? readKitTable(rig, text, () => newPartId('device'))
      : readCableTable(rig, of, text, () => newPartId('cable'));
  }

  shouldSend(controller: Id<'device'>): { readonly text: string; readonly midi: Uint8Array<ArrayBuffer> } {
    const messages = this.derived ? shouldSend(this.derived, controller) : [];
    return { text: writeHexText(messages), midi: new Uint8Array(writeMidiFile(messages)) };
  }

  /** What an edit would bring, before it is made. */
  consequences(edit: Edit): Consequences | undefined {
    return this.derived && consequences(this.derived, edit);
  }

  map(): RoutingMap | undefined {
    return this.derived && mapOf(this.derived.rig, this.derived.anatomy);
  }

  /** What a sound lights on the map; without one, what sounds with the rig at rest. */
  lit(sound?: Id<'sound'>): Lit | undefined {
    return this.derived && litBy(soundTrace(this.derived, sound));
  }

  run(sound?: Id<'sound'>): readonly Item[] {
    return this.derived ? soundRun(this.derived, sound) : [];
  }

  /** Two sounds, or one in two hook-ups, lined up. */
  sideBySide(
    a: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> },
    b: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> },
  ): SideBySide | undefined {
    const side = ({ sound, hookup }: typeof a) => {
      const derived = hookup === this.derived?.hookup.id ? this.derived : this.deriver.derive(this.rig, hookup);
      return derived && { derived, sound };
    };
    const [left, right] = [side(a), side(b)];
    return left && right && sideBySide(left, right);
  }

  gainStages(): readonly GainStage[] {
    return this.derived ? gainStages(this.derived.rig, this.derived.anatomy) : [];
  }

  /** Order, ends, level and pedals of a sound. */
  songHands(): readonly SongHands[] {
    return this.derived ? songHands(this.derived) : [];
  }

  soundDetail(sound: Id<'sound'>): SoundDetail | undefined {
    return this.derived && soundDetail(this.derived, sound);
  }

  stored(sound: Id<'sound'>): readonly StoredView[] {
    return this.derived ? storedView(this.derived, sound) : [];
  }

  remedies(fingerprint: string): readonly TriedRemedy[] {
    const finding = this.derived?.judgement.findings.find((f) => f.fingerprint === fingerprint);
    return this.derived && finding ? tried(this.derived, finding) : [];
  }

  /**
   * Every pair of sounds, with pauses in which the worker does what else it is asked; empty when something else was
   * derived meanwhile.
   */
  async board(): Promise<readonly Transition[]> {
    const { derived } = this;
    if (!derived) return [];
    const found: (readonly Transition[])[] = [];
    let since = performance.now();
    for (const row of boardRows(derived.compilation, derived.modelled)) {
      found.push(row);
      if (performance.now() - since < A_FRAME_MS) continue;
      await pause();
      if (this.derived !== derived) return [];
      since = performance.now();
    }
    return found.flat();
  }

  changes(from: Id<'sound'>, to: Id<'sound'>): readonly Changed[] {
    return this.derived ? differences(this.derived.compilation, from, to) : [];
  }

  /** The bench with the power just on. */
  powerUp(state: SystemState = {}): BenchView | undefined {
    if (!this.derived) return undefined;
    this.bench = { bench: setUpBench(this.derived, state), of: this.derived };
    this.steps = [];
    this.faulty = false;
    this.hurried = false;
    this.stompedAt = performance.now();
    this.before = undefined;
    return this.look();
  }

  /**
   * The bench as it stands, when what was derived since leaves all that is on it as it is; undefined when it must be
   * set up anew.
   */
  goOn(): BenchView | undefined {
    const [on, now] = [this.bench, this.derived];
    if (!on || !now || on.of.modelled !== now.modelled) return undefined;
    this.bench = { bench: on.bench, of: now };
    return this.later();
  }

  /**
   * One stomp, or one footstep of a counterexample by the id of its event.
   * @param live time on the bench goes by as it does outside: the answer comes at once, and `later` tells how it went
   * on
   */
  act(act: BenchAct, live = false): BenchView | undefined {
    if (!this.bench) return this.powerUp();
    const { bench, of } = this.bench;
    this.passTime();
    this.hurried = false;
    const isHasty = live && !bench.quiet;
    const before = momentOf(of, bench);
    const heard = bench.heard.length;
    if (live) bench.hurry(0);
    if ('fault' in act) {
      this.faulty = true;
      goWrong(of, bench, act);
    } else if ('step' in act) this.takeStep(act);
    else if ('pedal' in act) bench.pedal(act.device, act.pedal, act.byte);
    else if ('turn' in act) bench.turn(act.turn, act.to);
    else bench.stomp(act.device, act.stomp, act.gesture);
    bench.hurry();
    // Letting go of a switch that does not mind leaves what the press did to be seen.
    const isNothing =
      'stomp' in act &&
      act.gesture !== 'press' &&
      bench.heard.length === heard &&
      [...bench.state()].every(([control, value]) => before.state.get(control) === value);
    if (!isNothing) this.before = before;
    if (isHasty && !isNothing) this.faulty = true;
    const view = this.look();
    if ('stomp' in act) this.remember(act, view?.sound?.id);
    if ('pedal' in act) this.follow(pedalStep(act.device, act.pedal, act.byte));
    if ('turn' in act) this.follow(turnStep(act.turn, act.to));
    return view;
  }

  private takeStep({ step: id, nextMs }: Extract<BenchAct, { step: string }>): void {
    const { bench, of } = surely(this.bench);
    const usual = of.modelled.steps.get(id);
    const step =
      usual ?? [...(this.answered.get(of.modelled)?.values() ?? [])].map((a) => a.steps.get(id)).find(Boolean);
    if (step) takeStep(of, bench, step, nextMs);
    this.hurried = nextMs !== undefined;
    if (usual && !this.hurried) this.steps.push(id);
    else this.faulty = true;
  }

  /** A pedal on its way is remembered where it came to rest. */
  private follow(step: PlayedStep): void {
    const place = (s: PlayedStep) => s.slice(0, s.lastIndexOf(' '));
    if (place(this.steps.at(-1) ?? '') === place(step)) this.steps.pop();
    this.steps.push(step);
  }

  /** Time on the bench goes by as it does outside, but stands still before a footstep that follows in a hurry. */
  private passTime(): void {
    const now = performance.now();
    if (!this.hurried) this.bench?.bench.wait(Math.max(0, (now - this.stompedAt) * 1000));
    this.stompedAt = now;
  }

  /** No footstep is to follow any more: what stood still before one goes on. */
  playFreely(): BenchView | undefined {
    this.passTime();
    this.hurried = false;
    return this.look();
  }

  /** How the bench stands by now, after time has gone by. */
  later(): BenchView | undefined {
    this.passTime();
    return this.look();
  }

  /** How a control stands on the bench. */
  stands(control: Ref): string | undefined {
    return this.bench && valueText(this.bench.of.rig, control, this.bench.bench.value(control) ?? '');
  }

  /**
   * What the usual proof leaves out, one question after the other, with pauses in which the worker does what else it
   * is asked.
   * @param tell is told each answer, and how much of the round is done, from 0 to 1
   * @returns false when it was stopped: by `stopAsking`, by another round, or because something else was derived
   * meanwhile
   */
  async whatIfs(tell: (answer: WhatIfView | undefined, done: number) => void): Promise<boolean> {
    const { derived } = this;
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
        if (this.round !== round || this.derived?.modelled !== modelled) return false;
      }
      known.set(about, answer);
      tell(answer.view, (i + 1) / QUESTIONS.length);
    }
    return true;
  }

  stopAsking(): void {
    this.round += 1;
  }

  /** What can go wrong, in words. */
  faults(): readonly SaidFault[] {
    return this.derived ? faultsOf(this.derived) : [];
  }

  /** What the monitor has shown, as text and as a MIDI file. */
  monitor(): { readonly text: string; readonly midi: Uint8Array<ArrayBuffer> } {
    const heard =
      this.bench?.bench.heard.flatMap((h) => (h.is === 'message' ? [{ ...h.read, ms: h.at / 1000 }] : [])) ?? [];
    return { text: writeHexText(heard), midi: new Uint8Array(writeMidiFile(heard)) };
  }

  /**
   * A switch that calls a sound is remembered by the sound, so that it is found again when it has moved to another
   * slot.
   */
  private remember(
    { device, stomp, gesture }: Extract<BenchAct, { stomp: string }>,
    sound: Id<'sound'> | undefined,
  ): void {
    const calls = this.rig.parts.device.get(device)?.memories.some((m) => m.switches?.includes(stomp));
    if (!calls) this.steps.push(stompStep(device, stomp, gesture));
    else if (gesture === 'press' && sound) this.steps.push(`recall:${sound}`);
  }

  /** What was done since power-up, and what could be expected of where it led. */
  played():
    | {
        readonly faulty: boolean;
        readonly steps: readonly { readonly step: PlayedStep; readonly text: string }[];
        readonly expects: readonly Expectable[];
      }
    | undefined {
    if (!this.bench) return undefined;
    const { bench, of } = this.bench;
    return {
      faulty: this.faulty,
      steps: this.steps.map((step) => ({ step, text: playedText(of, step) ?? step })),
      expects: expectable(of, bench, this.look()?.sound?.id),
    };
  }

  /** Every standing test of the hook-up, played anew. */
  standingTests(): readonly TestResult[] {
    return this.derived ? standingTests(this.derived) : [];
  }

  /** Sounds that a list or a timeline calls, where no foot does, by the id of its event. */
  calls(): readonly { readonly event: string; readonly text: string }[] {
    const { derived } = this;
    return derived
      ? soundsInOrder(derived.rig).flatMap((sound) => {
          const event = [...derived.modelled.steps].find(([, s]) => s.does === 'recall' && s.sound === sound.id)?.[0];
          return event ? [{ event, text: placeText(derived.rig, sound) }] : [];
        })
      : [];
  }

  /** What else can happen to the rig, in words, by the id of its event. */
  mishaps(): readonly { readonly event: string; readonly text: string; readonly does: Footstep['does'] }[] {
    const { derived } = this;
    if (!derived) return [];
    return [...derived.modelled.steps]
      .filter(([, s]) => s.does === 'foot' || s.does === 'power')
      .map(([event, s]) => ({ event, text: stepText(derived.rig, s), does: s.does }));
  }

  private look(): BenchView | undefined {
    if (!this.bench) return undefined;
    const view = benchView(this.bench.of, this.bench.bench, this.before);
    return this.hurried ? { ...view, busy: false } : view;
  }
}

import type { Bench } from '@yunta/core/bench/bench';
import type { FootGesture } from '@yunta/core/bench/box';
import { benchView, momentOf, type BenchView, type Moment } from '@yunta/core/derive/views/bench-view';
import { goWrong, type Fault } from '@yunta/core/derive/play/faults';
import { type Derived } from '@yunta/core/derive/steps/deriver';
import { setUpBench, takeStep } from '@yunta/core/derive/play/play';
import {
  expectable,
  pedalStep,
  playedText,
  stompStep,
  turnStep,
  type Expectable,
  type PlayedStep,
} from '@yunta/core/derive/play/standing-tests';
import { writeHexText, writeMidiFile } from '@yunta/core/formats/capture';
import { valueText } from '@yunta/core/recall/words/words';
import type { SystemState } from '@yunta/core/prover/system';
import type { Id, Ref } from '@yunta/core/rig/ids';
import { surely } from '@yunta/core/known/the';
import { type Held } from './held.js';
import { type Asking } from './asking.js';

/** What a person does on the bench. */
export type BenchAct =
  | { readonly stomp: string; readonly device: Id<'device'>; readonly gesture: FootGesture }
  | { readonly pedal: string; readonly device: Id<'device'>; readonly byte: number }
  | { readonly turn: Ref; readonly to: number }
  | { readonly step: string; /** The next one follows so soon, settled or not. */ readonly nextMs?: number }
  | Fault;

/** What was done on the bench since power-up, and what could be expected of where it led. */
export interface Played {
  /** Something that no test can do again went wrong. */
  readonly faulty: boolean;
  readonly steps: readonly { readonly step: PlayedStep; readonly text: string }[];
  readonly expects: readonly Expectable[];
}

/** The bench as somebody plays it: time goes by, what was done is remembered. */
export class BenchPlay {
  private bench: { readonly bench: Bench; readonly of: Derived } | undefined;
  private stompedAt = 0;
  private before: Moment | undefined;
  private steps: PlayedStep[] = [];
  /** The next thing that is done follows at once. */
  private hurried = false;
  /** Something that no test can do again went wrong since power-up. */
  private faulty = false;

  constructor(
    private readonly held: Held,
    private readonly asking: Asking,
  ) {
    held.whenLoaded(() => {
      this.bench = undefined;
    });
  }

  /** The bench with the power just on. */
  powerUp(state: SystemState = {}): BenchView | undefined {
    if (!this.held.derived) return undefined;
    this.bench = { bench: setUpBench(this.held.derived, state), of: this.held.derived };
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
    const [on, now] = [this.bench, this.held.derived];
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
    const step = usual ?? this.asking.stepOf(of.modelled, id);
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
    const calls = this.held.rig.parts.device.get(device)?.memories.some((m) => m.switches?.includes(stomp));
    if (!calls) this.steps.push(stompStep(device, stomp, gesture));
    else if (gesture === 'press' && sound) this.steps.push(`recall:${sound}`);
  }

  /** What was done since power-up, and what could be expected of where it led. */
  played(): Played | undefined {
    if (!this.bench) return undefined;
    const { bench, of } = this.bench;
    return {
      faulty: this.faulty,
      steps: this.steps.map((step) => ({ step, text: playedText(of, step) ?? step })),
      expects: expectable(of, bench, this.look()?.sound?.id),
    };
  }

  private look(): BenchView | undefined {
    if (!this.bench) return undefined;
    const view = benchView(this.bench.of, this.bench.bench, this.before);
    return this.hurried ? { ...view, busy: false } : view;
  }
}

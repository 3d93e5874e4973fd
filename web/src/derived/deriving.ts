import { deltaOf, patch } from '@yunta/core/change/delta';
import type { Bench } from '@yunta/core/bench/bench';
import type { Edit } from '@yunta/core/change/edit';
import { consequences, type Consequences } from '@yunta/core/derive/consequences';
import { benchView, type BenchView } from '@yunta/core/derive/bench-view';
import { Deriver, type Derived } from '@yunta/core/derive/deriver';
import { sideBySide, type SideBySide } from '@yunta/core/derive/side-by-side';
import { gainStages, type GainStage } from '@yunta/core/electric/gain';
import { setUpBench, takeStep } from '@yunta/core/derive/play';
import { termsOf, type Terms } from '@yunta/core/derive/terms';
import { expectable, playedText, standingTests, stompStep, type Expectable, type PlayedStep, type TestResult } from '@yunta/core/derive/standing-tests';
import { typeIn, type TypeBox } from '@yunta/core/derive/type-in';
import { tried, type TriedRemedy } from '@yunta/core/derive/tried';
import { soundRun, soundTrace, storedView, viewOf, type StoredView, type View } from '@yunta/core/derive/view';
import { checkWire, sendingControllers, shouldSend, type WireCheck } from '@yunta/core/derive/wire-check';
import { readCapture, writeHexText, writeMidiFile } from '@yunta/core/formats/capture';
import type { Refusal } from '@yunta/core/rig/result';
import { placeText, stepText, valueText } from '@yunta/core/recall/words';
import { answering, type Answered, type WhatIfView } from '@yunta/core/derive/what-ifs';
import type { Mishap } from '@yunta/core/recall/what-if/question';
import { QUESTIONS } from '@yunta/core/recall/what-if/what-if';
import { tally, type Tally } from '@yunta/core/recall/summary';
import type { Footstep } from '@yunta/core/recall/happenings';
import type { SystemState } from '@yunta/core/recall/system';
import { differences, transitions, type Changed, type Transition } from '@yunta/core/recall/transitions';
import { ref, splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import type { Cable } from '@yunta/core/rig/hookup';
import { all, rigOf, soundsInOrder, type Part, type Rig } from '@yunta/core/rig/rig';
import type { Value } from '@yunta/core/rig/value';
import { litBy, mapOf, type Lit, type RoutingMap } from '@yunta/core/signal/map';
import { anatomy } from '@yunta/core/signal/anatomy';
import { cablesInOrder } from '@yunta/core/signal/order';
import type { Item } from '@yunta/core/signal/picture';

/** What a person does on the bench. */
export type BenchAct = { readonly stomp: string; readonly device: Id<'device'>; readonly gesture: 'press' | 'release' } | { readonly step: string; /** The next one follows so soon, settled or not. */ readonly nextMs?: number } | Fault;

/** What goes wrong on stage. */
export type Fault =
  | { readonly fault: 'pull'; readonly cable: Id<'cable'> }
  | { readonly fault: 'swap'; readonly cables: readonly [Id<'cable'>, Id<'cable'>]; readonly at: Id<'device'> }
  | { readonly fault: 'lose a byte' }
  | { readonly fault: 'corrupt a byte' }
  | { readonly fault: 'channel'; readonly device: Id<'device'> }
  | { readonly fault: 'spare'; readonly device: Id<'device'> };

export interface HookupStanding {
  readonly hookup: Id<'hookup'>;
  readonly tally: Tally;
  /** Findings that ask to be seen to. */
  readonly pressing: number;
}

/** A capture compared, or why it could not be read. */
export type WireAnswer = { readonly check: WireCheck; readonly notes: readonly string[] } | { readonly refused: readonly Refusal[] };

/** Plugs of one kind that stand side by side at one box, and so are exchanged in the dark. */
const swaps = ({ rig, anatomy: { wiring } }: Derived): readonly { readonly text: string; readonly fault: Fault }[] => all(rig, 'device').filter((d) => wiring.wired.has(d.id)).flatMap((d) => {
  const plugged = d.jacks.flatMap((jack) => all(rig, 'cable').filter((c) => wiring.plugged.has(ref(d.id, jack.id)) && c.ends.includes(ref(d.id, jack.id)) && splitRef(c.ends[0]).device !== splitRef(c.ends[1]).device).slice(0, 1).map((cable) => ({ jack, cable })));
  return plugged.flatMap(({ jack, cable }, i) => {
    const next = plugged.slice(i + 1).find((o) => o.jack.kind === jack.kind && o.jack.connector === jack.connector && JSON.stringify(o.jack.poles) === JSON.stringify(jack.poles));
    return next ? [{ text: `${d.code}: the plugs in ${jack.id} and ${next.jack.id} are exchanged`, fault: { fault: 'swap' as const, cables: [cable.id, next.cable.id] as const, at: d.id } }] : [];
  });
});

/** Lives in the worker: holds its own copy of the rig, brought up to date by edits, and everything that follows from it. */
export class Deriving {
  private rig: Rig = rigOf([]);
  private readonly deriver = new Deriver();
  private derived: Derived | undefined;
  private bench: { readonly bench: Bench; readonly of: Derived } | undefined;
  private stompedAt = 0;
  private before: ReadonlyMap<Ref, Value> = new Map();
  private steps: PlayedStep[] = [];
  /** The next thing that is done follows at once. */
  private hurried = false;
  private readonly answered = new WeakMap<Derived, Map<Mishap, Answered>>();
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
      return derived ? [{ hookup: id, tally: tally(derived.verdicts), pressing: derived.judgement.findings.filter((f) => !f.accepted && f.severity !== 'note').length }] : [];
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

  /** Who sends MIDI in this hook-up. */
  controllers(): ReturnType<typeof sendingControllers> {
    return this.derived ? sendingControllers(this.derived) : [];
  }

  /** What a controller really sent, beside what it should send. */
  checkWire(controller: Id<'device'>, capture: Uint8Array): WireAnswer | undefined {
    if (!this.derived) return undefined;
    const read = readCapture(capture);
    return read.ok ? { check: checkWire(this.derived, controller, read.value.messages), notes: read.value.notes } : { refused: read.error };
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
  sideBySide(a: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> }, b: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> }): SideBySide | undefined {
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

  stored(sound: Id<'sound'>): readonly StoredView[] {
    return this.derived ? storedView(this.derived, sound) : [];
  }

  remedies(fingerprint: string): readonly TriedRemedy[] {
    const finding = this.derived?.judgement.findings.find((f) => f.fingerprint === fingerprint);
    return this.derived && finding ? tried(this.derived, finding) : [];
  }

  board(): readonly Transition[] {
    return this.derived ? transitions(this.derived.compilation, this.derived.modelled) : [];
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
    this.stompedAt = performance.now();
    this.before = new Map();
    return this.look();
  }

  /** One stomp, or one footstep of a counterexample by the id of its event. */
  act(act: BenchAct): BenchView | undefined {
    if (!this.bench) return this.powerUp();
    const { bench, of } = this.bench;
    const now = performance.now();
    if (!this.hurried) bench.wait(Math.max(0, (now - this.stompedAt) * 1000));
    this.hurried = false;
    this.stompedAt = now;
    this.before = bench.state();
    if ('fault' in act) this.goWrong(act);
    else if ('step' in act) {
      const usual = of.modelled.steps.get(act.step);
      const step = usual ?? [...this.answered.get(of)?.values() ?? []].map((a) => a.reply.question.steps.get(act.step)).find(Boolean);
      if (step) takeStep(of, bench, step, act.nextMs);
      this.hurried = act.nextMs !== undefined;
      if (usual && !this.hurried) this.steps.push(act.step);
      else this.faulty = true;
    } else bench.stomp(act.device, act.stomp, act.gesture);
    const view = this.look();
    if ('stomp' in act) this.remember(act, view?.sound?.id);
    return view;
  }

  /** How a control stands on the bench. */
  stands(control: Ref): string | undefined {
    return this.bench && valueText(this.bench.of.rig, control, this.bench.bench.value(control) ?? '');
  }

  /**
   * What the usual proof leaves out, one question after the other, with pauses in which the worker does what else it is asked.
   * @param tell is told each answer, and how much of the round is done, from 0 to 1
   * @returns false when it was stopped: by `stopAsking`, by another round, or because something else was derived meanwhile
   */
  async whatIfs(tell: (answer: WhatIfView | undefined, done: number) => void): Promise<boolean> {
    const { derived } = this;
    if (!derived) return false;
    const round = this.round += 1;
    const known = this.answered.get(derived) ?? new Map<Mishap, Answered>();
    this.answered.set(derived, known);
    for (const [i, { about }] of QUESTIONS.entries()) {
      let answer = known.get(about);
      for (const pieces = answering(derived, about); !answer;) {
        const piece = pieces.next();
        if (piece.done) answer = piece.value;
        else tell(undefined, (i + piece.value) / QUESTIONS.length);
        await new Promise((resolve) => setTimeout(resolve));
        if (this.round !== round || this.derived !== derived) return false;
      }
      known.set(about, answer);
      tell(answer.view, (i + 1) / QUESTIONS.length);
    }
    return true;
  }

  stopAsking(): void {
    this.round += 1;
  }

  private goWrong(fault: Fault): void {
    const { bench, of } = this.bench!;
    this.faulty = true;
    if (fault.fault === 'lose a byte') return bench.loseByte();
    if (fault.fault === 'corrupt a byte') return bench.corruptByte();
    if (fault.fault === 'swap') return this.swap(fault);
    if (fault.fault === 'spare') return bench.spare(fault.device);
    if (fault.fault === 'channel') {
      const channel = of.rig.parts.device.get(fault.device)?.midi?.channel;
      return bench.mischannel(fault.device, typeof channel === 'number' ? (channel % 16) + 1 : 1);
    }
    const cable = of.rig.parts.cable.get(fault.cable);
    if (!cable) return;
    bench.pull(cable);
    const rig = patch(of.rig, deltaOf(of.rig, { put: [], remove: [cable.id] }));
    this.bench = { bench, of: { ...of, rig, anatomy: anatomy(rig, of.hookup) } };
  }

  private swap({ cables, at }: Extract<Fault, { fault: 'swap' }>): void {
    const { bench, of } = this.bench!;
    const [one, other] = cables.map((id) => of.rig.parts.cable.get(id));
    if (!one || !other) return;
    bench.swap(one, other, at);
    const here = (c: Cable) => c.ends.find((e) => splitRef(e).device === at)!;
    const plugged = (c: Cable, jack: Ref): Cable => ({ ...c, ends: [jack, c.ends.find((e) => splitRef(e).device !== at)!] });
    const rig = patch(of.rig, deltaOf(of.rig, { put: [plugged(one, here(other)), plugged(other, here(one))], remove: [] }));
    this.bench = { bench, of: { ...of, rig, anatomy: anatomy(rig, of.hookup) } };
  }

  /** What can go wrong, in words: cables, and boxes that listen to MIDI. */
  faults(): readonly { readonly text: string; readonly fault: Fault }[] {
    const { derived } = this;
    if (!derived) return [];
    const jack = (r: Ref) => `${derived.rig.parts.device.get(splitRef(r).device)?.code ?? ''} ${splitRef(r).name}`;
    const listening = all(derived.rig, 'device').filter((x) => x.midi && x.memories.length && derived.control.midi.size);
    return [
      { text: 'A byte is lost on the wire', fault: { fault: 'lose a byte' } }, { text: 'A byte arrives wrong', fault: { fault: 'corrupt a byte' } },
      ...listening.flatMap((x) => [
        { text: `${x.name}: its channel switch is one off`, fault: { fault: 'channel' as const, device: x.id } }, { text: `${x.name}: its spare, with factory programs`, fault: { fault: 'spare' as const, device: x.id } },
      ]),
      ...swaps(derived),
      ...cablesInOrder(derived.rig, derived.anatomy).map(({ cable, from, to }) => ({ text: `The cable from ${jack(from)} to ${jack(to)} is pulled`, fault: { fault: 'pull' as const, cable: cable.id } })),
    ];
  }

  /** What the monitor has shown, as text and as a MIDI file. */
  monitor(): { readonly text: string; readonly midi: Uint8Array<ArrayBuffer> } {
    const heard = this.bench?.bench.heard.flatMap((h) => (h.is === 'message' ? [{ ...h.read, ms: h.at / 1000 }] : [])) ?? [];
    return { text: writeHexText(heard), midi: new Uint8Array(writeMidiFile(heard)) };
  }

  /** A switch that calls a sound is remembered by the sound, so that it is found again when it has moved to another slot. */
  private remember({ device, stomp, gesture }: Extract<BenchAct, { stomp: string }>, sound: Id<'sound'> | undefined): void {
    const calls = this.rig.parts.device.get(device)?.memories.some((m) => m.switches?.includes(stomp));
    if (!calls) this.steps.push(stompStep(device, stomp, gesture));
    else if (gesture === 'press' && sound) this.steps.push(`recall:${sound}`);
  }

  /** What was done since power-up, and what could be expected of where it led. */
  played(): { readonly faulty: boolean; readonly steps: readonly { readonly step: PlayedStep; readonly text: string }[]; readonly expects: readonly Expectable[] } | undefined {
    if (!this.bench) return undefined;
    const { bench, of } = this.bench;
    return { faulty: this.faulty, steps: this.steps.map((step) => ({ step, text: playedText(of, step) ?? step })), expects: expectable(of, bench, this.look()?.sound?.id) };
  }

  /** Every standing test of the hook-up, played anew. */
  standingTests(): readonly TestResult[] {
    return this.derived ? standingTests(this.derived) : [];
  }

  /** Sounds that a list or a timeline calls, where no foot does, by the id of its event. */
  calls(): readonly { readonly event: string; readonly text: string }[] {
    const { derived } = this;
    return derived ? soundsInOrder(derived.rig).flatMap((sound) => {
      const event = [...derived.modelled.steps].find(([, s]) => s.does === 'recall' && s.sound === sound.id)?.[0];
      return event ? [{ event, text: placeText(derived.rig, sound) }] : [];
    }) : [];
  }

  /** What else can happen to the rig, in words, by the id of its event. */
  mishaps(): readonly { readonly event: string; readonly text: string; readonly does: Footstep['does'] }[] {
    const { derived } = this;
    if (!derived) return [];
    return [...derived.modelled.steps].filter(([, s]) => s.does === 'foot' || s.does === 'power').map(([event, s]) => ({ event, text: stepText(derived.rig, s), does: s.does }));
  }

  private look(): BenchView | undefined {
    return this.bench && benchView(this.bench.of, this.bench.bench, this.before);
  }
}

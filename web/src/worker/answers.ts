import { monitorEnds, monitorMixes, type MixView, type MonitorEnd } from '@yunta/core/derive/views/monitor-mix';
import { spareNeeds, type SpareNeed } from '@yunta/core/derive/views/spares';
import { soundHere } from '@yunta/core/recall/intend/wants';
import type { Edit } from '@yunta/core/change/edit';
import { consequences, type Consequences } from '@yunta/core/derive/views/consequences';
import { faultsOf, type SaidFault } from '@yunta/core/derive/play/faults';
import { sideBySide, type SideBySide } from '@yunta/core/derive/views/side-by-side';
import { programPlan, type ProgramPlanView } from '@yunta/core/derive/views/program-plan';
import { mainsOf, type Mains } from '@yunta/core/derive/views/mains';
import type { PlanFor } from '@yunta/core/plan/programs';
import { runAfter, type RunAfter } from '@yunta/core/derive/views/card';
import { inputList, type InputLine } from '@yunta/core/derive/views/input-list';
import { frontsIn, type FrontView } from '@yunta/core/derive/views/front-view';
import { levelsOf, matchedByNumbers, type LevelsView } from '@yunta/core/derive/views/levels';
import { buildOrder, type BuildStep } from '@yunta/core/derive/views/build-order';
import { gigBoxes, type GigBox } from '@yunta/core/derive/views/gig';
import { failuresSheet, type FailuresSheet } from '@yunta/core/derive/views/failures-sheet';
import {
  failsOf,
  failureLines,
  failureOf,
  withHands,
  type FailureLine,
  type FailureView,
} from '@yunta/core/derive/views/fails';
import { faultFinder, type FaultFinder } from '@yunta/core/derive/views/fault-finder';
import { lineCheck, type CheckLine } from '@yunta/core/derive/views/line-check';
import { laidOut } from '@yunta/core/board/laid-out';
import { leadLengths, type LeadLength } from '@yunta/core/board/lengths';
import { leadsIn, type LeadView } from '@yunta/core/derive/views/leads';
import { levelsShown, type LevelsShown } from '@yunta/core/derive/views/levels-shown';
import { soundLevels, type WayLevels } from '@yunta/core/derive/views/sound-levels';
import { speakersOf, type TapView } from '@yunta/core/derive/views/speakers-view';
import { soundDetail, type SoundDetail } from '@yunta/core/derive/views/sound-detail';
import { gainStages, type GainStage } from '@yunta/core/electric/gain';
import { termsOf, type Terms } from '@yunta/core/derive/views/terms';
import { standingTests, type TestResult } from '@yunta/core/derive/play/standing-tests';
import { typeIn, type TypeBox } from '@yunta/core/derive/views/type-in';
import { tried, type TriedRemedy } from '@yunta/core/derive/views/tried';
import { soundRun, soundTrace, storedView, type StoredView } from '@yunta/core/derive/views/view';
import { sendingControllers, shouldSend } from '@yunta/core/derive/views/wire-check';
import { readCableTable } from '@yunta/core/formats/tables';
import { writeHexText, writeMidiFile } from '@yunta/core/formats/capture';
import type { Refusal, Result } from '@yunta/core/rig/result';
import { placeText, stepText } from '@yunta/core/recall/words/words';
import { limbsOf, type Limbs } from '@yunta/core/recall/words/verdict-words';
import { tally, type Tally } from '@yunta/core/recall/verdict/sound-verdict';
import type { Footstep } from '@yunta/core/recall/model/happenings';
import { onFoot, type OnFoot } from '@yunta/core/derive/views/on-foot';
import { differences, type Changed } from '@yunta/core/recall/verdict/transitions';
import {
  dryPath,
  boxUse,
  withAndWithout,
  type DryPath,
  type Look,
  type UseOfBox,
  type WithAndWithout,
} from '@yunta/core/derive/views/without';
import { footChange, type FootChangeDetail } from '@yunta/core/derive/views/foot-change';
import { provedWith } from '@yunta/core/derive/views/switcher-tried';
import { latchedIn, type Latched } from '@yunta/core/derive/views/latched';
import { withMaybe } from '@yunta/core/known/maybe';
import type { Id } from '@yunta/core/rig/ids';
import { all, rigOf, soundsInOrder, type Part } from '@yunta/core/rig/rig';
import { litBy, mapOf, type Lit, type RoutingMap } from '@yunta/core/signal/drawing/map';
import type { Item } from '@yunta/core/signal/drawing/picture';
import { newPartId } from '../session/ids.js';
import { type Held } from './held.js';
import { loadSolver } from './solver.js';

export interface HookupStanding {
  readonly hookup: Id<'hookup'>;
  readonly tally: Tally;
  readonly limbs: Limbs;
  /** Findings that ask to be seen to. */
  readonly pressing: number;
}

/** What follows from the rig as the worker has it, asked for by a room: answered at once, as plain data. */
export class Answers {
  constructor(private readonly held: Held) {}

  /** How the sounds stand in each hook-up. */
  standings(): readonly HookupStanding[] {
    return all(this.held.rig, 'hookup').flatMap(({ id }) => {
      const derived = this.held.deriver.derive(this.held.rig, id);
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

  /** What an edit would make of the way through the hook-up, as a drawing. */
  runAfter(edit: Edit): RunAfter | undefined {
    const { derived, rig } = this.held;
    return derived && runAfter(rig, derived.hookup.id, edit);
  }

  /** Every line into the house, for its engineer. */
  inputList(): readonly InputLine[] {
    return this.held.derived ? inputList(this.held.derived) : [];
  }

  /** What the hook-up asks of all its sounds, and what they do. */
  terms(): Terms | undefined {
    return this.held.derived && termsOf(this.held.derived);
  }

  /** What the feet have to do on a board that nothing calls. */
  onFoot(): OnFoot | undefined {
    const { derived } = this.held;
    const feet = derived && onFoot(derived.compilation);
    return (
      feet && {
        ...feet,
        switchers: feet.switchers.map((s) => withMaybe(s, 'proved', provedWith(derived, s.loops, s.boxes))),
      }
    );
  }

  /** What every box must hold, to be typed in and ticked off. */
  typeIn(): readonly TypeBox[] {
    return this.held.derived ? typeIn(this.held.derived) : [];
  }

  /** Which program of each box is to hold what. */
  async programPlan(planFor: PlanFor): Promise<ProgramPlanView | undefined> {
    const solver = await loadSolver();
    return this.held.derived && programPlan(this.held.derived, planFor, solver);
  }

  /** Mains plugs and batteries of the kit. */
  mains(): Mains {
    return mainsOf(this.held.rig);
  }

  /** Who sends MIDI in this hook-up. */
  controllers(): ReturnType<typeof sendingControllers> {
    return this.held.derived ? sendingControllers(this.held.derived) : [];
  }

  /** Cables from a pasted table, for a rig as the page has it. */
  readCables(hookup: Id<'hookup'>, parts: readonly Part[], text: string): Result<Edit, readonly Refusal[]> {
    return readCableTable(rigOf(parts), hookup, text, () => newPartId('cable'));
  }

  shouldSend(controller: Id<'device'>): { readonly text: string; readonly midi: Uint8Array<ArrayBuffer> } {
    const messages = this.held.derived ? shouldSend(this.held.derived, controller) : [];
    return { text: writeHexText(messages), midi: new Uint8Array(writeMidiFile(messages)) };
  }

  /** What an edit would bring, before it is made. */
  consequences(edit: Edit): Consequences | undefined {
    return this.held.derived && consequences(this.held.derived, edit);
  }

  map(): RoutingMap | undefined {
    return this.held.derived && mapOf(this.held.derived.rig, this.held.derived.anatomy);
  }

  /** What a sound lights on the map; without one, what sounds with the rig at rest. */
  lit(sound?: Id<'sound'>): Lit | undefined {
    return this.held.derived && litBy(soundTrace(this.held.derived, sound));
  }

  run(sound?: Id<'sound'>): readonly Item[] {
    return this.held.derived ? soundRun(this.held.derived, sound) : [];
  }

  /** Two sounds, or one in two hook-ups, lined up. */
  sideBySide(
    a: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> },
    b: { readonly sound: Id<'sound'>; readonly hookup: Id<'hookup'> },
  ): SideBySide | undefined {
    const side = ({ sound, hookup }: typeof a) => {
      const derived =
        hookup === this.held.derived?.hookup.id ? this.held.derived : this.held.deriver.derive(this.held.rig, hookup);
      return derived && { derived, sound };
    };
    const [left, right] = [side(a), side(b)];
    return left && right && sideBySide(left, right);
  }

  gainStages(): readonly GainStage[] {
    return this.held.derived ? gainStages(this.held.derived.rig, this.held.derived.anatomy) : [];
  }

  /** What foot and hand do from one sound straight to another. */
  footChange(from: Id<'sound'>, to: Id<'sound'>): FootChangeDetail | undefined {
    return this.held.derived && footChange(this.held.derived, from, to);
  }

  /** What a foot holds, and which sounds let it ring on. */
  latched(): readonly Latched[] {
    return this.held.derived ? latchedIn(this.held.derived) : [];
  }

  /** A sound with a box and without it, or only what passes it. */
  withAndWithout(sound: Id<'sound'>, device: Id<'device'>, look: Look): WithAndWithout | undefined {
    return this.held.derived && withAndWithout(this.held.derived, sound, device, look);
  }

  /** Which sounds, songs and sets use a box. */
  boxUse(device: Id<'device'>): { readonly device: Id<'device'>; readonly use: UseOfBox | undefined } {
    return { device, use: this.held.derived && boxUse(this.held.derived, device) };
  }

  /** How often the direct sound is converted on its way. */
  dryPath(sound: Id<'sound'>): DryPath | undefined {
    return this.held.derived && dryPath(this.held.derived, sound);
  }

  soundDetail(sound: Id<'sound'>): SoundDetail | undefined {
    return this.held.derived && soundDetail(this.held.derived, sound);
  }

  /** All sounds beside each other, and what joins chassis. */
  levels(): LevelsView | undefined {
    return this.held.derived && levelsOf(this.held.derived);
  }

  /** How the rig is built, layer by layer. */
  buildOrder(): readonly BuildStep[] {
    return this.held.derived ? buildOrder(this.held.derived) : [];
  }

  /** What each box of the hook-up takes, and what it is used for. */
  gigBoxes(): readonly GigBox[] {
    return this.held.derived ? gigBoxes(this.held.derived) : [];
  }

  /** How long leads have to be by where boxes stand, and their ways. */
  leadLengths(): readonly LeadLength[] {
    const { derived } = this.held;
    return derived ? leadLengths(derived.rig, derived.hookup, laidOut(derived.rig, derived.hookup, derived.place)) : [];
  }

  /** Every lead of the hook-up, along the signal. */
  leads(): readonly LeadView[] {
    return this.held.derived ? leadsIn(this.held.derived) : [];
  }

  /** What every single failure leaves of the sounds, a line each. */
  failureLines(): readonly FailureLine[] {
    return this.held.derived ? failureLines(this.held.derived) : [];
  }

  /** One failure with the quickest way out. */
  failure(key: string): FailureView | undefined {
    return this.held.derived && failureOf(this.held.derived, key);
  }

  /** Where the band listens, and what each of them wants to hear. */
  monitors(): { readonly ends: readonly MonitorEnd[]; readonly mixes: readonly MixView[] } {
    const { derived } = this.held;
    return derived ? { ends: monitorEnds(derived), mixes: monitorMixes(derived) } : { ends: [], mixes: [] };
  }

  /** Boxes by how badly a spare of them may be needed. */
  spares(): readonly SpareNeed[] {
    return this.held.derived ? spareNeeds(this.held.derived) : [];
  }

  /** What is ticked before the gig. */
  lineCheck(): readonly CheckLine[] {
    return this.held.derived ? lineCheck(this.held.derived) : [];
  }

  /** The way of a silent sound, to be halved. */
  faultFinder(sound: Id<'sound'> | undefined): FaultFinder | undefined {
    return sound && this.held.derived && faultFinder(this.held.derived, sound);
  }

  /** What lies in the case: all failures that silence something, with their ways out. */
  failuresSheet(): FailuresSheet {
    const { derived } = this.held;
    return failuresSheet(derived ? failsOf(derived).map((f) => withHands(derived, f)) : []);
  }

  /** How loud a sound is along its run; without one, the rig at rest. */
  levelsShown(sound?: Id<'sound'>): LevelsShown | undefined {
    return this.held.derived && levelsShown(this.held.derived.rig, soundTrace(this.held.derived, sound));
  }

  /** A sound stage by stage, from each of its sources. */
  soundLevels(sound: Id<'sound'>): readonly WayLevels[] {
    return this.held.derived ? soundLevels(this.held.derived, sound) : [];
  }

  /** What hangs on the coils before the first box that is on. */
  fronts(sound: Id<'sound'>): readonly FrontView[] {
    return this.held.derived ? frontsIn(this.held.derived, sound) : [];
  }

  /** What hangs on every loudspeaker jack. */
  speakers(): readonly TapView[] {
    return this.held.derived ? speakersOf(this.held.derived) : [];
  }

  /** The numbers that slots can store so that all sounds lie where they are wanted. */
  matched(): Edit | undefined {
    return this.held.derived && matchedByNumbers(this.held.derived);
  }

  stored(sound: Id<'sound'>): readonly StoredView[] {
    return this.held.derived ? storedView(this.held.derived, sound) : [];
  }

  remedies(fingerprint: string): readonly TriedRemedy[] {
    const finding = this.held.derived?.judgement.findings.find((f) => f.fingerprint === fingerprint);
    return this.held.derived && finding ? tried(this.held.derived, finding) : [];
  }

  changes(from: Id<'sound'>, to: Id<'sound'>): readonly Changed[] {
    return this.held.derived ? differences(this.held.derived.compilation, from, to) : [];
  }

  /** What can go wrong, in words. */
  faults(): readonly SaidFault[] {
    return this.held.derived ? faultsOf(this.held.derived) : [];
  }

  /** Every standing test of the hook-up, played anew. */
  standingTests(): readonly TestResult[] {
    return this.held.derived ? standingTests(this.held.derived) : [];
  }

  /** Sounds that a list or a timeline calls, where no foot does, by the id of its event. */
  calls(): readonly { readonly event: string; readonly text: string }[] {
    const { derived } = this.held;
    return derived
      ? soundsInOrder(derived.rig).flatMap((sound) => {
          const event = [...derived.modelled.steps].find(([, s]) => s.does === 'recall' && s.sound === sound.id)?.[0];
          return event
            ? [{ event, text: placeText(derived.rig, soundHere(derived.rig, sound, derived.hookup.id)) }]
            : [];
        })
      : [];
  }

  /** What else can happen to the rig, in words, by the id of its event. */
  mishaps(): readonly { readonly event: string; readonly text: string; readonly does: Footstep['does'] }[] {
    const { derived } = this.held;
    if (!derived) return [];
    return [...derived.modelled.steps]
      .filter(([, s]) => s.does === 'foot' || s.does === 'power')
      .map(([event, s]) => ({ event, text: stepText(derived.rig, s), does: s.does }));
  }
}

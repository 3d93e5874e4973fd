import type { Edit } from '@yunta/core/change/edit';
import { consequences, type Consequences } from '@yunta/core/derive/views/consequences';
import { faultsOf, type SaidFault } from '@yunta/core/derive/play/faults';
import { sideBySide, type SideBySide } from '@yunta/core/derive/views/side-by-side';
import { programPlan, type ProgramPlanView } from '@yunta/core/derive/views/program-plan';
import type { PlanFor } from '@yunta/core/plan/programs';
import { setSheet, type SetSheet } from '@yunta/core/derive/views/set-sheet';
import { danceOfSet, type Dance } from '@yunta/core/derive/views/dance';
import { floorCards, memoryTable, type FloorCard, type MemoryTable } from '@yunta/core/derive/views/stage-papers';
import { telling, type Telling } from '@yunta/core/derive/views/telling';
import { drillOf, type Drill } from '@yunta/core/derive/views/drill';
import { footworkOf, type Footwork } from '@yunta/core/derive/views/footwork';
import { loopsOfRig, type LoopsOfRig } from '@yunta/core/derive/views/loops';
import { setOrder, type SetOrder } from '@yunta/core/derive/views/set-order';
import { setScore, type SetScore } from '@yunta/core/derive/views/set-score';
import { readSongFile, type SongsIn } from '@yunta/core/derive/views/song-files';
import { withoutLists } from '@yunta/core/derive/views/without-lists';
import { deriveOnce } from '@yunta/core/derive/steps/deriver';
import { writeScore } from '@yunta/core/formats/midi-score';
import { stageOf, type Stage } from '@yunta/core/derive/views/stage';
import { songHands, type SongHands } from '@yunta/core/derive/views/songs';
import { runAfter, type RunAfter } from '@yunta/core/derive/views/card';
import { inputList, type InputLine } from '@yunta/core/derive/views/input-list';
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
import { songCards, type SongCard } from '@yunta/core/derive/views/song-cards';
import { provedWith } from '@yunta/core/derive/views/switcher-tried';
import { latchedIn, type Latched } from '@yunta/core/derive/views/latched';
import { withMaybe } from '@yunta/core/known/maybe';
import type { Id } from '@yunta/core/rig/ids';
import { all, partOf, rigOf, soundsInOrder, type Part } from '@yunta/core/rig/rig';
import { litBy, mapOf, type Lit, type RoutingMap } from '@yunta/core/signal/drawing/map';
import type { Item } from '@yunta/core/signal/drawing/picture';
import { newPartId } from '../session/ids.js';
import { type Held } from './held.js';

export type ScoreFile = Omit<SetScore, 'score'> & { readonly midi: Uint8Array<ArrayBuffer> };

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
  programPlan(planFor: PlanFor): ProgramPlanView | undefined {
    return this.held.derived && programPlan(this.held.derived, planFor);
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

  /** Every song on a card for the floor. */
  songCards(): readonly SongCard[] {
    return this.held.derived ? songCards(this.held.derived) : [];
  }

  /** Order, ends, level and pedals of a sound. */
  setSheet(id: Id<'setList'>): SetSheet | undefined {
    const { derived } = this.held;
    const list = derived && partOf(derived.rig, id);
    return derived && list && setSheet(derived, list);
  }

  /**
   * A night cue by cue. @param id of all songs when it is left out
   * @param without the computer or the song list that calls sounds: what it called is left to foot and hand
   */
  stage(id: Id<'setList'> | undefined, without = false): Stage | undefined {
    const { derived } = this.held;
    const stopped = derived && without ? withoutLists(derived.rig) : undefined;
    const played = stopped && derived ? deriveOnce(stopped, derived.hookup.id) : derived;
    return played && stageOf(played, id && partOf(played.rig, id));
  }

  /** What each cue of a song asks of foot and hand. */
  footwork(id: Id<'song'>): readonly Footwork[] {
    const { derived } = this.held;
    const song = derived && partOf(derived.rig, id);
    return song ? footworkOf(derived, song) : [];
  }

  /** Which boxes each sound has in its path, as a question of loops. */
  loops(): LoopsOfRig | undefined {
    return this.held.derived && loopsOfRig(this.held.derived);
  }

  /** In which order a set needs the fewest changes. */
  setOrder(id: Id<'setList'>): SetOrder | undefined {
    const { derived } = this.held;
    const list = derived && partOf(derived.rig, id);
    return derived && list && setOrder(derived.rig, list);
  }

  /** What lies under the foot, bank by bank. */
  floorCards(id: Id<'setList'> | undefined): readonly FloorCard[] {
    const { derived } = this.held;
    return derived ? floorCards(derived, id && partOf(derived.rig, id)) : [];
  }

  /** Song by song, which memory of which box each cue loads. */
  memoryTable(id: Id<'setList'> | undefined): MemoryTable | undefined {
    const { derived } = this.held;
    return derived && memoryTable(derived, id && partOf(derived.rig, id));
  }

  /** The rig told from the strings to the outputs. */
  telling(): Telling | undefined {
    return this.held.derived && telling(this.held.derived);
  }

  /** What the feet do in a night. @param id of all songs when it is left out */
  dance(id: Id<'setList'> | undefined): Dance | undefined {
    const { derived } = this.held;
    return derived && danceOfSet(derived, id && partOf(derived.rig, id));
  }

  /** A song to be danced in time; 'none' when nothing in it is hit at a known time. */
  drill(id: Id<'song'>): Drill | 'none' | undefined {
    const { derived } = this.held;
    const song = derived && partOf(derived.rig, id);
    return song && (drillOf(derived, song) ?? 'none');
  }

  /** Songs as a sequencer plays them: the file, and what a person should know of it. */
  scoreOf(name: string, songs: readonly Id<'song'>[]): ScoreFile | undefined {
    const { derived } = this.held;
    if (!derived) return undefined;
    const { score, ...said } = setScore(
      derived,
      name,
      songs.flatMap((id) => partOf(derived.rig, id) ?? []),
    );
    return { ...said, midi: Uint8Array.from(writeScore(score)) };
  }

  /** Songs that a file brings, whatever kind of file it is. */
  songsIn(name: string, bytes: Uint8Array): Result<SongsIn, readonly Refusal[]> | undefined {
    return this.held.derived && readSongFile(this.held.derived, name, bytes, () => newPartId('song'));
  }

  songHands(): readonly SongHands[] {
    return this.held.derived ? songHands(this.held.derived) : [];
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
          return event ? [{ event, text: placeText(derived.rig, sound) }] : [];
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

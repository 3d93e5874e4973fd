import { soundHere } from '../../recall/intend/wants.js';
import type { WrongWant } from '../../prover/prove.js';
import { hex, messageBytes } from '../../midi/bytes.js';
import type { CheckFault } from '../../checks/settle.js';
import type { Finding } from '../../checks/check.js';
import { waysToStand } from '../../prover/summary.js';
import { tally, type Tally, type VerdictKind } from '../../recall/verdict/sound-verdict.js';
import { limbsOf, muteText, type Limbs } from '../../recall/words/verdict-words.js';
import { roundly } from '../../units/amounts.js';
import {
  controlText,
  knobText,
  grantedText,
  sayFootsteps,
  slotText,
  valueText,
  type SaidStep,
} from '../../recall/words/words.js';
import type { Act } from '../../rig/act.js';
import { chosenByHand } from '../../recall/actuate/compile.js';
import { ref, splitRef, theRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, soundsInOrder, thePart } from '../../rig/rig.js';
import type { SystemState } from '../../prover/system.js';
import { sheetColumns, type Column } from '../../sheets/sound-sheet.js';
import { picture, type Item } from '../../signal/drawing/picture.js';
import { cablesInOrder, type ListedCable } from '../../signal/graph/order.js';
import { trace, type Trace } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';
import { reckoned, type Reckoned } from './reckoned.js';
import { theEntry } from '../../known/the.js';

/** How a sound stands, in words: what every screen shows of it. Plain data. */
export interface SoundView {
  readonly id: Id<'sound'>;
  readonly name: string;
  readonly slot: string;
  readonly verdict: VerdictKind;
  /** Why it is not decided, or why it cannot sound. */
  readonly because?: string;
  /** Controls in which it can come back wrong, those with the shortest way there first. */
  readonly wrong: readonly WrongView[];
  readonly shortest?: WayWrong;
  /** What is to be done besides, one by one. */
  readonly byFoot: readonly string[];
  readonly byHand: readonly string[];
  readonly isCalled: boolean;
}

export interface WrongView {
  readonly control: Ref;
  readonly text: string;
  readonly wanted: string;
  readonly length: number;
}

/** The shortest way on which a sound comes back wrong, step by step. */
export interface WayWrong extends WrongView {
  readonly steps: readonly SaidStep[];
  readonly powerUp: SystemState;
}

/**
 * Everything that the screens need at once after an edit, in words and plain data. Details are asked for one by one.
 */
export interface View {
  readonly hookup: Id<'hookup'>;
  readonly tally: Tally;
  /** With what sounds that are left to hands are helped along. */
  readonly limbs: Limbs;
  readonly sounds: readonly SoundView[];
  readonly findings: readonly Finding[];
  readonly faults: readonly CheckFault[];
  readonly granted: readonly { readonly text: string; readonly why: string; readonly control: Ref }[];
  /** Knobs that some sound turns, and that are taken to be turned back. */
  readonly homes: readonly string[];
  readonly reckoned: Reckoned;
  readonly columns: readonly Column[];
  readonly cables: readonly ListedCable[];
  /** Numbers for the headline: controls that the proof reckons with, and things that can happen to them. */
  readonly controls: number;
  /** In how many ways these can stand together, in words. */
  readonly ways: string;
  readonly events: number;
}

export const viewOf = (d: Derived): View => ({
  hookup: d.hookup.id,
  tally: tally(d.answers),
  limbs: limbsOf(d.answers.values()),
  sounds: soundsInOrder(d.rig).map((s) => soundView(d, s.id)),
  findings: d.judgement.findings,
  faults: d.judgement.faults,
  granted: d.modelled.granted.map((g) => ({ control: g.control, text: grantedText(d.rig, g), why: g.why })),
  homes: d.dials.homes.map(
    ({ device, knob, at, turned }) =>
      `${knobText(d.rig, device, knob)} at ${at}, but in ${turned.map((s) => thePart(d.rig, s).name).join(', ')}`,
  ),
  reckoned: reckoned(d),
  columns: sheetColumns(d.rig, d.anatomy),
  cables: cablesInOrder(d.rig, d.anatomy),
  controls: d.modelled.system.variables.length,
  ways: roundly(waysToStand(d.modelled.system)),
  events: d.modelled.system.events.length,
});

const soundView = (d: Derived, id: Id<'sound'>): SoundView => {
  const sound = thePart(d.rig, id);
  const verdict = theEntry(d.answers, id);
  const { proof, mute, hands } = verdict;
  const wrong = proof.is === 'broken' ? [...proof.wrong].sort((a, b) => a.length - b.length) : [];
  const because = mute.length
    ? mute.map((p) => muteText(d, id, p)).join(' ')
    : proof.is === 'undecided'
      ? proof.because
      : undefined;
  /** What a stomp sends adjusts a program that is there already; chosen after it, the program would undo that. */
  const first = new Set(
    verdict.isCalled ? chosenByHand(d.compilation, id).map((c) => ref(c.device.id, c.memory.control)) : [],
  );
  const by = (limb: 'foot' | 'hand') =>
    hands
      .filter((h) => h.by === limb)
      .map(
        (h) =>
          `${controlText(d.rig, h.control)} to ${valueText(d.rig, h.control, h.value)}${first.has(h.control) ? ', before the stomp' : ''}`,
      );
  return {
    id,
    name: sound.name,
    slot: slotText(d.rig, soundHere(d.rig, sound, d.hookup.id)),
    verdict: verdict.is,
    ...(because === undefined ? {} : { because }),
    wrong: wrong.map((w) => wrongView(d, w)),
    ...(wrong[0] ? { shortest: wayWrong(d, wrong[0]) } : {}),
    byFoot: by('foot'),
    byHand: [...by('hand'), ...verdict.dials.map((m) => `${knobText(d.rig, m.device, m.knob)} to ${m.at}`)],
    isCalled: verdict.isCalled,
  };
};

const wrongView = ({ rig }: Derived, { variable, wanted, length }: WrongWant): WrongView => {
  const control = theRef(variable);
  return { control, text: controlText(rig, control), wanted: valueText(rig, control, wanted), length };
};

/** The way there is found only for the one that is told: a sound may be wrong in a hundred controls. */
const wayWrong = (d: Derived, wrong: WrongWant): WayWrong => {
  const footsteps = wrong.example();
  return {
    ...wrongView(d, wrong),
    steps: sayFootsteps(d.rig, d.modelled, footsteps, theRef(wrong.variable)),
    powerUp: footsteps.powerUp,
  };
};

/** The run of a traced sound with what each parked loop holds. */
export const runOf = (d: Derived, trace: Trace | undefined): readonly Item[] =>
  trace
    ? picture(trace, (insert, device) => [
        ...new Set(
          (d.anatomy.loops.find((l) => l.device === device && l.insert === insert)?.holds ?? []).map(
            (r) => splitRef(r).device,
          ),
        ),
      ])
    : [];

/** The path of a sound as it is meant; without one, of the rig as it stands at rest. */
export const soundTrace = (d: Derived, sound?: Id<'sound'>): Trace =>
  (sound && d.compilation.sounds.get(sound)?.trace) || trace(d.anatomy.wiring, d.grounds.resting);

/** The run of a sound; without one, of the rig as it stands at rest. */
export const soundRun = (d: Derived, sound?: Id<'sound'>): readonly Item[] => runOf(d, soundTrace(d, sound));

/** One line of what a controller stores. */
export interface StoredLine {
  readonly bytes: string;
  readonly for: string;
}

export interface StoredView {
  readonly device: string;
  readonly slot: string;
  readonly typed: boolean;
  readonly contents: string;
  readonly messages: readonly StoredLine[];
}

export const actBytes = (act: Act): string => {
  return 'send' in act && !('bpm' in act.send) ? hex(messageBytes(act.send)) : '';
};

/** What each called controller stores for a sound. */
export const storedView = (d: Derived, id: Id<'sound'>): readonly StoredView[] => {
  const sound = partOf(d.rig, id);
  return ((sound && d.compilation.sounds.get(id)?.stored) ?? []).map(({ program, typed, meant }) => ({
    device: partOf(d.rig, program.device)?.name ?? program.device,
    slot: sound ? slotText(d.rig, soundHere(d.rig, sound, d.hookup.id)) : '',
    typed,
    contents:
      program.contents === 'unplanned'
        ? ''
        : Object.entries(program.contents)
            .filter(([, v]) => v !== 'off' && v !== 'open' && v !== 0)
            .map(([k, v]) => (v === 'on' ? k : `${k} ${v}`))
            .join(', '),
    messages: program.acts
      .map((act, i) => ({
        bytes:
          actBytes(act) ||
          ('pulse' in act
            ? `pulse on ${act.pulse}`
            : 'send' in act && 'bpm' in act.send
              ? `clock ${act.send.bpm}`
              : ''),
        for: meant[i] && !typed ? `${partOf(d.rig, meant[i].device)?.name}: ${meant[i].text}` : 'as typed in',
      }))
      .concat(
        (program.sweeps ?? []).map((s) => ({
          bytes: `pedal ${s.jack}`,
          for: `${'control' in s ? controlText(d.rig, ref(program.device, s.control)) : `channel ${s.channel}, controller ${s.cc}`}, heel ${s.heel}, toe ${s.toe}`,
        })),
      ),
  }));
};

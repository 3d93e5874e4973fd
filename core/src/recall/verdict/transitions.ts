import { BYTE_US } from '../../units/amounts.js';
import { splitRef, theRef, type Id, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import type { Trace } from '../../signal/graph/trace.js';
import { isServedBy, type Compilation } from '../actuate/compile.js';
import type { Compiled, HandMove } from '../intend/compiled.js';
import type { Modelled } from '../model/model.js';
import { bytesOf } from '../actuate/slot-timing.js';
import { reckonedStep } from '../../electric/levels/steps.js';
import { tailsOf, type Tails } from '../../signal/graph/tails.js';
import { afterEvent, serves, type SystemEvent, type SystemState } from '../../prover/system.js';
import { theFirst, theOne, theEntry } from '../../known/the.js';
import { memoryChosenBy } from '../../rig/box.js';
import { standingIn, turnedBetween, type DialMove } from '../../dials/dial-cards.js';

/** From one sound straight to another: what changes, how long it takes, whether the sound stops meanwhile. */
export interface Transition {
  readonly from: Id<'sound'>;
  readonly to: Id<'sound'>;
  /** Wants of the second that are wrong when it is called straight after the first, which stood right. */
  readonly wrong: readonly Ref[];
  /** What foot and hand have to do on the way: what the second wants set and the first left otherwise. */
  readonly hands: readonly HandMove[];
  /** Knobs that a hand turns on the way. */
  readonly turns: readonly DialMove[];
  /** Until the last message has arrived and its box has loaded, in ms. */
  readonly settleMs: number;
  /** Longest silence of a box that is on the path before or after, in ms, and which box. */
  readonly gapMs: number;
  readonly gapBy?: Id<'device'>;
  /** What becomes of the repeats of delays and reverbs that are not in the second. */
  readonly tails: Tails;
  /**
   * How much louder the second is, in dB, by what is stated and differs;
   * absent when they share no end.
   */
  readonly stepDb?: number;
}

export interface Changed {
  readonly control: Ref;
  readonly from: string;
  readonly to: string;
}

/** The system's state when a sound was called and has come back right; what it does not touch is as at power-up. */
const rightState = ({ system }: Modelled, compiled: Compiled, recall: SystemEvent): SystemState => {
  const first = Object.fromEntries(system.variables.map((v) => [v.id, theFirst(v.initial)]));
  const wanted = theOne(system.sounds, (s) => s.id === compiled.sound).wants;
  return { ...afterEvent(recall, first), ...Object.fromEntries(wanted.map((w) => [w.variable, w.value])) };
};

/** Until the last message of a sound is out, in ms: bytes one after the other, with the pauses between them. */
const sendingMs = (compiled: Compiled): number =>
  compiled.stored.reduce(
    (sum, { program }) =>
      sum +
      program.acts.reduce(
        (ms, act) => ms + ('send' in act ? (bytesOf(act.send) * BYTE_US) / 1000 + (act.afterMs ?? 0) : 0),
        0,
      ),
    0,
  );

/** Boxes that the signal of a sound passes. */
export const boxesOnPath = (compiled: Compiled): ReadonlySet<Id<'device'>> => {
  const { onPath: marks, wiring } = compiled.trace;
  return new Set(wiring.points.filter((_, i) => marks[i]).map((p) => p.device));
};

/** A program that a sound tells a box to load. */
interface Load {
  readonly device: Id<'device'>;
  readonly control: Ref;
  readonly value: string;
  /** Told to load what it has already, it does nothing. */
  readonly only: 'when it is another' | 'always';
  readonly gapMs: number;
  readonly mutesMs: number;
}

const loadsOf = (c: Compilation, { stored, wants }: Compiled): readonly Load[] => {
  const channels = new Set(
    stored.flatMap(({ program }) =>
      program.acts.flatMap((act) => ('send' in act && 'pc' in act.send ? [act.send.channel] : [])),
    ),
  );
  return wants.flatMap((want): readonly Load[] => {
    const { device: id, name } = splitRef(want.control);
    const device = thePart(c.bearings.rig, id);
    const memory = memoryChosenBy(device, name);
    if (!memory || typeof device.midi?.channel !== 'number' || !channels.has(device.midi.channel)) return [];
    return [
      {
        device: id,
        control: want.control,
        value: String(want.value),
        only: memory.again === 'nothing' ? 'when it is another' : 'always',
        gapMs: memory.gapMs,
        mutesMs: memory.mutesMs,
      },
    ];
  });
};

/** Every ordered pair of sounds, one sound that is left after the other. */
export function* boardRows(c: Compilation, m: Modelled): Generator<readonly Transition[]> {
  const { rig } = c.bearings;
  const recalls = new Map(m.system.sounds.map((s) => [s.id, theOne(m.system.events, (e) => e.id === s.recall)]));
  const wants = new Map(m.system.sounds.map((s) => [s.id, s.wants]));
  const sounds = [...c.sounds.values()].map((of) => ({
    of,
    recall: theEntry(recalls, of.sound),
    state: rightState(m, of, theEntry(recalls, of.sound)),
    path: boxesOnPath(of),
    loads: loadsOf(c, of),
    sendingMs: sendingMs(of),
    wants: theEntry(wants, of.sound),
    stands: standingIn(rig, { hookup: c.bearings.hookup.id, sound: of.sound }),
  }));
  for (const from of sounds)
    yield sounds
      .filter((to) => to !== from)
      .map((to): Transition => {
        const after = afterEvent(to.recall, from.state);
        const loads = to.loads.filter((l) => l.only === 'always' || from.state[l.control] !== l.value);
        const heard = loads.filter((l) => l.mutesMs > 0 && (from.path.has(l.device) || to.path.has(l.device)));
        const longest = heard.reduce<Load | undefined>((a, b) => (a && a.mutesMs >= b.mutesMs ? a : b), undefined);
        const stepDb = step(rig, from.of.trace, to.of.trace);
        return {
          from: from.of.sound,
          to: to.of.sound,
          wrong: to.wants.filter((w) => !serves(w, after[w.variable])).map((w) => theRef(w.variable)),
          hands: to.of.hand.filter(
            (h) => !c.spared?.get(to.of.sound)?.has(h.control) && !isServedBy(h, from.of.state.get(h.control)),
          ),
          turns: turnedBetween(from.stands, to.stands, (device) => to.path.has(device)).map(({ device, knob, at }) => ({
            device,
            knob,
            at,
          })),
          settleMs: to.sendingMs + Math.max(0, ...loads.map((l) => l.gapMs)),
          gapMs: longest?.mutesMs ?? 0,
          ...(longest ? { gapBy: longest.device } : {}),
          tails: tailsOf(rig, from.of.trace, to.of.trace),
          ...(stepDb === undefined ? {} : { stepDb }),
        };
      });
}

export const transitions = (c: Compilation, m: Modelled): readonly Transition[] => [...boardRows(c, m)].flat();

/** How much louder the second is, in tenths of a dB; undefined where they are heard at no place together. */
const step = (rig: Rig, from: Trace, to: Trace): number | undefined =>
  to.reaches.some(({ end }) => from.reaches.some((r) => r.end === end))
    ? Math.round(reckonedStep(rig, from, to) * 10) / 10
    : undefined;

/** What differs between two sounds, control by control, where both care. */
export const differences = (c: Compilation, from: Id<'sound'>, to: Id<'sound'>): readonly Changed[] => {
  const [a, b] = [c.sounds.get(from), c.sounds.get(to)];
  if (!a || !b) return [];
  return b.wants.flatMap(({ control, value }): readonly Changed[] => {
    const before = a.state.get(control);
    return String(before) === String(value) ? [] : [{ control, from: String(before), to: String(value) }];
  });
};

import type { Bench } from '../../bench/bench.js';
import type { FootGesture } from '../../bench/box.js';
import { theOneOf, keysOf } from '../../known/keys.js';
import { theItem, theFirst } from '../../known/the.js';
import { controlText, pedalText, stepText, valueText } from '../../recall/words/words.js';
import { controlAt } from '../../rig/box.js';
import { splitRef, theRef, theId, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { StandingTest } from '../../rig/show.js';

import type { Derived } from '../steps/deriver.js';
import { setUpBench, takeStep } from './play.js';

/**
 * One thing that was done on the bench, written down so that it can be done again: an event of the recall system, or a
 * foot on a switch.
 */
export type PlayedStep = string;

const STOMP = /^stomp (device:[^ ]+) (\S+) (press|release|hold|twice)$/;
const PEDAL = /^pedal (device:[^ ]+) (\S+) (\d{1,3})$/;
const TURN = /^turn (device:\S+) (\S+)$/;
export const stompStep = (device: Id<'device'>, name: string, gesture: FootGesture): PlayedStep =>
  `stomp ${device} ${name} ${gesture}`;
export const pedalStep = (device: Id<'device'>, jack: string, byte: number): PlayedStep =>
  `pedal ${device} ${jack} ${byte}`;
export const turnStep = (control: Ref, to: number): PlayedStep => `turn ${control} ${to}`;

const GESTURES: Readonly<Record<FootGesture, string>> = {
  press: 'Press',
  release: 'Let go of',
  hold: 'Hold',
  twice: 'Press twice',
};

/** A step in words; undefined when the rig no longer has what it speaks of. */
export const playedText = (d: Derived, step: PlayedStep): string | undefined => {
  const stomp = STOMP.exec(step);
  if (stomp) {
    const device = partOf(d.rig, theId('device', stomp[1]));
    const move = all(d.rig, 'move').find((m) => m.at.some((a) => a.device === device?.id && a.switch === stomp[2]));
    return device && `${GESTURES[theOneOf(keysOf(GESTURES), stomp[3])]} ${move?.name ?? `${device.code} ${stomp[2]}`}`;
  }
  const pedal = PEDAL.exec(step);
  if (pedal) {
    const device = partOf(d.rig, theId('device', pedal[1]));
    return device?.jacks.some((j) => j.id === pedal[2])
      ? pedalText(d.rig, device.id, theItem(pedal, 2), Number(pedal[3]))
      : undefined;
  }
  const turn = TURN.exec(step);
  if (turn)
    return (
      controlAt(d.rig, theRef(turn[1])) &&
      `Move ${controlText(d.rig, theRef(turn[1]))} to ${valueText(d.rig, theRef(turn[1]), theItem(turn, 2))}`
    );
  const known = d.modelled.steps.get(step);
  return known && stepText(d.rig, known);
};

/** Does a step on the bench. @returns false when the rig no longer has what it speaks of */
export const playStep = (d: Derived, bench: Bench, step: PlayedStep): boolean => {
  const stomp = STOMP.exec(step);
  if (stomp) {
    if (!partOf(d.rig, theId('device', stomp[1]))) return false;
    bench.stomp(theId('device', stomp[1]), theItem(stomp, 2), theOneOf(keysOf(GESTURES), stomp[3]));
    return true;
  }
  const pedal = PEDAL.exec(step);
  if (pedal) {
    bench.pedal(theId('device', pedal[1]), theItem(pedal, 2), Number(pedal[3]));
    return true;
  }
  const turn = TURN.exec(step);
  if (turn) {
    bench.turn(theRef(turn[1]), Number(turn[2]));
    return true;
  }
  const known = d.modelled.steps.get(step);
  if (known) takeStep(d, bench, known);
  return known !== undefined;
};

export interface TestResult {
  readonly id: Id<'standingTest'>;
  readonly name: string;
  /** `cannot`: it speaks of something that is not there any more. */
  readonly is: 'holds' | 'fails' | 'cannot';
  readonly text: string;
  readonly steps: readonly string[];
  readonly expects: readonly string[];
}

/** Every standing test of the hook-up, played from power-up. */
export const standingTests = (d: Derived): readonly TestResult[] =>
  all(d.rig, 'standingTest')
    .filter((t) => t.hookup === d.hookup.id)
    .map((t) => played(d, t));

const played = (d: Derived, { id, name, steps, expects }: StandingTest): TestResult => {
  const said = steps.map((s) => playedText(d, s));
  const wanted = expects.map((e) =>
    controlAt(d.rig, theRef(e.control))
      ? `${controlText(d.rig, theRef(e.control))} ${valueText(d.rig, theRef(e.control), e.value)}`
      : undefined,
  );
  const words = {
    id,
    name,
    steps: said.map((s, i) => s ?? gone(theItem(steps, i))),
    expects: wanted.map((w, i) => w ?? gone(theItem(expects, i).control)),
  };
  const lost = [
    ...steps.filter((_, i) => said[i] === undefined),
    ...expects.flatMap((e, i) => (wanted[i] === undefined ? [e.control] : [])),
  ];
  if (lost.length)
    return {
      ...words,
      is: 'cannot',
      text: `It speaks of ${gone(theFirst(lost))}. Make the test anew, or take it away.`,
    };
  const bench = setUpBench(d, {}, false);
  for (const step of steps) playStep(d, bench, step);
  const wrong = expects.filter((e) => String(bench.value(theRef(e.control))) !== e.value);
  if (wrong.length === 0)
    return { ...words, is: 'holds', text: `holds after ${steps.length} ${steps.length === 1 ? 'step' : 'steps'}` };
  return {
    ...words,
    is: 'fails',
    text: wrong
      .slice(0, 3)
      .map(
        (e) =>
          `${controlText(d.rig, theRef(e.control))} is ${valueText(d.rig, theRef(e.control), bench.value(theRef(e.control)) ?? '')}, ${valueText(d.rig, theRef(e.control), e.value)} was expected`,
      )
      .join('; '),
  };
};

const gone = (what: string): string => `something that is not in the rig any more (${what.slice(0, 80)})`;

/**
 * A control that can be expected to stand so: every one of the boxes that are wired, those that the called sound wants
 * first in mind.
 */
export interface Expectable {
  readonly control: Ref;
  readonly value: string;
  readonly text: string;
  readonly wanted: boolean;
}

/** What can be expected of the bench as it stands now. */
export const expectable = (d: Derived, bench: Bench, sound: Id<'sound'> | undefined): readonly Expectable[] => {
  const wanted = new Set((sound && d.compilation.sounds.get(sound)?.wants.map((w) => w.control)) ?? []);
  return [...bench.state()].flatMap(([control, value]): readonly Expectable[] => {
    const { device, name } = splitRef(control);
    const found = controlAt(d.rig, control);
    if (!found || found.use !== 'sound' || /^(held-|latch-)/.test(name) || !d.anatomy.wiring.wired.has(device))
      return [];
    return [
      {
        control,
        value: String(value),
        text: `${controlText(d.rig, control)} ${valueText(d.rig, control, value)}`,
        wanted: wanted.has(control),
      },
    ];
  });
};

import { soundHere } from '../../recall/intend/wants.js';
import type { Value } from '../../rig/value.js';
import { Bench } from '../../bench/bench.js';
import { foundAt, namedAt, realValue } from '../../recall/words/footsteps.js';
import { isHolds, unwrittenOf } from '../../recall/model/shelf.js';
import { isOther } from '../../recall/model/domains.js';
import { loaderOf } from '../../recall/model/found-on-waking.js';
import { isControl } from '../../recall/model/guards.js';
import { chosenByHand, type Compilation } from '../../recall/actuate/compile.js';
import type { Footstep } from '../../recall/model/happenings.js';
import type { Modelled } from '../../recall/model/model.js';
import { serves, type SystemState } from '../../prover/system.js';
import { OTHER } from '../../recall/model/domains.js';
import { ref, type Ref, theRef } from '../../rig/ids.js';
import { partOf, thePart } from '../../rig/rig.js';
import { memoryIn } from '../../rig/box.js';

/** What playing needs of what was derived. */
export interface Playable {
  readonly compilation: Compilation;
  readonly modelled: Modelled;
}

/**
 * The rig on the bench with the power just on.
 * @param powerUp values by the system's names; what it leaves out is at rest
 */
export const setUpBench = ({ compilation: c, modelled }: Playable, powerUp: SystemState, listens = true): Bench => {
  const bench = new Bench(
    {
      rig: c.bearings.rig,
      hookup: c.bearings.hookup,
      programs: modelled.programs,
      found: foundAt(c.bearings, modelled, powerUp),
      unwritten: (control) => namedAt(c.bearings, modelled, powerUp, control),
    },
    listens,
  );
  for (const [variable, name] of Object.entries(powerUp)) {
    if (isControl(variable)) {
      const value = realValue(c.bearings, modelled, theRef(variable), name);
      if (value !== undefined) bench.stand(theRef(variable), value);
    }
    if (!isHolds(variable)) continue;
    const { device, memory, number, of, control } = unwrittenOf(variable);
    const value = realValue(c.bearings, modelled, ref(device, control), name);
    if (value !== undefined) bench.takeAs(device, memory, number, of, { [control]: value });
  }
  return bench;
};

/**
 * Does on the bench what a player does; everything has settled when it returns.
 * @param nextMs how soon the next step follows, if it does not wait until everything has settled
 */
export const takeStep = (of: Playable, bench: Bench, step: Footstep, nextMs?: number): void => {
  const stomps = stompsOf(of, bench, step);
  if (step.does === 'recall' && step.loses) bench.wires.loseMessage(step.loses.device, step.loses.message);
  if ((step.does === 'press' || step.does === 'release' || step.does === 'stomp') && step.loses !== undefined)
    bench.wires.loseMessage(step.device, step.loses);
  const between = step.does === 'recall' ? step.afterMs : undefined;
  stomps.forEach((stomp, i) => {
    bench.hurry(inUs(i < stomps.length - 1 ? between : nextMs));
    stomp();
  });
  bench.hurry();
  if ('loses' in step) bench.wires.loseNoMessage();
};

/** What the feet and hands do one after the other. */
const stompsOf = (of: Playable, bench: Bench, step: Footstep): readonly (() => void)[] => {
  const { compilation: c, modelled } = of;
  switch (step.does) {
    case 'recall':
      return callsOf(of, bench, step);
    case 'call':
      return [() => callSlot(of, bench, step)];
    case 'press':
      return [() => bench.stomp(step.device, step.switch)];
    case 'release':
      return [() => bench.stomp(step.device, step.switch, 'release')];
    case 'stomp':
      return [() => bench.stomp(step.device, step.switch), () => bench.stomp(step.device, step.switch, 'release')];
    case 'pedal':
      return [() => bench.pedal(step.device, step.jack, step.byte)];
    case 'turn': {
      const to = realValue(c.bearings, modelled, step.control, step.to);
      return to === undefined ? [] : [() => bench.turn(step.control, to)];
    }
    case 'row':
      return step.steps.flatMap((one) => stompsOf(of, bench, one));
    case 'foot':
      return [() => bench.actuate(step.device, step.actuator, tapped(of, step))];
    case 'power':
      return [() => bench.powerCycle(step.device, (control) => wokenAs(of, bench, step, control))];
  }
};

type Does<K extends Footstep['does']> = Extract<Footstep, { readonly does: K }>;

/**
 * Programs that somebody chooses by hand come first, then the switches that call the sound: of a scene the program
 * around it only if it is not loaded yet, unless the stomps are looked at one by one.
 */
const callsOf = ({ compilation: c }: Playable, bench: Bench, step: Does<'recall'>): readonly (() => void)[] => {
  const { rig, hookup } = c.bearings;
  const sound = partOf(rig, step.sound);
  const calls = sound ? soundHere(rig, sound, hookup.id).calls : [];
  const isWhole = step.loses !== undefined || step.afterMs !== undefined;
  return [
    ...chosenByHand(c, step.sound).map(
      ({ device, memory, number }) =>
        () =>
          bench.call(device.id, memory.id, number),
    ),
    ...calls.map((call, i) => () => {
      const memory = memoryIn(thePart(rig, call.device), call.memory);
      const next = calls[i + 1];
      const isAround =
        next?.device === call.device && memoryIn(thePart(rig, next.device), next.memory)?.inside === call.memory;
      const isLoaded = memory && Number(bench.value(ref(call.device, memory.control))) === call.slot;
      if (isWhole || !isAround || !isLoaded) bench.call(call.device, call.memory, call.slot);
    }),
  ];
};

const callSlot = ({ compilation: c, modelled }: Playable, bench: Bench, step: Does<'call'>): void => {
  const holds = Object.entries(step.holds ?? {}).flatMap(([control, name]) => {
    const value = realValue(c.bearings, modelled, ref(step.device, control), name);
    return value === undefined ? [] : [[control, value] as const];
  });
  const memory = memoryIn(partOf(c.bearings.rig, step.device), step.memory);
  const isLoaded = memory && Number(bench.value(ref(step.device, memory.control))) === step.slot;
  const slot = step.or !== undefined && isLoaded ? step.or : step.slot;
  if (holds.length) bench.takeAs(step.device, step.memory, slot, undefined, Object.fromEntries(holds));
  bench.call(step.device, step.memory, slot);
};

/** What a tap or a turn of an actuator comes to, where it takes what it is given. */
const tapped = ({ compilation: c, modelled }: Playable, step: Does<'foot'>): number | undefined => {
  const actuator = partOf(c.bearings.rig, step.device)?.actuators.find((a) => a.id === step.actuator);
  const takes = actuator?.acts.find((act) => 'take' in act);
  if (!takes || !('control' in takes)) return undefined;
  const to = realValue(c.bearings, modelled, ref(step.device, takes.control), OTHER);
  return typeof to === 'number' ? to : undefined;
};

/** How a control wakes; undefined where the program that is loaded says it. */
const wokenAs = (
  { compilation: c, modelled }: Playable,
  bench: Bench,
  step: Does<'power'>,
  control: string,
): Value | undefined => {
  const woken = ref(step.device, control);
  const name = step.wakes[woken];
  const memory = loaderOf(thePart(c.bearings.rig, step.device), control);
  const loaded = memory && ref(step.device, memory.control);
  const isNamed = loaded && !isOther(modelled.said.domains.named(loaded, bench.value(loaded) ?? ''));
  return name === undefined || isNamed ? undefined : realValue(c.bearings, modelled, woken, name);
};

const inUs = (ms: number | undefined): number | undefined =>
  ms === undefined ? undefined : Math.max(0, Math.floor(ms * 1000) - 1);

/** The wants of a sound that the bench does not show right now. */
export const wrongOnBench = ({ modelled }: Playable, bench: Bench, sound: string): readonly Ref[] =>
  (modelled.system.sounds.find((s) => s.id === sound)?.wants ?? [])
    .filter((w) => {
      const stands = bench.value(theRef(w.variable));
      return !serves(
        w,
        w.or && stands !== undefined ? modelled.said.domains.named(theRef(w.variable), stands) : String(stands),
      );
    })
    .map((w) => theRef(w.variable));

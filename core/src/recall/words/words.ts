import { soundHere } from '../intend/wants.js';
import { shown } from '../../midi/numbering.js';
import { splitRef, theRef, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf, type Rig } from '../../rig/rig.js';
import type { Sound } from '../../rig/sound.js';

import { UNKNOWN } from '../model/domains.js';
import type { Granted } from '../model/granted.js';
import type { Footstep } from '../model/happenings.js';
import type { Modelled } from '../model/model.js';
import type { Footsteps } from '../../prover/prove.js';
import { afterEvent } from '../../prover/system.js';
import { theOne, theEntry } from '../../known/the.js';
import { memoryIn, memoryChosenBy, controlAt } from '../../rig/box.js';

/** The slot as its controller shows it. @example slotText(rig, sound) // '1A', or '1A scene 2' */
export const slotText = (rig: Rig, sound: Sound): string =>
  sound.calls
    .map(({ device, memory, slot }, i) => {
      const found = memoryIn(partOf(rig, device), memory);
      const number = found ? shown(found.shows, slot) : String(slot);
      return found?.inside === undefined ? `${i ? ' + ' : ''}${number}` : `${i ? ' ' : ''}scene ${number}`;
    })
    .join('');

/** @example placeText(rig, sound) // 'Verse clean, 1A' */
export const placeText = (rig: Rig, sound: Sound): string =>
  `${sound.name}${sound.calls.length ? `, ${slotText(rig, sound)}` : ''}`;

/** @example controlText(rig, 'device:dly.on') // 'DLY on/off' */
export const controlText = (rig: Rig, control: Ref): string => {
  const { device, name } = splitRef(control);
  return `${partOf(rig, device)?.code ?? device} ${controlAt(rig, control)?.name ?? name}`;
};

/** @example knobText(rig, 'device:drv', 'gain') // 'DRV gain' */
export const knobText = (rig: Rig, device: Id<'device'> | undefined, knob: string): string =>
  device === undefined ? `the instrument's ${knob}` : `${partOf(rig, device)?.code ?? device} ${knob}`;

/**
 * What is taken for granted of a control, and how it comes up if its box wakes otherwise.
 * @example 'TUN mute off, on after power-up'
 */
export const grantedText = (rig: Rig, { control, value, wakes }: Granted): string =>
  `${controlText(rig, control)} ${valueText(rig, control, value)}${wakes === undefined ? '' : `, ${wakes === 'not known' ? 'not known' : valueText(rig, control, wakes)} after power-up`}`;

/** A value as the box shows it: programs by their display number, amounts with their unit. */
export const valueText = (rig: Rig, control: Ref, value: string | number): string => {
  const { device, name } = splitRef(control);
  const memory = memoryChosenBy(partOf(rig, device), name);
  if (memory && /^\d+$/.test(String(value))) return shown(memory.shows, Number(value));
  const domain = controlAt(rig, control)?.domain;
  return domain && 'min' in domain && domain.unit && value !== UNKNOWN && !Number.isNaN(Number(value))
    ? `${value} ${domain.unit}`
    : String(value);
};

const moveOn = (rig: Rig, device: Id<'device'>, name: string): string =>
  all(rig, 'move').find((m) => m.at.some((a) => a.device === device && a.switch === name))?.name ?? `switch ${name}`;

const SWITCHED = { stomp: 'Stomp', press: 'Press', release: 'Let go of' } as const;

/** What a player does, in words. */
export const stepText = (rig: Rig, step: Footstep): string => {
  switch (step.does) {
    case 'recall': {
      const whole = partOf(rig, step.sound);
      const sound = whole && step.in ? soundHere(rig, whole, step.in) : whole;
      const stomp = sound ? `${sound.calls.length ? 'Stomp' : 'Go to'} ${placeText(rig, sound)}` : step.sound;
      if (step.afterMs !== undefined) return `${stomp}, less than ${Math.ceil(step.afterMs)} ms later`;
      return step.loses
        ? `${stomp}; message ${step.loses.message + 1} of ${partOf(rig, step.loses.device)?.code ?? step.loses.device} is lost`
        : stomp;
    }
    case 'call': {
      const device = partOf(rig, step.device);
      const memory = memoryIn(device, step.memory);
      const holds = Object.entries(step.holds ?? {}).map(
        ([control, value]) => `${controlAt(rig, `${step.device}.${control}`)?.name ?? control} ${value}`,
      );
      return `Stomp ${memory ? shown(memory.shows, step.slot) : step.slot} on ${device?.name ?? step.device} only${holds.length ? `; nobody wrote down what it holds, it may be ${holds.join(', ')}` : ''}`;
    }
    case 'stomp':
    case 'press':
    case 'release':
      return `${SWITCHED[step.does]} ${moveOn(rig, step.device, step.switch)}${step.loses === undefined ? '' : `; message ${step.loses + 1} of ${partOf(rig, step.device)?.code ?? step.device} is lost`}`;
    case 'pedal':
      return pedalText(rig, step.device, step.jack, step.byte);
    case 'turn':
      return `Turn ${controlText(rig, step.control)}`;
    case 'row':
      return step.steps
        .filter((one, i) => one.does !== 'release' || i === step.steps.length - 1)
        .map((one, i) => (i ? lowerFirst(stepText(rig, one)) : stepText(rig, one)))
        .join(', then ');
    case 'foot':
      return `Step on ${partOf(rig, step.device)?.name ?? step.device} itself (${step.actuator})`;
    case 'power': {
      const wakes = Object.entries(step.wakes).map(
        ([control, value]) => `${controlAt(rig, theRef(control))?.name ?? splitRef(theRef(control)).name} ${value}`,
      );
      return `${partOf(rig, step.device)?.name ?? step.device} loses its power and comes on again${wakes.length ? `, with ${wakes.slice(0, 4).join(', ')}` : ''}`;
    }
  }
};

/** @example pedalText(rig, 'device:ctl', 'exp1', 127) // 'Move the pedal at CTL exp1 to its toe' */
export const pedalText = (rig: Rig, device: Id<'device'>, jack: string, byte: number): string =>
  `Move the pedal at ${partOf(rig, device)?.code ?? device} ${jack} to ${byte === 0 ? 'its heel' : byte === 127 ? 'its toe' : `${Math.round((byte * 100) / 127)} %`}`;

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

export interface SaidStep {
  /** Event of the system; absent for the power-up. */
  readonly event?: string;
  readonly text: string;
  /** It follows the one before so soon, settled or not. */
  readonly afterMs?: number;
  /** How the control in question stands after it. */
  readonly value: string;
}

/** What a player does from power-up to the recall, as one sentence. @example 'Power up, then Stomp 1A, then Stomp 1B' */
export const footstepsText = (rig: Rig, { steps }: Pick<Modelled, 'steps'>, { events }: Footsteps): string =>
  ['Power up', ...events.map((id) => stepText(rig, theEntry(steps, id)))].join(', then ');

/** Footsteps with what each does to the control that ends wrong. The first line is the power-up. */
export const sayFootsteps = (
  rig: Rig,
  modelled: Pick<Modelled, 'system' | 'steps'>,
  { powerUp, events }: Footsteps,
  control: Ref,
): readonly SaidStep[] => {
  let state = powerUp;
  const value = () => valueText(rig, control, state[control] ?? '');
  return [
    { text: 'Power up', value: value() },
    ...events.map((id): SaidStep => {
      state = afterEvent(
        theOne(modelled.system.events, (e) => e.id === id),
        state,
      );
      const step = theEntry(modelled.steps, id);
      return {
        event: id,
        text: stepText(rig, step),
        value: value(),
        ...(step.does === 'recall' && step.afterMs !== undefined ? { afterMs: step.afterMs } : {}),
      };
    }),
  ];
};

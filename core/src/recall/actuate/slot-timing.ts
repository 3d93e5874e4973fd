import type { Act, Message } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import { loadsBy, type Load } from '../../rig/midi-manners.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { BYTE_US } from '../../units/amounts.js';
import type { Bearings } from './bearings.js';
import type { ControlWiring } from '../../signal/control/reach.js';
import { listeners } from './listeners.js';
import { theItem } from '../../known/the.js';

/** A box that misses a message because it is loading. */
export interface Missed {
  readonly device: Id<'device'>;
  /** The act that tells it the first program; -1 when it is busy from before. */
  readonly first: number;
  /**
   * Absent: whatever was loaded before. Otherwise it depends on whether the box was loaded already with the first
   * program that it is told to load, and so does not load it again.
   */
  readonly depends?: Depends;
}

export interface Depends {
  readonly control: Ref;
  readonly number: number;
  /** Missed only if it was loaded with that program already, or only if it was not. */
  readonly only: 'loaded already' | 'not loaded yet';
}

export interface Timed {
  /** When the message has arrived, in µs after the slot was called. */
  readonly us: number;
  readonly missed: readonly Missed[];
}

/**
 * Bytes of a message on the wire. Source: MIDI 1.0 Detailed Specification; a bank needs two control changes before its
 * program change.
 */
export const bytesOf = (message: Message): number => {
  if ('bpm' in message) return 0;
  if ('cc' in message) return 3;
  return message.bank === undefined ? 2 : 8;
};

/** One box that loses messages, under one assumption about what it was loaded with. */
interface Ear {
  readonly loaded: Map<Memory, number>;
  deafUntil: number;
}

interface Receiver {
  /** What the first message made it load. */
  readonly memory: Memory;
  readonly number: number;
  readonly first: number;
  /** The box had another program loaded, or the first one already. */
  readonly fresh: Ear;
  readonly same: Ear | undefined;
}

/**
 * When each act of a slot has arrived that is a message, one after the other on its wire, in µs after the slot was
 * called.
 */
export const arrivals = (acts: readonly Act[]): readonly number[] => {
  const wires = new Map<string, number>();
  return acts.map((act) => {
    if (!('send' in act)) return 0;
    const us = (wires.get(act.at) ?? 0) + (act.afterMs ?? 0) * 1000 + bytesOf(act.send) * BYTE_US;
    wires.set(act.at, us);
    return us;
  });
};

/** A message of a slot that reaches a box. */
export interface Reaching {
  readonly place: number;
  readonly us: number;
  readonly message: Message;
}

/**
 * For each box the messages of a slot that it takes notice of.
 * @param lost the place of a message that takes its time on the wire and is heard by nobody
 */
export const reaching = (
  b: Pick<Bearings, 'rig' | 'control' | 'grounds'>,
  controller: Id<'device'>,
  acts: readonly Act[],
  lost?: number,
): ReadonlyMap<Device, readonly Reaching[]> => {
  const boxes = new Map<Device, Reaching[]>();
  const us = arrivals(acts);
  acts.forEach((act, place) => {
    if (!('send' in act) || 'bpm' in act.send || place === lost) return;
    for (const { device } of listeners(b, controller, act.at, act.send)) {
      const messages = boxes.get(device);
      const message = { place, us: theItem(us, place), message: act.send };
      if (messages) messages.push(message);
      else boxes.set(device, [message]);
    }
  });
  return boxes;
};

/**
 * What a box misses of the messages that reach it, by place. A box that does not keep messages while it loads misses
 * those that come before its load gap is over.
 * @param busyUntilUs it is still loading from before, and hears again at this moment after the slot was called
 */
export const missedBy = (
  device: Device,
  messages: readonly Reaching[],
  busyUntilUs = 0,
): ReadonlyMap<number, Missed> => {
  const missed = new Map<number, Missed>();
  let receiver: Receiver | undefined;
  for (const { place, us, message } of messages) {
    const loads = device.midi?.messages === 'lost' ? loadsBy(device, message).filter(takesTime) : [];
    if (receiver) {
      const miss = hears(device.id, receiver, us, loads);
      if (miss) missed.set(place, miss);
    } else if (us < busyUntilUs) missed.set(place, { device: device.id, first: -1 });
    else if (loads[0]) {
      const { memory, number } = loads[0];
      const ear = (deafUntil: number): Ear => ({ loaded: new Map(loads.map((l) => [l.memory, l.number])), deafUntil });
      receiver = {
        memory,
        number,
        first: place,
        fresh: ear(us + longestOf(loads) * 1000),
        same: memory.again === 'nothing' ? ear(us + longestOf(loads.slice(1)) * 1000) : undefined,
      };
    }
  }
  return missed;
};

/** When each message of a slot arrives and which boxes miss it. @param lost the place of a message that nobody hears */
export const slotTiming = (
  b: Pick<Bearings, 'rig' | 'control' | 'grounds'>,
  controller: Id<'device'>,
  acts: readonly Act[],
  lost?: number,
): readonly Timed[] => {
  if (lost !== undefined) return timed(b, controller, acts, lost);
  const known = keptIn(
    timings,
    b.control,
    () => new WeakMap<readonly Act[], { readonly controller: Id<'device'>; readonly timing: readonly Timed[] }>(),
  );
  const before = known.get(acts);
  if (before?.controller === controller) return before.timing;
  const timing = timed(b, controller, acts);
  known.set(acts, { controller, timing });
  return timing;
};

/** What hears a slot is made anew with the wiring. */
const timings = new WeakMap<
  ControlWiring,
  WeakMap<readonly Act[], { readonly controller: Id<'device'>; readonly timing: readonly Timed[] }>
>();

const timed = (
  b: Pick<Bearings, 'rig' | 'control' | 'grounds'>,
  controller: Id<'device'>,
  acts: readonly Act[],
  lost?: number,
): readonly Timed[] => {
  const misses = [...reaching(b, controller, acts, lost)]
    .map(([device, messages]) => missedBy(device, messages))
    .filter((missed) => missed.size > 0);
  return arrivals(acts).map((us, place) => ({ us, missed: misses.flatMap((missed) => missed.get(place) ?? []) }));
};

const takesTime = ({ memory }: Load): boolean => memory.gapMs > 0;
const longestOf = (loads: readonly Load[]): number => Math.max(0, ...loads.map(({ memory }) => memory.gapMs));

const hears = (
  device: Id<'device'>,
  { memory, first, number: told, fresh, same }: Receiver,
  us: number,
  loads: readonly Load[],
): Missed | undefined => {
  const isHeard = (ear: Ear): boolean => {
    if (us < ear.deafUntil) return false;
    for (const load of loads) {
      if (load.memory.again === 'nothing' && ear.loaded.get(load.memory) === load.number) continue;
      ear.loaded.set(load.memory, load.number);
      ear.deafUntil = Math.max(ear.deafUntil, us + load.memory.gapMs * 1000);
    }
    return true;
  };
  const [heardFresh, heardSame] = [isHeard(fresh), same && isHeard(same)];
  if (heardSame === undefined || heardFresh === heardSame) return heardFresh ? undefined : { device, first };
  return {
    device,
    first,
    depends: {
      control: ref(device, memory.control),
      number: told,
      only: heardFresh ? 'loaded already' : 'not loaded yet',
    },
  };
};

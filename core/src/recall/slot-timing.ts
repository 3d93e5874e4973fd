import type { Act, Message } from '../rig/act.js';
import type { Device, Memory } from '../rig/device.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { BYTE_US } from '../units/amounts.js';
import type { Bearings } from './bearings.js';
import { listeners } from './listeners.js';

/** A box that misses a message because it is loading. */
export interface Missed {
  readonly device: Id<'device'>;
  /** Absent: whatever was loaded before. Otherwise it depends on whether the box was loaded already with the first program that it is told to load, and so does not load it again. */
  readonly when?: Depends;
}

export interface Depends {
  /** The act that tells it the first program. */
  readonly first: number;
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

/** Bytes of a message on the wire. Source: MIDI 1.0 Detailed Specification; a bank needs two control changes before its program change. */
export const bytesOf = (message: Message): number => {
  if ('bpm' in message) return 0;
  if ('cc' in message) return 3;
  return message.bank === undefined ? 2 : 8;
};

/** One box that loses messages, under one assumption about what it was loaded with. */
interface Ear {
  loaded: number | undefined;
  deafUntil: number;
}

interface Receiver {
  readonly memory: Memory;
  readonly first: number;
  readonly number: number;
  /** The box had another program loaded, or the first one already. */
  readonly fresh: Ear;
  readonly same: Ear | undefined;
}

/**
 * When each message of a slot arrives, one after the other on its wire, and which boxes miss it. A box that does not keep messages while it loads misses those that
 * come before its load gap is over.
 */
export const slotTiming = (b: Pick<Bearings, 'rig' | 'control' | 'grounds'>, controller: Id<'device'>, acts: readonly Act[]): readonly Timed[] => {
  const wires = new Map<string, number>();
  const receivers = new Map<Id<'device'>, Receiver>();
  return acts.map((act, i): Timed => {
    if (!('send' in act)) return { us: 0, missed: [] };
    const us = (wires.get(act.at) ?? 0) + (act.afterMs ?? 0) * 1000 + bytesOf(act.send) * BYTE_US;
    wires.set(act.at, us);
    const number = 'pc' in act.send ? act.send.pc + 128 * (act.send.bank ?? 0) : undefined;
    const missed = listeners(b, controller, act.at, act.send).flatMap(({ device }): readonly Missed[] => {
      const known = receivers.get(device.id);
      if (known) return hears(device.id, known, us, number);
      const memory = number === undefined ? undefined : losing(device, number);
      if (memory) {
        const deafUntil = us + memory.gapMs * 1000;
        receivers.set(device.id, { memory, first: i, number: number!, fresh: { loaded: number, deafUntil }, same: memory.again === 'nothing' ? { loaded: number, deafUntil: 0 } : undefined });
      }
      return [];
    });
    return { us, missed };
  });
};

const hears = (device: Id<'device'>, { memory, first, number: told, fresh, same }: Receiver, us: number, number: number | undefined): readonly Missed[] => {
  const isHeard = (ear: Ear): boolean => {
    if (us < ear.deafUntil) return false;
    if (number !== undefined && number < memory.size && !(memory.again === 'nothing' && ear.loaded === number)) [ear.loaded, ear.deafUntil] = [number, us + memory.gapMs * 1000];
    return true;
  };
  const [heardFresh, heardSame] = [isHeard(fresh), same && isHeard(same)];
  if (heardSame === undefined || heardFresh === heardSame) return heardFresh ? [] : [{ device }];
  return [{ device, when: { first, control: ref(device, memory.control), number: told, only: heardFresh ? 'loaded already' : 'not loaded yet' } }];
};

/** The memory that a program change loads, in a box that is deaf meanwhile. */
const losing = (device: Device, number: number): Memory | undefined => {
  if (device.midi?.messages !== 'lost') return undefined;
  const memory = device.memories.find((m) => device.actuators.some((a) => 'midi' in a.by && a.by.midi === 'pc' && a.acts.some((act) => 'load' in act && act.load === m.id && act.slot === 'value')));
  return memory && number < memory.size && memory.gapMs > 0 ? memory : undefined;
};

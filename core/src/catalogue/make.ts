import { LONGEST } from '../rig/limits.js';
import type { Device } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { generic } from './boxes.js';

export interface GivenTraits {
  readonly code?: string;
  readonly name?: string;
  /** MIDI channel, 1–16. */
  readonly channel?: number;
}

/** A lead of several ways that is called by its length has it. @example lengthIn('15 m multicore') // 15 */
const lengthIn = (name: string): number | undefined => {
  const found = /^(\d+(?:[.,]\d+)?)\s*m(?:et(?:er|re)s?)?\s/i.exec(name)?.[1];
  return found === undefined ? undefined : Number(found.replace(',', '.'));
};

/** A device made from a catalogue entry. Throws when there is no such entry. */
export const makeDevice = (key: string, id: Id<'device'>, chosen: GivenTraits = {}): Device => {
  const { box } = generic(key);
  const isWire = box.chains.length > 0 && box.chains.every((c) => c.passive && c.slots.length === 0);
  const metres = isWire && chosen.name ? lengthIn(chosen.name) : undefined;
  return {
    kind: 'device',
    id,
    made: key,
    ...box,
    ...(chosen.code ? { code: chosen.code } : {}),
    ...(chosen.name ? { name: chosen.name } : {}),
    ...(metres ? { figures: { ...box.figures, metres } } : {}),
    ...(chosen.channel !== undefined && box.midi ? { midi: { ...box.midi, channel: chosen.channel } } : {}),
  };
};

/**
 * A code that no other box has: the usual one, else with a number behind it.
 * @example freeCode('DLY', ['DLY']) // 'DLY2'
 */
export const freeCode = (code: string, taken: readonly string[]): string => {
  if (!taken.includes(code)) return code;
  for (let n = 2; ; n += 1) {
    const letters = [...code];
    while (letters.join('').length + String(n).length > LONGEST.code) letters.pop();
    const next = `${letters.join('')}${n}`;
    if (!taken.includes(next)) return next;
  }
};

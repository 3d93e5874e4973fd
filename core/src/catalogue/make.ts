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

/** A device made from a catalogue entry. Throws when there is no such entry. */
export const makeDevice = (key: string, id: Id<'device'>, chosen: GivenTraits = {}): Device => {
  const { box } = generic(key);
  return {
    kind: 'device',
    id,
    made: key,
    ...box,
    ...(chosen.code ? { code: chosen.code } : {}),
    ...(chosen.name ? { name: chosen.name } : {}),
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

import { numbered } from './numbered.js';
import type { Generic } from './parts.js';
import { AMPS } from './shelves/amps.js';
import { CABINETS } from './shelves/cabinets.js';
import { CONTROL } from './shelves/control.js';
import { EFFECTS } from './shelves/effects.js';
import { GAIN } from './shelves/gain.js';
import { HANDS } from './shelves/hands.js';
import { LEADS } from './shelves/leads.js';
import { OUTPUTS } from './shelves/outputs.js';
import { SUPPLIES } from './shelves/supply.js';
import { SWITCHING } from './shelves/switching.js';

export interface CatalogueShelf {
  readonly name: string;
  readonly boxes: readonly Generic[];
}

/** The generic boxes by what they are for. Figures are typical values of the trade, marked as assumed. */
export const SHELVES: readonly CatalogueShelf[] = [
  { name: 'Instruments and microphones', boxes: HANDS },
  { name: 'Dynamics and gain', boxes: GAIN },
  { name: 'Effects and modellers', boxes: EFFECTS },
  { name: 'Switching, tuning, volume', boxes: SWITCHING },
  { name: 'MIDI and control', boxes: CONTROL },
  { name: 'Amps and cabinets', boxes: [...AMPS, ...CABINETS] },
  { name: 'Desk, DI, monitors', boxes: OUTPUTS },
  { name: 'Splits and leads', boxes: LEADS },
  { name: 'Supply', boxes: SUPPLIES },
];

/** Every box that the kit line knows. */
export const CATALOGUE: readonly Generic[] = SHELVES.flatMap((s) => s.boxes);

const byKey = new Map(CATALOGUE.map((g) => [g.key, g]));

/** @throws when there is no such box, neither on a shelf nor made for a number */
export const generic = (key: string): Generic => {
  const found = byKey.get(key) ?? numbered(key);
  if (!found) throw new Error(`The catalogue has no box "${key}".`);
  return found;
};

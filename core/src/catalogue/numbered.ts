import type { Generic } from './parts.js';
import { loopRack, switcher } from './switcher.js';
import { cabinet } from './shelves/cabinets.js';
import { desk } from './shelves/outputs.js';
import { contactPedal, thruBox } from './shelves/control.js';
import { supplyOf } from './shelves/supply.js';

/** A box of which there is one for each number of what is counted in it. */
interface Numbered {
  /** The key is this and the number: `switcher-7`. */
  readonly prefix: string;
  /** What is counted, as the kit line says it: `7 loop`. */
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly make: (key: string, n: number) => Generic;
}

/** From so many loops on, switchers usually let the order be stored (common practice). */
const ORDERS_FROM = 8;

const NUMBERED: readonly Numbered[] = [
  {
    prefix: 'switcher-',
    unit: 'loop',
    least: 2,
    most: 20,
    make: (key, loops) =>
      switcher({ key, says: [`Loop switcher with ${loops} loops`], loops, orders: loops >= ORDERS_FROM, midi: true }),
  },
  {
    prefix: 'loop-rack-',
    unit: 'loop',
    least: 2,
    most: 20,
    make: (key, loops) => loopRack(key, [`Rack of ${loops} loops, on MIDI`], loops),
  },
  {
    prefix: 'supply-',
    unit: 'output',
    least: 2,
    most: 24,
    make: (key, n) => supplyOf(key, [`Supply with ${n} outputs`], n),
  },
  {
    prefix: 'contact-',
    unit: 'button',
    least: 3,
    most: 12,
    make: (key, n) => contactPedal(key, [`Foot switch with ${n} contacts`], 'FSW', n),
  },
  {
    prefix: 'midi-thru-',
    unit: 'way',
    least: 2,
    most: 16,
    make: (key, n) => thruBox(key, [`MIDI thru box with ${n} ways`], n),
  },
  {
    prefix: 'desk-',
    unit: 'channel',
    least: 2,
    most: 64,
    make: (key, channels) => desk(key, [`Mixing desk with ${channels} channels`], channels),
  },
];

const INCHES = ['8', '10', '12', '15', '18'];
const CABINET = /^cab-(\d{1,2})x(\d{1,2})$/;
const KG_PER_SPEAKER = 9;
/** What each of its loudspeakers stands; assumed. */
const WATTS_PER_SPEAKER = 65;

const cabinetOf = (key: string): Generic | undefined => {
  const [, speakers = '', inches = ''] = CABINET.exec(key) ?? [];
  const n = Number(speakers);
  return INCHES.includes(inches) && n >= 1 && n <= 12
    ? cabinet(key, [`${n}×${inches} cabinet`], KG_PER_SPEAKER * n, WATTS_PER_SPEAKER * n)
    : undefined;
};

const made = new Map<string, Generic | undefined>();

/**
 * A box made for a number that no shelf has.
 * @example numbered('switcher-7')
 * @returns undefined when the key is of no such box, or the number is out of bounds
 */
export const numbered = (key: string): Generic | undefined => {
  if (made.has(key)) return made.get(key);
  const found = NUMBERED.map((one) => [one, new RegExp(`^${one.prefix}(\\d{1,2})$`).exec(key)] as const).find(
    ([{ least, most }, m]) => m && Number(m[1]) >= least && Number(m[1]) <= most,
  );
  const box = found ? found[0].make(key, Number(found[1]?.[1])) : cabinetOf(key);
  made.set(key, box);
  return box;
};

/**
 * The box that a number asks for, among boxes of a family.
 * @example numberedFor(['switcher-8', 'switcher-6'], '7 loop') // the loop switcher with seven loops
 */
export const numberedFor = (family: readonly string[], quality: string): Generic | undefined => {
  const cabinetSize = /^(\d+x\d+) speaker$/.exec(quality);
  if (cabinetSize) return family.some((key) => key.startsWith('cab-')) ? numbered(`cab-${cabinetSize[1]}`) : undefined;
  const [, n, unit] = /^(\d+) (\w+)$/.exec(quality) ?? [];
  const one = NUMBERED.find(
    ({ prefix, unit: counted }) => counted === unit && family.some((key) => key.startsWith(prefix.slice(0, -1))),
  );
  return one && numbered(`${one.prefix}${n}`);
};

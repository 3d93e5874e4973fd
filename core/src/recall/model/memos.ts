import { ref, type Id } from '../../rig/ids.js';
import type { Device } from '../../rig/device.js';
import { all } from '../../rig/rig.js';
import type { Bearings } from '../actuate/bearings.js';
import { UNKNOWN, type Domains } from './domains.js';
import { isThen, MAYBE, THEN_DOMAIN } from './guards.js';
import { usedBy, type SystemEvent, type Variable } from '../../prover/system.js';
import { isHolds, unwrittenOf } from './shelf.js';
import { theEntry } from '../../known/the.js';

/**
 * Remembers, within one slot, whether a box had the first program that it is told to load already. It is no control of
 * the box.
 */
export const earOf = (device: Id<'device'>): string => `ear:${device}`;
export const FRESH = 'fresh';
export const SAME = 'same';
export const EAR_DOMAIN: readonly string[] = [FRESH, SAME, MAYBE];

/** Boxes of which it can depend on what is loaded whether they miss a message. */
export const hasEar = (device: Device): boolean =>
  device.midi?.messages === 'lost' && device.memories.some((m) => m.again === 'nothing' && m.gapMs > 0);

/** The coarse and the fine byte of the bank that stands selected at a box. */
export const bankOf = (device: Id<'device'>): { readonly coarse: string; readonly fine: string } => ({
  coarse: `bank-coarse:${device}`,
  fine: `bank:${device}`,
});

/** By which of its loads a box is deaf right now, or by none. It is no control of the box. */
export const deafOf = (device: Id<'device'>): string => `deaf:${device}`;
export const HEARS = 'hears';
export const MOST_LOADS = 12;
export const DEAF_DOMAIN: readonly string[] = [
  HEARS,
  ...Array.from({ length: MOST_LOADS }, (_, i) => `${i + 1}`),
  MAYBE,
];

/** Stands in an event after which boxes tell each other what to do without end. It is no control of a box. */
export const ENDLESS = 'endless';

/**
 * What is no control of a box but has to be remembered: within one event, whether a box has to load, whether it hears,
 * whether something came about; and for good, which bank it is in.
 */
export const memos = (b: Bearings, domains: Domains, used: ReadonlySet<string>): readonly Variable[] => {
  const devices = all(b.rig, 'device');
  const ears = devices
    .filter(hasEar)
    .map((d) => ({ id: earOf(d.id), domain: EAR_DOMAIN, initial: EAR_DOMAIN.slice(0, 1) }));
  const deaf = devices
    .filter((d) => d.midi)
    .map((d) => ({ id: deafOf(d.id), domain: DEAF_DOMAIN, initial: DEAF_DOMAIN.slice(0, 1) }));
  const banks = devices.flatMap((d) => {
    const { coarse, fine } = domains.banks(d);
    const of = (id: string, numbers: readonly number[]): readonly Variable[] =>
      numbers.length > 1 ? [{ id, domain: [...numbers.map(String), MAYBE], initial: ['0'] }] : [];
    return [...of(bankOf(d.id).coarse, coarse), ...of(bankOf(d.id).fine, fine)];
  });
  const holds = [...used]
    .filter(isHolds)
    .sort()
    .map((id) => {
      const { device, control } = unwrittenOf(id);
      const known = theEntry(domains.of, ref(device, control)).filter((v) => v !== UNKNOWN);
      return { id, domain: known, initial: known };
    });
  return [
    ...ears,
    ...deaf,
    ...banks,
    ...holds,
    ...thenVariables(used),
    ...(used.has(ENDLESS) ? [{ id: ENDLESS, domain: ['no', 'yes'], initial: ['no'] }] : []),
  ];
};

/** What events remember within themselves. */
const thenVariables = (used: ReadonlySet<string>): readonly Variable[] =>
  [...used]
    .filter(isThen)
    .sort()
    .map((id) => ({ id, domain: THEN_DOMAIN, initial: THEN_DOMAIN.slice(0, 1) }));

/** What some events alone have to remember. */
export const memosIn = (b: Bearings, domains: Domains, events: readonly SystemEvent[]): readonly Variable[] => {
  const used = new Set<string>();
  for (const event of events) usedBy(event, (variable) => used.add(variable));
  return memos(b, domains, used);
};

import type { Block, Control, Slot } from './device.js';
import type { Value } from './value.js';

/** The stage blocks of a device, also those in arms of forks. */
export const blocksIn = (slots: readonly Slot[]): readonly Block[] =>
  slots.flatMap((s) => (s.is === 'block' ? [s] : s.is === 'fork' ? s.arms.flatMap((a) => blocksIn(a.slots)) : []));

/** A loudspeaker in its box, or what sounds like one. */
export const isCabinet = ({ stage }: Block): boolean => stage === 'cabinet' || stage === 'cabinet simulation';

export const blockIds = (slots: readonly Slot[]): readonly string[] => blocksIn(slots).map((b) => b.id);

export const inDomain = (control: Control, value: Value): boolean => {
  const { domain } = control;
  if ('values' in domain) return domain.values.some((v) => String(v) === String(value));
  if ('min' in domain) return typeof value === 'number' && value >= domain.min && value <= domain.max;
  const named = String(value)
    .split(/\s+/)
    .filter((word) => !['(', ')', '|', ''].includes(word));
  return named.every((word) => domain.arrange.includes(word)) && new Set(named).size === named.length;
};

export const domainText = (control: Control): string => {
  const { domain } = control;
  if ('values' in domain) return domain.values.slice(0, 12).join(', ') + (domain.values.length > 12 ? ' …' : '');
  if ('min' in domain) return `${domain.min} to ${domain.max}${domain.unit ? ` ${domain.unit}` : ''}`;
  return `an arrangement of ${domain.arrange.join(' ')}`;
};

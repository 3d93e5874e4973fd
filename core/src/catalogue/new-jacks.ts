import type { Control, Device, Jack } from '../rig/device.js';
import { freshName } from './inside-edits.js';
import { audioIn, audioOut, contactIn, contactOut, expressionIn, midiIn, midiOut, xlrIn, xlrOut } from './parts.js';

/** A jack that people add to a box, and how it is called there. */
interface NewJack {
  readonly says: string;
  readonly wish: string;
  readonly jack: (id: string) => Jack;
}

const named =
  (jack: Jack) =>
  (id: string): Jack => ({ ...jack, id });

/** What people add to a box, in the order in which they look for it. Figures are typical values, marked as assumed. */
export const NEW_JACKS = {
  input: { says: 'an input', wish: 'in', jack: (id) => audioIn(id) },
  output: { says: 'an output', wish: 'out', jack: (id) => audioOut(id) },
  'balanced input': { says: 'a balanced input', wish: 'xlr-in', jack: (id) => xlrIn(id) },
  'balanced output': { says: 'a balanced output', wish: 'xlr', jack: (id) => xlrOut(id) },
  'tuner output': { says: 'a tuner output', wish: 'tuner', jack: (id) => audioOut(id) },
  'contact output': { says: 'a contact that it closes', wish: 'ctl', jack: contactOut },
  'contact input': { says: 'a contact that switches it', wish: 'remote', jack: contactIn },
  'pedal input': { says: 'an input for a pedal', wish: 'exp', jack: (id) => expressionIn(id) },
  'MIDI input': { says: 'a MIDI input', wish: 'midi-in', jack: named(midiIn) },
  'MIDI output': { says: 'a MIDI output', wish: 'midi-out', jack: named(midiOut) },
} as const satisfies Record<string, NewJack>;
export type NewJackKind = keyof typeof NEW_JACKS;

/** A name that no jack and no control has: the first contact is `ctl1`, a second input `in-2`. */
const freeName = (device: Device, wish: string): string => {
  const taken = [...device.jacks.map((j) => j.id), ...device.controls.map((c) => c.id)];
  if (wish !== 'ctl') return freshName(taken, wish);
  let n = 1;
  while (taken.includes(`ctl${n}`)) n += 1;
  return `ctl${n}`;
};

/**
 * The box with one more jack. A contact that it closes comes with the control that closes it, held by its programs where
 * it has some.
 */
export const addJack = (device: Device, kind: NewJackKind): Device => {
  const { wish, jack } = NEW_JACKS[kind];
  const id = freeName(device, wish);
  const jacks = [...device.jacks, jack(id)];
  if (kind !== 'contact output') return { ...device, jacks };
  const holder = device.memories.find((m) => m.by === 'slot') ?? device.memories[0];
  const relay: Control = {
    id,
    name: id.replace(/^ctl(?=\d)/, 'contact '),
    domain: { values: ['open', 'closed'] },
    powerUp: holder ? 'loaded' : 'left',
    use: 'sound',
  };
  return {
    ...device,
    jacks,
    controls: [...device.controls, relay],
    memories: device.memories.map((m) => (m === holder ? { ...m, stores: [...m.stores, id] } : m)),
  };
};
